import type { EchoPart, Part, RowsPart, StackPart, TextPart } from '../template/parts.ts';

/** Where the text and the numeral of a list's row are bound. */
export const rowSlot = (slot: string, index: number): string => `${slot}.${index}`;
export const numeralSlot = (slot: string, index: number): string => `${slot}.${index}.numeral`;
/** The second column of a row that has two. */
export const valueSlot = (slot: string, index: number): string => `${slot}.${index}.value`;
/** A slot's text as often on one line as makes a pattern of it. */
export const echoSlot = (slot: string): string => `${slot}.echo`;
export const isNumeral = (slot: string): boolean => slot.endsWith('.numeral');
/** Whether others of its kind stand above and below a text: numerals, and values such as prices. */
export const standsInColumn = (slot: string): boolean => isNumeral(slot) || slot.endsWith('.value');
/** The slot of the template that a bound text belongs to: `points` for a row of it. */
export const slotOfRow = (slot: string): string => slot.split('.')[0] ?? slot;

/** Widths of hairlines and of the room for numerals, in m. */
const HAIRLINE_M = 0.035;
const NUMERAL_ROOM = 2.2;

/** What is known of a list: how many items it has, whether they have two columns, and which of them is marked. */
export interface ListShape {
  readonly count: number;
  readonly columns: boolean;
  readonly marked: number | null;
}

/** Replaces every list of a tree by one row an item, and every echo by its lines, so that layout knows nothing of them. */
export function expandRows(root: StackPart, shapeOf: (slot: string) => ListShape): StackPart {
  const expand = (part: Part): Part => {
    if (part.part === 'rows') return rowsOf(part, shapeOf(part.slot));
    if (part.part === 'echo') return linesOf(part);
    return part.part === 'stack' ? { ...part, children: part.children.map(expand) } : part;
  };
  return { ...root, children: root.children.map(expand) };
}

function rowsOf(part: RowsPart, { count, columns, marked }: ListShape): StackPart {
  const { slot, ink, numeralInk, numerals, sizeM, gapM, ...placed } = part;
  const text = (name: string, role: TextPart['role'], colour: TextPart['ink'], more: Partial<TextPart>): TextPart => ({ part: 'text', slot: name, role, align: 'start', ink: colour, sizeM, ...more });
  const rows = Array.from({ length: count }, (_, index): StackPart => {
    const isMarked = index === marked;
    const role = isMarked ? 'heading' : 'text';
    const line: StackPart = {
      part: 'stack',
      direction: 'row',
      gapM: 0.4,
      align: 'start',
      ...(isMarked ? { field: { ink: numeralInk }, padM: { top: gapM, right: gapM, bottom: gapM * 0.7, left: gapM } } : {}),
      children: [
        ...(numerals ? [text(numeralSlot(slot, index), 'heading', numeralInk, { widthM: sizeM.max * NUMERAL_ROOM })] : []),
        text(rowSlot(slot, index), role, isMarked ? 'ground' : ink, { grow: 1, share: 0 }),
        ...(columns ? [text(valueSlot(slot, index), role, isMarked ? 'ground' : ink, { grow: 1, share: 0, align: 'end' })] : []),
      ],
    };
    // A marked row is its own line: a hairline on its edge would be one too many.
    const isBelowMarked = marked !== null && index === marked + 1;
    const hairline: Part = { part: 'rule', lengthM: 0, thicknessM: HAIRLINE_M, ink, alignSelf: 'stretch' };
    return { part: 'stack', direction: 'column', gapM, align: 'stretch', children: isMarked || isBelowMarked ? [line] : [hairline, line] };
  });
  return { ...placed, part: 'stack', direction: 'column', gapM, align: 'stretch', children: rows };
}

function linesOf(part: EchoPart): StackPart {
  const { slot, lines, inked, ink, quietInk, sizeM, ...placed } = part;
  const children = Array.from({ length: lines }, (_, index): TextPart => ({
    part: 'text',
    slot: echoSlot(slot),
    role: 'display',
    align: 'start',
    ink: index === inked ? ink : quietInk,
    sizeM,
    fill: true,
    ...(index === inked ? {} : { ornament: true }),
  }));
  return { ...placed, part: 'stack', direction: 'column', justify: 'between', align: 'stretch', children };
}
