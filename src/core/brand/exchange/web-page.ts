import { converter, differenceEuclidean, formatHex, parse as parseColour } from 'culori';
import { generate, walk, type CssNode, type Declaration } from 'css-tree';
import { LRUCache } from 'lru-cache';
import { parseLenientCss } from '../../artwork/lenient-css.ts';
import { nameInTitle } from './name-in-title.ts';
import { parse as parseHtml, type DefaultTreeAdapterTypes } from 'parse5';

type HtmlNode = DefaultTreeAdapterTypes.ChildNode | DefaultTreeAdapterTypes.Document;
type HtmlElement = DefaultTreeAdapterTypes.Element;

/** What a page says of itself, and where the rest of it lies. */
export interface PageParts {
  /** The brand's name, as far as it can be told from the rest of the title. */
  readonly title: string;
  /** What the page says it is written in (BCP 47); empty where it does not. */
  readonly language: string;
  readonly description: string;
  /** Addresses of style sheets and icons as written, relative ones too; the best icon first. */
  readonly stylesheets: readonly string[];
  readonly icons: readonly string[];
  /** Style rules in the page itself. */
  readonly styles: readonly string[];
  /** `style` attributes. */
  readonly inlineStyles: readonly string[];
  readonly themeColour: string | null;
}

export interface FoundColour {
  readonly hex: string;
  /** Share of all weights, in (0, 1]. */
  readonly share: number;
}

export interface FoundFamily {
  readonly family: string;
  readonly share: number;
  /** Whether headings are set in it. */
  readonly forHeadings: boolean;
}

export interface PageLook {
  /** The heaviest first. */
  readonly colours: readonly FoundColour[];
  readonly families: readonly FoundFamily[];
}

const MAX_COLOURS = 16;
const MAX_FAMILIES = 6;
/** Colours closer than this in OKLab are one colour that somebody has typed twice. */
const SAME_COLOUR = 0.03;
/** How much a colour says about a brand by where it stands. */
const PROPERTY_WEIGHTS: readonly (readonly [RegExp, number])[] = [
  [/^background(-color|-image)?$/, 4],
  [/^color$/, 2],
  [/^(fill|border|border-.*|outline|outline-color|accent-color|text-decoration-color)$/, 1],
];
const THEME_WEIGHT = 12;
/** Places that show more of a page than others. */
const LOUD_SELECTOR = /(^|[\s,>])(html|body|:root|header|footer|nav|h1|h2|button|\.btn|\.button|\.hero)/i;
const LOUD = 2;
const HEADING_SELECTOR = /(^|[\s,>])h[1-3]\b/i;
const GENERIC_FAMILIES = new Set(['serif', 'sans-serif', 'monospace', 'cursive', 'fantasy', 'system-ui', 'ui-sans-serif', 'ui-serif', 'ui-monospace', 'inherit', 'initial', 'unset', 'emoji', 'math', '-apple-system', 'blinkmacsystemfont']);
/** The size in the short form of a font, mostly with a line height. */
const FONT_SIZE = /^[\d.]+(?:px|rem|em|%|pt|vw|vh|ch)/i;
const MAX_VARIABLE_STEPS = 8;
/** Variables that fill one another grow without end; no value of a real page is as long. */
const MAX_VALUE_LENGTH = 4_000;
/** No brand has as many; each is compared with all others. */
const MAX_DISTINCT_COLOURS = 1_000;
/** Rules and elements of a page that are read; what comes later says little new. */
const MAX_RULES = 20_000;
const MAX_SELECTOR_LENGTH = 400;
const MAX_ELEMENTS = 100_000;
/** A mark is among the first pictures of a page. */
const MAX_PICTURES = 20;

/** Takes a page apart. Whatever its markup is like, something comes out. */
export function readPage(html: string): PageParts {
  const elements = elementsOf(parseHtml(html));
  const of = (name: string): readonly HtmlElement[] => elements.filter((element) => element.tagName === name);
  const meta = (key: string): string => attribute(of('meta').find((each) => [attribute(each, 'name'), attribute(each, 'property')].includes(key)), 'content');
  const links = of('link').map((link) => ({ rel: attribute(link, 'rel').toLowerCase(), href: attribute(link, 'href'), type: attribute(link, 'type') }));
  const icons = links.filter((link) => /(^|\s)(icon|apple-touch-icon|mask-icon)(\s|$)/.test(link.rel) && link.href !== '');
  return {
    language: attribute(of('html')[0], 'lang'),
    title: meta('og:site_name') || nameInTitle(textOf(of('title')[0]), of('img').slice(0, MAX_PICTURES).map((each) => attribute(each, 'alt'))),
    description: meta('description') || meta('og:description'),
    stylesheets: links.filter((link) => /(^|\s)stylesheet(\s|$)/.test(link.rel) && link.href !== '').map((link) => link.href),
    icons: icons.toSorted((a, b) => Number(isSvg(b)) - Number(isSvg(a))).map((link) => link.href),
    styles: of('style').map(textOf),
    inlineStyles: elements.map((element) => attribute(element, 'style')).filter((style) => style !== ''),
    themeColour: hexOf(meta('theme-color')),
  };
}

function isSvg({ href, type }: { readonly href: string; readonly type: string }): boolean {
  return type === 'image/svg+xml' || /\.svg(\?|$)/i.test(href);
}

/** All elements in the order of the page. Without recursion: a page may nest as deep as it likes. */
function elementsOf(root: HtmlNode): readonly HtmlElement[] {
  const elements: HtmlElement[] = [];
  const waiting: HtmlNode[] = [root];
  for (let node = waiting.pop(); node && elements.length < MAX_ELEMENTS; node = waiting.pop()) {
    if ('tagName' in node) elements.push(node);
    if ('childNodes' in node) for (let at = node.childNodes.length - 1; at >= 0; at -= 1) waiting.push(node.childNodes[at] as HtmlNode);
  }
  return elements;
}

function attribute(element: HtmlElement | undefined, name: string): string {
  return element?.attrs.find((each) => each.name === name)?.value.trim() ?? '';
}

function textOf(element: HtmlElement | undefined): string {
  return (element?.childNodes ?? []).map((child) => ('value' in child ? child.value : '')).join('').trim();
}

/** The colours and typefaces of a page by how much of it they make up, from all its style rules. */
export function readLook(parts: PageParts, sheets: readonly string[]): PageLook {
  const tally = new Tally();
  if (parts.themeColour !== null) tally.addColour(parts.themeColour, THEME_WEIGHT);
  const rules = [...parts.styles, ...sheets].flatMap((css) => rulesOf(css, 'stylesheet')).slice(0, MAX_RULES);
  const inline = parts.inlineStyles.slice(0, MAX_RULES).flatMap((css) => rulesOf(css, 'declarationList')).slice(0, MAX_RULES);
  const variables = new Map<string, string>();
  for (const rule of [...rules, ...inline]) if (rule.property.startsWith('--')) variables.set(rule.property, rule.value);
  for (const rule of [...rules, ...inline]) if (!rule.property.startsWith('--')) tally.addRule({ ...rule, value: fillVariables(rule.value, variables) });
  return tally.look();
}

interface Rule {
  readonly selector: string;
  readonly property: string;
  readonly value: string;
}

/** A rule's selector, as far as one looks at it. */
function selectorOf(prelude: CssNode): string {
  return generate(prelude).slice(0, MAX_SELECTOR_LENGTH);
}

function rulesOf(css: string, context: 'stylesheet' | 'declarationList'): readonly Rule[] {
  const rules: Rule[] = [];
  const tree = parseLenientCss(css, { context, parseValue: false, parseCustomProperty: false });
  if (!tree) return [];
  walk(tree, {
    visit: 'Declaration',
    enter(node: Declaration) {
      if (this.atrule?.name === 'font-face') return;
      if (rules.length < MAX_RULES) rules.push({ selector: this.rule ? selectorOf(this.rule.prelude) : '', property: node.property.toLowerCase(), value: generate(node.value).trim() });
    },
  });
  return rules;
}

function fillVariables(value: string, variables: ReadonlyMap<string, string>): string {
  let filled = value;
  for (let step = 0; step < MAX_VARIABLE_STEPS && filled.includes('var('); step += 1) {
    filled = filled.replace(/var\(\s*(--[\w-]+)\s*(?:,([^()]*))?\)/g, (_, name: string, fallback: string | undefined) => variables.get(name) ?? fallback ?? '').slice(0, MAX_VALUE_LENGTH);
  }
  return filled;
}

class Tally {
  readonly #colours = new Map<string, number>();
  readonly #families = new Map<string, { weight: number; forHeadings: boolean }>();

  addColour(hex: string, weight: number): void {
    if (this.#colours.size >= MAX_DISTINCT_COLOURS && !this.#colours.has(hex)) return;
    this.#colours.set(hex, (this.#colours.get(hex) ?? 0) + weight);
  }

  addRule({ selector, property, value }: Rule): void {
    const loud = LOUD_SELECTOR.test(selector) ? LOUD : 1;
    const weight = PROPERTY_WEIGHTS.find(([pattern]) => pattern.test(property))?.[1];
    if (weight !== undefined) for (const hex of coloursIn(value)) this.addColour(hex, weight * loud);
    if (property === 'font-family' || property === 'font') {
      const family = firstFamily(value, property);
      if (family === null) return;
      const known = this.#families.get(family);
      this.#families.set(family, { weight: (known?.weight ?? 0) + loud, forHeadings: (known?.forHeadings ?? false) || HEADING_SELECTOR.test(selector) });
    }
  }

  look(): PageLook {
    const difference = differenceEuclidean('oklab');
    const merged: { hex: string; weight: number }[] = [];
    for (const [hex, weight] of [...this.#colours].sort(([, a], [, b]) => b - a)) {
      const twin = merged.find((each) => difference(each.hex, hex) < SAME_COLOUR);
      if (twin) twin.weight += weight;
      else merged.push({ hex, weight });
    }
    const total = merged.reduce((sum, each) => sum + each.weight, 0);
    const familyTotal = [...this.#families.values()].reduce((sum, each) => sum + each.weight, 0);
    return {
      colours: merged.toSorted((a, b) => b.weight - a.weight).slice(0, MAX_COLOURS).map(({ hex, weight }) => ({ hex, share: weight / total })),
      families: [...this.#families]
        .map(([family, { weight, forHeadings }]) => ({ family, share: weight / familyTotal, forHeadings }))
        .toSorted((a, b) => b.share - a.share)
        .slice(0, MAX_FAMILIES),
    };
  }
}

/** Colours written in a value: hex, functions and names; see-through ones say little and are passed over. */
function coloursIn(value: string): readonly string[] {
  // What is longer is a picture written out, or nothing that anybody means.
  if (value.length > MAX_VALUE_LENGTH) return [];
  const words = value.match(/#[0-9a-f]{3,8}\b|(?:rgb|hsl|hwb|lab|lch|oklab|oklch)a?\([^()]*\)|\b[a-z]{3,20}\b/gi) ?? [];
  return words.flatMap((word) => hexOf(word) ?? []);
}

const toRgb = converter('rgb');

/** The same few words stand all over a page; reading one as a colour takes a while. */
const readColours = new LRUCache<string, { readonly hex: string | null }>({ max: 2_000 });

function hexOf(value: string): string | null {
  const word = value.trim();
  const known = readColours.get(word);
  if (known) return known.hex;
  const colour = toRgb(parseColour(word));
  const hex = colour && (colour.alpha ?? 1) > 0.5 ? formatHex(colour) : null;
  readColours.set(word, { hex });
  return hex;
}

/** What follows size and line height in the short form of a font. */
function afterSize(value: string): string {
  const words = value.replace(/["']/, ' $&').split(/\s+/);
  const at = words.findIndex((word) => FONT_SIZE.test(word));
  if (at < 0) return '';
  const rest = words.slice(at + 1);
  if (rest[0] === '/') rest.splice(0, 2);
  else if (rest[0]?.startsWith('/') || words[at]?.endsWith('/')) rest.splice(0, 1);
  return rest.join(' ');
}

function firstFamily(value: string, property: 'font' | 'font-family'): string | null {
  const list = property === 'font' ? afterSize(value) : value;
  const first = (list.split(',')[0] ?? '').trim().replace(/^["']|["']$/g, '').trim();
  return first === '' || GENERIC_FAMILIES.has(first.toLowerCase()) || first.includes('(') ? null : first;
}
