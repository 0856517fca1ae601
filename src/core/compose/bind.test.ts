import { describe, expect, it } from 'vitest';
import { testPicture } from '../../../tests/fixtures/pictures.ts';
import type { Frame } from '../piece/piece.ts';
import { getShippedTemplate } from '../template/shipped-templates.ts';
import type { Template } from '../template/template.ts';
import { bind, chosenMark, echoLine, type BindOptions } from './bind.ts';
import { echoSlot, numeralSlot, rowSlot, valueSlot } from './expand.ts';

const options: BindOptions = { ghosts: false, hidden: [], facts: [], language: undefined };
const noPictures = new Map();
const frameOf = (texts: Readonly<Record<string, string>>, others: Frame['slots'] = {}): Frame => ({ id: 'f', slots: { ...Object.fromEntries(Object.entries(texts).map(([key, text]) => [key, { kind: 'text', text }])), ...others } });
const boundIn = (template: Template, frame: Frame, more: Partial<BindOptions> = {}) => bind(template, frame, noPictures, { ...options, ...more });
const fact = (key: string, text: string) => ({ key, name: key, text });

describe('texts of a frame', () => {
  const plank = getShippedTemplate('plank');

  it('stand in their slots, tidied; an empty one is missing, and named where it is required', () => {
    const { texts, findings } = boundIn(plank, frameOf({ headline: '  One  thing\u2009', line: '   ' }));
    expect(texts['headline']).toEqual({ text: 'One thing', ghost: false });
    expect(texts).not.toHaveProperty('line');
    expect(findings).toEqual([]);
    expect(boundIn(plank, frameOf({})).findings).toEqual([{ kind: 'empty-slot', slot: 'headline' }]);
  });

  it('are their hints faintly where a preview asks for it', () => {
    const hint = plank.slots.find(({ key }) => key === 'line')?.hint;
    expect(boundIn(plank, frameOf({ headline: 'One' }), { ghosts: true }).texts['line']).toEqual({ text: hint, ghost: true });
  });

  it('are left out where the cut hides their slot, without a word about it', () => {
    const { texts, findings } = boundIn(plank, frameOf({ line: 'Below' }), { hidden: ['headline'] });
    expect([Object.keys(texts), findings]).toEqual([['line'], []]);
  });

  it('have the texts of facts for their fill-ins; one without a fact, or with an empty one, is named', () => {
    const facts = [fact('phone', '01632 960 184'), fact('fax', ' ')];
    const { texts, findings } = boundIn(plank, frameOf({ headline: 'Ring {phone}', line: 'Or {fax}, or {pigeon}' }), { facts });
    expect(texts['headline']?.text).toBe('Ring 01632 960 184');
    expect(findings).toEqual([
      { kind: 'missing-fact', slot: 'line', fact: 'fax', reason: 'empty' },
      { kind: 'missing-fact', slot: 'line', fact: 'pigeon', reason: 'unknown' },
    ]);
  });

  it('repeat in a template’s pattern, a short word several times on a line', () => {
    const { texts } = boundIn(getShippedTemplate('thanks'), frameOf({ word: 'Ta' }));
    expect(texts[echoSlot('word')]?.text).toBe('Ta Ta Ta');
    expect([echoLine('Thanks'), echoLine('Merci'), echoLine('A very long word of thanks')]).toEqual(['Thanks', 'Merci', 'A very long word of thanks']);
  });
});

describe('lists', () => {
  const door = getShippedTemplate('door');
  const rowsOf = (texts: ReturnType<typeof boundIn>['texts'], count: number) => Array.from({ length: count }, (_, index) => [texts[rowSlot('hours', index)]?.text, texts[valueSlot('hours', index)]?.text]);

  it('are their lines without the marks before them, in columns where the template has some', () => {
    const ledger = boundIn(getShippedTemplate('ledger'), frameOf({ headline: 'Three', points: '- A coat\n\n2. Tea: black\n• An hour ' }));
    expect([0, 1, 2].map((index) => ledger.texts[rowSlot('points', index)]?.text)).toEqual(['A coat', 'Tea: black', 'An hour']);
    expect(ledger.texts[numeralSlot('points', 2)]?.text).toBe('3');
    expect(ledger.lists['points']).toEqual({ count: 3, columns: false, marked: null });
    const hours = boundIn(door, frameOf({ headline: 'Open', hours: 'Monday: closed\nFriday: 10:30 to 6\nBy appointment' }));
    expect(rowsOf(hours.texts, 3)).toEqual([['Monday', 'closed'], ['Friday', '10:30 to 6'], ['By appointment', undefined]]);
  });

  it('mark the row that another text names, whatever its case', () => {
    const frame = frameOf({ headline: 'Open', hours: 'Friday: 10\nSaturday: 9', day: ' saturday ' });
    expect(boundIn(door, frame).lists['hours']?.marked).toBe(1);
    expect(boundIn(door, frameOf({ headline: 'Open', hours: 'Friday: 10', day: 'Sunday' })).lists['hours']?.marked).toBeNull();
  });

  it('of opening hours come from the facts, with days in the brand’s language, and yield to what is written', () => {
    const facts = [fact('hours-mon', 'zu'), fact('hours-tue', ''), fact('hours-sat', '9–18 Uhr')];
    const german = boundIn(door, frameOf({ headline: 'Offen', day: 'Samstag' }), { facts, language: 'de' });
    expect(rowsOf(german.texts, 2)).toEqual([['Montag', 'zu'], ['Samstag', '9–18\u00a0Uhr']]);
    expect(german.lists['hours']).toEqual({ count: 2, columns: true, marked: 1 });
    expect(rowsOf(boundIn(door, frameOf({ headline: 'Open' }), { facts }).texts, 1)).toEqual([['Monday', 'zu']]);
    expect(rowsOf(boundIn(door, frameOf({ headline: 'Offen', hours: 'Heute: zu' }), { facts, language: 'de' }).texts, 1)).toEqual([['Heute', 'zu']]);
  });

  it('show their hint three times while they are empty, and count as empty', () => {
    const { texts, lists, findings } = boundIn(getShippedTemplate('ledger'), frameOf({ headline: 'Three' }), { ghosts: true });
    expect([lists['points']?.count, texts[rowSlot('points', 2)]?.ghost]).toEqual([3, true]);
    expect(findings).toContainEqual({ kind: 'empty-slot', slot: 'points' });
  });
});

describe('pictures and marks', () => {
  it('are those that are there; one left as it was taken is known', () => {
    const picture = testPicture();
    const frame = frameOf({ headline: 'One' }, { photo: { kind: 'picture', mediaId: picture.id, untreated: true } });
    const headland = getShippedTemplate('headland');
    expect(bind(headland, frame, new Map([[picture.id, picture]]), options)).toMatchObject({ pictures: { photo: { id: picture.id } }, untreated: ['photo'] });
    // A picture that is gone leaves its slot empty.
    const gone = bind(headland, frame, noPictures, options);
    expect([gone.pictures, gone.findings]).toEqual([{}, [{ kind: 'empty-slot', slot: 'photo' }]]);
  });

  it('a mark is the one that was chosen, while the book has it', () => {
    const mark = { key: 'tail', name: 'Tail', kind: 'vector', svg: '<svg/>', clearSpace: 0.1, minHeightPx: 20, inks: 'own' } as unknown as Parameters<typeof chosenMark>[0]['marks'][number];
    const part = { part: 'mark', slot: 'mark' } as Parameters<typeof chosenMark>[2];
    expect(chosenMark({ marks: [mark] }, { marks: { mark: 'tail' } }, part)?.key).toBe('tail');
    expect(chosenMark({ marks: [] }, { marks: { mark: 'tail' } }, part)).toBeNull();
    expect(chosenMark({ marks: [mark] }, { marks: {} }, part)).toBeNull();
  });
});
