import type { Part, RowsPart, StackPart, TextPart } from '../template/template.ts';

/** Where the text and the numeral of a list's row are bound. */
export const rowSlot = (slot: string, index: number): string => `${slot}.${index}`;
export const numeralSlot = (slot: string, index: number): string => `${slot}.${index}.numeral`;
export const isNumeral = (slot: string): boolean => slot.endsWith('.numeral');
/** The slot of the template that a bound text belongs to: `points` for a row of it. */
export const slotOfRow = (slot: string): string => slot.split('.')[0] ?? slot;

/** Widths of hairlines and of the room for numerals, in m. */
const HAIRLINE_M = 0.035;
const NUMERAL_ROOM = 2.2;

/** Replaces every list of a tree by one row an item, so that layout knows nothing of lists. */
export function expandRows(root: StackPart, itemCount: (slot: string) => number): StackPart {
  const expand = (part: Part): Part => {
    if (part.part === 'rows') return rowsOf(part, itemCount(part.slot));
    return part.part === 'stack' ? { ...part, children: part.children.map(expand) } : part;
  };
  return { ...root, children: root.children.map(expand) };
}

function rowsOf(part: RowsPart, count: number): StackPart {
  const { slot, ink, numeralInk, numerals, sizeM, gapM, ...placed } = part;
  const text = (name: string, role: TextPart['role'], colour: TextPart['ink'], more: Partial<TextPart>): TextPart => ({ part: 'text', slot: name, role, align: 'start', ink: colour, sizeM, ...more });
  const rows = Array.from({ length: count }, (_, index): StackPart => ({
    part: 'stack',
    direction: 'column',
    gapM,
    align: 'stretch',
    children: [
      { part: 'rule', lengthM: 0, thicknessM: HAIRLINE_M, ink, alignSelf: 'stretch' },
      {
        part: 'stack',
        direction: 'row',
        gapM: 0.4,
        align: 'start',
        children: [
          ...(numerals ? [text(numeralSlot(slot, index), 'heading', numeralInk, { widthM: sizeM.max * NUMERAL_ROOM })] : []),
          text(rowSlot(slot, index), 'text', ink, { grow: 1, share: 0 }),
        ],
      },
    ],
  }));
  return { ...placed, part: 'stack', direction: 'column', gapM, align: 'stretch', children: rows };
}
