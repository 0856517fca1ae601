import type { DeskLanguage, LanguagePack } from '../../write/language-pack.ts';
import { heldIn } from '../../write/held.ts';
import { rankSentences, type Ranked } from '../../write/rank.ts';
import { tokensOf } from '../../write/tokens.ts';
import { sentencesOfArticle, type Article, type ArticleSentence } from './article.ts';

/** A text that is taken from a source, with the sentence that it is or was shortened from. */
export interface Taken {
  readonly text: string;
  /** Number of the sentence in its source; 0: a heading or title. */
  readonly sentence: number;
  readonly original: string;
}

/**
 * What a part of a text is made of, by which a template is chosen: items, a figure that matters, somebody's words, a day, a price, a change from
 * before to after, or something to announce.
 */
export type Finding = { readonly key: string; readonly score: number; /** Sentences that the caption may be drawn from, the best first. */ readonly around: readonly ArticleSentence[]; readonly section: number } & (
  | { readonly form: 'list'; readonly title: Taken; readonly points: readonly { readonly heading: Taken; readonly text: Taken | null }[] }
  | { readonly form: 'number'; readonly number: Taken; readonly about: Taken }
  | { readonly form: 'quote'; readonly quote: Taken; readonly who: Taken | null }
  | { readonly form: 'date'; readonly day: Taken; readonly about: Taken; readonly line: Taken | null }
  | { readonly form: 'price'; readonly price: Taken; readonly about: Taken }
  | { readonly form: 'pair'; readonly before: Taken; readonly after: Taken; readonly about: Taken }
  | { readonly form: 'announce'; readonly about: Taken; readonly line: Taken | null }
);

export type Form = Finding['form'];
export const forms = ['list', 'number', 'quote', 'date', 'price', 'pair', 'announce'] as const satisfies readonly Form[];

/** What makes a form stand out more than a sentence alone, beside the rank of its sentences. */
const WEIGHT: Readonly<Record<Form, number>> = { list: 1.15, quote: 1.1, number: 0.95, price: 1, date: 1.05, pair: 1, announce: 0.8 };
const MAX_POINTS = 12;
const MAX_AROUND = 6;
/** A sentence that says less of the whole is no announcement. */
const MIN_RANK = 0.1;
/** A heading of a point is the item up to its colon or dash, or all of a short one. */
const MAX_POINT = 60;

/** Everything that an article offers, the best first. Nothing in it is worded anew: each text is of the article. */
export function findIn(article: Article, pack: LanguagePack | null, topic: string): readonly Finding[] {
  const sentences = sentencesOfArticle(article);
  if (!pack) return quotedFindings(article, sentences);
  const ranked = rankSentences(sentences.map(({ text, number }) => ({ text, source: 'the article', place: number })), pack, topic, (text) => heldIn(text, pack).length);
  const scoreOf = (sentence: ArticleSentence): number => ranked[sentence.number - 1]?.score ?? 0.1;
  const aroundOf = (own: ArticleSentence): readonly ArticleSentence[] => {
    const near = sentences.filter(({ section, number }) => section === own.section && number !== own.number && Math.abs(number - own.number) <= MAX_AROUND);
    return [own, ...near.toSorted((a, b) => Math.abs(a.number - own.number) - Math.abs(b.number - own.number) || a.number - b.number)].slice(0, MAX_AROUND + 1);
  };
  const found: Finding[] = [...listsOf(article, scoreOf)];
  for (const sentence of sentences) {
    const base = { around: aroundOf(sentence), section: sentence.section, score: scoreOf(sentence) };
    const next = sentences.find(({ number, section }) => number === sentence.number + 1 && section === sentence.section) ?? null;
    found.push(...ofSentence(sentence, next, pack, ranked).map((each) => ({ ...base, ...each, score: base.score * WEIGHT[each.form] * (each.form !== 'quote' && leaning[pack.language].test(sentence.text) ? LEANING_WORTH : 1), key: `${each.form}-${sentence.number}` }) as Finding));
  }
  return found.toSorted((a, b) => b.score - a.score || (a.key < b.key ? -1 : 1));
}

/** In a language that nobody knows here: lists, and sentences as they stand, from the beginning. */
function quotedFindings(article: Article, sentences: readonly ArticleSentence[]): readonly Finding[] {
  const early = (number: number): number => 1 / (1 + number / 10);
  const quoted = sentences.map((sentence): Finding => ({ key: `announce-${sentence.number}`, form: 'announce', section: sentence.section, score: early(sentence.number) * WEIGHT.announce, around: sentences.filter(({ section, number }) => section === sentence.section && number >= sentence.number).slice(0, MAX_AROUND), about: { text: sentence.text, sentence: sentence.number, original: sentence.text }, line: null }));
  return [...listsOf(article, ({ number }) => early(number)), ...quoted].toSorted((a, b) => b.score - a.score || (a.key < b.key ? -1 : 1));
}

/** A list of a section is a list of points; sections with headings are one as well. */
function listsOf({ title, sections }: Article, scoreOf: (sentence: ArticleSentence) => number): readonly Finding[] {
  const lists = sections.flatMap((section, index): readonly Finding[] => {
    if (section.items.length < 2) return [];
    const points = section.items.slice(0, MAX_POINTS).map((item) => pointOf(item, section.sentences.find(({ text }) => item.startsWith(text))?.number ?? 0));
    const intro = section.sentences.find(({ text }) => text.endsWith(':'));
    const headingText = section.heading || (intro ? intro.text.replace(/:$/u, '') : '') || title;
    const before = section.sentences.filter(({ text }) => !section.items.some((item) => item.includes(text)));
    return [{ key: `list-s${index}`, form: 'list', section: index, title: { text: headingText, sentence: intro && section.heading === '' ? intro.number : 0, original: section.heading || intro?.text || title }, points, around: [...before, ...section.sentences].slice(0, MAX_AROUND), score: WEIGHT.list * Math.max(0.6, ...section.sentences.map(scoreOf)) }];
  });
  const headed = sections.filter(({ heading, sentences }) => heading !== '' && sentences.length > 0);
  if (headed.length < 3 || title === '') return lists;
  const whole: Finding = {
    key: 'list-sections',
    form: 'list',
    section: -1,
    title: { text: title, sentence: 0, original: title },
    points: headed.slice(0, MAX_POINTS).map(({ heading, sentences }) => ({ heading: { text: heading, sentence: 0, original: heading }, text: sentences[0] ? { text: sentences[0].text, sentence: sentences[0].number, original: sentences[0].text } : null })),
    around: sections[0]?.sentences.slice(0, MAX_AROUND) ?? [],
    score: WEIGHT.list,
  };
  return [whole, ...lists];
}

function pointOf(item: string, sentence: number): { readonly heading: Taken; readonly text: Taken | null } {
  const parted = /^(.{2,60}?)\s*(?::|\s[–—-]\s)\s*(\S.*)$/su.exec(item);
  const [, heading, text] = parted ?? [];
  if (heading !== undefined && text !== undefined && !/\d$/u.test(heading)) return { heading: { text: heading, sentence, original: item }, text: { text, sentence, original: item } };
  return { heading: { text: item.replace(/\.$/u, ''), sentence, original: item }, text: null };
}

type Bare = { readonly form: Form } & Readonly<Record<string, unknown>>;

const PRICE = /[£€$]\s?\d{1,9}(?:[.,]\d{2})?|(?<!\d)\d{1,9}(?:[.,]\d{2})?\s?[£€$]/u;
const FIGURE = /(?<![\p{L}\p{N}.,:/])\d{1,3}(?:[.,\u202f ]\d{3})+(?![\p{L}\p{N}])|(?<![\p{L}\p{N}.,:/])\d{1,6}\s?%?(?![\p{L}\p{N}.,:/])/u;
const QUOTED = /“([^“”]{12,160})”|„([^„“”]{12,160})[“”]|«\s?([^«»]{12,160})\s?»|"([^"]{12,160})"/u;

/** What a sentence begins with that leans on the one before: it cannot lead a piece well. */
const leaning: Readonly<Record<DeskLanguage, RegExp>> = {
  en: /^["“]?(?:he|she|it|they|this|that|these|those|there|his|her|their|its|none|such|both|either|neither|then|so|but|and|because)\b/iu,
  de: /^["„]?(?:er|sie|es|das|dies|diese|dieser|dieses|ihre?|seine?|keines?|keiner|beide|dann|so|aber|und|denn|dahinter|dazu|dabei)(?![\p{L}])/iu,
  fr: /^["«]?\s?(?:il|elle|ils|elles|ce|cela|c[’']|cette|ces|son|sa|ses|leur|aucun|aucune|puis|mais|et|car)(?![\p{L}])/iu,
  es: /^["«]?(?:él|ella|ellos|ellas|eso|esto|esta|este|su|sus|ninguno|ninguna|luego|pero|y|porque|detrás)(?![\p{L}])/iu,
  pt: /^["“]?(?:ele|ela|eles|elas|isso|isto|esta|este|seu|sua|nenhum|nenhuma|depois|mas|e|porque|atrás)(?![\p{L}])/iu,
};
const LEANING_WORTH = 0.45;

/** What words part what was from what is, by language: the sentence is cut between them. */
const turns: Readonly<Record<DeskLanguage, RegExp>> = {
  en: /^(.{8,90}?)(?:,? but now |,? and now |; now |,? now )(.{8,90})$/iu,
  de: /^(.{8,90}?)(?:, jetzt |; jetzt |, heute |; heute |, nun )(.{8,90})$/iu,
  fr: /^(.{8,90}?)(?:, maintenant |; maintenant |, aujourd[’']hui )(.{8,90})$/iu,
  es: /^(.{8,90}?)(?:, ahora |; ahora |, hoy )(.{8,90})$/iu,
  pt: /^(.{8,90}?)(?:, agora |; agora |, hoje )(.{8,90})$/iu,
};

function ofSentence(sentence: ArticleSentence, next: ArticleSentence | null, pack: LanguagePack, ranked: readonly Ranked[]): readonly Bare[] {
  const { text, number } = sentence;
  const take = (part: string): Taken => ({ text: part, sentence: number, original: text });
  const words = tokensOf(text).length;
  if (words < 3 || words > 45) return [];
  const held = heldIn(text, pack);
  const line = next && tokensOf(next.text).length <= 24 ? { text: next.text, sentence: next.number, original: next.text } : null;
  const found: Bare[] = [];
  const quoted = QUOTED.exec(text);
  const quote = quoted ? (quoted[1] ?? quoted[2] ?? quoted[3] ?? quoted[4] ?? '') : '';
  if (quote !== '' && tokensOf(quote).length >= 3) {
    // Who said it: names behind or before the quote, in the same sentence.
    const names = held.filter(({ kind, start }) => kind === 'name' && quoted && (start < quoted.index || start >= quoted.index + quoted[0].length));
    const from = names[0];
    const together = names.filter((name, index) => index === 0 || (names[index - 1]?.end ?? 0) + 1 >= name.start);
    const last = together.at(-1);
    found.push({ form: 'quote', quote: take(quote.replace(/[,.]$/u, '')), who: from && last ? take(text.slice(from.start, last.end)) : null });
  }
  const price = PRICE.exec(text);
  if (price) found.push({ form: 'price', price: take(price[0].replace(/\s/gu, '')), about: take(text) });
  const figure = price ? null : FIGURE.exec(text);
  const isTime = figure && held.some(({ kind, start, end }) => (kind === 'time' || kind === 'date') && start <= figure.index && figure.index < end);
  const isYear = figure && /^(?:19|20)\d{2}$/u.test(figure[0].trim());
  const isDay = held.some(({ kind }) => kind === 'date');
  if (figure && !isTime && !isYear && !isDay) found.push({ form: 'number', number: take(figure[0].trim()), about: take(text) });
  if (isDay && (held.some(({ kind }) => kind === 'time') || /\d/u.test(text))) {
    const date = dayIn(text, held);
    if (date !== '') found.push({ form: 'date', day: take(date), about: take(text), line });
  }
  const turn = turns[pack.language].exec(text);
  if (turn?.[1] && turn[2] && pack.hasVerb(turn[2])) found.push({ form: 'pair', before: take(turn[1].trim()), after: take(turn[2].trim()), about: take(text) });
  // What somebody says is a quote, and no announcement of the brand's.
  if (quote === '' && (ranked[number - 1]?.score ?? 0) > MIN_RANK && pack.hasVerb(text) && !text.endsWith(':')) found.push({ form: 'announce', about: take(text), line });
  return found;
}

/** The day that a sentence names, as it is written: neighbouring words and numbers of a date. */
function dayIn(text: string, held: ReturnType<typeof heldIn>): string {
  const first = held.findIndex(({ kind }) => kind === 'date');
  const isPart = (index: number): boolean => held[index]?.kind === 'date' || (held[index]?.kind === 'number' && /^\d{1,4}(?:\.|st|nd|rd|th|er|º)?$/u.test(held[index].text));
  let [from, to] = [first, first];
  const gap = (a: number, b: number): string => text.slice(held[a]?.end ?? 0, held[b]?.start ?? 0);
  while (isPart(from - 1) && /^[\s.,]{0,3}(?:de |of |the )?$/iu.test(gap(from - 1, from))) from -= 1;
  while (isPart(to + 1) && /^[\s.,]{0,3}(?:de |of |the )?$/iu.test(gap(to, to + 1))) to += 1;
  return text.slice(held[from]?.start ?? 0, held[to]?.end ?? 0);
}

/** The longest heading of a point that stands as it is. */
export const MAX_POINT_HEADING = MAX_POINT;
