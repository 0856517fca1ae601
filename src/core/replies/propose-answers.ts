import type { Fact } from '../brand/brand-book.ts';
import { fillFacts } from '../brand/facts.ts';
import type { Language } from '../words/language.ts';
import { sentencesOf } from '../words/sentences.ts';
import { unsupported } from '../write/held.ts';
import { packOf, type DeskLanguage, type LanguagePack } from '../write/language-pack.ts';
import type { Tone } from '../write/patterns/pattern.ts';
import { tonesOf } from '../write/tone-of.ts';
import { stemsOf } from '../write/tokens.ts';
import { shortLines, topics, type Gesture } from './answer-patterns.ts';

/** What an answer may be made from. */
export interface AnswerBrief {
  readonly language: Language;
  /** What was written last. */
  readonly said: string;
  /** How the brand says it sounds. */
  readonly tone: string;
  readonly facts: readonly Fact[];
  /** Saved answers and snippets, filled in. */
  readonly known: readonly { readonly name: string; readonly text: string }[];
  /** What the post says that it stands below. */
  readonly post: string;
  /** Another number begins with other lines. */
  readonly turn: number;
}

/** A short answer with what it was made of. */
export interface ProposedAnswer {
  readonly text: string;
  readonly used: string;
}

const MAX_ANSWERS = 3;
const MIN_SHARED = 2;

/** How many words before a word may turn it around. */
const TURN_REACH = 2;

/** What a message does: it asks, it thanks, it complains, or it just says something. What is turned around says the contrary: “not happy”, “no complaints”. */
export function gestureOf(said: string, language: DeskLanguage): Gesture {
  const { glad, cross, trouble, turning } = topics[language];
  const sentences = said.toLowerCase().replaceAll('’', "'").split(/[.!?;,\n]+/u);
  const found = { glad: false, cross: trouble.test(said) };
  for (const words of sentences.map((sentence) => sentence.match(/[\p{L}']+/gu) ?? [])) {
    for (const [index, word] of words.entries()) {
      const before = words.slice(Math.max(0, index - TURN_REACH), index).filter((each) => turning.includes(each));
      // Who is not cross is not glad by that. Who is not glad is cross, but for “no thanks” and “never been so happy”.
      if (cross.includes(word)) found.cross ||= before.length === 0;
      else if (glad.includes(word) && before.some((each) => !NEVER.has(each))) found.cross ||= !MANNERS.has(word);
      else if (glad.includes(word)) found.glad = true;
    }
  }
  if (found.cross) return 'cross';
  if (said.includes('?')) return 'asks';
  return found.glad || /[❤♥😍👏🎉😊]/u.test(said) ? 'glad' : 'says';
}

const NEVER: ReadonlySet<string> = new Set(['never', 'nie', 'jamais', 'nunca', 'hardly', 'kaum']);
/** Words of politeness: to decline with them is no complaint. */
const MANNERS: ReadonlySet<string> = new Set(['thanks', 'thank', 'danke', 'merci', 'gracias', 'obrigado', 'obrigada', 'best', 'liebe', 'love']);

/**
 * Short answers to a message, from the facts and words that the brand has: a fact that was asked for, a saved answer about the same thing, a sentence of the post;
 * else a line of thanks or of asking back, which claims nothing. In a language that the desk does not know there are none.
 */
export function proposeAnswers(brief: AnswerBrief): readonly ProposedAnswer[] {
  const pack = packOf(brief.language);
  if (!pack) return [];
  const gesture = gestureOf(brief.said, pack.language);
  const told = gesture === 'glad' ? [] : [...factsAskedFor(brief, pack), ...knownAbout(brief, pack)];
  const lines = linesFor(gesture === 'asks' && told.length > 0 ? 'says' : gesture, brief, pack);
  // Who asks wants to know; who is in trouble, or only says something, is answered first.
  const made = gesture === 'asks' ? [...told, ...lines] : [...lines.slice(0, told.length > 0 ? MAX_ANSWERS - 1 : MAX_ANSWERS), ...told];
  const sources = [brief.said, brief.post, ...brief.facts.map(({ name, text }) => `${name}: ${text}`), ...brief.known.map(({ text }) => text), ...lines.map(({ text }) => text)];
  const seen = new Set<string>();
  return made.filter(({ text }) => !seen.has(text) && seen.add(text) && unsupported(text, sources, pack).length === 0).slice(0, MAX_ANSWERS);
}

/** Facts whose name is spoken of, or whose subject is. */
function factsAskedFor({ said, facts }: AnswerBrief, { language }: LanguagePack): readonly ProposedAnswer[] {
  // A word right before a question mark has a sense of its own: “Habt ihr auf?”
  const words: readonly string[] = said.toLowerCase().match(/[\p{L}\p{N}]+\??/gu)?.flatMap((word) => (word.endsWith('?') ? [word, word.slice(0, -1)] : [word])) ?? [];
  const asked = topics[language].subjects.filter((subject) => subject.words.some((word) => words.includes(word)));
  const wanted = facts.filter(({ key, name, text }) => text.trim() !== '' && (asked.some(({ keys }) => keys.some((start) => key === start || key.startsWith(`${start}-`))) || name.toLowerCase().split(/\s+/u).some((part) => part.length > 3 && words.includes(part))));
  if (wanted.length === 0) return [];
  // One day's hours where a day is named; else what stands for it, without listing a week.
  const shown = wanted.length > 2 ? wanted.filter(({ name }) => name.toLowerCase().split(/\s+/u).some((part) => words.some((word) => word.length > 2 && part.startsWith(word)))) : wanted;
  return (shown.length > 0 ? shown : wanted.slice(0, 1)).slice(0, 2).map(({ name, text }) => ({ text: `${name}: ${text.trim()}${/[.!?]$/u.test(text.trim()) ? '' : '.'}`, used: `the fact ${name}` }));
}

/** A saved answer, a snippet or a sentence of the post that speaks of the same things. */
function knownAbout({ said, known, post, facts, language }: AnswerBrief, pack: LanguagePack): readonly ProposedAnswer[] {
  const wanted = new Set(stemsOf(said, pack));
  const candidates = [
    ...known.filter(({ text }) => !text.includes('[')).map(({ name, text }) => ({ text: fillFacts(text, facts).text, used: `“${name}”` })),
    ...sentencesOf(post, language).map(({ text }) => ({ text, used: 'a sentence of the post' })),
  ];
  return candidates
    .map((each) => ({ ...each, shared: new Set(stemsOf(each.text, pack).filter((stem) => wanted.has(stem))).size }))
    .filter(({ shared, text }) => shared >= MIN_SHARED || (shared === 1 && text.length < 90 && wanted.size <= 3))
    .toSorted((a, b) => b.shared - a.shared || a.text.length - b.text.length)
    .map(({ text, used }) => ({ text, used }));
}

function linesFor(gesture: Gesture, { tone, turn }: AnswerBrief, { language }: LanguagePack): readonly ProposedAnswer[] {
  const tones: readonly (Tone | 'any')[] = [...tonesOf(tone), 'any'];
  const lines = tones.flatMap((each) => shortLines[language][gesture][each] ?? []);
  const from = lines.length === 0 ? 0 : turn % lines.length;
  return [...lines.slice(from), ...lines.slice(0, from)].map((text) => ({ text, used: 'a line of the desk’s' }));
}
