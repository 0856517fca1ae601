import { array, boolean, lazy, number, object, string, type Schema } from 'yup';
import { shotSchema } from './shot.ts';

/** Text steps that a cut may be set larger (up) or smaller (down) than it would be. */
export const MAX_TEXT_STEPS = 4;
/** How far a crop may be zoomed into. */
export const MAX_ZOOM = 4;

/** What the brand's mark is called among the parts that a cut may leave out; no template may call a slot so. */
export const MARK_SLOT = 'mark';

/** Where a picture of one cut is looked at: the middle of the window as shares of the picture, and how far in. */
export interface OwnCrop {
  readonly x: number;
  readonly y: number;
  /** 1 shows as much as covers the box; 2 half of that in each direction. */
  readonly zoom: number;
}

/** How one cut differs from the piece. It stays linked in everything that is not named here. */
export interface Adjustment {
  readonly arrangement?: string | undefined;
  readonly scheme?: string | undefined;
  readonly textStep?: number | undefined;
  /** Slots whose parts are left out. */
  readonly hidden?: readonly string[] | undefined;
  readonly crops?: Readonly<Record<string, OwnCrop>> | undefined;
  /** Ids of the slides that this cut of a carousel goes without, once a person has chosen; missing: the sheet's limit chooses. */
  readonly withoutSlides?: readonly string[] | undefined;
  /** Where a place takes one picture, all slides are gathered in it; missing: the first goes alone. */
  readonly gathered?: true | undefined;
  /** Of one shot: how long it lasts in this cut, and where its clip begins. */
  readonly lengthMs?: number | undefined;
  readonly fromMs?: number | undefined;
}

export const linkedCut: Adjustment = {};

const key = () => string().matches(/^[a-z][a-z0-9-]*$/);
const share = () => number().min(0).max(1).required();

const cropsSchema = lazy((given: unknown) => {
  const slots = Object.keys(typeof given === 'object' && given !== null ? given : {});
  const crop = object({ x: share(), y: share(), zoom: number().min(1).max(MAX_ZOOM).required() }).noUnknown();
  return given === undefined ? object().default(undefined) : object(Object.fromEntries(slots.map((slot) => [slot, crop.required()])));
});

/** Everything in which a cut may differ, and what may stand there. */
const adjustmentFields = {
  arrangement: key(),
  scheme: key(),
  textStep: number().integer().min(-MAX_TEXT_STEPS).max(MAX_TEXT_STEPS),
  hidden: array(key().required()).max(24),
  crops: cropsSchema as unknown as Schema,
  gathered: boolean().oneOf([true]),
  lengthMs: shotSchema.fields.lengthMs,
  fromMs: shotSchema.fields.fromMs,
  withoutSlides: array(string().matches(/^[A-Za-z0-9_-]{1,40}$/).required()).max(100),
} satisfies Record<keyof Adjustment, unknown>;

export const adjustmentSchema: Schema = object(adjustmentFields).noUnknown();

/** The names of all fields, in the order they are written. */
export const adjustmentKeys = Object.keys(adjustmentFields) as readonly (keyof Adjustment)[];

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
