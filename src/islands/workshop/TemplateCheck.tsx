import { useEffect, useMemo, useState } from 'react';
import { troublesOf, type Trouble } from '../../core/compose/judge-cut.ts';
import { linkedCut } from '../../core/piece/adjustment.ts';
import { sampleFrame, sampleLengths } from '../../core/piece/sample-frame.ts';
import { ALONE } from '../../core/piece/slides-of-cut.ts';
import type { Template } from '../../core/template/template.ts';
import type { WantedCut } from '../../workers/wall-protocol.ts';
import type { MediaItem } from '../media/media-address.ts';
import { sampleMedia } from '../media/sample-media.ts';
import { brandContent, type BrandData } from '../preview/brand-content.ts';
import { CutCanvas } from '../preview/CutCanvas.tsx';
import { useSampleWords } from '../preview/use-sample-words.ts';
import { useWall } from '../preview/wall.ts';
import { singlePicture } from '../preview/wanted-cut.ts';
import { SAMPLE_PLACE, workshopShapes } from './shapes.ts';

interface CheckProps {
  readonly template: Template;
  readonly brandData: BrandData;
  readonly photos: readonly MediaItem[];
}

const HEIGHT_PX = 150;
const SHOWN = 10;

interface Tried {
  readonly cut: WantedCut;
  readonly name: string;
}

/** Tries a template in every shape and scheme, with short, usual and cruel texts, with and without pictures, and shows the worst cuts. */
export function TemplateCheck({ template, brandData, photos }: CheckProps) {
  const { sample, content } = useMemo(() => {
    const found = sampleMedia(photos);
    return { sample: found, content: brandContent(brandData, brandData.book, found.items) };
  }, [brandData, photos]);
  const words = useSampleWords(brandData.book.language);
  const tried = useMemo(() => {
    if (!words) return [];
    const density = Math.min(2, globalThis.devicePixelRatio || 1);
    const withPictures = [...(template.slots.some(({ kind }) => kind === 'picture') ? [sample.pictures] : []), { photos: [], clear: [], cutOuts: [] }];
    return withPictures.flatMap((pictures, index) =>
      sampleLengths.flatMap((length) => {
        const frame = sampleFrame(template, length, pictures, words);
        return brandData.book.schemes.flatMap((scheme) =>
          workshopShapes.map((placement): Tried => {
            const key = `check.${index}.${length}.${scheme.key}.${placement.key}`;
            const cut = singlePicture({ key, template, frame, placement, adjustment: scheme.key === template.scheme ? linkedCut : { scheme: scheme.key }, scale: (HEIGHT_PX / placement.exportPx.height) * density });
            return { cut: { ...cut, place: template.kind === 'graphic' ? ALONE : SAMPLE_PLACE }, name: `${placement.name}, ${length} texts, ${scheme.name}${pictures.photos.length === 0 && withPictures.length > 1 ? ', no picture' : ''}` };
          }),
        );
      }),
    );
  }, [template, sample, brandData.book, words]);
  // All are composed, the worst are painted.
  const [painted, setPainted] = useState('');
  const request = useMemo(() => {
    const keys = new Set(painted.split('\n'));
    return { content, ghosts: false, cuts: tried.map(({ cut }): WantedCut => (keys.has(cut.key) ? cut : { ...cut, unseen: true })) };
  }, [content, tried, painted]);
  const { wall, state } = useWall(request);
  const labelOf = (slot: string): string => template.slots.find(({ key }) => key === slot)?.label ?? slot;
  const judged = tried.flatMap((each) => {
    const report = state.reports.get(each.cut.key);
    const troubles: readonly Trouble[] = report ? troublesOf(report, labelOf) : [];
    return report ? [{ ...each, troubles, weight: troubles.reduce((sum, { weight }) => sum + weight, 0) }] : [];
  });
  const amiss = judged.filter(({ weight }) => weight > 0).sort((a, b) => b.weight - a.weight);
  const worst = amiss.slice(0, SHOWN);
  const isDone = words !== null && judged.length === tried.length;
  const worstKeys = worst.map(({ cut }) => cut.key).join('\n');
  useEffect(() => {
    if (isDone) setPainted(worstKeys);
  }, [isDone, worstKeys]);
  return (
    <section aria-label="Check" className="mb-6 border-b border-line pb-5">
      <h2 className="text-sm font-semibold">The worst of {tried.length} cuts</h2>
      <p role="status" className="mb-3 text-xs text-quiet">
        {isDone ? (amiss.length === 0 ? 'Every text fits, every word can be read, every mark is whole.' : `${amiss.length} of ${tried.length} have something amiss.`) : `${judged.length} of ${tried.length} are tried.`}
      </p>
      <ul className="flex flex-wrap items-start gap-4">
        {worst.map(({ cut, name, troubles }) => (
          <li key={cut.key} className="max-w-72 text-xs">
            <CutCanvas wall={wall} cutKey={cut.key} widthPx={Math.round((HEIGHT_PX * cut.placement.exportPx.width) / cut.placement.exportPx.height)} heightPx={HEIGHT_PX} label={name} />
            <p className="mt-1.5 text-quiet">{name}</p>
            {troubles.map(({ sentence }) => (
              <p key={sentence} className="font-medium text-coral-ink">
                {sentence}
              </p>
            ))}
          </li>
        ))}
      </ul>
    </section>
  );
}
