import type { WordField } from '../network/network-sheet.ts';
import type { ChannelOffers } from '../network/channel-offers.ts';
import { readAudience } from '../words/audience.ts';
import { countGraphemes } from '../words/count-characters.ts';
import { fieldOf, isWebAddress } from '../words/fields.ts';
import { readPoll } from '../words/poll.ts';

/** What is wrong with the text of a field, in a sentence's second half: “The poll …”. Null where nothing is. An empty text is always fine here. */
export function fieldProblem(rule: WordField, text: string, offers: ChannelOffers = {}): string | null {
  const value = text.trim();
  if (value === '') return null;
  switch (fieldOf(rule.key).kind) {
    case 'link':
      return isWebAddress(value) ? null : 'is an incomplete web address: start it with https://';
    case 'choice':
      return choiceProblem(rule, value, offers);
    case 'flag':
      return value === 'on' || value === 'off' ? null : 'is either on or off';
    case 'slug':
      return /^[\p{Ll}\p{N}]+(?:-[\p{Ll}\p{N}]+)*$/u.test(value) ? null : 'has small letters, digits and single hyphens alone';
    case 'audience':
      return readAudience(value) ? null : 'cannot be read: write “countries: GB, IE; age: 18+; languages: en”';
    case 'poll':
      return pollProblem(rule, value);
    default:
      return null;
  }
}

function choiceProblem(rule: WordField, value: string, offers: ChannelOffers): string | null {
  if (rule.options) return rule.options.some(({ key }) => key === value) ? null : `is none of ${rule.options.map(({ name }) => name).join(', ')}`;
  const offered = offers[rule.key] ?? [];
  return offered.length === 0 || offered.includes(value) ? null : `is none of the account’s: ${offered.join(', ')}`;
}

function pollProblem({ poll: rule }: WordField, text: string): string | null {
  const poll = readPoll(text);
  if (!poll || !rule) return null;
  if (poll.question === '') return 'has no question';
  if (poll.options.length < rule.minOptions) return `needs ${rule.minOptions} answers or more`;
  if (poll.options.length > rule.maxOptions) return `has ${poll.options.length} answers; ${rule.maxOptions} are taken`;
  const long = poll.options.find((option) => countGraphemes(option) > rule.maxOption);
  if (long !== undefined) return `has an answer of over ${rule.maxOption} characters: “${long}”`;
  if (new Set(poll.options.map((option) => option.toLowerCase())).size < poll.options.length) return 'has the same answer twice';
  return poll.days < 1 || poll.days > rule.maxDays ? `is open for ${poll.days} days; ${rule.maxDays} are the most` : null;
}
