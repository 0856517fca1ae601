/** A question with answers, open for some days. */
export interface Poll {
  readonly question: string;
  readonly options: readonly string[];
  readonly days: number;
}

/** One of the posts behind the first of a thread. */
export interface Part {
  readonly text: string;
  readonly media: readonly { readonly mediaId: string; readonly altText: string }[];
}

/** What a post says beside its text; each where there is one. */
export interface Details {
  readonly location?: string;
  readonly comments?: 'on' | 'off';
  readonly audience?: { readonly countries: readonly string[]; readonly fromAge: number | null; readonly languages: readonly string[] };
  readonly poll?: Poll;
  /** The posts that have come behind the first, in order. */
  readonly thread?: readonly Part[];
  readonly board?: string;
  readonly button?: string;
  readonly tags?: readonly string[];
  readonly visibility?: string;
  readonly playlist?: string;
  /** Of a site of one's own. */
  readonly categories?: readonly string[];
  readonly slug?: string;
}

/** What an account has to choose from. */
export interface Offers {
  readonly board?: readonly string[];
  readonly playlist?: readonly string[];
}

export const usualOffers: Readonly<Record<string, Offers>> = { tackboard: { board: ['Everything'] }, longhall: { playlist: ['First shelf'] } };

/** What a network lets a post say. A number is a longest length (of all tags together), a list what can be chosen. */
export interface DetailRules {
  readonly location?: number;
  readonly comments?: true;
  readonly audience?: true;
  readonly poll?: { readonly least: number; readonly most: number; readonly mostCharacters: number; readonly mostDays: number };
  readonly thread?: number;
  readonly board?: 'required';
  readonly button?: readonly string[];
  readonly tags?: number;
  readonly visibility?: readonly string[];
  readonly playlist?: true;
}

const names = ['location', 'comments', 'audience', 'poll', 'board', 'button', 'tags', 'visibility', 'playlist'] as const;

/** What of a request are details; null when one has the wrong form. */
export function readDetails(given: Readonly<Record<string, unknown>>): Details | null {
  const details: Record<string, unknown> = {};
  for (const name of names) if (given[name] !== undefined) details[name] = given[name];
  const isText = (value: unknown): boolean => value === undefined || typeof value === 'string';
  const isTexts = (value: unknown): boolean => value === undefined || (Array.isArray(value) && value.every((each) => typeof each === 'string'));
  const poll = details['poll'] as Partial<Poll> | undefined;
  const audience = details['audience'] as Partial<NonNullable<Details['audience']>> | undefined;
  const isFine =
    (['location', 'comments', 'board', 'button', 'visibility', 'playlist'] as const).every((name) => isText(details[name])) &&
    isTexts(details['tags']) &&
    (poll === undefined || (typeof poll.question === 'string' && isTexts(poll.options) && typeof poll.days === 'number')) &&
    (audience === undefined || (isTexts(audience.countries) && isTexts(audience.languages)));
  return isFine ? (details as Details) : null;
}

/** Why the details of a post are refused, or null. */
export function detailRefusal(rules: { readonly name: string; readonly details: DetailRules }, details: Details, offers: Offers, link: string): string | null {
  const { details: takes } = rules;
  const unknown = names.find((name) => details[name] !== undefined && takes[name] === undefined);
  if (unknown !== undefined) return `${rules.name} knows no ${unknown}.`;
  if (details.location !== undefined && details.location.length > (takes.location ?? 0)) return 'The location is too long.';
  if (details.comments !== undefined && !['on', 'off'].includes(details.comments)) return 'Comments are on or off.';
  if (takes.board === 'required' && details.board === undefined) return 'A post needs a board.';
  if (details.board !== undefined && !(offers.board ?? []).includes(details.board)) return `There is no board '${details.board}'.`;
  if (details.playlist !== undefined && !(offers.playlist ?? []).includes(details.playlist)) return `There is no playlist '${details.playlist}'.`;
  if (details.button !== undefined && !takes.button?.includes(details.button)) return `There is no button '${details.button}'.`;
  if (details.button !== undefined && details.button !== 'call' && link === '') return 'A button needs a link.';
  if (details.visibility !== undefined && !takes.visibility?.includes(details.visibility)) return `There is no visibility '${details.visibility}'.`;
  if (details.tags && details.tags.join('').length > (takes.tags ?? 0)) return `The tags have over ${takes.tags} characters in total.`;
  return details.poll && takes.poll ? pollRefusal(details.poll, takes.poll) : null;
}

function pollRefusal({ question, options, days }: Poll, rule: NonNullable<DetailRules['poll']>): string | null {
  if (question.trim() === '') return 'A poll needs a question.';
  if (options.length < rule.least || options.length > rule.most) return `A poll has ${rule.least} to ${rule.most} answers.`;
  if (options.some((option) => option.trim() === '' || [...option].length > rule.mostCharacters)) return `An answer has 1 to ${rule.mostCharacters} characters.`;
  return days >= 1 && days <= rule.mostDays ? null : `A poll is open for 1 to ${rule.mostDays} days.`;
}

export function isOffers(value: unknown): value is Offers {
  return typeof value === 'object' && value !== null && Object.values(value).every((list) => Array.isArray(list) && list.every((each) => typeof each === 'string' && each.length <= 100));
}
