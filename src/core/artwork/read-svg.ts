import { formatHex, parse as parseColour } from 'culori';
import { XMLParser, XMLValidator } from 'fast-xml-parser';
import svgpath from 'svgpath';
import type { Artwork, ArtworkPath } from './artwork.ts';
import { outlineOf } from './svg-shapes.ts';
import { declarations, styleRules, type SvgStyle } from './svg-styles.ts';

/** Kinds of content that were left out of a drawing, each once. */
export type SvgNote = 'strokes' | 'gradients' | 'pictures' | 'text' | 'transparency' | 'effects';

export type ReadSvg =
  | { readonly kind: 'artwork'; readonly artwork: Artwork; readonly notes: readonly SvgNote[] }
  | { readonly kind: 'refused'; readonly reason: 'not-svg' | 'no-size' | 'nothing-filled' | 'too-much' };

const MAX_PATHS = 400;
const MAX_PATH_LENGTH = 20_000;
const DEEPEST = 40;
/** Elements visited, those that are used again counted each time: what uses what uses what grows without end. */
const MAX_VISITS = 20_000;
const MAX_NESTING = 200;
const DIGITS = 3;

interface XmlNode {
  readonly [name: string]: unknown;
}
interface Element {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly Element[];
  readonly text: string;
}

/**
 * Reads the filled outlines of an SVG drawing. It keeps coordinates and colours alone, so no script, link, style or foreign
 * content of the file gets through.
 */
export function readSvg(source: string): ReadSvg {
  const root = parseSvg(source);
  if (!root) return { kind: 'refused', reason: 'not-svg' };
  const box = viewBoxOf(root);
  if (!box) return { kind: 'refused', reason: 'no-size' };
  const reader = new SvgReader(root);
  reader.walk(root, { transforms: [`translate(${-box.x} ${-box.y})`], fill: '#000000', evenOdd: false, stroke: false }, 0);
  if (reader.tooMuch) return { kind: 'refused', reason: 'too-much' };
  if (reader.paths.length === 0) return { kind: 'refused', reason: 'nothing-filled' };
  return { kind: 'artwork', artwork: { viewBox: { width: box.width, height: box.height }, paths: reader.paths }, notes: [...reader.notes] };
}

function parseSvg(source: string): Element | null {
  if (!/<svg[\s>]/i.test(source) || isNestedTooDeep(source) || XMLValidator.validate(source) !== true) return null;
  // Entities are how an XML file grows without end or reaches for others; drawings need none.
  const parser = new XMLParser({ preserveOrder: true, ignoreAttributes: false, attributeNamePrefix: '', processEntities: false, removeNSPrefix: true });
  const nodes = parser.parse(source) as readonly XmlNode[];
  return nodes.map(toElement).find((element) => element?.name === 'svg') ?? null;
}

/** Whether tags stand in one another deeper than any drawing's do: reading goes down by recursion. */
function isNestedTooDeep(source: string): boolean {
  let depth = 0;
  for (const [tag] of source.matchAll(/<[^<>]*>/g)) {
    if (tag.startsWith('</')) depth -= 1;
    else if (!tag.endsWith('/>') && !/^<[!?]/.test(tag)) depth += 1;
    if (depth > MAX_NESTING) return true;
  }
  return false;
}

function toElement(node: XmlNode): Element | null {
  const name = Object.keys(node).find((key) => key !== ':@');
  if (name === undefined || name === '#text') return null;
  const inner = node[name];
  const children = Array.isArray(inner) ? (inner as readonly XmlNode[]) : [];
  const text = children.map((child) => (typeof child['#text'] === 'string' ? child['#text'] : '')).join('');
  const attributes = (node[':@'] ?? {}) as Record<string, string>;
  return { name, attributes, text, children: children.flatMap((child) => toElement(child) ?? []) };
}

function viewBoxOf(root: Element): { x: number; y: number; width: number; height: number } | null {
  const numbers = (root.attributes['viewBox'] ?? '').trim().split(/[\s,]+/).map(Number);
  const [x = 0, y = 0, width = 0, height = 0] = numbers;
  if (numbers.length === 4 && width > 0 && height > 0) return { x, y, width, height };
  const [ownWidth, ownHeight] = [Number.parseFloat(root.attributes['width'] ?? ''), Number.parseFloat(root.attributes['height'] ?? '')];
  return ownWidth > 0 && ownHeight > 0 ? { x: 0, y: 0, width: ownWidth, height: ownHeight } : null;
}

/** What an element hands on to those inside it. */
interface Inherited {
  readonly transforms: readonly string[];
  readonly fill: string | null;
  readonly evenOdd: boolean;
  readonly stroke: boolean;
}

const UNPAINTED = new Set(['defs', 'clipPath', 'mask', 'symbol', 'linearGradient', 'radialGradient', 'pattern', 'filter', 'title', 'desc', 'metadata', 'style', 'script', 'foreignObject']);

class SvgReader {
  readonly paths: ArtworkPath[] = [];
  readonly notes = new Set<SvgNote>();
  tooMuch = false;
  #visits = 0;
  readonly #byId = new Map<string, Element>();
  readonly #rules: ReadonlyMap<string, SvgStyle>;

  constructor(root: Element) {
    const styles: string[] = [];
    const visit = (element: Element, depth: number): void => {
      const { id } = element.attributes;
      if (id !== undefined) this.#byId.set(id, element);
      if (element.name === 'style') styles.push(element.text);
      if (depth < DEEPEST) for (const child of element.children) visit(child, depth + 1);
    };
    visit(root, 0);
    this.#rules = styleRules(styles.join('\n'));
  }

  walk(element: Element, inherited: Inherited, depth: number): void {
    if (this.tooMuch || UNPAINTED.has(element.name)) return;
    this.#visits += 1;
    if (depth > DEEPEST || this.#visits > MAX_VISITS) {
      this.tooMuch = true;
      return;
    }
    const style = this.#styleOf(element);
    if (style['display'] === 'none' || style['visibility'] === 'hidden') return;
    if (style['filter'] !== undefined && style['filter'] !== 'none') this.notes.add('effects');
    if ((style['opacity'] ?? '1') !== '1' || (style['fill-opacity'] ?? '1') !== '1') this.notes.add('transparency');
    const own: Inherited = {
      transforms: element.attributes['transform'] ? [...inherited.transforms, element.attributes['transform']] : inherited.transforms,
      fill: style['fill'] === undefined ? inherited.fill : this.#colourOf(style['fill'], inherited.fill),
      evenOdd: style['fill-rule'] === undefined ? inherited.evenOdd : style['fill-rule'] === 'evenodd',
      stroke: style['stroke'] === undefined ? inherited.stroke : style['stroke'] !== 'none',
    };
    switch (element.name) {
      case 'svg':
      case 'g':
      case 'a':
      case 'switch':
        for (const child of element.children) this.walk(child, own, depth + 1);
        return;
      case 'use':
        this.#use(element, own, depth);
        return;
      case 'image':
        this.notes.add('pictures');
        return;
      case 'text':
        this.notes.add('text');
        return;
      default:
        this.#shape(element, own);
    }
  }

  #shape(element: Element, { transforms, fill, evenOdd, stroke }: Inherited): void {
    const outline = outlineOf(element.name, element.attributes);
    if (outline === null) return;
    if (stroke) this.notes.add('strokes');
    if (fill === null) return;
    // Inner transforms are applied first.
    const path = [...transforms].reverse().reduce((current, transform) => current.transform(transform), svgpath(outline)).abs().round(DIGITS).toString();
    if (/NaN|Infinity/.test(path) || path === '') return;
    this.paths.push({ d: path, fill, ...(evenOdd ? { evenOdd } : {}) });
    if (this.paths.length > MAX_PATHS || path.length > MAX_PATH_LENGTH) this.tooMuch = true;
  }

  #use(element: Element, inherited: Inherited, depth: number): void {
    const href = element.attributes['href'] ?? '';
    const target = href.startsWith('#') ? this.#byId.get(href.slice(1)) : undefined;
    if (!target) return;
    const moved = { ...inherited, transforms: [...inherited.transforms, `translate(${Number(element.attributes['x'] ?? 0) || 0} ${Number(element.attributes['y'] ?? 0) || 0})`] };
    this.walk(target.name === 'symbol' ? { ...target, name: 'g' } : target, moved, depth + 1);
  }

  /** An element's presentation: attributes, over them rules for its name and its classes, over them its own style. */
  #styleOf({ name, attributes }: Element): SvgStyle {
    const style: Record<string, string> = { ...attributes, ...this.#rules.get(name) };
    for (const each of (attributes['class'] ?? '').split(/\s+/)) Object.assign(style, this.#rules.get(`.${each}`));
    return Object.assign(style, declarations(attributes['style'] ?? ''));
  }

  #colourOf(value: string, inherited: string | null): string | null {
    const trimmed = value.trim();
    if (trimmed === 'none' || trimmed === 'transparent') return null;
    if (trimmed === 'inherit') return inherited;
    if (trimmed === 'currentColor') return '#000000';
    if (trimmed.startsWith('url(')) {
      this.notes.add('gradients');
      const stop = this.#byId.get(/#([^)"']+)/.exec(trimmed)?.[1] ?? '')?.children.find((child) => child.name === 'stop');
      return (stop && hexOf(this.#styleOf(stop)['stop-color'] ?? '')) ?? inherited;
    }
    return hexOf(trimmed) ?? inherited;
  }
}

function hexOf(value: string): string | null {
  const colour = parseColour(value);
  return colour ? formatHex(colour) : null;
}
