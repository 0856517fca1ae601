import type { Frame, SlotValue } from '../../src/core/piece/piece.ts';
import type { Slot, Template } from '../../src/core/template/template.ts';
import type { CorpusContent } from './contents.ts';

/** Pictures at hand by what they are: `photo` and `second` whole ones, `tiny` too small for anything. */
export type PictureName = 'photo' | 'second' | 'tiny';

const numberSlots = new Set(['number', 'day', 'offer', 'price']);
const shortSlots = new Set(['label', 'first', 'second', 'third', 'then', 'call']);

/** A template's slots with a content in them, each slot with what belongs there. */
export function fillTemplate(template: Template, content: CorpusContent): Frame {
  const slots: Record<string, SlotValue> = {};
  let pictures = 0;
  for (const slot of template.slots) {
    if (slot.kind === 'picture') {
      if (content.picture === 'none') continue;
      const name: PictureName = content.picture === 'tiny' ? 'tiny' : pictures % 2 === 0 ? 'photo' : 'second';
      pictures += 1;
      slots[slot.key] = { kind: 'picture', mediaId: name };
      continue;
    }
    if (slot.kind === 'mark') continue;
    const text = textFor(slot, template, content);
    if (text !== '') slots[slot.key] = { kind: 'text', text };
  }
  return { id: 'corpus', slots };
}

function textFor(slot: Slot, template: Template, content: CorpusContent): string {
  if (slot.kind === 'page') return '3/7';
  if (slot.kind === 'ordinal') return '3';
  if (slot.kind === 'head') return content.headline;
  if (slot.kind === 'list') return slot.columns ? content.points.map((point, index) => `${point.split(':')[0] ?? point}: ${index + 9} to ${index + 17}`).join('\n') : content.points.join('\n');
  if (template.key === 'bill' && slot.key === 'day') return content.number.replace(/\D/g, '').slice(0, 2) || '28';
  if (template.key === 'door' && slot.key === 'day') return (content.points[1] ?? '').split(':')[0] ?? '';
  if (numberSlots.has(slot.key)) return content.number;
  if (slot.key === 'word') return content.word;
  if (slot.key === 'name') return content.person;
  if (shortSlots.has(slot.key)) return content.label;
  return slot.key === 'headline' || slot.key === 'heading' ? content.headline : content.line;
}
