import { array, number, object, string, type InferType } from 'yup';

const hex = () => string().matches(/^#[0-9a-fA-F]{6}$/, 'A colour is written #rrggbb').required();
const key = () => string().matches(/^[a-z][a-z0-9-]*$/, 'A key has small letters, digits and hyphens').required();

/** A type role: which shipped typeface it uses and how it is set. */
const typeRole = object({
  font: key(),
  leading: number().min(0.8).max(2).required(),
  trackingEm: number().min(-0.1).max(0.3).required(),
  capitals: string().oneOf(['as-written', 'all']).required(),
}).noUnknown();

/** A vector mark: filled SVG path data in its own view box. */
const markSchema = object({
  key: key(),
  for: string().oneOf(['light', 'dark']).required(),
  viewBox: object({ width: number().positive().required(), height: number().positive().required() }).required(),
  paths: array(object({ d: string().required().max(20_000), fill: hex() }).noUnknown()).min(1).max(200).required(),
}).noUnknown();

/**
 * All that Confetti knows about a brand's looks. Colours are `#rrggbb`; the fields of a scheme name colours by key;
 * `for` of a mark says which grounds it is drawn for.
 */
export const brandBookSchema = object({
  version: number().oneOf([1]).required(),
  colours: array(object({ key: key(), name: string().required().max(60), hex: hex() }).noUnknown()).min(2).max(40).required(),
  schemes: array(
    object({ key: key(), name: string().required().max(60), ground: key(), surface: key(), ink: key(), accent: key() }).noUnknown(),
  ).min(1).max(12).required(),
  type: object({ display: typeRole.required(), heading: typeRole.required(), text: typeRole.required(), label: typeRole.required() }).required(),
  marks: array(markSchema).min(1).max(12).required(),
}).noUnknown();

export type BrandBook = InferType<typeof brandBookSchema>;
export type BrandMark = BrandBook['marks'][number];
export type TypeRoleName = keyof BrandBook['type'];
export type TypeRole = BrandBook['type'][TypeRoleName];

/** A scheme with its colours looked up. */
export interface ResolvedScheme {
  readonly key: string;
  readonly ground: string;
  readonly surface: string;
  readonly ink: string;
  readonly accent: string;
}

export class BrandBookError extends Error {
  override readonly name = 'BrandBookError';
  constructor(
    /** `unknown-scheme`: no scheme has the key; `unknown-colour`: a scheme names a colour that is not there. */
    readonly code: 'unknown-scheme' | 'unknown-colour',
    readonly key: string,
  ) {
    super(code === 'unknown-scheme' ? `The brand book has no scheme '${key}'` : `The brand book has no colour '${key}'`);
  }
}

/**
 * The colours of a scheme.
 * @throws BrandBookError when the scheme, or a colour it names, is not in the book
 */
export function resolveScheme(book: BrandBook, schemeKey: string): ResolvedScheme {
  const scheme = book.schemes.find((each) => each.key === schemeKey);
  if (!scheme) throw new BrandBookError('unknown-scheme', schemeKey);
  const colour = (colourKey: string): string => {
    const found = book.colours.find((each) => each.key === colourKey);
    if (!found) throw new BrandBookError('unknown-colour', colourKey);
    return found.hex;
  };
  return {
    key: scheme.key,
    ground: colour(scheme.ground),
    surface: colour(scheme.surface),
    ink: colour(scheme.ink),
    accent: colour(scheme.accent),
  };
}
