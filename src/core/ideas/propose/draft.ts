import { draftSlides } from '../../piece/draft-slides.ts';
import type { Frame, SlotValue } from '../../piece/piece.ts';
import type { Slides } from '../../piece/edit-slides.ts';
import { ownSlots } from '../../piece/slides-of-cut.ts';
import { slideKinds } from '../../template/slide-template.ts';
import { shippedTemplates } from '../../template/shipped-templates.ts';
import type { Slot, Template } from '../../template/template.ts';
import type { Form } from './findings.ts';

/**
 * What a frame says, by what it is for; the slots of a template take from it. Of a date `day` is its number and `label` the rest, which stand
 * beside each other; `date` is all of it.
 */
export type Roles = Readonly<Partial<Record<'headline' | 'line' | 'label' | 'number' | 'day' | 'date' | 'price' | 'who' | 'points', string>>>;

/** What a piece is made of before it has a template. */
export interface Content {
  readonly form: Form;
  readonly roles: Roles;
  readonly points: readonly { readonly heading: string; readonly text: string }[];
}

/** Templates for each form, those that say most with it first. A brand's own templates stand for the shipped one whose slots they have. */
const templatesOfForm: Readonly<Record<Form, readonly string[]>> = {
  list: ['strand', 'ledger', 'sheaf', 'knot'],
  number: ['tally', 'headland', 'plank'],
  quote: ['voice', 'aside', 'hush'],
  date: ['bill', 'headland', 'plank'],
  price: ['counter', 'headland', 'plank'],
  pair: ['turn', 'headland', 'plank'],
  announce: ['headland', 'arch', 'band', 'gust', 'plank'],
};

/** Which part of the content a slot takes, by its key. */
const roleOfSlot: Readonly<Record<string, keyof Roles>> = { headline: 'headline', quote: 'headline', line: 'line', label: 'label', number: 'number', day: 'day', price: 'price', name: 'who', who: 'who', points: 'points' };

/** Points of a list that stands on one picture, and of a carousel. */
const MAX_LISTED = 7;
const MAX_SLIDES = 10;
/** A template that takes a headline of so many characters sets quotes. */
const QUOTE_ROOM = 120;

/** The templates that can carry some content, the best first. */
export function templatesFor(content: Content, templates: readonly Template[], kinds: readonly Template['kind'][], pictures: number): readonly Template[] {
  const shipped = new Map(templates.map((template) => [template.key, template]));
  return templatesOfForm[content.form].flatMap((key) => {
    const model = shipped.get(key);
    const own = model ? templates.filter((each) => !shippedKeys.has(each.key) && each.kind === model.kind && signature(each) === signature(model)) : [];
    return [...own, ...(model ? [model] : [])].filter((template) => kinds.includes(template.kind) && carries(template, content, pictures));
  });
}

const shippedKeys: ReadonlySet<string> = new Set(shippedTemplates.map(({ key }) => key));
const signature = ({ slots }: Template): string => slots.filter(({ required }) => required).map(({ key, kind }) => `${key}:${kind}`).toSorted().join(' ');

/** The content as a template shows it: without a slot for the number of a day its label is the whole date. */
function contentFor({ slots }: Template, content: Content): Content {
  const { date } = content.roles;
  return date === undefined || slots.some(({ key }) => roleOfSlot[key] === 'day') ? content : { ...content, roles: { ...content.roles, label: date } };
}

/** Whether every slot that a template needs can be filled. */
function carries(template: Template, whole: Content, pictures: number): boolean {
  const content = contentFor(template, whole);
  const needed = template.slots.filter(({ required }) => required);
  if (needed.filter(({ kind }) => kind === 'picture').length > pictures) return false;
  if (content.form === 'list') {
    if (content.points.length < 2) return false;
    if (template.kind === 'graphic') return needed.every((slot) => slot.kind === 'picture' || textOf(slot, content) !== '');
    const point = slideKinds(template).find(({ use }) => use === 'point') ?? slideKinds(template).find(({ use }) => use === 'picture');
    const filmed = point ? ownSlots(template, point.key).filter(({ required, kind }) => required && kind === 'picture').length : 0;
    return point !== undefined && filmed * Math.min(content.points.length, MAX_SLIDES) <= pictures && template.slots.filter(({ required, kind }) => required && kind !== 'picture').every((slot) => textOf(slot, content) !== '');
  }
  return needed.every((slot) => slot.kind === 'picture' || textOf(slot, content) !== '');
}

function textOf({ key }: Pick<Slot, 'key'>, { roles, points }: Content): string {
  const role = roleOfSlot[key];
  if (role === 'points') return points.slice(0, MAX_LISTED).map(({ heading, text }) => (text !== '' && heading.length + text.length <= 60 ? `${heading}: ${text}` : heading)).join('\n');
  return role === undefined ? '' : (roles[role] ?? '');
}

/** Characters that a template takes as its headline. */
export function headlineRoom(template: Template): number {
  return template.slots.find(({ key }) => key === 'headline' || key === 'quote')?.softLimit ?? 60;
}

/** The pictures that the frames of some content show in a template. */
export function pictureRoom(template: Template, content: Content): number {
  const cover = template.slots.filter(({ kind }) => kind === 'picture').length;
  if (template.kind === 'graphic' || content.form !== 'list') return Math.max(cover, template.kind === 'video' ? 3 : 0);
  return cover + Math.min(content.points.length, MAX_SLIDES);
}

/**
 * The frames of a piece in a template, filled with some content.
 * @param pictures in the order in which they are shown; slots beyond them stay empty
 */
export function draftFrames(template: Template, whole: Content, pictures: readonly { readonly id: string; readonly altText: string }[], newId: () => string): Slides {
  const content = contentFor(template, whole);
  let next = 0;
  const fill = (slots: readonly Slot[], isCover: boolean): Readonly<Record<string, SlotValue>> =>
    Object.fromEntries(
      slots.flatMap((slot): readonly (readonly [string, SlotValue])[] => {
        if (slot.kind === 'picture') {
          const picture = pictures[next];
          if (picture) next += 1;
          return picture ? [[slot.key, { kind: 'picture', mediaId: picture.id }]] : [];
        }
        // Below a text set as a quote stands who said it, and nothing else.
        const isSigned = slot.key === 'line' && headlineRoom(template) >= QUOTE_ROOM && content.form !== 'quote';
        const text = isCover && !isSigned ? textOf(slot, content) : '';
        return text === '' ? [] : [[slot.key, { kind: 'text', text }]];
      }),
    );
  const altOf = (frame: Frame): Frame => {
    const [shown] = Object.values(frame.slots).flatMap((value) => (value.kind === 'picture' ? [value.mediaId] : []));
    const words = Object.values(frame.slots).flatMap((value) => (value.kind === 'text' ? [value.text.replaceAll('\n', ', ')] : [])).join('. ');
    const altText = [words, pictures.find(({ id }) => id === shown)?.altText ?? ''].filter((part) => part !== '').join('. ');
    return template.kind === 'carousel' && altText !== '' ? { ...frame, altText } : frame;
  };
  const cover: Frame = { id: newId(), slots: fill(template.slots, true) };
  if (template.kind === 'graphic') return [cover];
  const points = content.form === 'list' ? content.points.slice(0, MAX_SLIDES) : template.kind === 'video' ? [{ heading: content.roles.line ?? '', text: '' }].filter(({ heading }) => heading !== '') : [];
  const [first, ...rest] = draftSlides(template, [cover], { title: content.roles.headline ?? '', points }, newId);
  const filled = rest.map((frame): Frame => ({ ...frame, slots: { ...fill(ownSlots(template, frame.slide).filter(({ kind }) => kind === 'picture'), false), ...frame.slots } }));
  return [altOf(first), ...filled.map(altOf)];
}
