import { array, boolean, number, object, string } from 'yup';
import { optional, recordOf, type Checked } from '../document/schema.ts';
import { clipStart, shotLength } from './shot.ts';

/** Text steps that a cut may be set larger (up) or smaller (down) than it would be. */
export const MAX_TEXT_STEPS = 4;
/** How far a crop may be zoomed into. */
export const MAX_ZOOM = 4;

/** What the brand's mark is called among the parts that a cut may leave out; no template may call a slot so. */
export const MARK_SLOT = 'mark';

const key = () => string().matches(/^[a-z][a-z0-9-]*$/);
const share = () => number().min(0).max(1).required();

/** Where a picture of one cut is looked at: the middle of the window as shares of the picture, and how far in. */
const cropSchema = object({
  x: share(),
  y: share(),
  /** 1 shows as much as covers the box; 2 half of that in each direction. */
  zoom: number().min(1).max(MAX_ZOOM).required(),
})
  .noUnknown()
  .required();

export type OwnCrop = Checked<typeof cropSchema>;

/** How one cut differs from the piece. It stays linked in everything that is not named here. */
export const adjustmentSchema = object({
  arrangement: key(),
  scheme: key(),
  /** Texts flush at their start or in the middle; missing: as the template has them. */
  align: string<'start' | 'centre'>().oneOf(['start', 'centre']),
  /** A picture beside words stands at their other side. */
  swapsSides: boolean<true>().oneOf([true]),
  /** Without the template's ornament. */
  isPlain: boolean<true>().oneOf([true]),
  textStep: number().integer().min(-MAX_TEXT_STEPS).max(MAX_TEXT_STEPS),
  /** Slots whose parts are left out. */
  hidden: array(key().required()).max(24),
  crops: optional(recordOf(() => cropSchema)),
  /** Where a place takes one picture, all slides are gathered in it; missing: the first goes alone. */
  gathered: boolean<true>().oneOf([true]),
  /** Of one shot: how long it lasts in this cut, and where its clip begins. */
  lengthMs: shotLength(),
  fromMs: clipStart(),
  /** Ids of the slides that this cut of a carousel goes without, once a person has chosen; missing: the sheet's limit chooses. */
  withoutSlides: array(string().matches(/^[A-Za-z0-9_-]{1,40}$/).required()).max(100),
}).noUnknown();

export type Adjustment = Checked<typeof adjustmentSchema>;

export const linkedCut: Adjustment = {};

/** The names of all fields. */
export const adjustmentKeys = Object.keys(adjustmentSchema.fields) as readonly (keyof Adjustment)[];

/** Whether a cut differs in one field. No slide left out is a choice too; no hidden part, no crop and no text step are not. */
export function differsIn(adjustment: Adjustment, key: keyof Adjustment): boolean {
  const value = adjustment[key];
  if (value === undefined) return false;
  if (key === 'withoutSlides' || typeof value === 'string' || typeof value === 'boolean') return true;
  if (typeof value === 'number') return key !== 'textStep' || value !== 0;
  return Object.keys(value).length > 0;
}

/** True when a cut differs in anything. */
export function differs(adjustment: Adjustment): boolean {
  return adjustmentKeys.some((key) => differsIn(adjustment, key));
}
