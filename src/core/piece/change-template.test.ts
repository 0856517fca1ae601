import { describe, expect, it } from 'vitest';
import { getShippedTemplate, shippedTemplates } from '../template/shipped-templates.ts';
import type { Template } from '../template/template.ts';
import { changeTemplate, textsKeptAside } from './change-template.ts';
import type { Frame, SlotValue } from './piece.ts';

const text = (value: string): SlotValue => ({ kind: 'text', text: value });
const photo: SlotValue = { kind: 'picture', mediaId: 'm1' };
const [headland, aside, bill, ledger, arch] = ['headland', 'aside', 'bill', 'ledger', 'arch'].map(getShippedTemplate) as [Template, Template, Template, Template, Template];
const frame: Frame = { id: 'f', slots: { photo, label: text('New'), headline: text('Big Blow'), line: text('30 May') } };

describe('changeTemplate', () => {
  it('keeps what has the same name, and fills the rest in order', () => {
    expect(changeTemplate(frame, headland, arch).slots).toEqual(frame.slots);
    expect(changeTemplate(frame, headland, bill).slots).toEqual({ ...frame.slots, photo });
    const { slots } = changeTemplate(frame, headland, ledger);
    expect(slots['points']).toEqual(text('New'));
    expect(slots['headline']).toEqual(text('Big Blow'));
  });

  it('keeps aside what has no place, and says so', () => {
    const quote = changeTemplate(frame, headland, aside);
    expect(quote.slots['photo']).toEqual(photo);
    expect(textsKeptAside(quote, aside)).toEqual([{ slot: 'label', text: 'New' }]);
  });

  it('never puts a picture where words belong, nor the other way round', () => {
    for (const to of shippedTemplates) {
      const { slots } = changeTemplate(frame, headland, to);
      for (const slot of to.slots) {
        const value = slots[slot.key];
        if (value) expect(value.kind === 'picture').toBe(slot.kind === 'picture');
      }
    }
  });

  it('keeps a value aside under another name where the new template calls a slot for something else so, and gives it back', () => {
    const template = (slots: readonly (readonly [key: string, kind: 'text' | 'picture'])[]): Template => ({ ...headland, slots: slots.map(([key, kind]) => ({ key, kind, label: key, hint: '', required: true })) });
    const [album, poem] = [template([['photo', 'picture'], ['headline', 'text']]), template([['photo', 'text'], ['headline', 'text'], ['line', 'text']])];
    const there = changeTemplate({ id: 'f', slots: { photo, headline: text('Up') } }, album, poem);
    expect(there.slots).toEqual({ 'photo-picture': photo, headline: text('Up') });
    const written: Frame = { ...there, slots: { ...there.slots, photo: text('Of the sea') } };
    const back = changeTemplate(written, poem, album);
    expect(back.slots).toEqual({ photo, headline: text('Up'), 'photo-words': text('Of the sea') });
    expect(changeTemplate(back, album, poem).slots).toEqual(written.slots);
  });

  it('loses nothing on the way to any template and back', () => {
    for (const to of shippedTemplates) {
      const there = changeTemplate(frame, headland, to);
      const values = (each: Frame): string[] => Object.values(each.slots).map((value) => JSON.stringify(value)).sort();
      expect(values(there)).toEqual(values(frame));
      expect(values(changeTemplate(there, to, headland))).toEqual(values(frame));
    }
  });
});
