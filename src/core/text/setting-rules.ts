import { SOFT_HYPHEN } from './hyphenation.ts';
import { languages, type Language } from '../words/language.ts';

/**
 * What a setting of a text in lines costs: the rules of good breaks with their weights. They weigh size, rag and sense against each
 * other; a setting in two good lines at 80% of the size beats four ragged ones.
 *
 * Sources: Knuth and Plass, "Breaking Paragraphs into Lines" (1981), for choosing by one score over all lines; Bringhurst, "The
 * Elements of Typographic Style", 2.4 (no hanging small words, no parted names and numbers); W3C, CSS Text 4, `text-wrap: balance`
 * and `pretty`. The weights were tuned by eye on the shipped templates and are held by the corpus.
 */
export const settingWeights = {
  /** Times ln(largest size / size). */
  lostSize: 0.9,
  /** Times the mean over all lines but the last of (1 - width / widest)². */
  rag: 0.5,
  /** A line of one word that is much narrower than the widest, in a text of three words or more; the last line costs a little less. */
  loneWord: 0.3,
  loneLastWord: 0.3,
  /** A wider last word alone, under a line that could give it company. */
  wideLastWord: 0.1,
  /** An article, preposition or conjunction left at a line's end. */
  smallWord: 0.1,
  /** A line that ends with its sentence, or with a sign that ends a phrase. */
  sentenceEnd: -0.12,
  phraseEnd: -0.06,
  /** A line that opens with a small word opens a phrase. */
  phraseStart: -0.03,
  /** A number parted from what it counts, or a date. */
  partedNumber: 0.2,
  /** An emoji that opens a line stands apart from the words it belongs to. */
  emojiStart: 0.2,
  /** A name of several words parted. */
  partedName: 0.1,
  /** A word parted at a hyphen, typed or soft. */
  hyphen: 0.3,
  /** The same at the seam of a compound. */
  seamHyphen: 0.15,
  /** A line that is much shorter than both of its neighbours. */
  dent: 0.1,
  oneLine: -0.02,
} as const;

/** A line below this share of both its neighbours makes a dent. */
const DENT_SHARE = 0.72;

/** Articles, prepositions, conjunctions and pronouns that belong to the word behind them. */
const smallWords: Readonly<Record<Language, ReadonlySet<string>>> = {
  en: setOf('a an the of to in on at by for from with and or but nor as if is we i my our your his her their its no not into than that this'),
  de: setOf('der die das den dem des ein eine einen einem einer eines und oder aber zu zum zur in im an am auf aus bei mit von vom vor für um bis nach ist wir ich wie als ob nicht kein keine mein dein unser'),
  fr: setOf('le la les l un une de du des d et ou à au aux en dans par pour sur sous avec sans que qui ne pas mon ton son nos vos ce se'),
  es: setOf('el la los las un una de del y o u a al en con sin por para que se su tu mi es no lo más'),
  it: setOf('il lo la i gli le un uno una di del della dei e o a al alla in nel con per da dal su che si è non mio tuo suo'),
  nl: setOf('de het een van te ten ter in op aan bij met voor door uit om en of maar als is we ik je mijn ons niet geen naar'),
  pt: setOf('o a os as um uma de do da dos das e ou em no na com sem por para que se seu sua é não ao à'),
  pl: setOf('a i o u w z we ze do na od po za ku by bez dla nad pod przy ten ta to się nie czy lub oraz że'),
};
/** Where the language is not known, words that are small in one of them. */
const anySmallWord = new Set(languages.flatMap((each) => [...smallWords[each]]));

function setOf(words: string): ReadonlySet<string> {
  return new Set(words.split(' '));
}

const QUOTES_AND_BRACKETS = /^[“”„‟«»‹›‘’‚"'()[\]]+|(?<![“”„‟«»‹›‘’‚"'()[\]])[“”„‟«»‹›‘’‚"'()[\]]+$/gu;
const SENTENCE_END = /[.!?…]["”’»)\]]*$/u;
const PHRASE_END = /[,;:.!?…–—·]["”’»)\]]*$/u;
const NUMBER = /^[\p{Sc}№#]?\d[\d.,:/–-]*[.%]?$/u;
/** Signs and words that stand before their number. */
const BEFORE_NUMBER = /^(?:№|nr\.?|no\.?|n°|s\.|p\.|pp\.|page|seite|platz|tor|pier|gate|room|raum)$/iu;
const CAPITALISED = /^\p{Lu}\p{Ll}/u;
/** Endings that join a German word to the next: `Sicherheits-leine`. */
const COMPOUND_SEAM = /(?:heit|keit|ung|schaft|tion|tät|ling|tum)s\u00ad$/iu;
const TYPED_HYPHEN = /[-\u2010]$/u;

/** The words on both sides of a possible break. */
export interface BreakPlace {
  /** The word that would end the line, and the one that would open the next. */
  readonly before: string;
  readonly after: string;
  /** Whether `before` opens a sentence: its capital says nothing then. */
  readonly opensSentence: boolean;
  readonly language: Language | undefined;
  /** Whether words that are no names have capitals as well: German nouns, titles, all capitals. */
  readonly capitalsMeanNothing: boolean;
}

/** What a break in a place costs, whatever the widths; negative where it helps. */
export function breakCost({ before, after, opensSentence, language, capitalsMeanNothing }: BreakPlace): number {
  const weights = settingWeights;
  if (COMPOUND_SEAM.test(before)) return weights.seamHyphen;
  if (TYPED_HYPHEN.test(before) || before.endsWith(SOFT_HYPHEN)) return weights.hyphen;
  const small = language === undefined ? anySmallWord : smallWords[language];
  const [last, first] = [bare(before), bare(after)];
  if (/^\p{Extended_Pictographic}/u.test(after)) return weights.emojiStart;
  if (PHRASE_END.test(before) && !NUMBER.test(last) && !BEFORE_NUMBER.test(last)) return SENTENCE_END.test(before) ? weights.sentenceEnd : weights.phraseEnd;
  let cost = 0;
  if (small.has(last.toLowerCase())) cost += weights.smallWord;
  else if (small.has(first.toLowerCase())) cost += weights.phraseStart;
  if (NUMBER.test(last) || (NUMBER.test(first) && (BEFORE_NUMBER.test(last) || CAPITALISED.test(last)))) cost += weights.partedNumber;
  else if (!capitalsMeanNothing && !opensSentence && CAPITALISED.test(last) && CAPITALISED.test(first)) cost += weights.partedName;
  return cost;
}

function bare(word: string): string {
  return word.replace(QUOTES_AND_BRACKETS, '');
}

/** A word alone on its line looks quite lost below the first share of the widest line, and at home above the second. */
const [LOST_SHARE, HOME_SHARE] = [0.6, 0.82];

/**
 * What a line of a single word costs.
 * @param share its width as a share of the widest line
 * @param hasCompany whether the line above has words to give
 */
export function loneWordCost(share: number, isLast: boolean, hasCompany: boolean): number {
  const lost = Math.min(1, Math.max(0, (HOME_SHARE - share) / (HOME_SHARE - LOST_SHARE)));
  const cost = lost * (isLast ? settingWeights.loneLastWord : settingWeights.loneWord);
  return isLast && hasCompany ? Math.max(cost, settingWeights.wideLastWord) : cost;
}

/** One line of a setting, as far as its cost goes. */
export interface CostedLine {
  /** In any unit, the same for all lines. */
  readonly width: number;
  readonly words: number;
  /** Cost of the break behind it; 0 behind the last and behind one that somebody typed. */
  readonly breakCost: number;
}

/**
 * What it costs to be smaller than possible.
 * @param ratio largest possible size / size
 */
export function lostSizeCost(ratio: number): number {
  return settingWeights.lostSize * Math.log(Math.max(1, ratio));
}

/**
 * What a setting costs.
 * @param lostRatio largest possible size / size
 */
export function settingCost(lines: readonly CostedLine[], lostRatio: number): number {
  const weights = settingWeights;
  const lost = lostSizeCost(lostRatio);
  if (lines.length < 2) return lost + weights.oneLine;
  const widest = Math.max(...lines.map((line) => line.width));
  const words = lines.reduce((sum, line) => sum + line.words, 0);
  const shares = lines.map((line) => (widest === 0 ? 1 : line.width / widest));
  const rag = shares.slice(0, -1).reduce((sum, share) => sum + (1 - share) ** 2, 0) / (lines.length - 1);
  let cost = lost + weights.rag * rag;
  lines.forEach((line, index) => {
    const share = shares[index] ?? 1;
    const isLast = index === lines.length - 1;
    cost += line.breakCost;
    if (line.words === 1 && words >= 3) cost += loneWordCost(share, isLast, (lines[index - 1]?.words ?? 0) >= 3);
    const [above, below] = [shares[index - 1], shares[index + 1]];
    if (above !== undefined && below !== undefined && share < above * DENT_SHARE && share < below * DENT_SHARE) cost += weights.dent;
  });
  return cost;
}
