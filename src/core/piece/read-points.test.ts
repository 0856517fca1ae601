import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { getShippedTemplate } from '../template/shipped-templates.ts';
import { draftSlides, pictureSlides } from './draft-slides.ts';
import type { Slides } from './edit-slides.ts';
import { slotText } from './piece.ts';
import { readPoints } from './read-points.ts';

const headings = (text: string): readonly string[] => readPoints(text).points.map(({ heading }) => heading);

describe('points', () => {
  it.each([
    ['a numbered list', '1. Sled\n2. Diamond\n3. Delta', ['Sled', 'Diamond', 'Delta']],
    ['a bulleted list with other bullets', '• Sled\n• Diamond\n– Delta', ['Sled', 'Diamond', 'Delta']],
    ['Markdown with bold beginnings', '- **Sled:** no sticks\n- **Diamond** the first one', ['Sled', 'Diamond']],
    ['sections', '# Five winds\n\n## A breath\nSleds.\n\n## A blow\nBox kites.', ['A breath', 'A blow']],
    ['a table', 'Kite,Wind,Price\nSled,light,£12\nDelta,good,£30', ['Sled', 'Delta']],
    ['a table with semicolons and no head', 'Sled;light 1\nDelta;good 2\nBox;strong 3', ['Sled', 'Delta', 'Box']],
    ['plain lines', 'Five winds\nSled kites\nDiamonds\nDeltas', ['Sled kites', 'Diamonds', 'Deltas']],
    ['an article', 'The wind was light. We flew sleds all morning and nobody minded at all, not even the dog.\n\nBy noon it blew. Then the box kites came out and stayed out until it was too dark to see.', ['The wind was light', 'By noon it blew']],
  ])('are found in %s', (_, text, expected) => {
    expect(headings(text)).toEqual(expected);
  });

  it('of a script without spaces are parted at its own full stops, and long ones cut within it', () => {
    const [more, long] = ['凧を上げる人が浜に集まった。'.repeat(5), '風'.repeat(70)];
    expect(readPoints(`朝は風が弱かった。${more}\n\n${long}`).points).toEqual([
      { heading: '朝は風が弱かった', text: more },
      { heading: `${'風'.repeat(58)}…`, text: long },
    ]);
  });

  it('keep their explanations and the title', () => {
    const { title, points } = readPoints('Five winds:\n\n1. A breath: sled kites, up before the tea is done\n2. A blow – box kites');
    expect(title).toBe('Five winds');
    expect(points).toEqual([{ heading: 'A breath', text: 'sled kites, up before the tea is done' }, { heading: 'A blow', text: 'box kites' }]);
    expect(readPoints('Kite,Wind,Price\nSled,light,£12\nDelta,good,£30').points[1]).toEqual({ heading: 'Delta', text: 'Wind: good, Price: £30' });
  });

  it('keep what stands under an item with it: lines, and bullets, however far they are indented', () => {
    const { title, points } = readPoints(
      ['Zwölf Schritte', '1. Mehl abwiegen', '   450 g Weizen, 50 g Roggen', '2. Sauerteig unterheben:', '   - aktiv', '   - höchstens sechs Stunden alt', '3. Ruhen lassen – 40 Minuten', '10. In den Keller', '  • mit Tuch', '\t• ohne Luftzug', '11. Backen'].join('\n'),
    );
    expect(title).toBe('Zwölf Schritte');
    expect(points).toEqual([
      { heading: 'Mehl abwiegen', text: '450 g Weizen, 50 g Roggen' },
      { heading: 'Sauerteig unterheben', text: 'aktiv, höchstens sechs Stunden alt' },
      { heading: 'Ruhen lassen', text: '40 Minuten' },
      { heading: 'In den Keller', text: 'mit Tuch, ohne Luftzug' },
      { heading: 'Backen', text: '' },
    ]);
    expect(readPoints('- **Sled:** no sticks\n  - paper\n  - light wind\n- Delta').points).toEqual([{ heading: 'Sled', text: 'no sticks, paper, light wind' }, { heading: 'Delta', text: '' }]);
  });

  it('drop empty points, split long ones, and report both', () => {
    const long = 'A sentence of some length that says a thing about kites and wind. '.repeat(6);
    const { points, notes } = readPoints(`- One: ${long}\n-\n- Two`);
    expect(points.map(({ heading }) => heading)).toEqual(['One', 'One, continued', 'Two']);
    expect(points.every(({ text }) => text.length <= 220)).toBe(true);
    expect(points.map(({ text }) => text).join(' ').replace(/\s+/g, ' ').trim()).toBe(long.trim());
    expect(notes.join(' ')).toMatch(/1 empty point was left out.*second slide/);
  });

  it.each([
    ['nothing', '  \n ', 0, /no text/],
    ['two hundred points', Array.from({ length: 200 }, (_, index) => `- A point that is far too long to share a slide, number ${index}`).join('\n'), 90, /200 points/],
    ['forty columns', [Array.from({ length: 40 }, (_, index) => `Name${'x'.repeat(index % 3)}`), ...[1, 2, 3].map((row) => Array.from({ length: 40 }, (_, index) => `c${row}-${index}`))].map((cells) => cells.join(',')).join('\n'), 3, /40 columns/],
  ])('report %s in a clear sentence', (_, text, count, note) => {
    const read = readPoints(text);
    expect(read.points).toHaveLength(count);
    expect(read.notes.join(' ')).toMatch(note);
  });

  it('stand in pairs where two hundred of them are short', () => {
    expect(readPoints(Array.from({ length: 160 }, (_, index) => `- Point ${index}`).join('\n')).points).toHaveLength(80);
  });
});

describe('words of a pasted text', () => {
  let serial = 0;
  /** A word that stands nowhere else. */
  const word = fc.integer({ min: 1, max: 9 }).map((length) => `w${(serial += 1)}${'x'.repeat(length)}q`);
  const sentence = fc.array(word, { minLength: 1, maxLength: 9 }).map((words) => words.join(' '));
  const items = fc.array(fc.tuple(sentence, fc.constantFrom('', ': ', ' – '), sentence), { minLength: 1, maxLength: 5 });
  const block = fc.oneof(
    sentence.map((text) => `## ${text}`),
    sentence.map((text) => `${text}.`),
    sentence.map((text) => `> ${text}`),
    sentence.map((text) => `    ${text}`),
    sentence.map((text) => `[${text}]: ${text.replaceAll(' ', '-')}`),
    fc.array(sentence, { minLength: 2, maxLength: 4 }).map((lines) => lines.join('\n')),
    items.map((all) => all.map(([lead, parting, more], index) => `${index + 1}. ${lead}${parting}${parting === '' ? '' : more}`).join('\n')),
    items.map((all) => all.map(([lead, , more]) => `• **${lead}** ${more}\n   ${more}`).join('\n')),
    fc.array(fc.tuple(sentence, sentence), { minLength: 2, maxLength: 4 }).map((rows) => rows.map(([a, b]) => `| ${a} | ${b} |`).join('\n')),
  );

  it('stand on the slides, or a note says that they are left out', () => {
    fc.assert(
      fc.property(fc.array(block, { minLength: 1, maxLength: 6 }), (blocks) => {
        const text = blocks.join('\n\n');
        const { title, points, notes } = readPoints(text);
        const shown = [title, ...points.flatMap(({ heading, text: more }) => [heading, more]), ...notes].join(' ');
        const lost = [...new Set(text.match(/w\d+x+q/gu))].filter((each) => !shown.includes(each));
        // A note repeats the beginning of what is left out.
        if (lost.length > 0) expect(notes.join(' '), `lost ${lost.join(' ')} of:\n${text}`).toMatch(/Left out.* …”/u);
      }),
    );
  });

  it('of a table drawn with pipes are its points', () => {
    const { points } = readPoints('| Brot | Preis | Tag |\n|---|:--:|---|\n| Hafenstange | 2,40 € | Di–Sa |\n| Das "Schwarze" | 4,80 € | Sa |');
    expect(points).toEqual([{ heading: 'Hafenstange', text: 'Preis: 2,40 €, Tag: Di–Sa' }, { heading: 'Das "Schwarze"', text: 'Preis: 4,80 €, Tag: Sa' }]);
  });

  it('outside a list are named', () => {
    const { title, points, notes } = readPoints('Kommt alle!\n\nDrei Brote:\n\n1. Eins\n2. Zwei\n\nBis Samstag am Hafen.');
    expect([title, points.length]).toEqual(['Drei Brote', 2]);
    expect(notes).toEqual(['Left out, as it stands outside the list: “Kommt alle! Bis Samstag am Hafen.”']);
  });
});

describe('slides made of points', () => {
  let next = 0;
  const newId = (): string => `n${(next += 1)}`;
  const strand = getShippedTemplate('strand');
  const before: Slides = [{ id: 'c', slots: {} }];

  it('are a cover with the title, a slide a point, and a closing card', () => {
    const slides = draftSlides(strand, before, { title: 'Five winds', points: [{ heading: 'A breath', text: 'Sleds.' }, { heading: 'A blow', text: '' }] }, newId);
    expect(slides.map(({ slide }) => slide)).toEqual([undefined, 'point', 'point', 'closing']);
    expect(slotText(slides[0], 'headline')).toBe('Five winds');
    expect(slides[1]?.slots).toEqual({ heading: { kind: 'text', text: 'A breath' }, text: { kind: 'text', text: 'Sleds.' } });
  });

  it('leave a cover and a closing card that are there as they are', () => {
    const there: Slides = [{ id: 'c', slots: { headline: { kind: 'text', text: 'Mine' } } }, { id: 'p', slide: 'point', slots: {} }, { id: 'z', slide: 'closing', slots: { call: { kind: 'text', text: 'Come' } } }];
    const slides = draftSlides(strand, there, { title: 'Theirs', points: [{ heading: 'A', text: '' }] }, newId);
    expect(slides[0]).toBe(there[0]);
    expect(slides.at(-1)).toBe(there[2]);
    expect(slides).toHaveLength(3);
  });

  it('are one a picture, in order, before the closing card', () => {
    const sheaf = getShippedTemplate('sheaf');
    const slides = pictureSlides(sheaf, before, ['m1', 'm2'], newId);
    expect(slides.map(({ slide }) => slide)).toEqual([undefined, 'picture', 'picture', 'closing']);
    const more = pictureSlides(sheaf, slides, ['m3'], newId);
    expect(more.map(({ slots }) => Object.values(slots).flatMap((value) => (value.kind === 'picture' ? [value.mediaId] : []))).flat()).toEqual(['m1', 'm2', 'm3']);
    expect(more.at(-1)?.slide).toBe('closing');
    expect(pictureSlides(strand, before, ['m1'], newId)).toBe(before);
  });
});
