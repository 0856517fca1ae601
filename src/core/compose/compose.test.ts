import { loadYoga } from 'yoga-layout/load';
import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { lanternfallBook } from '../../../demo/brands/lanternfall.ts';
import { testPicture } from '../../../tests/fixtures/pictures.ts';
import { testTypesetter } from '../../../tests/fixtures/typesetter.ts';
import { plainBook } from '../../../tests/sheet/test-brands.ts';
import type { BrandBook } from '../brand/brand-book.ts';
import { boxContains, intersectBoxes } from '../geometry/box.ts';
import { networkSheetSchema, type Placement } from '../network/network-sheet.ts';
import petalry from '../network/sheets/petalry.json' with { type: 'json' };
import quipline from '../network/sheets/quipline.json' with { type: 'json' };
import { linkedCut, type Adjustment } from '../piece/adjustment.ts';
import type { SlotValue } from '../piece/piece.ts';
import { getShippedTemplate, shippedTemplates } from '../template/shipped-templates.ts';
import { compose, type Composed } from './compose.ts';
import { cutFrame, leastTypePx } from './cut-frame.ts';

const engines = { typesetter: testTypesetter(), yoga: await loadYoga() };
const placements: readonly Placement[] = [petalry, quipline].flatMap((sheet) => networkSheetSchema.validateSync(sheet).placements);
const contents: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  short: { label: 'New', headline: 'Big Blow', line: '30 May' },
  usual: { label: 'Saturday on the quay', headline: 'Build your own kite in an afternoon', line: 'The Old Net Loft, from 2 pm. Sails and string included.' },
  german: { label: 'Werkstatt', headline: 'Drachenbaukurs für Einsteiger am Samstagnachmittag', line: 'Samstagnachmittag, altes Netzlager am Hafen' },
};

function composeCut(options: { readonly template: string; readonly texts: Readonly<Record<string, string>>; readonly placement: Placement; readonly book?: BrandBook; readonly ghosts?: boolean; readonly photo?: boolean; readonly adjustment?: Adjustment }): Composed {
  const slots: Record<string, SlotValue> = Object.fromEntries(Object.entries(options.texts).map(([slot, text]) => [slot, { kind: 'text', text }]));
  const picture = testPicture();
  if (options.photo !== false) slots['photo'] = { kind: 'picture', mediaId: picture.id };
  return compose(
    { template: getShippedTemplate(options.template), frame: { id: 'f', slots }, book: options.book ?? gullwickBook, placement: options.placement, pictures: new Map([[picture.id, picture]]), ghosts: options.ghosts ?? false, adjustment: options.adjustment ?? linkedCut },
    engines,
  );
}

const placementOf = (key: string): Placement => {
  const found = placements.find((each) => each.key === key);
  if (!found) throw new Error(`no placement ${key}`);
  return found;
};

const cases = ['headland', 'aside', 'lull', 'shade'].flatMap((template) =>
  ([['gullwick', gullwickBook], ['lanternfall', lanternfallBook]] as const).flatMap(([brand, book]) =>
    placements.flatMap((placement) => Object.keys(contents).map((content) => ({ template, brand, book, placement, content, where: placement.key }))),
  ),
);

describe('compose', () => {
  it.each(cases)('$template, $brand, $where, $content text: everything fits, is readable and stays in the safe zone', ({ template, book, placement, content }) => {
    const { scene, report } = composeCut({ template, texts: contents[content] ?? {}, placement, book });
    const frame = cutFrame(placement);
    const { widthPx, heightPx } = frame.size;
    const safe = { xPx: frame.safe.leftPx, yPx: frame.safe.topPx, widthPx: widthPx - frame.safe.leftPx - frame.safe.rightPx, heightPx: heightPx - frame.safe.topPx - frame.safe.bottomPx };
    expect(report.texts.every((text) => text.kind === 'fits')).toBe(true);
    expect(report.findings).toEqual([]);
    expect(scene.size).toEqual({ widthPx: placement.exportPx.width, heightPx: placement.exportPx.height });
    for (const { slot, box } of report.placed) {
      expect(boxContains(safe, box, 1), `${slot} inside the safe zone`).toBe(true);
      for (const other of report.placed) if (other.slot !== slot) expect(intersectBoxes(box, other.box), `${slot} over ${other.slot}`).toBeNull();
    }
    const floor = leastTypePx(frame, 'label');
    for (const text of report.texts) expect(text.sizePx).toBeGreaterThanOrEqual(floor - 1e-6);
  });

  it.each(shippedTemplates.flatMap((template) => ([['gullwick', gullwickBook], ['lanternfall', lanternfallBook]] as const).flatMap(([brand, book]) => placements.map((placement) => ({ template, brand, book, placement, name: template.name, where: placement.key })))))(
    '$name shows its own sample well for $brand in $where',
    ({ template, book, placement }) => {
      const picture = testPicture();
      const slots = Object.fromEntries(
        template.slots.flatMap((slot): [string, SlotValue][] => {
          if (slot.kind === 'picture') return [[slot.key, { kind: 'picture', mediaId: picture.id }]];
          return slot.sample === undefined ? [] : [[slot.key, { kind: 'text', text: slot.sample }]];
        }),
      );
      const { report } = compose({ template, frame: { id: 'f', slots }, book, placement, pictures: new Map([[picture.id, picture]]), ghosts: false, adjustment: linkedCut }, engines);
      expect(report.texts.filter((text) => text.kind === 'overflows')).toEqual([]);
      expect(report.findings).toEqual([]);
      const frame = cutFrame(placement);
      const safe = { xPx: frame.safe.leftPx, yPx: frame.safe.topPx, widthPx: frame.size.widthPx - frame.safe.leftPx - frame.safe.rightPx, heightPx: frame.size.heightPx - frame.safe.topPx - frame.safe.bottomPx };
      for (const { slot, box } of report.placed) expect(boxContains(safe, box, 1), `${slot} inside the safe zone`).toBe(true);
    },
  );

  it('chooses another arrangement for another shape', () => {
    const arrangements = ['feed-square', 'story', 'post-wide'].map((key) => composeCut({ template: 'headland', texts: contents['usual'] ?? {}, placement: placementOf(key) }).report.arrangement);
    expect(new Set(arrangements).size).toBe(3);
  });

  it('says by how much a text is too long, and that many characters fewer do fit', () => {
    const headline = 'wind and weather '.repeat(30).trim();
    const placement = placementOf('feed-square');
    const overflow = composeCut({ template: 'headland', texts: { headline }, placement }).report.texts.find((text) => text.kind === 'overflows');
    expect(overflow).toBeDefined();
    if (overflow?.kind !== 'overflows') return;
    expect(overflow.overBy).toBeGreaterThan(0);
    const shortened = [...headline].slice(0, headline.length - overflow.overBy).join('');
    expect(composeCut({ template: 'headland', texts: { headline: shortened }, placement }).report.texts[0]?.kind).toBe('fits');
  });

  it('names a word that no line can hold', () => {
    const { report } = composeCut({ template: 'headland', texts: { headline: 'Donaudampfschifffahrtselektrizitätenhauptbetriebswerkbauunterbeamtengesellschaft' }, placement: placementOf('post-wide') });
    expect(report.texts.find((text) => text.slot === 'headline')).toMatchObject({ kind: 'overflows', reason: 'word-too-wide' });
  });

  it('reports what is missing, and shows hints only where asked', () => {
    const placement = placementOf('feed-portrait');
    const bare = composeCut({ template: 'headland', texts: {}, placement, photo: false });
    expect(bare.report.findings.map((finding) => [finding.kind, 'slot' in finding ? finding.slot : ''])).toEqual([['empty-slot', 'photo'], ['empty-slot', 'headline']]);
    const glyphsIn = (composed: Composed): number => composed.scene.nodes.filter((node) => node.kind === 'glyphs').length;
    expect(glyphsIn(bare)).toBe(0);
    expect(glyphsIn(composeCut({ template: 'headland', texts: {}, placement, photo: false, ghosts: true }))).toBe(3);
  });

  it('says when a picture is too small for a cut', () => {
    const picture = testPicture({ widthPx: 300, heightPx: 200 });
    const { report } = compose(
      { template: getShippedTemplate('headland'), frame: { id: 'f', slots: { photo: { kind: 'picture', mediaId: 'photo' }, headline: { kind: 'text', text: 'Tiny' } } }, book: gullwickBook, placement: placementOf('feed-square'), pictures: new Map([['photo', picture]]), ghosts: false, adjustment: linkedCut },
      engines,
    );
    expect(report.findings).toMatchObject([{ kind: 'low-resolution', slot: 'photo' }]);
  });

  it('chooses the mark by what lies behind it', () => {
    const markOn = (template: string): string | undefined => {
      const node = composeCut({ template, texts: contents['usual'] ?? {}, placement: placementOf('feed-square') }).scene.nodes.find((each) => each.kind === 'artwork');
      return node?.kind === 'artwork' ? gullwickBook.marks.find((mark) => mark.kind === 'vector' && mark.paths === node.paths)?.key : undefined;
    };
    expect(markOn('headland')).toBe('kite-dark');
    expect(markOn('aside')).toBe('kite-yellow');
  });

  it('gives the same scene for the same content', () => {
    const once = (): string => JSON.stringify(composeCut({ template: 'aside', texts: contents['usual'] ?? {}, placement: placementOf('story') }).scene);
    expect(once()).toBe(once());
  });

  describe('with a cut that differs', () => {
    const square = placementOf('feed-square');
    const texts = contents['usual'] ?? {};
    const plain = composeCut({ template: 'headland', texts, placement: square });
    const sizeOf = ({ report }: Composed, slot: string): number => report.texts.find((text) => text.slot === slot)?.sizePx ?? 0;
    const differing = (adjustment: Adjustment): Composed => composeCut({ template: 'headland', texts, placement: square, adjustment });

    it('takes the arrangement that was chosen, and its own again when the template has no such one', () => {
      expect(differing({ arrangement: 'bluff' }).report.arrangement).toBe('bluff');
      expect(differing({ arrangement: 'gone' }).scene).toEqual(plain.scene);
    });

    it('takes the colours of another scheme, and the brand’s own when it is gone', () => {
      const fills = ({ scene }: Composed): string[] => scene.nodes.flatMap((node) => (node.kind === 'fill' ? [node.colour] : []));
      expect(fills(differing({ scheme: 'bold' }))).toContain('#F9B233');
      expect(differing({ scheme: 'gone' }).scene).toEqual(plain.scene);
    });

    it('sets what leads smaller or, where there is room, larger; small texts keep their size', () => {
      const short = { ...texts, headline: 'Big Blow' };
      const at = (textStep: number): Composed => composeCut({ template: 'headland', texts: short, placement: square, adjustment: { textStep } });
      expect(sizeOf(at(-2), 'headline')).toBeLessThan(sizeOf(at(0), 'headline'));
      expect(sizeOf(at(1), 'headline')).toBeGreaterThan(sizeOf(at(0), 'headline'));
      expect(sizeOf(at(-2), 'label')).toBe(sizeOf(at(0), 'label'));
    });

    it('leaves parts out, and gives their room to the rest', () => {
      const long = { ...texts, headline: 'Sail-making, bridle-tying and first flights for absolute beginners on every Saturday of May' };
      const withLong = (adjustment: Adjustment): Composed => composeCut({ template: 'headland', texts: long, placement: square, adjustment });
      const { report } = withLong({ hidden: ['line', 'label'] });
      expect(report.placed.map((placed) => placed.slot)).toEqual(['headline']);
      expect(sizeOf({ ...plain, report }, 'headline')).toBeGreaterThan(sizeOf(withLong({}), 'headline'));
      expect(differing({ hidden: ['photo'] }).report.pictures).toEqual([]);
    });

    it('shows the crop that was chosen', () => {
      const { window } = differing({ crops: { photo: { x: 0.3, y: 0.5, zoom: 2 } } }).report.pictures[0] ?? {};
      expect((window?.x ?? 0) + (window?.width ?? 0) / 2).toBeCloseTo(0.3, 3);
      expect(window?.width).toBeLessThanOrEqual(0.5);
    });
  });

  it('says where words stand on a photograph and what they got to be read, and reads what it says', () => {
    for (const placement of placements) {
      const { report, scene } = composeCut({ template: 'lull', texts: contents['usual'] ?? {}, placement });
      expect(report.blocks).toHaveLength(1);
      const [block] = report.blocks;
      const veils = scene.nodes.filter((node) => node.kind === 'fill' && node.alpha < 1);
      expect(veils.length > 0).toBe(block?.help.kind === 'gradient' || block?.help.kind === 'tint');
    }
  });

  it('needs no help for words on a plaque of their own', () => {
    const { report } = composeCut({ template: 'plaque', texts: { offer: '20% off', headline: 'Every sled kite' }, placement: placementOf('feed-square') });
    expect(report.blocks[0]?.help).toEqual({ kind: 'none' });
    expect(report.findings).toEqual([]);
  });
});

describe('an ornament that lies across the cut', () => {
  const headlines = ['Knots', 'One torn sail, good as new', 'Three knots that hold in any wind that comes over the quay'];
  const books = [['gullwick', gullwickBook], ['lanternfall', lanternfallBook], ['a wide wordmark', plainBook]] as const;
  it.each(books.flatMap(([brand, book]) => (['tide', 'knot'] as const).flatMap((template) => placements.flatMap((placement) => headlines.map((headline) => ({ brand, book, template, placement, where: placement.key, headline }))))))(
    '$template, $brand, $where, “$headline”: it is whole, or not there, and clear of words and marks',
    ({ book, template, placement, headline }) => {
      const { scene, report } = composeCut({ template, texts: { headline }, placement, book });
      // Drawn lines have hundreds of points; fields and rules have few.
      const lines = scene.nodes.flatMap((node) => (node.kind === 'fill' && node.path.length > 600 ? [node] : []));
      expect(lines.length === 0 || lines.length >= 3, `${lines.length} lines`).toBe(true);
      const rows = lines.map(({ path }) => (path.match(/-?\d+\.\d+ -?\d+\.\d+/g) ?? []).map((point) => Number(point.split(' ')[1])));
      for (const { box } of report.placed) {
        for (const row of rows) expect(row.every((y) => y < box.yPx || y > box.yPx + box.heightPx) || template === 'knot').toBe(true);
      }
    },
  );

  it('finds its place nearby: a short headline leaves it where the template has it, and a long one moves it', () => {
    const top = (headline: string): number => Math.min(...composeCut({ template: 'knot', texts: { headline }, placement: placementOf('feed-square') }).scene.nodes.flatMap((node) => (node.kind === 'fill' && node.path.length > 600 ? [Number(/ (-?[\d.]+)/.exec(node.path)?.[1])] : [])));
    expect(top('Three knots that hold in any wind')).toBeGreaterThan(top('Knots') - 1);
    expect(Number.isFinite(top('Knots'))).toBe(true);
  });
});
