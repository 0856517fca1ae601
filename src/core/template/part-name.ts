import { walkParts, type Part } from './parts.ts';
import type { Template } from './template.ts';

export const kindNames: Readonly<Record<Part['part'], string>> = { stack: 'Stack', text: 'Text', picture: 'Picture', rows: 'List', echo: 'Echo', mark: 'Mark', rule: 'Line', sign: 'Sign', artwork: 'Drawing', motif: 'Motif', veil: 'Veil', dots: 'Page dots', swipe: 'Swipe cue' };

/** The name of a stack lists at most this many of its parts. */
const MOST_NAMED = 2;

/** What a part is called: a stack by what stands in it, others by their slot or their kind. */
export function partName(part: Part, template: Pick<Template, 'slots'>): string {
  if (part.part !== 'stack') return 'slot' in part && part.slot !== undefined ? (template.slots.find(({ key }) => key === part.slot)?.label ?? part.slot) : kindNames[part.part];
  const kind = part.direction === 'row' ? 'Row' : 'Column';
  const inside = [...new Set([...walkParts(part)].filter((each) => each.part !== 'stack' && each.part !== 'rule' && each.part !== 'motif').map((each) => partName(each, template)))];
  if (inside.length === 0) return kind;
  return `${kind}: ${inside.slice(0, MOST_NAMED).join(', ')}${inside.length > MOST_NAMED ? ` and ${inside.length - MOST_NAMED} more` : ''}`;
}
