import type { Fact } from '../../brand/brand-book.ts';
import type { Slides } from '../../piece/edit-slides.ts';
import type { Template } from '../../template/template.ts';
import { sentencesOf } from '../../words/sentences.ts';
import { shorten } from '../../write/shorten.ts';
import { writeVersions, type DeskBrief } from '../../write/desk.ts';
import type { LanguagePack } from '../../write/language-pack.ts';
import { stemsOf, tokensOf } from '../../write/tokens.ts';
import { sentencesOfArticle, type Article, type ArticleSentence } from './article.ts';
import { rankPictures, type ChosenPicture, type PictureOffer } from './choose-picture.ts';
import { draftFrames, headlineRoom, pictureRoom, templatesFor, type Content } from './draft.ts';
import type { Finding, Form, Taken } from './findings.ts';
import { headlineFrom } from './headline.ts';
import { traceSentence, type Trace } from './trace.ts';

/** What a person may ask of one proposal after they have seen it; each counts how often. */
export interface Variant {
  readonly shorter: number;
  readonly asList: boolean;
  readonly template: number;
  readonly picture: number;
  readonly wording: number;
}

export const plainVariant: Variant = { shorter: 0, asList: false, template: 0, picture: 0, wording: 0 };

/** All that proposals are made from. */
export interface ProposeBrief {
  readonly article: Article;
  /** What the source is called where a text is traced to it: “the article”, “subtitles”. */
  readonly sourceName: string;
  /** Null: a language that the desk does not know; sentences are quoted as they stand. */
  readonly pack: LanguagePack | null;
  /** Of the desk, for the captions. */
  readonly desk: Pick<DeskBrief, 'language' | 'voice' | 'recent' | 'hashtags' | 'emoji'>;
  readonly facts: readonly Fact[];
  readonly topic: string;
  readonly link: string;
  readonly templates: readonly Template[];
  readonly kinds: readonly Template['kind'][];
  readonly pictures: readonly PictureOffer[];
  readonly themes: readonly { readonly id: string; readonly name: string; readonly words: string }[];
}

/** A whole piece that is proposed, with where each of its texts comes from and why it looks as it does. */
export interface Proposal {
  readonly key: string;
  readonly form: Form;
  readonly variant: Variant;
  readonly template: string;
  readonly kind: Template['kind'];
  readonly frames: Slides;
  readonly words: { readonly caption: string; readonly altText: string; readonly link: string; readonly hashtags: string };
  readonly themeId: string | null;
  readonly traces: readonly Trace[];
  readonly why: readonly string[];
}

const CAPTION_WORDS = 38;
const MAX_POINTS = 10;
/** A picture is chosen by words only where it shares this much with the text. */
const MIN_PICTURE = 0.9;
const SHORTER = 0.68;
const MIN_AROUND = 3;

const formWords: Readonly<Record<Form, string>> = { list: 'it is a list', number: 'a figure stands out', quote: 'somebody is quoted', date: 'it names a day', price: 'it names a price', pair: 'it tells what was and what is now', announce: 'it says most of the whole' };

/**
 * A whole piece of one finding: headline, points, picture, template, caption. Null where nothing of it fits a template without losing something that must not get lost.
 * @param taken pictures that other proposals show already
 */
export function proposeFrom(finding: Finding, brief: ProposeBrief, variant: Variant, taken: ReadonlySet<string>, newId: () => string): Proposal | null {
  const { pack } = brief;
  const subject = variant.asList && finding.form !== 'list' ? asList(finding, pack) : finding;
  if (!subject) return null;
  const texts = [textOfFinding(subject), ...subject.around.slice(0, 3).map(({ text }) => text)].join(' ');
  const ranked = rankPictures(texts, brief.pictures.filter(({ id }) => !taken.has(id)), pack);
  const fitting = ranked.filter(({ score }) => score >= MIN_PICTURE);
  const turned = turn(fitting.length > 0 || variant.picture > 0 ? [...fitting, ...(variant.picture > 0 ? ranked.filter((each) => !fitting.includes(each)) : [])] : [], variant.picture);
  const rough = contentOf(subject, pack, 400, variant);
  if (!rough) return null;
  // With pictures that speak of it first; in type alone where there are none.
  const candidates = templatesFor(rough.content, brief.templates, brief.kinds, turned.length);
  for (const template of turn(candidates, variant.template)) {
    const made = contentOf(subject, pack, headlineRoom(template), variant);
    if (!made || templatesFor(made.content, [template], brief.kinds, turned.length).length + (candidates.includes(template) ? 1 : 0) === 0) continue;
    const shown = turned.slice(0, pictureRoom(template, made.content));
    const frames = draftFrames(template, made.content, shown.map(({ picture }) => picture), newId);
    const caption = captionOf(subject, made.used, brief, variant);
    const shownIds = new Set(frames.flatMap(({ slots }) => Object.values(slots).flatMap((value) => (value.kind === 'picture' ? [value.mediaId] : []))));
    const pictures = shown.filter(({ picture }) => shownIds.has(picture.id));
    return {
      key: finding.key,
      form: subject.form,
      variant,
      template: template.key,
      kind: template.kind,
      frames,
      words: { caption: caption.text, altText: template.kind === 'graphic' ? altTextOf(made.content, pictures) : '', link: brief.link, hashtags: brief.desk.hashtags.join(' ') },
      themeId: themeOf(texts, brief),
      traces: [...made.traces, ...caption.traces],
      why: [`${capital(formWords[subject.form])}, so it is set in ${template.name}.`, ...pictures.slice(0, 1).map(({ picture, shared }) => (shared.length > 0 ? `The picture “${picture.name}” speaks of it: ${shared.slice(0, 4).join(', ')}.` : `The picture “${picture.name}” was asked for; it shares no words with the text.`)), ...(pack ? [] : ['The desk does not know this language: it quotes sentences as they stand.'])],
    };
  }
  return null;
}

/**
 * Proposals of an article, the best first and unlike each other: no sentence leads two of them, and forms take turns.
 * @param count how many are wanted
 */
export function proposeAll(findings: readonly Finding[], brief: ProposeBrief, count: number, newId: () => string): readonly Proposal[] {
  const proposals: Proposal[] = [];
  const [usedSentences, usedPictures, usedForms] = [new Set<number>(), new Set<string>(), new Map<Form, number>()];
  let left = [...findings];
  while (proposals.length < count && left.length > 0) {
    const worth = ({ score, form }: Finding): number => score / (1 + 0.5 * (usedForms.get(form) ?? 0));
    const best = left.reduce((most, each) => (worth(each) > worth(most) ? each : most));
    left = left.filter((each) => each !== best);
    const leads = leadsOf(best);
    if (leads.some((sentence) => usedSentences.has(sentence))) continue;
    const proposal = proposeFrom(best, brief, plainVariant, usedPictures, newId);
    if (!proposal) continue;
    proposals.push(proposal);
    for (const sentence of leads) usedSentences.add(sentence);
    for (const { slots } of proposal.frames) for (const value of Object.values(slots)) if (value.kind === 'picture') usedPictures.add(value.mediaId);
    usedForms.set(best.form, (usedForms.get(best.form) ?? 0) + 1);
  }
  return proposals;
}

/** The sentences that lead a finding: no second proposal begins with one of them. */
function leadsOf(finding: Finding): readonly number[] {
  if (finding.form === 'list') return finding.points.flatMap(({ heading, text }) => [heading.sentence, text?.sentence ?? 0]).filter((number) => number > 0);
  return [finding.form === 'quote' ? finding.quote.sentence : finding.about.sentence].filter((number) => number > 0);
}

function textOfFinding(finding: Finding): string {
  if (finding.form === 'list') return [finding.title.text, ...finding.points.map(({ heading, text }) => `${heading.text} ${text?.text ?? ''}`)].join('. ');
  return finding.form === 'quote' ? finding.quote.original : finding.about.text;
}

/** The sentences around a finding as the points of a list, each shortened to a heading. */
function asList(finding: Finding, pack: LanguagePack | null): Finding | null {
  const points = finding.around.toSorted((a, b) => a.number - b.number).flatMap((sentence) => {
    const heading = headlineFrom({ text: sentence.text, sentence: sentence.number, original: sentence.text }, pack, 60);
    return heading ? [{ heading, text: null }] : [];
  });
  const [first] = points;
  if (points.length < 3 || !first) return null;
  return { key: finding.key, score: finding.score, around: finding.around, section: finding.section, form: 'list', title: first.heading, points: points.slice(1, MAX_POINTS + 1) };
}

interface Made {
  readonly content: Content;
  readonly traces: readonly Trace[];
  /** Sentences that stand on the piece already. */
  readonly used: readonly number[];
}

function contentOf(finding: Finding, pack: LanguagePack | null, room: number, { shorter }: Variant): Made | null {
  const max = Math.max(18, Math.round(room * SHORTER ** shorter));
  const traceOf = (place: string, taken: Taken, text: string): Trace => ({ place, text, how: taken.sentence === 0 ? 'heading' : bareOf(text) === bareOf(taken.original) ? 'whole' : taken.text.length < taken.original.length && taken.original.includes(taken.text) && text === taken.text ? 'part' : 'shortened', sentence: taken.sentence, original: taken.original });
  const lead = (taken: Taken): Taken | null => headlineFrom(taken, pack, max);
  const used = (...all: readonly (Taken | null)[]): readonly number[] => all.flatMap((taken) => (taken ? [taken.sentence] : []));
  const line = (taken: Taken | null): Taken | null => (taken ? headlineFrom(taken, pack, 100) : null);
  switch (finding.form) {
    case 'list': {
      const title = lead(finding.title) ?? (finding.points[0] ? headlineFrom(finding.title, pack, 60) : null);
      if (!title || title.text === '') return null;
      const points = finding.points.slice(0, MAX_POINTS).flatMap(({ heading, text }) => {
        const short = headlineFrom(heading, pack, 60);
        const said = text ? shortened(text, pack, 140) : null;
        return short ? [{ heading: short, text: said }] : [];
      });
      if (points.length < 2) return null;
      return {
        content: { form: 'list', roles: { headline: title.text }, points: points.map(({ heading, text }) => ({ heading: heading.text, text: text?.text ?? '' })) },
        traces: [traceOf('headline', finding.title, title.text), ...points.flatMap(({ heading, text }, index) => [traceOf(`point ${index + 1}`, heading, heading.text), ...(text ? [traceOf(`point ${index + 1}, text`, text, text.text)] : [])])],
        used: points.flatMap(({ heading, text }) => used(heading, text)),
      };
    }
    case 'number': {
      const about = lead(finding.about);
      if (!about) return null;
      return { content: { form: 'number', roles: { number: finding.number.text, headline: about.text }, points: [] }, traces: [traceOf('number', finding.number, finding.number.text), traceOf('headline', finding.about, about.text)], used: used(finding.about) };
    }
    case 'quote': {
      if ([...finding.quote.text].length > Math.max(max, 140)) return null;
      const who = finding.who;
      return { content: { form: 'quote', roles: { headline: finding.quote.text, ...(who ? { who: who.text, line: who.text } : {}) }, points: [] }, traces: [traceOf('quote', finding.quote, finding.quote.text), ...(who ? [traceOf('name', who, who.text)] : [])], used: used(finding.quote) };
    }
    case 'date': {
      const about = lead(finding.about);
      if (!about) return null;
      const [number = ''] = /\b(?:[12]?\d|3[01])\b/u.exec(finding.day.text) ?? [];
      const under = line(finding.line);
      return { content: { form: 'date', roles: { headline: about.text, date: finding.day.text, ...(number === '' ? {} : { day: number, label: finding.day.text.replace(number, '').replace(/\s{2,}/gu, ' ').replace(/^[\s.,]{1,4}|[\s.,]{1,4}$/gu, '') }), ...(under ? { line: under.text } : {}) }, points: [] }, traces: [traceOf('day', finding.day, finding.day.text), traceOf('headline', finding.about, about.text), ...(under && finding.line ? [traceOf('line', finding.line, under.text)] : [])], used: used(finding.about, under) };
    }
    case 'price': {
      const about = lead(finding.about);
      if (!about) return null;
      return { content: { form: 'price', roles: { headline: about.text, price: finding.price.text }, points: [] }, traces: [traceOf('price', finding.price, finding.price.text), traceOf('headline', finding.about, about.text)], used: used(finding.about) };
    }
    case 'pair':
    case 'announce': {
      const about = lead(finding.about);
      if (!about) return null;
      const under = finding.form === 'announce' ? line(finding.line) : null;
      return { content: { form: finding.form, roles: { headline: about.text, ...(under ? { line: under.text } : {}) }, points: [] }, traces: [traceOf('headline', finding.about, about.text), ...(under && finding.form === 'announce' && finding.line ? [traceOf('line', finding.line, under.text)] : [])], used: used(finding.about, under) };
    }
  }
}

const bareOf = (text: string): string => tokensOf(text).map((token) => token.text.toLowerCase()).join(' ');

/** A text of a point: shortened where it is long, whole sentences left out from the end before anything is lost. */
function shortened(taken: Taken, pack: LanguagePack | null, maxCharacters: number): Taken | null {
  if ([...taken.text].length <= maxCharacters) return taken;
  if (!pack) return null;
  const { text, fits } = shorten(taken.text, pack, (each) => [...each].length <= maxCharacters);
  return fits ? { ...taken, text } : null;
}

/** The caption, drawn by the desk from what stands around the finding and is not on the piece already. */
function captionOf(finding: Finding, used: readonly number[], { article, desk, facts, topic, sourceName, pack }: ProposeBrief, variant: Variant): { readonly text: string; readonly traces: readonly Trace[] } {
  const all = sentencesOfArticle(article);
  const near = finding.around.length > 0 ? finding.around : all.slice(0, 6);
  const isFresh = ({ number }: ArticleSentence): boolean => !used.includes(number);
  const fresh = near.filter(isFresh);
  // Where little is left around it, the rest of the article speaks.
  const more = fresh.length >= MIN_AROUND ? [] : all.filter((each) => isFresh(each) && !fresh.includes(each)).slice(0, MIN_AROUND);
  const sources = [...fresh, ...more].toSorted((a, b) => a.number - b.number);
  const { versions } = writeVersions({ ...desk, ask: 'draft', text: '', topic, sources: [{ name: sourceName, text: sources.map(({ text }) => text).join('\n') }], facts, words: Math.round(CAPTION_WORDS * SHORTER ** variant.shorter), limit: null, versions: 1, hashtags: [], turn: variant.wording + turnOf(finding.key) });
  const text = versions[0]?.text ?? quotedCaption(sources);
  const traces = sentencesOf(text, desk.language).flatMap((sentence): readonly Trace[] => {
    const said = sentence.text.replace(/^–\s*/u, '');
    if (!/[\p{L}\p{N}]/u.test(said)) return [];
    const found = traceSentence(said, all, pack);
    return [found ? { place: 'caption', text: said, ...found } : { place: 'caption', text: said, how: facts.some((fact) => said.includes(`{${fact.key}}`)) ? 'fact' : 'frame', sentence: 0, original: '' }];
  });
  return { text, traces };
}

/** Proposals of one source begin with other openings and calls. */
function turnOf(key: string): number {
  return [...key].reduce((sum, letter) => sum + letter.charCodeAt(0), 0) % 97;
}

function quotedCaption(sentences: readonly ArticleSentence[]): string {
  return sentences.slice(0, 2).map(({ text }) => text).join(' ');
}

function altTextOf({ roles, points }: Content, pictures: readonly ChosenPicture[]): string {
  const words = [roles.number ?? roles.price ?? '', roles.headline ?? '', points.map(({ heading }) => heading).join(', '), roles.who ?? ''].filter((part) => part !== '').join('. ');
  const [picture] = pictures;
  return [words, picture?.picture.altText ?? ''].filter((part) => part !== '').join('. ');
}

/** The theme whose name and words a text speaks of most; null where it speaks of none. */
export function themeOf(text: string, { themes, pack }: Pick<ProposeBrief, 'themes' | 'pack'>): string | null {
  if (!pack) return null;
  const stems = new Set(stemsOf(text, pack));
  const scored = themes.map(({ id, name, words }) => ({ id, score: stemsOf(name, pack).filter((stem) => stems.has(stem)).length * 2 + new Set(stemsOf(words, pack).filter((stem) => stems.has(stem))).size * 0.3 }));
  const best = scored.toSorted((a, b) => b.score - a.score)[0];
  return best && best.score >= 1 ? best.id : null;
}

function turn<Item>(items: readonly Item[], by: number): readonly Item[] {
  const from = items.length === 0 ? 0 : by % items.length;
  return [...items.slice(from), ...items.slice(0, from)];
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
