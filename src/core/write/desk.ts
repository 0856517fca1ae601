import type { Fact, Voice } from '../brand/brand-book.ts';
import { avoidedWords, replaceAvoided } from '../brand/voice.ts';
import { countCharacters, type Counting } from '../words/count-characters.ts';
import type { DeskAsk } from '../words/desk-asks.ts';
import type { Language } from '../words/language.ts';
import { sentencesOf } from '../words/sentences.ts';
import { pluralWhereCounted, withArticle } from './english-tagger.ts';
import { heldIn, missingHeld, unsupported, type Held } from './held.ts';
import { keyPhrases } from './key-phrases.ts';
import { packOf, type LanguagePack } from './language-pack.ts';
import { bridges } from './patterns/bridges.ts';
import { calls } from './patterns/calls.ts';
import { openings } from './patterns/openings.ts';
import type { Pattern, Tone } from './patterns/pattern.ts';
import { chooseSentences, rankSentences, type Ranked, type Sentence } from './rank.ts';
import { asList, brighter, calmer, moreFormal, plainly } from './rewrites.ts';
import { shorten } from './shorten.ts';
import { countsOf, sharedTrigrams, stemsOf, tokensOf } from './tokens.ts';
import { tonesOf } from './tone-of.ts';

/** A text that may be used, with what people call it. */
export interface DeskSource {
  readonly name: string;
  readonly text: string;
}

export interface DeskBrief {
  readonly language: Language;
  readonly voice: Pick<Voice, 'tone' | 'words' | 'emoji'>;
  readonly ask: DeskAsk;
  /** What is rewritten; a draft leaves it aside. */
  readonly text: string;
  readonly topic: string;
  readonly sources: readonly DeskSource[];
  readonly facts: readonly Fact[];
  /** The brand's last posts: a version does not sound like them. */
  readonly recent: readonly string[];
  /** About so many words; null: as many as it takes. */
  readonly words: number | null;
  /** What the network takes; null: no limit. */
  readonly limit: { readonly max: number; readonly counting: Counting } | null;
  /** How many versions, from 1 to 5. */
  readonly versions: number;
  readonly hashtags: readonly string[];
  /** Emoji that suit the text, the best first; none: no emoji are wanted. */
  readonly emoji: readonly string[];
  /** Another number begins with other patterns: “another” asks with the next one. */
  readonly turn: number;
}

/** A version with what it was made of and what it leaves out. */
export interface DeskVersion {
  readonly text: string;
  /** “sentence 1 of article”, “fact Workshop”, “opening”. */
  readonly used: readonly string[];
  readonly leftOut: readonly string[];
  /** Spans that no source has. The local desk shows no version that has one; a version of others may. */
  readonly marked: readonly Pick<Held, 'kind' | 'text'>[];
  /** It is no longer than asked. */
  readonly fits: boolean;
}

export interface DeskAnswer {
  readonly versions: readonly DeskVersion[];
  /** Why there are fewer than asked, or what the desk cannot do in this language; empty where all is well. */
  readonly note: string;
}

const USUAL_WORDS = 45;
const MAX_SHARED = 1 / 3;
/** Shares of a text that the versions of “shorter” aim at. */
const SHORTER = [0.8, 0.65, 0.5, 0.4, 0.3] as const;

/** Versions of a text, each made from the sources alone and held against them. */
export function writeVersions(brief: DeskBrief): DeskAnswer {
  const pack = packOf(brief.language);
  if (!pack) return quoted(brief);
  const made = brief.ask === 'draft' ? drafts(brief, pack) : rewritten(brief, pack);
  const checked = made.flatMap((version) => finished(version, brief, pack));
  const seen = new Set<string>(brief.ask === 'draft' ? [] : [brief.text.trim()]);
  const versions = checked.filter(({ text }) => !seen.has(text) && seen.add(text)).slice(0, brief.versions);
  return { versions, note: noteOf(brief, pack, versions) };
}

function noteOf(brief: DeskBrief, pack: LanguagePack, versions: readonly DeskVersion[]): string {
  if (versions.length === 0) {
    if (brief.ask === 'draft') return 'There is nothing to draft from yet. Fill in the piece, give a topic, or add an article.';
    if (brief.ask === 'shorter') return 'Nothing more can go without losing a number, a date, a name, a link or a denial.';
    return 'This text has nothing to change that way.';
  }
  if (pack.language !== 'en' && brief.ask === 'draft') return 'In this language the desk selects sentences and shortens them; it writes none of its own.';
  return versions.every(({ fits }) => fits) ? '' : 'Some versions are still longer than asked: what is left in them are facts.';
}

/** Checks a text that somebody else wrote against its sources: what they do not hold is marked. */
export function checkVersion(text: string, brief: Pick<DeskBrief, 'language' | 'sources' | 'facts' | 'topic' | 'text'>): readonly Held[] {
  const pack = packOf(brief.language) ?? packOf('en');
  return pack ? unsupported(text, sourcesOf(brief), pack) : [];
}

function sourcesOf({ sources, facts, topic, text }: Pick<DeskBrief, 'sources' | 'facts' | 'topic' | 'text'>): readonly string[] {
  return [text, topic, ...sources.map((source) => source.text), ...facts.map((fact) => `${fact.name}: ${fact.text}`)];
}

/** A version before it is finished: its body, and its frame around it. */
interface Made {
  readonly text: string;
  readonly used: readonly string[];
  readonly leftOut: readonly string[];
}

/** Puts hashtags and emoji behind a version, replaces words to avoid, and drops what fails the check. */
function finished(made: Made, brief: DeskBrief, pack: LanguagePack): readonly DeskVersion[] {
  let text = made.text.trim();
  const { voice } = brief;
  for (const { word, prefer } of avoidedWords(text, voice)) {
    // A word without a better one cannot be said: what has it is not shown.
    if (prefer === '') return [];
    text = replaceAvoided(text, word, prefer);
  }
  const [emoji] = brief.emoji;
  const isQuiet = brief.ask === 'calmer' || brief.ask === 'formal' || brief.voice.emoji === 'none';
  if (emoji !== undefined && !isQuiet && !text.includes(emoji)) text = `${text} ${emoji}`;
  const tags = brief.hashtags.filter((tag) => !text.toLowerCase().includes(tag.toLowerCase()));
  if (tags.length > 0) text = `${text}\n\n${tags.join(' ')}`;
  const marked = unsupported(text, sourcesOf(brief), pack);
  if (marked.length > 0) return [];
  if (brief.ask !== 'draft' && missingHeld(brief.text, text, pack).some(({ kind }) => kind !== 'negation')) return [];
  return [{ text, used: made.used, leftOut: made.leftOut, marked: [], fits: fitsIn(text, brief) }];
}

function fitsIn(text: string, { limit }: Pick<DeskBrief, 'limit'>): boolean {
  return limit === null || countCharacters(text, limit.counting) <= limit.max;
}

const wordCount = (text: string): number => tokensOf(text).length;

// Drafts

/** How the versions of a draft differ: which frame each has. */
const plans: readonly { readonly opening: 'none' | 'pattern' | 'question'; readonly form: 'text' | 'list'; readonly share: number }[] = [
  { opening: 'none', form: 'text', share: 1 },
  { opening: 'question', form: 'text', share: 0.9 },
  { opening: 'pattern', form: 'list', share: 1 },
  { opening: 'pattern', form: 'text', share: 0.7 },
  { opening: 'none', form: 'text', share: 0.5 },
];

function drafts(brief: DeskBrief, pack: LanguagePack): readonly Made[] {
  const sentences = usableSentences(brief, pack);
  if (sentences.length === 0) return [];
  const ranked = rankSentences(sentences, pack, brief.topic, (text) => heldIn(text, pack).length);
  const target = brief.words ?? USUAL_WORDS;
  const isFramed = pack.language === 'en';
  const frame = framesOf(brief, pack, ranked);
  return [...plans, ...plans].map((plan, index): Made => {
    const variant = index + brief.turn * plans.length;
    // Another version begins with another sentence: those that led before count less.
    const order = ranked.map((sentence) => ({ ...sentence, score: sentence.score * (index === 0 ? 1 : 0.55 + 0.45 * pseudo(sentence.index + variant * 31)) }));
    const budget = Math.max(6, target * plan.share);
    const chosen = chooseSentences(order, (list) => list.reduce((sum, { text }) => sum + wordCount(text), 0) <= budget);
    const body = chosen.length > 0 ? chosen : order.toSorted((a, b) => b.score - a.score).slice(0, 1);
    const opening = isFramed && plan.opening !== 'none' ? frame.opening(variant, plan.opening === 'question') : null;
    const call = isFramed ? frame.call(variant) : null;
    const texts = body.map(({ text }) => ended(text));
    const bridge = plan.form === 'list' && isFramed && texts.length > 2 ? frame.bridge(variant) : null;
    const lines = plan.form === 'list' && texts.length > 2 ? [...texts.slice(0, 1), ...(bridge ? [bridge] : []), ...texts.slice(1).map((text) => `– ${text.replace(/\.$/u, '')}`)].join('\n') : texts.join(' ');
    const whole = [opening, lines, call].filter((part) => part !== null).join(opening !== null && plan.form === 'text' ? ' ' : '\n\n').replace(/ (?=[^ ]*$)/u, ' ');
    const long = brief.limit !== null && !fitsIn(whole, brief) ? shorten(whole, pack, (text) => fitsIn(text, brief)).text : whole;
    return {
      text: long,
      used: [...usedIn(body), ...(opening === null ? [] : ['an opening of the desk’s']), ...(call === null ? [] : [`a call of the desk’s${factsIn(call)}`])],
      leftOut: ranked.filter((sentence) => !body.some(({ index: at }) => at === sentence.index)).map(({ text }) => text).slice(0, 12),
    };
  });
}

/** Sentences of the sources that can stand in a post: no headings, no fragments, nothing that the brand avoids without a better word. */
function usableSentences(brief: DeskBrief, pack: LanguagePack): readonly Sentence[] {
  const { voice } = brief;
  const seen = new Set<string>();
  return brief.sources.flatMap(({ name, text }) =>
    sentencesOf(text, pack.language)
      .map((sentence, index): Sentence => ({ text: sentence.text.replace(/^[-–•*]\s*/u, ''), source: name, place: index + 1 }))
      .filter((sentence) => {
        const key = sentence.text.toLowerCase().replace(/(?<![.!?…])[.!?…]+$/u, '');
        const isNew = !seen.has(key);
        seen.add(key);
        const words = wordCount(sentence.text);
        return isNew && words >= 3 && words <= 45 && pack.hasVerb(sentence.text) && avoidedWords(sentence.text, voice).every(({ prefer }) => prefer !== '');
      }),
  );
}

function usedIn(body: readonly Ranked[]): readonly string[] {
  const bySource = new Map<string, number[]>();
  for (const { source, place } of body) bySource.set(source, [...(bySource.get(source) ?? []), place]);
  return [...bySource].map(([source, places]) => `${places.length === 1 ? 'sentence' : 'sentences'} ${places.join(', ')} of ${source}`);
}

function factsIn(call: string): string {
  const keys = [...call.matchAll(/\{([a-z][a-z0-9-]*)\}/gu)].map((match) => match[1] ?? '');
  return keys.length === 0 ? '' : ` with the fact ${keys.join(', ')}`;
}

function ended(text: string): string {
  return /[.!?…:]["”»’)]*$/u.test(text) ? text : `${text}.`;
}

// Frames

interface Frames {
  readonly opening: (variant: number, asks: boolean) => string | null;
  readonly bridge: (variant: number) => string | null;
  readonly call: (variant: number) => string | null;
}

/** Patterns of the brand's tones that can be filled and that do not sound like its last posts. */
function framesOf(brief: DeskBrief, pack: LanguagePack, ranked: readonly Ranked[]): Frames {
  const thing = thingOf(brief, pack, ranked);
  const tones = tonesOf(brief.voice.tone);
  const facts = new Set(brief.facts.filter(({ text }) => text.trim() !== '').map(({ key }) => key));
  const { voice } = brief;
  const fill = ({ text }: Pattern): string | null => {
    if (/\{(?:[Tt]|the t)hing\}/u.test(text) && thing === null) return null;
    const filled = text.replaceAll('{the thing}', withArticle(thing ?? '')).replaceAll('{thing}', thing ?? '').replaceAll('{Thing}', capital(thing ?? ''));
    const isThere = [...filled.matchAll(/\{([a-z][a-z0-9-]*)\}/gu)].every((match) => facts.has(match[1] ?? ''));
    return isThere && avoidedWords(filled, voice).length === 0 ? filled : null;
  };
  const pick = (all: readonly Pattern[], variant: number, wanted: (pattern: Pattern) => boolean): string | null => {
    const sorted = all.filter(wanted).map((pattern, index) => ({ pattern, order: tones.indexOf(pattern.tone as Tone) === -1 ? 9 : tones.indexOf(pattern.tone as Tone), turn: pseudo(index * 17 + variant) }));
    for (const { pattern } of sorted.toSorted((a, b) => a.order - b.order || a.turn - b.turn)) {
      const filled = fill(pattern);
      if (filled !== null && brief.recent.every((post) => sharedTrigrams(filled, post) <= MAX_SHARED)) return filled;
    }
    return null;
  };
  return {
    opening: (variant, asks) => pick(openings, variant, (pattern) => (pattern.asks ?? false) === asks),
    bridge: (variant) => pick(bridges, variant, () => true),
    call: (variant) => pick(calls, variant, (pattern) => variant % 3 !== 1 || pattern.asks === true),
  };
}

/** What the post is about, as a phrase of nouns that can follow “about”: the topic, else the phrase that says most. */
function thingOf({ topic, sources }: DeskBrief, pack: LanguagePack, ranked: readonly Ranked[]): string | null {
  const short = topic.trim().replace(/(?<![.!?])[.!?]+$/u, '');
  if (short !== '' && wordCount(short) <= 4 && !pack.hasVerb(short)) return short;
  const all = [topic, ...sources.map(({ text }) => text)].join('\n');
  const counts = countsOf(stemsOf(all, pack));
  const isName = (text: string): boolean => heldIn(`the ${text}`, pack).length > 0;
  const headCount = (text: string): number => counts.get(pack.stem(tokensOf(text).at(-1)?.text ?? '')) ?? 0;
  const small = all.toLowerCase();
  // A capital at the start of a sentence makes no name of a word that stands in small letters elsewhere.
  const phrases = keyPhrases(all, pack).map((phrase) => (all.includes(phrase.text.toLowerCase()) ? { ...phrase, text: phrase.text.toLowerCase() } : phrase)).filter(({ text }) => !isName(text) && !/^(?:own|last|next|first|same|other|new)\s/iu.test(text));
  const most = Math.max(0, ...phrases.map(({ text }) => headCount(text)));
  // What is spoken of most leads; of its phrases the one that says more, and of two things the one that comes first.
  const best = phrases.filter(({ text }) => headCount(text) === most).toSorted((a, b) => wordCount(b.text) - wordCount(a.text) || small.indexOf(a.text.toLowerCase()) - small.indexOf(b.text.toLowerCase()))[0];
  if (!best || (most < 2 && ranked.length > 3)) return null;
  return pluralWhereCounted(best.text.toLowerCase(), all);
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** A number from 0 to 1 that is the same for the same seed. */
function pseudo(seed: number): number {
  const value = Math.sin((seed + 1) * 12.9898) * 43_758.5453;
  return value - Math.floor(value);
}

// Rewrites

function rewritten(brief: DeskBrief, pack: LanguagePack): readonly Made[] {
  const { ask, text } = brief;
  const made = (changed: string | null, used: string, leftOut: readonly string[] = []): readonly Made[] => (changed === null || changed.trim() === text.trim() ? [] : [{ text: changed, used: [used], leftOut }]);
  switch (ask) {
    case 'shorter':
      return shorterVersions(brief, pack);
    case 'longer':
      return longerVersions(brief, pack);
    case 'opening':
    case 'question':
      return openedVersions(brief, pack, ask === 'question');
    case 'list':
      return made(asList(text, pack), 'the text, a line a sentence');
    case 'calmer':
      return made(calmer(text, pack), 'the text without what is loud');
    case 'brighter':
      return made(brighter(text, pack), 'the text in livelier words');
    case 'formal':
      return made(moreFormal(text, pack), 'the text in full forms');
    case 'plainer':
      return made(plainly(text, pack), 'the text in plainer words');
    case 'draft':
      return [];
  }
}

function shorterVersions({ text, limit, words }: DeskBrief, pack: LanguagePack): readonly Made[] {
  const total = wordCount(text);
  const aims: readonly ((text: string) => boolean)[] = [
    ...(limit !== null && countCharacters(text, limit.counting) > limit.max ? [(part: string) => countCharacters(part, limit.counting) <= limit.max] : []),
    ...(words !== null ? [(part: string) => wordCount(part) <= words] : []),
    ...SHORTER.map((share) => (part: string) => wordCount(part) <= total * share),
  ];
  return aims.map((fits): Made => {
    const { text: short, taken } = shorten(text, pack, fits);
    return { text: short, used: ['the text'], leftOut: taken.map((each) => each.text) };
  });
}

function longerVersions(brief: DeskBrief, pack: LanguagePack): readonly Made[] {
  const there = brief.text.toLowerCase();
  const more = usableSentences(brief, pack).filter((sentence) => !there.includes(sentence.text.toLowerCase().replace(/[.!?]$/u, '')));
  const ranked = rankSentences(more, pack, `${brief.topic} ${brief.text}`, (text) => heldIn(text, pack).length).toSorted((a, b) => b.score - a.score);
  const frame = framesOf(brief, pack, ranked);
  return Array.from({ length: Math.min(5, Math.max(1, ranked.length)) }, (_, index): Made => {
    const added = ranked.slice(index === 0 ? 0 : index, index + 2);
    const call = pack.language === 'en' && added.length === 0 ? frame.call(index + brief.turn) : null;
    const { body, tags } = withoutTags(brief.text);
    return { text: [[body, ...added.map(({ text }) => ended(text)), call].filter((part) => part !== null).join(' '), tags].filter((part) => part !== '').join('\n\n'), used: ['the text', ...usedIn(added), ...(call === null ? [] : ['a call of the desk’s'])], leftOut: [] };
  });
}

/** Other openings: a pattern before the first sentence, or in the place of one that says nothing held. */
function openedVersions(brief: DeskBrief, pack: LanguagePack, asks: boolean): readonly Made[] {
  if (pack.language !== 'en') return [];
  const ranked = rankSentences(sentencesOf(brief.text, pack.language).map((sentence, index) => ({ text: sentence.text, source: 'the text', place: index + 1 })), pack, brief.topic, () => 0);
  const frame = framesOf({ ...brief, sources: [{ name: 'the text', text: brief.text }, ...brief.sources] }, pack, ranked);
  const [first] = sentencesOf(brief.text, pack.language);
  const isFree = first !== undefined && ranked.length > 2 && wordCount(first.text) <= 8 && heldIn(first.text, pack).length === 0;
  return Array.from({ length: 5 }, (_, index): Made | null => {
    const opening = frame.opening(index + brief.turn * 5, asks || index % 2 === 1);
    if (opening === null) return null;
    const rest = isFree ? brief.text.slice(first.start + first.text.length).trimStart() : brief.text;
    return { text: `${opening} ${rest}`, used: ['the text', 'an opening of the desk’s'], leftOut: isFree ? [first.text] : [] };
  }).filter((each) => each !== null);
}

/** A text and the hashtags at its end, apart. */
function withoutTags(text: string): { readonly body: string; readonly tags: string } {
  const words = text.trimEnd().split(/(?<=\S)(?=\s)/u);
  const last = words.findLastIndex((word) => !word.trim().startsWith('#'));
  return { body: words.slice(0, last + 1).join(''), tags: words.slice(last + 1).map((word) => word.trim()).join(' ') };
}

// Other languages

/** In a language that the desk does not know it quotes: sentences as they stand, from the beginning. */
function quoted(brief: DeskBrief): DeskAnswer {
  const note = 'The desk does not know this language. It quotes sentences as they stand.';
  if (brief.ask !== 'draft' && brief.ask !== 'shorter') return { versions: [], note };
  const texts = brief.ask === 'draft' ? brief.sources : [{ name: 'the text', text: brief.text }];
  const sentences = texts.flatMap(({ name, text }) => sentencesOf(text, brief.language).map((sentence, index): Sentence => ({ text: sentence.text, source: name, place: index + 1 })));
  const versions: DeskVersion[] = [];
  for (const count of [3, 2, 1, 4, 5].slice(0, brief.versions)) {
    const body = sentences.slice(0, count);
    const text = body.map((sentence) => ended(sentence.text)).join(' ');
    if (body.length === count && !versions.some((version) => version.text === text)) versions.push({ text, used: [`the first ${count} ${count === 1 ? 'sentence' : 'sentences'} of ${body[0]?.source ?? ''}`], leftOut: sentences.slice(count).map((sentence) => sentence.text), marked: [], fits: fitsIn(text, brief) });
  }
  return { versions, note };
}
