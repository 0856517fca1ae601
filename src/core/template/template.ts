import { array, boolean, number, object, string } from 'yup';
import type { Checked } from '../document/schema.ts';
import { partSchema, walkParts, type Part, type StackPart } from './parts.ts';

const key = () => string().matches(/^[a-z][a-z0-9-]*$/, 'A key has small letters, digits and hyphens').required();

/**
 * The template language. Lengths are in `m`, the margin of the cut: 6% of its short side. A template names what a piece
 * has to be told (slots) and lays the same slots out in several arrangements, each for a range of shapes.
 */

/**
 * Kinds of slots. `list`: a text whose lines are its items. `number`: a text that is a figure. `fact`: a text that takes the
 * brand's fact where it is left empty. `mark`: which of the brand's marks stands there.
 * `page`, `ordinal` and `head` fill themselves: the place of a slide among all, its number among the points, and the words that
 * lead the carousel.
 */
export type SlotKind = 'text' | 'list' | 'number' | 'fact' | 'picture' | 'mark' | 'page' | 'ordinal' | 'head';
export const slotKinds: readonly SlotKind[] = ['text', 'list', 'number', 'fact', 'picture', 'mark', 'page', 'ordinal', 'head'];

/** True for slots that nobody fills in. */
export function fillsItself(kind: SlotKind): boolean {
  return kind === 'page' || kind === 'ordinal' || kind === 'head';
}

/** What a piece has to be told: the hint says what belongs there. */
const slotSchema = object({
  key: key(),
  kind: string<SlotKind>().oneOf([...slotKinds]).required(),
  label: string().required().max(40),
  hint: string().required().max(120),
  required: boolean().required(),
  /** Text that shows what the slot is for in the picker of templates. */
  sample: string().max(300),
  /** Characters beyond which the form warns; the fit of each cut decides. */
  softLimit: number().integer().positive(),
  /** Key of the fact that fills a `fact` slot; `weekdays` on a list fills it with the opening hours. */
  fact: string().matches(/^[a-z][a-z0-9-]*$/),
  /** A list whose items have a label, a colon and a value. */
  columns: boolean(),
  /** All slides of a carousel show what the cover holds here. */
  shared: boolean(),
  /** On the slide that sums a carousel up, filled from the others: a list with a line a point, pictures in their order. */
  gathers: boolean(),
  /** A text slot that names the row of this list which is marked. */
  markedBy: string().matches(/^[a-z][a-z0-9-]*$/),
}).noUnknown();

const arrangementSchema = object({
  key: key(),
  name: string().required().max(40),
  /** Width divided by height of the shapes it is made for; from is included, to is not. */
  aspect: object({ from: number().min(0).required(), to: number().positive().required() }).required(),
  root: partSchema,
}).noUnknown();

const slideParts = {
  slots: array(slotSchema).min(1).max(24).required(),
  /** Slots that may be left out of a cut where room is short, the first to go first. */
  drop: array(key()).max(24),
  arrangements: array(arrangementSchema).min(2).max(12).required(),
};

/** What pieces a template is for. A video's shots are laid out as a carousel's slides are. */
export type TemplateKind = 'graphic' | 'carousel' | 'video';

/** What a template is reached for: families that people choose from. */
export type TemplateFamily = 'announce' | 'quote' | 'offer' | 'list' | 'event' | 'ask' | 'people';
export const templateFamilies: readonly TemplateFamily[] = ['announce', 'quote', 'offer', 'list', 'event', 'ask', 'people'];

type SlideUse = 'point' | 'picture' | 'closing' | 'sum';

/** A kind of slide of a carousel, beside its cover: its slots and its arrangements. */
const slideSchema = object({
  key: key(),
  name: string().required().max(40),
  /** What it is for when slides are made from points; `sum` stands for all of them where a place takes one picture. */
  use: string<SlideUse>().oneOf(['point', 'picture', 'closing', 'sum']).required(),
  /** Another scheme than the cover's. */
  scheme: string().matches(/^[a-z][a-z0-9-]*$/),
  ...slideParts,
}).noUnknown();

/** Slots and arrangements of a carousel's template are those of its cover. */
export const templateSchema = object({
  version: number<1>().oneOf([1]).required(),
  key: key(),
  name: string().required().max(40),
  purpose: string().required().max(60),
  /** Missing in templates that belong to none. */
  family: string<TemplateFamily>().oneOf([...templateFamilies]),
  kind: string<TemplateKind>().oneOf(['graphic', 'carousel', 'video']).required(),
  scheme: key(),
  ...slideParts,
  slides: array(slideSchema).max(12),
}).noUnknown();

export type Slot = Checked<typeof slotSchema>;

/** An arrangement's outermost part is a stack; `readTemplate` checks it. */
export interface Arrangement extends Omit<Checked<typeof arrangementSchema>, 'root'> {
  readonly root: StackPart;
}

interface WithArrangements {
  readonly arrangements: readonly Arrangement[];
}

/** Slots and arrangements of a graphic, a cover or another slide. */
type SlideParts = Pick<Checked<typeof slideSchema>, 'slots' | 'drop'> & WithArrangements;

export interface SlideTemplate extends Omit<Checked<typeof slideSchema>, 'arrangements'>, WithArrangements {}

export interface Template extends Omit<Checked<typeof templateSchema>, 'arrangements' | 'slides'>, WithArrangements {
  readonly slides?: readonly SlideTemplate[] | undefined;
}

/** Cuts call the brand's mark so when they leave it out. */
const RESERVED_SLOT = 'mark';

/**
 * A template from JSON, with every part checked and every slot that a part names declared.
 * @throws yup ValidationError naming the place of the first fault
 * @throws RangeError when a part names a slot that is not declared
 */
export function readTemplate(json: unknown): Template {
  const template = templateSchema.validateSync(json, { strict: true }) as unknown as Template;
  const slides = template.slides ?? [];
  if ((template.kind !== 'graphic') !== slides.length > 0) throw new RangeError(`Template '${template.key}': a carousel or video has kinds of slides, and a graphic has none`);
  if (new Set(slides.map((slide) => slide.key)).size < slides.length || slides.some((slide) => slide.key === COVER)) throw new RangeError(`Template '${template.key}': two kinds of slides have one key`);
  if (slides.slice(0, -1).some((slide) => slide.use === 'sum') || (slides.length === 1 && slides[0]?.use === 'sum')) throw new RangeError(`Template '${template.key}': the slide that sums up stands last, after the kinds that people fill in`);
  // A picture of a video moves; what stands before letters in one frame does not in the next.
  if (template.kind === 'video' && [template, ...slides].some(({ arrangements }) => arrangements.some(({ root }) => [...walkParts(root)].some((part) => part.part === 'text' && part.behind !== undefined)))) throw new RangeError(`Template '${template.key}': no subject stands before letters in a video, whose pictures move`);
  for (const [name, parts] of [['', template] as const, ...slides.map((slide) => [`, slide '${slide.key}'`, slide] as const)]) checkSlots(`Template '${template.key}'${name}`, parts);
  return template;
}

/** What the cover is called among the kinds of slides. */
export const COVER = 'cover';

function checkSlots(where: string, { slots, drop, arrangements }: SlideParts): void {
  const declared = new Set(slots.map((slot) => slot.key));
  if (declared.has(RESERVED_SLOT)) throw new RangeError(`${where}: '${RESERVED_SLOT}' means the brand's mark and cannot be a slot`);
  if (declared.size < slots.length) throw new RangeError(`${where}: two slots have one key`);
  const undeclared = [...(drop ?? []), ...slots.flatMap((slot) => slot.markedBy ?? [])].find((slot) => !declared.has(slot));
  if (undeclared !== undefined) throw new RangeError(`${where}: no slot '${undeclared}' is declared`);
  for (const arrangement of arrangements) {
    const outermost: Part = arrangement.root;
    if (outermost.part !== 'stack') throw new RangeError(`${where}, arrangement '${arrangement.key}': its outermost part is a stack`);
    for (const part of walkParts(arrangement.root)) {
      if ('slot' in part && part.slot !== undefined && !declared.has(part.slot)) throw new RangeError(`${where}, arrangement '${arrangement.key}': no slot '${part.slot}' is declared`);
      if (part.part === 'text' && part.behind !== undefined && !slots.some(({ key, kind }) => key === part.behind && kind === 'picture')) throw new RangeError(`${where}, arrangement '${arrangement.key}': '${part.behind}', whose subject stands before letters, is no picture slot`);
    }
  }
}
