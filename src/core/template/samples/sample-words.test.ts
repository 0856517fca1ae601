import { readFileSync } from 'node:fs';
import { loadYoga } from 'yoga-layout/load';
import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../../demo/brands/gullwick.ts';
import { testPicture } from '../../../../tests/fixtures/pictures.ts';
import { testTypesetter } from '../../../../tests/fixtures/typesetter.ts';
import { compose } from '../../compose/compose.ts';
import type { Placement } from '../../network/network-sheet.ts';
import { linkedCut } from '../../piece/adjustment.ts';
import { sampleFrame } from '../../piece/sample-frame.ts';
import { languages } from '../../words/language.ts';
import { shippedTemplates } from '../shipped-templates.ts';
import { slideTemplate } from '../slide-template.ts';
import type { Slot } from '../template.ts';
import { asWritten, loadSampleWords } from './sample-words.ts';

const slots: readonly (Slot & { readonly sample: string })[] = shippedTemplates
  .flatMap((template) => [...template.slots, ...(template.slides ?? []).flatMap((slide) => slide.slots)])
  .flatMap((slot) => (slot.sample === undefined ? [] : [{ ...slot, sample: slot.sample }]));
/** What every language writes alike: numbers, names and addresses. */
const isAlike = (sample: string): boolean => /^[\d\s]+$/u.test(sample) || sample === 'Marta' || sample.startsWith('@handle');
const engines = { typesetter: testTypesetter(), yoga: await loadYoga() };
const picture = testPicture();
const shapes = [[1080, 1350], [1080, 1920], [1200, 628]].map(([width = 0, height = 0]): Placement => ({ key: `${width}x${height}`, name: '', surface: 's', exportPx: { width, height }, safePercent: { top: 4, right: 4, bottom: 4, left: 4 } }));
const looks = shippedTemplates.flatMap((template) => [template, ...(template.slides ?? []).map((slide) => slideTemplate(template, slide.key))]);

const others = languages.filter((language) => language !== 'en');

describe.each(others)('the samples in %s', (language) => {
  it('are there for every sample that a shipped template has', async () => {
    const words = await loadSampleWords(language);
    const mayBeAlike = new Set(['November', '−20%']);
    expect(slots.filter(({ sample }) => !isAlike(sample) && !mayBeAlike.has(sample) && words(sample) === sample).map(({ sample }) => sample)).toEqual([]);
  });

  it('keep to what their slots are meant for, with as many items', async () => {
    const words = await loadSampleWords(language);
    for (const { key, sample, softLimit } of slots) {
      const own = words(sample);
      if (softLimit !== undefined) expect(own.length, `${key}: ${own}`).toBeLessThanOrEqual(softLimit);
      expect(own.split('\n').length, own).toBe(sample.split('\n').length);
      expect(own.trim()).toBe(own);
    }
  });

  it('fit into every template in every shape', async () => {
    const words = await loadSampleWords(language);
    const tooLong = looks.flatMap((template) => {
      const frame = sampleFrame(template, 'usual', { photos: [picture.id], clear: [], cutOuts: [picture.id] }, words);
      return shapes.flatMap((placement) => {
        const { texts } = compose({ template, frame, book: { ...gullwickBook, language }, placement, pictures: new Map([[picture.id, picture]]), ghosts: false, adjustment: linkedCut }, engines).report;
        return texts.flatMap((fit) => (fit.kind === 'overflows' ? [`${template.key}, ${placement.key}: ${fit.slot}, ${fit.overBy} over`] : []));
      });
    });
    expect(tooLong).toEqual([]);
  });

  it('leave a text alone that a person has written', async () => {
    expect((await loadSampleWords(language))('Our own words, with £5 in them')).toBe('Our own words, with £5 in them');
  });
});

it('every language has the same texts', () => {
  const textsOf = (language: string): readonly string[] => Object.keys(JSON.parse(readFileSync(new URL(`./${language}.json`, import.meta.url), 'utf8')) as object).toSorted();
  for (const language of others) expect(textsOf(language), language).toEqual(textsOf('de'));
});

it('prices are in the money of the language, where it stands there', async () => {
  const written = await Promise.all((['en', 'de', 'nl', 'pl'] as const).map(async (language) => (await loadSampleWords(language))('£24')));
  expect(written).toEqual(['£24', '24 €', '€ 24', '24 zł']);
  expect(asWritten('£24')).toBe('£24');
});
