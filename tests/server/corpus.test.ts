import { beforeAll, describe, expect, it } from 'vitest';
import { gullwickBook } from '../../demo/brands/gullwick.ts';
import { lanternfallBook } from '../../demo/brands/lanternfall.ts';
import { compose } from '../../src/core/compose/compose.ts';
import type { Engines } from '../../src/core/compose/set-cut.ts';
import { linkedCut } from '../../src/core/piece/adjustment.ts';
import type { GlyphsNode, Scene } from '../../src/core/scene/scene.ts';
import { neededGlyphs } from '../../src/core/compose/needed-glyphs.ts';
import { getShippedTemplate } from '../../src/core/template/shipped-templates.ts';
import { corpusTemplates } from '../corpus/templates.ts';
import { paintScene } from '../../src/server/render/canvas-painter.ts';
import { startEngines } from '../../src/server/render/engines.ts';
import { contents } from '../corpus/contents.ts';
import { fillTemplate } from '../corpus/fill.ts';
import { avoidableLoneWord, avoidableOneWordLine, brokenWord, partedNumber } from '../corpus/line-rules.ts';
import { measureCut, type Violation } from '../corpus/measure.ts';
import { bookFor, inLanguageOf, withMarks } from '../corpus/marks.ts';
import { corpusPictures, type CorpusPictures } from '../corpus/pictures.ts';
import { corpusPlacements } from '../corpus/placements.ts';
import { runCut } from '../corpus/run-cut.ts';

let engines: Engines;
let pictures: CorpusPictures;
const usual = contents.find((content) => content.name === 'usual');
const square = corpusPlacements.find((placement) => placement.exportPx.width === placement.exportPx.height);
if (!usual || !square) throw new Error('The corpus has lost its usual content');

beforeAll(async () => {
  const server = await startEngines({ fontsFolder: 'fonts', emojiFolder: 'dist/emoji' });
  for (const template of corpusTemplates) for (const content of contents) for (const book of [gullwickBook, lanternfallBook]) await server.load(neededGlyphs(inLanguageOf(book, content), [{ template, frame: fillTemplate(template, content) }]), {});
  engines = server.engines;
  pictures = await corpusPictures();
});

/** One placement a content, another for the next: a walk through the whole corpus with a step of its own. */
const sample = corpusTemplates.flatMap((template, row) =>
  contents.filter((_, index) => (index + row) % 5 === 0).map((content, index) => ({ template, content, placement: corpusPlacements[(index * 3 + row) % corpusPlacements.length] ?? square, book: inLanguageOf(bookFor((index + row) % 2 === 0 ? gullwickBook : lanternfallBook, index + row), content) })),
);

describe('a walk through the corpus', { tags: 'long' }, () => {
  it.each(corpusTemplates.map((template) => template.key))('%s shows no violation in the pixels', async (key) => {
    const found: string[] = [];
    for (const each of sample.filter(({ template }) => template.key === key)) {
      for (const violation of await runCut(each, engines, pictures)) found.push(`${each.content.name}, ${each.placement.key}: ${violation.kind}: ${violation.what}`);
    }
    expect(found).toEqual([]);
  });
});

describe('the measures', () => {
  const planted = async (change: (scene: Scene) => Scene): Promise<readonly Violation[]> => {
    const template = getShippedTemplate('headland');
    const { scene, report } = compose({ template, frame: fillTemplate(template, usual), book: gullwickBook, placement: square, pictures: pictures.pictures, ghosts: false, adjustment: linkedCut }, engines);
    const changed = change(scene);
    return measureCut({ scene: changed, report, painted: await paintScene(changed, engines.typesetter, pictures.sources), placement: square, book: gullwickBook, language: 'en', typesetter: engines.typesetter, labelSlots: new Set(['label']) });
  };
  const changeText = (slot: string, change: (node: GlyphsNode) => GlyphsNode) => (scene: Scene): Scene => ({ ...scene, nodes: scene.nodes.map((node) => (node.kind === 'glyphs' && node.slot === slot ? change(node) : node)) });
  const moved = (xPx: number, yPx: number) => (node: GlyphsNode): GlyphsNode => ({ ...node, glyphs: node.glyphs.map((glyph) => ({ ...glyph, xPx: glyph.xPx + xPx, yPx: glyph.yPx + yPx })) });

  it('find nothing in a cut that is in order', async () => {
    expect(await planted((scene) => scene)).toEqual([]);
  });

  it.each([
    ['an ink that melts into its ground', 'contrast', changeText('line', (node) => ({ ...node, colour: '#24476b' }))],
    ['a text that is too small', 'size', changeText('line', (node) => ({ ...node, sizePx: 20 }))],
    ['a text that leaves the safe zone', 'safe-zone', changeText('headline', moved(-40, 0))],
    ['a text that runs off the cut', 'unnamed-overflow', changeText('headline', moved(-90, 0))],
    ['a text over another', 'overlap', changeText('line', moved(0, -160))],
  ] as const)('find %s', async (_, kind, change) => {
    expect((await planted(change)).map((violation) => violation.kind)).toContain(kind);
  });

  it('find a mark that runs off the cut', async () => {
    const wide = withMarks(gullwickBook, 'wide');
    const marks = wide.marks.map((mark) => ({ ...mark, viewBox: { width: 40, height: 100 } }));
    const template = getShippedTemplate('band');
    const { scene, report } = compose({ template, frame: fillTemplate(template, usual), book: { ...wide, marks }, placement: square, pictures: pictures.pictures, ghosts: false, adjustment: linkedCut }, engines);
    const painted = await paintScene(scene, engines.typesetter, pictures.sources);
    const found = measureCut({ scene, report, painted, placement: square, book: { ...wide, marks }, language: 'en', typesetter: engines.typesetter, labelSlots: new Set(['label']) });
    expect(found.filter(({ what }) => what.startsWith('mark'))).not.toEqual([]);
  });

  it('know words that are broken, and lone words that need not be', () => {
    expect(brokenWord(['ทำว่าวของ', 'คุณเอง'], 'th')).toBeNull();
    expect(brokenWord(['ทำว่าวขอ', 'งคุณเอง'], 'th')).not.toBeNull();
    expect(brokenWord(['午後のひととき', '。凧'], 'ja')).not.toBeNull();
    const width = (text: string): number => text.length;
    expect(avoidableLoneWord(['three small words', 'alone'], 17, width)).not.toBeNull();
    expect(avoidableLoneWord(['three small wordsthatarelong', 'alone'], 20, width)).toBeNull();
    expect(avoidableLoneWord(['one two three', 'four five'], 17, width)).toBeNull();
  });

  it('know headlines with a line of one word that need not be, and numbers parted from their units', () => {
    const width = (text: string): number => text.length;
    const poor = ['Sixty', 'lanterns, one', 'tide table'];
    expect(avoidableOneWordLine(poor, 15, width)).not.toBeNull();
    expect(avoidableOneWordLine(poor, 13, width)).toBeNull();
    expect(avoidableOneWordLine(['Sixty lanterns,', 'one tide table'], 15, width)).toBeNull();
    expect(avoidableOneWordLine(['Thank', 'you'], 15, width)).toBeNull();
    expect(partedNumber(['From 6', 'am on'])).not.toBeNull();
    expect(partedNumber(['on 28', 'November'])).not.toBeNull();
    expect(partedNumber(['at 6', 'amber lamps'])).toBeNull();
  });
});
