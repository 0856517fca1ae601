import { loadYoga } from 'yoga-layout/load';
import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { lanternfallBook } from '../../../demo/brands/lanternfall.ts';
import { patchRaster, testPicture } from '../../../tests/fixtures/pictures.ts';
import { testTypesetter } from '../../../tests/fixtures/typesetter.ts';
import { pastelBook, plainBook } from '../../../tests/sheet/test-brands.ts';
import type { BrandBook } from '../brand/brand-book.ts';
import { takePictureFacts } from '../crop/picture-facts.ts';
import { shippedSheets } from '../network/shipped-sheets.ts';
import { linkedCut } from '../piece/adjustment.ts';
import type { SlotValue } from '../piece/piece.ts';
import { walkParts } from '../template/parts.ts';
import { shippedTemplates } from '../template/shipped-templates.ts';
import type { Template } from '../template/template.ts';
import { compose } from './compose.ts';

const engines = { typesetter: testTypesetter(), yoga: await loadYoga() };
const otherBooks = [['lanternfall', lanternfallBook], ['plain', plainBook], ['pastel', pastelBook]] as const;
/** Templates whose words stand on their photograph, or on a colour over it. */
const onPhoto = shippedTemplates.filter(({ kind, arrangements }) => kind === 'graphic' && arrangements.some(({ root }) => [...walkParts(root)].some((part) => part.part === 'veil' || (part.part === 'stack' && part.afloat !== undefined))));
const placements = ['story', 'feed-portrait', 'feed-square', 'post-wide'].flatMap((key) => shippedSheets.flatMap((sheet) => sheet.placements).find((placement) => placement.key === key) ?? []);
/** Grounds of photographs, each with something red before them, high, low and in the middle. */
const grounds = { white: [250, 250, 248], light: [170, 215, 205], grey: [128, 126, 124], dusk: [70, 60, 110], night: [14, 12, 30] } as const;
const subjects = [{ x: 0.5, y: 0.65 }, { x: 0.75, y: 0.3 }, { x: 0.3, y: 0.5 }];

describe('words on a photograph', () => {
  it.each(onPhoto)('of $name reach their contrast on light, grey and dark grounds, wherever the subject stands', (template) => expectContrast(template, gullwickBook));
  it.each(onPhoto.flatMap((template) => otherBooks.map(([brand, book]) => ({ template, book, brand, name: template.name }))))('of $name for $brand reach it as well', { tags: ['long'] }, ({ template, book }) => expectContrast(template, book));

  function expectContrast(template: Template, book: BrandBook): void {
    for (const [ground, colour] of Object.entries(grounds)) {
      for (const at of subjects) {
        const facts = takePictureFacts(patchRaster({ widthPx: 90, heightPx: 120, ground: colour, patch: [215, 50, 40], at, size: 0.5 }));
        const picture = testPicture({ widthPx: 1800, heightPx: 2400, facts, focal: at });
        const slots = Object.fromEntries(template.slots.flatMap((slot): [string, SlotValue][] => (slot.kind === 'picture' ? [[slot.key, { kind: 'picture', mediaId: picture.id }]] : slot.sample ? [[slot.key, { kind: 'text', text: slot.sample }]] : [])));
        for (const placement of placements) {
          const { report } = compose({ template, frame: { id: 'f', slots }, book, placement, pictures: new Map([[picture.id, picture]]), ghosts: false, adjustment: linkedCut }, engines);
          expect(report.findings.filter(({ kind }) => kind === 'low-contrast'), `${placement.key}, ${ground}, subject at ${at.x} ${at.y}`).toEqual([]);
        }
      }
    }
  }

  it('stand in the shade that Shade lays around its subject, and need little more', () => {
    const shade = onPhoto.find(({ key }) => key === 'shade');
    const facts = takePictureFacts(patchRaster({ widthPx: 90, heightPx: 120, ground: grounds.light, patch: [215, 50, 40], at: { x: 0.5, y: 0.7 }, size: 0.4 }));
    const picture = testPicture({ widthPx: 1800, heightPx: 2400, facts, focal: { x: 0.5, y: 0.7 } });
    const slots: Record<string, SlotValue> = { photo: { kind: 'picture', mediaId: picture.id }, headline: { kind: 'text', text: 'The best bread between the dyke and the cathedral' }, line: { kind: 'text', text: 'Antje, who knows them all' } };
    for (const placement of placements) {
      const [block] = shade ? compose({ template: shade, frame: { id: 'f', slots }, book: gullwickBook, placement, pictures: new Map([[picture.id, picture]]), ghosts: false, adjustment: linkedCut }, engines).report.blocks : [];
      expect(block && block.help.kind !== 'none' && block.help.kind !== 'panel' ? block.help.share : 0, placement.key).toBeLessThan(0.5);
    }
  });
});
