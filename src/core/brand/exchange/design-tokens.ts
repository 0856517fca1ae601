import { brandBookSchema, type BrandBook } from '../brand-book.ts';
import { upgradeBrandBook } from '../read-brand-book.ts';
import { formatHex, parse as parseColour } from 'culori';

/**
 * A brand as design tokens: colours, fonts and dimensions as tokens of the community format that other tools read, and the
 * whole book under an extension of our own, so that what the format has no word for comes back too.
 * @see https://www.designtokens.org/tr/drafts/format/
 */
export function bookToTokens(book: BrandBook, name: string): Record<string, unknown> {
  return {
    $description: `The brand book of ${name}`,
    colour: {
      $type: 'color',
      ...Object.fromEntries(book.colours.map((colour) => [colour.key, { $value: colour.hex.toLowerCase(), $description: colour.name }])),
    },
    scheme: Object.fromEntries(
      book.schemes.map((scheme) => [
        scheme.key,
        {
          $description: scheme.name,
          ...Object.fromEntries((['ground', 'surface', 'ink', 'accent'] as const).map((role) => [role, { $type: 'color', $value: `{colour.${scheme[role]}}` }])),
        },
      ]),
    ),
    type: Object.fromEntries(Object.entries(book.type).map(([role, setting]) => [role, { font: { $type: 'fontFamily', $value: setting.font }, leading: { $type: 'number', $value: setting.leading }, tracking: { $type: 'number', $value: setting.trackingEm } }])),
    $extensions: { [EXTENSION]: book },
  };
}

/** The name under which a whole book travels; extensions are named like reversed domains. */
const EXTENSION = 'example.confetti.brand-book';

/** A colour found in tokens, with the path of its token as its name. */
export interface TokenColour {
  readonly name: string;
  readonly hex: string;
}

export type ReadTokens =
  /** Written by us: the whole book. */
  | { readonly kind: 'book'; readonly book: BrandBook }
  /** From elsewhere: what of it a brand book can use. */
  | { readonly kind: 'found'; readonly colours: readonly TokenColour[]; readonly families: readonly string[] }
  | { readonly kind: 'refused'; readonly reason: 'not-tokens' | 'nothing-found' };

const DEEPEST = 20;

/** Reads design tokens. Aliases are followed; tokens of kinds that a brand has no use for are passed over. */
export function readTokens(json: unknown): ReadTokens {
  if (!isGroup(json)) return { kind: 'refused', reason: 'not-tokens' };
  const own = isGroup(json['$extensions']) ? json['$extensions'][EXTENSION] : undefined;
  if (own !== undefined) {
    const upgraded = isGroup(own) ? upgradeBrandBook(own) : null;
    if (upgraded && brandBookSchema.isValidSync(upgraded, { strict: true })) return { kind: 'book', book: upgraded };
  }
  const found: Token[] = [...walkTokens(json, [], undefined, 0)];
  const byPath = new Map(found.map((token) => [token.path.join('.'), token]));
  const colours = new Map<string, TokenColour>();
  const families = new Set<string>();
  for (const token of found) {
    const value = resolveAlias(token.value, byPath, 0);
    if (token.type === 'color') {
      const hex = hexOfToken(value);
      if (hex !== null && !colours.has(hex)) colours.set(hex, { name: (token.description ?? token.path.at(-1) ?? 'Colour').slice(0, 60), hex });
    }
    if (token.type === 'fontFamily') for (const family of Array.isArray(value) ? value.slice(0, 1) : [value]) if (typeof family === 'string') families.add(family);
    if (token.type === 'typography' && isGroup(value) && typeof value['fontFamily'] === 'string') families.add(value['fontFamily']);
  }
  if (colours.size === 0 && families.size === 0) return { kind: 'refused', reason: found.length === 0 ? 'not-tokens' : 'nothing-found' };
  return { kind: 'found', colours: [...colours.values()], families: [...families] };
}

interface Token {
  readonly path: readonly string[];
  readonly type: string | undefined;
  readonly value: unknown;
  readonly description: string | undefined;
}

type Group = Readonly<Record<string, unknown>>;

function isGroup(value: unknown): value is Group {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

function* walkTokens(group: Group, path: readonly string[], inheritedType: string | undefined, depth: number): Generator<Token> {
  const type = typeof group['$type'] === 'string' ? group['$type'] : inheritedType;
  if ('$value' in group) {
    yield { path, type, value: group['$value'], description: typeof group['$description'] === 'string' ? group['$description'] : undefined };
    return;
  }
  if (depth > DEEPEST) return;
  for (const [name, child] of Object.entries(group)) if (!name.startsWith('$') && isGroup(child)) yield* walkTokens(child, [...path, name], type, depth + 1);
}

function resolveAlias(value: unknown, byPath: ReadonlyMap<string, Token>, depth: number): unknown {
  const alias = typeof value === 'string' ? /^\{([^{}]+)\}$/.exec(value)?.[1] : undefined;
  if (alias === undefined || depth > DEEPEST) return value;
  return resolveAlias(byPath.get(alias)?.value, byPath, depth + 1);
}

/** A colour is written as a CSS string, or as components in a colour space with, mostly, a hex beside them. */
function hexOfToken(value: unknown): string | null {
  if (typeof value === 'string') {
    const colour = parseColour(value);
    return colour ? formatHex(colour) : null;
  }
  if (!isGroup(value)) return null;
  if (typeof value['hex'] === 'string') return hexOfToken(value['hex']);
  const { components } = value;
  if (value['colorSpace'] !== 'srgb' || !Array.isArray(components) || !components.every((each): each is number => typeof each === 'number')) return null;
  const [r = 0, g = 0, b = 0] = components;
  return formatHex({ mode: 'rgb', r, g, b });
}
