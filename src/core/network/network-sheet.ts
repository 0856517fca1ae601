import { array, boolean, number, object, string, type InferType } from 'yup';

const key = () => string().matches(/^[a-z][a-z0-9-]*$/, 'A key has small letters, digits and hyphens').required();
const percent = () => number().min(0).max(45).required();

/** The words that can go with a post; a network takes some of them. */
export interface Words {
  readonly caption: string;
  readonly altText: string;
  readonly title: string;
  readonly link: string;
  readonly firstComment: string;
}

export const wordFields: readonly (keyof Words)[] = ['title', 'caption', 'link', 'firstComment', 'altText'];

/** A text field of a network: what it is called, how long it may be and how its length is counted. */
const wordFieldSchema = object({
  key: string<keyof Words>().oneOf([...wordFields]).required(),
  label: string().required().max(40),
  max: number().integer().positive().required(),
  counting: string().oneOf(['graphemes', 'weighted']).required(),
  /** The network refuses a post without it. */
  required: boolean().required(),
}).noUnknown();

/** One place on a network where a cut can appear. Percentages are of the cut's height (top, bottom) or width (right, left). */
const placementSchema = object({
  key: key(),
  name: string().required().max(40),
  /** Placements that share a surface show one after another in the same place; a piece takes one of them. */
  surface: string().required().max(40),
  exportPx: object({ width: number().integer().min(200).max(4000).required(), height: number().integer().min(200).max(4000).required() }).required(),
  safePercent: object({ top: percent(), right: percent(), bottom: percent(), left: percent() }).required(),
}).noUnknown();

/**
 * The rules of one network as data. Nothing in the program asks which network it is; it asks the sheet.
 */
export const networkSheetSchema = object({
  version: number().oneOf([1]).required(),
  key: key(),
  name: string().required().max(40),
  badge: object({ shape: string().oneOf(['circle', 'square', 'triangle', 'hexagon', 'ring', 'diamond', 'pentagon', 'bar', 'arch']).required(), letter: string().length(1).required() }).required(),
  placements: array(placementSchema).min(1).required(),
  words: object({
    fields: array(wordFieldSchema).min(1).required(),
    hashtags: object({ max: number().integer().min(0).nullable().defined(), warnOver: number().integer().min(0).nullable().defined() }).required(),
    mentions: object({ max: number().integer().min(0).nullable().defined() }).required(),
    links: object({ countAs: number().integer().positive().nullable().defined(), clickable: boolean().required() }).required(),
    foldAfter: number().integer().positive().nullable().defined(),
  }).required(),
  files: object({ maxImageBytes: number().integer().positive().required() }).required(),
  pace: object({ dailyMax: number().integer().positive().required(), leastGapMin: number().min(0).required() }).required(),
  publishing: object({ manner: string().oneOf(['draft-then-publish', 'idempotency-key']).required() }).required(),
}).noUnknown();

export type NetworkSheet = InferType<typeof networkSheetSchema>;
export type Placement = NetworkSheet['placements'][number];
export type WordField = NetworkSheet['words']['fields'][number];
export type WordFieldKey = WordField['key'];

/**
 * The placement of a sheet by its key.
 * @throws RangeError when the sheet has no such placement
 */
export function getPlacement(sheet: NetworkSheet, placementKey: string): Placement {
  const placement = sheet.placements.find((each) => each.key === placementKey);
  if (!placement) throw new RangeError(`${sheet.name} has no placement '${placementKey}'`);
  return placement;
}
