import { heldIn, knownNames } from './held.ts';
import type { LanguagePack } from './language-pack.ts';
import { plainer } from './wordy.ts';
import { sentencesOf } from '../words/sentences.ts';

/** Changes of how a text sounds, each a pipeline of small steps; none touches a held span. */

const escaped = (word: string): string => word.replace(/[’']/gu, '[’\']');

const CONTRACTIONS: readonly (readonly [string, string])[] = [
  ['can’t', 'cannot'],
  ['won’t', 'will not'],
  ['shan’t', 'shall not'],
  ['don’t', 'do not'],
  ['doesn’t', 'does not'],
  ['didn’t', 'did not'],
  ['isn’t', 'is not'],
  ['aren’t', 'are not'],
  ['wasn’t', 'was not'],
  ['weren’t', 'were not'],
  ['haven’t', 'have not'],
  ['hasn’t', 'has not'],
  ['hadn’t', 'had not'],
  ['wouldn’t', 'would not'],
  ['couldn’t', 'could not'],
  ['shouldn’t', 'should not'],
  ['it’s', 'it is'],
  ['that’s', 'that is'],
  ['there’s', 'there is'],
  ['here’s', 'here is'],
  ['what’s', 'what is'],
  ['who’s', 'who is'],
  ['let’s', 'let us'],
  ['i’m', 'I am'],
  ['you’re', 'you are'],
  ['we’re', 'we are'],
  ['they’re', 'they are'],
  ['i’ll', 'I will'],
  ['you’ll', 'you will'],
  ['we’ll', 'we will'],
  ['they’ll', 'they will'],
  ['i’ve', 'I have'],
  ['you’ve', 'you have'],
  ['we’ve', 'we have'],
  ['they’ve', 'they have'],
];
const CASUAL: readonly (readonly [string, string])[] = [
  ['kids', 'children'],
  ['hi', 'good day'],
  ['hey', 'good day'],
  ['thanks', 'thank you'],
  ['pop in', 'visit'],
  ['pop by', 'visit'],
  ['come along', 'attend'],
  ['loads of', 'many'],
  ['lots of', 'many'],
  ['a bunch of', 'several'],
  ['guys', 'all'],
  ['okay', 'very well'],
  ['yep', 'yes'],
  ['nope', 'no'],
  ['gonna', 'going to'],
  ['wanna', 'want to'],
  ['stuff', 'things'],
  ['grab', 'take'],
  ['super', 'very'],
];
const DULL: readonly (readonly [string, string])[] = [
  ['good', 'lovely'],
  ['nice', 'delightful'],
  ['big', 'splendid'],
  ['we are pleased', 'we are delighted'],
  ['you can', 'come and'],
  ['interesting', 'gripping'],
];

function replaced(text: string, pairs: readonly (readonly [string, string])[]): string {
  return pairs.reduce((current, [from, to]) => current.replace(new RegExp(`(?<![\\p{L}\\p{N}’'-])${escaped(from)}(?![\\p{L}\\p{N}’'-])`, 'giu'), (found) => (/^\p{Lu}/u.test(found) ? to.charAt(0).toUpperCase() + to.slice(1) : to)), text);
}

/** A change of the text between its held spans alone. */
function betweenHeld(text: string, pack: LanguagePack, change: (part: string) => string): string {
  let result = '';
  let from = 0;
  for (const { kind, start, end } of heldIn(text, pack, knownNames(text, pack))) {
    // A denial may change its form, and nothing else: don’t becomes do not.
    if (kind === 'negation') continue;
    result += change(text.slice(from, start)) + text.slice(start, end);
    from = end;
  }
  return result + change(text.slice(from));
}

const EMOJI = /(?:\p{Extended_Pictographic}|\p{Regional_Indicator}{2})[\ufe0f\u200d\p{Extended_Pictographic}\p{Emoji_Modifier}]*/gu;

/** No exclamation marks, no shouting, no emoji, nothing that only loudens. */
export function calmer(text: string, pack: LanguagePack): string {
  const quiet = betweenHeld(text, pack, (part) =>
    part
      .replace(EMOJI, '')
      .replace(/!+(?:\?|!)*/gu, '.')
      .replace(/(?<!\.)\.{2}(?!\.)/gu, '.')
      .replace(new RegExp(`(?<![\\p{L}’'-])(?:${pack.intensifiers.map(escaped).join('|')})\\s(?=\\p{Ll})`, 'giu'), ''),
  );
  return unshouted(quiet).replace(/ {2,}/gu, ' ').replace(/(?<! ) +([.,!?])/gu, '$1').replace(/(?<![ \t])[ \t]+$/gmu, '');
}

/** Words of four or more capitals in small letters, but for the first of a sentence. */
function unshouted(text: string): string {
  if (!/(?<!\p{Lu})\p{Lu}{4,30}\s\p{Lu}{2}/u.test(text)) return text;
  return text.replace(/(?<![\p{L}\p{N}#@])\p{Lu}{4,}(?![\p{L}\p{N}])/gu, (word: string, at: number) => (at === 0 || /[.!?\n]$/u.test(text.slice(0, at).trimEnd()) ? word.charAt(0) + word.slice(1).toLowerCase() : word.toLowerCase()));
}

/** Livelier words, and one exclamation mark where the text ends. */
export function brighter(text: string, pack: LanguagePack): string {
  const lively = pack.language === 'en' ? betweenHeld(text, pack, (part) => replaced(part, DULL)) : text;
  if (/!/u.test(lively)) return lively;
  const sentences = sentencesOf(lively, pack.language);
  const last = sentences.findLast((sentence) => /[\p{L}\p{N})]\.$/u.test(sentence.text) && !/https?:|\{[a-z-]+\}\.$|\.[a-z]{2,}\.$/u.test(sentence.text));
  if (!last) return lively;
  const end = last.start + last.text.length;
  return `${lively.slice(0, end - 1)}!${lively.slice(end)}`;
}

/** Full forms and the words of letters. */
export function moreFormal(text: string, pack: LanguagePack): string {
  const full = pack.language === 'en' ? betweenHeld(text, pack, (part) => replaced(replaced(part, CONTRACTIONS), CASUAL)) : text;
  return betweenHeld(full, pack, (part) => part.replace(EMOJI, '').replace(/!+/gu, '.')).replace(/ {2,}/gu, ' ').replace(/(?<! ) +([.,!?])/gu, '$1').trim();
}

/** Short words, and a sentence for each thought. */
export function plainly(text: string, pack: LanguagePack): string {
  const plain = betweenHeld(text, pack, (part) => plainer(part, pack.language));
  return plain.replace(/;\s+(\p{L})/gu, (_, letter: string) => `. ${letter.toUpperCase()}`);
}

/** A line for each sentence, with a dash before all but the first. */
export function asList(text: string, pack: LanguagePack): string | null {
  const sentences = sentencesOf(text, pack.language).map((sentence) => sentence.text);
  const isTag = (sentence: string): boolean => sentence.split(/\s+/u).every((word) => /^[#@]/u.test(word));
  const points = sentences.filter((sentence) => !isTag(sentence));
  if (points.length < 3) return null;
  const [lead = '', ...others] = points;
  const tags = sentences.filter(isTag);
  return [lead.replace(/[.!]$/u, ':'), ...others.map((point) => `– ${point.replace(/\.$/u, '')}`), ...(tags.length > 0 ? ['', tags.join(' ')] : [])].join('\n');
}
