import type { Part, StackPart } from './parts.ts';
import { slideTemplate } from './slide-template.ts';
import { COVER, type Arrangement, type SlideTemplate, type Template } from './template.ts';

/** Where a part stands in a tree: the places of children from the root down; empty is the root itself. */
export type PartPath = readonly number[];

/** The part at a path; null when there is none. */
export function partAt(root: Part, path: PartPath): Part | null {
  let part: Part = root;
  for (const index of path) {
    const child = part.part === 'stack' ? part.children[index] : undefined;
    if (!child) return null;
    part = child;
  }
  return part;
}

/** A tree with the part at a path changed; the same tree when nothing is there or nothing changes. */
export function changePart(root: StackPart, path: PartPath, change: (part: Part) => Part): StackPart {
  const changed = changeIn(root, path, change);
  return changed.part === 'stack' ? changed : root;
}

function changeIn(part: Part, path: PartPath, change: (part: Part) => Part): Part {
  const [index, ...rest] = path;
  if (index === undefined) return change(part);
  const child = part.part === 'stack' ? part.children[index] : undefined;
  if (part.part !== 'stack' || !child) return part;
  const changed = changeIn(child, rest, change);
  return changed === child ? part : { ...part, children: part.children.map((each, at) => (at === index ? changed : each)) };
}

/** A tree without the part at a path; the root stays. */
export function removePart(root: StackPart, path: PartPath): StackPart {
  const index = path.at(-1);
  if (index === undefined) return root;
  return changePart(root, path.slice(0, -1), (parent) => (parent.part === 'stack' ? { ...parent, children: parent.children.filter((_, at) => at !== index) } : parent));
}

/** A tree with a part put into the stack at a path, behind its other children. */
export function addPart(root: StackPart, stackPath: PartPath, part: Part): StackPart {
  return changePart(root, stackPath, (parent) => (parent.part === 'stack' ? { ...parent, children: [...parent.children, part] } : parent));
}

/** A moved part and where it stands now. */
export interface Moved {
  readonly root: StackPart;
  readonly path: PartPath;
}

/**
 * Moves a part one place up or down. At the end of its stack it goes out of it, beside it; next to a stack it goes into it. Where
 * there is nowhere to go the tree stays the same.
 */
export function movePart(root: StackPart, path: PartPath, by: -1 | 1): Moved {
  const index = path.at(-1);
  const part = partAt(root, path);
  const parentPath = path.slice(0, -1);
  const parent = partAt(root, parentPath);
  if (index === undefined || !part || parent?.part !== 'stack') return { root, path };
  const neighbour = parent.children[index + by];
  if (neighbour?.part === 'stack') return moveInto(root, path, by, neighbour);
  if (neighbour) {
    const children = [...parent.children];
    [children[index], children[index + by]] = [neighbour, part];
    return { root: changePart(root, parentPath, () => ({ ...parent, children })), path: [...parentPath, index + by] };
  }
  const parentIndex = parentPath.at(-1);
  if (parentIndex === undefined) return { root, path };
  const grandPath = parentPath.slice(0, -1);
  const target = by < 0 ? parentIndex : parentIndex + 1;
  const without = removePart(root, path);
  return { root: insertAt(without, grandPath, target, part), path: [...grandPath, target] };
}

function moveInto(root: StackPart, path: PartPath, by: -1 | 1, stack: StackPart): Moved {
  const index = path.at(-1) ?? 0;
  const parentPath = path.slice(0, -1);
  const part = partAt(root, path);
  if (!part) return { root, path };
  // Taking the part out moves a stack behind it up by one.
  const stackIndex = by < 0 ? index - 1 : index;
  const place = by < 0 ? stack.children.length : 0;
  const without = removePart(root, path);
  return { root: insertAt(without, [...parentPath, stackIndex], place, part), path: [...parentPath, stackIndex, place] };
}

function insertAt(root: StackPart, stackPath: PartPath, index: number, part: Part): StackPart {
  return changePart(root, stackPath, (parent) => (parent.part === 'stack' ? { ...parent, children: [...parent.children.slice(0, index), part, ...parent.children.slice(index)] } : parent));
}

/** Every part with its path, parents first. */
export function* walkPaths(part: Part, path: PartPath = []): Generator<{ readonly part: Part; readonly path: PartPath }> {
  yield { part, path };
  if (part.part === 'stack') for (const [index, child] of part.children.entries()) yield* walkPaths(child, [...path, index]);
}

/** A template with one of its arrangements changed. */
export function changeArrangement(template: Template, key: string, change: (arrangement: Arrangement) => Arrangement): Template {
  return { ...template, arrangements: template.arrangements.map((each) => (each.key === key ? change(each) : each)) };
}

/** One kind of slide of a carousel as a template of its own, under its own name; the cover is the template itself. */
export function slideView(template: Template, slide: string): Template {
  const found = template.slides?.find(({ key }) => key === slide);
  return found ? { ...slideTemplate(template, slide), name: found.name } : template;
}

/** Changes one kind of slide through its view; what it has in common with the cover is not kept twice. */
export function changeSlideView(template: Template, slide: string, change: (view: Template) => Template): Template {
  if (slide === COVER) return change(template);
  const view = slideView(template, slide);
  const next = change(view);
  if (next === view) return template;
  const { name, slots, drop, arrangements } = next;
  const ownScheme = next.scheme === template.scheme ? undefined : next.scheme;
  return {
    ...template,
    slides: template.slides?.map((each): SlideTemplate => {
      if (each.key !== slide) return each;
      const { scheme: _, drop: __, ...kept } = each;
      return { ...kept, name, slots, arrangements, ...(drop ? { drop } : {}), ...(ownScheme === undefined ? {} : { scheme: ownScheme }) };
    }),
  };
}

/** A new part of a kind, with what such parts usually have; `slot` is the first one that suits it. */
export function newPart(kind: Part['part'], template: Template): Part | null {
  const slotOf = (kinds: readonly string[]): string | undefined => template.slots.find((slot) => kinds.includes(slot.kind))?.key;
  const words = slotOf(['text', 'number', 'fact']);
  const list = slotOf(['list']);
  const picture = slotOf(['picture']);
  switch (kind) {
    case 'stack':
      return { part: 'stack', direction: 'column', gapM: 0.8, align: 'stretch', children: [] };
    case 'text':
      return words === undefined ? null : { part: 'text', slot: words, role: 'heading', align: 'start', ink: 'ink', sizeM: { max: 1.2, min: 0.6 } };
    case 'rows':
      return list === undefined ? null : { part: 'rows', slot: list, ink: 'ink', numeralInk: 'accent', numerals: true, sizeM: { max: 0.7, min: 0.5 }, gapM: 0.4 };
    case 'echo':
      return words === undefined ? null : { part: 'echo', slot: words, lines: 5, inked: 2, ink: 'accent', quietInk: 'surface', sizeM: { max: 3, min: 1 }, grow: 1 };
    case 'picture':
      return picture === undefined ? null : { part: 'picture', slot: picture, grow: 1, leastShare: 0.3 };
    case 'mark':
      return { part: 'mark', heightM: 2.2, alignSelf: 'start' };
    case 'rule':
      return { part: 'rule', lengthM: 2, thicknessM: 0.1, ink: 'accent', alignSelf: 'start' };
    case 'sign':
      return { part: 'sign', text: '“', heightM: 2, ink: 'accent', alignSelf: 'start' };
    case 'motif':
      return { part: 'motif', generator: 'waves', seed: 1, over: { top: 0, right: 0, bottom: 0, left: 0 } };
    case 'veil':
      return { part: 'veil', ink: 'ground', strength: 0.5, over: { top: 0, right: 0, bottom: 0, left: 0 }, ...(picture === undefined ? {} : { around: picture }) };
    case 'dots':
      return { part: 'dots', heightM: 0.2, ink: 'accent', quietInk: 'surface' };
    case 'swipe':
      return { part: 'swipe', heightM: 0.6, ink: 'ink' };
    case 'artwork':
      return null;
  }
}
