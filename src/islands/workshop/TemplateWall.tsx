import { useMemo, useState } from 'react';
import { linkedCut } from '../../core/piece/adjustment.ts';
import type { SlidePlace } from '../../core/piece/slides-of-cut.ts';
import { sampleFrame, sampleLengths, type SampleLength } from '../../core/piece/sample-frame.ts';
import type { Arrangement, Template } from '../../core/template/template.ts';
import { brandContent, type BrandData } from '../preview/brand-content.ts';
import { CutCanvas } from '../preview/CutCanvas.tsx';
import { useWall } from '../preview/wall.ts';
import { workshopShapes } from './shapes.ts';
import type { MediaItem } from '../media/media-address.ts';
import { sampleMedia } from '../media/sample-media.ts';
import { singlePicture } from '../preview/wanted-cut.ts';

interface WallProps {
  readonly template: Template;
  readonly arrangement: Arrangement;
  readonly brandData: BrandData;
  readonly photos: readonly MediaItem[];
}

const HEIGHT_PX = 176;
/** Slides are looked at as the third of seven, as their samples say. */
const SAMPLE_PLACE: SlidePlace = { index: 2, count: 7, ordinal: 3 };
const lengthNames: Readonly<Record<SampleLength, string>> = { short: 'Short texts', usual: 'Usual texts', cruel: 'Cruel texts' };

/** The template in every shape with short, usual and cruel texts, repainted with every change; the arrangement at work is marked. */
export function TemplateWall({ template, arrangement, brandData, photos }: WallProps) {
  const [scheme, setScheme] = useState('');
  const { sample, content } = useMemo(() => {
    const found = sampleMedia(photos);
    return { sample: found, content: brandContent(brandData, brandData.book, found.items) };
  }, [brandData, photos]);
  const request = useMemo(() => {
    const density = Math.min(2, globalThis.devicePixelRatio || 1);
    return {
      content,
      ghosts: false,
      cuts: sampleLengths.flatMap((length) => {
        const frame = sampleFrame(template, length, sample.pictures, brandData.book.language);
        return workshopShapes.map((placement) => ({
          ...singlePicture({
          key: `${length}.${placement.key}`,
          template,
          frame,
          placement,
          adjustment: scheme === '' ? linkedCut : { scheme },
          scale: (HEIGHT_PX / placement.exportPx.height) * density,
          }),
          ...(template.kind !== 'graphic' ? { place: SAMPLE_PLACE } : {}),
        }));
      }),
    };
  }, [template, content, sample, scheme, brandData.book.language]);
  const { wall, state } = useWall(request);
  return (
    <section aria-label="Proof wall" className="min-w-0 flex-1 overflow-auto px-5 py-4">
      <div className="mb-3 flex items-center gap-3 text-xs text-quiet">
        <span className="mr-auto">Shapes that “{arrangement.name}” is for are marked.</span>
        <label className="flex items-center gap-2">
          Look at it in
          <select value={scheme} onChange={(event) => setScheme(event.target.value)} className="h-7 rounded-md border border-line bg-panel px-1 text-sm text-ink">
            <option value="">its own scheme</option>
            {brandData.book.schemes.map((each) => (
              <option key={each.key} value={each.key}>
                {each.name}
              </option>
            ))}
          </select>
        </label>
      </div>
      {state.problem && (
        <p role="alert" className="mb-3 text-sm text-coral-ink">
          {state.problem}
        </p>
      )}
      {sampleLengths.map((length) => (
        <div key={length} className="mb-5">
          <h2 className="mb-1.5 text-sm font-semibold">{lengthNames[length]}</h2>
          <ul className="flex flex-wrap items-start gap-4">
            {workshopShapes.map((placement) => {
              const key = `${length}.${placement.key}`;
              const report = state.reports.get(key);
              const over = report?.texts.find((text) => text.kind === 'overflows');
              const dropped = report?.findings.filter((finding) => finding.kind === 'dropped').length ?? 0;
              const isAtWork = report?.arrangement === arrangement.key;
              return (
                <li key={key}>
                  <span className={`block ${isAtWork ? 'outline-2 outline-offset-2 outline-house' : ''}`}>
                    <CutCanvas wall={wall} cutKey={key} widthPx={Math.round((HEIGHT_PX * placement.exportPx.width) / placement.exportPx.height)} heightPx={HEIGHT_PX} label={`${placement.name}, ${lengthNames[length].toLowerCase()}`} />
                  </span>
                  <p className="mt-1.5 flex justify-between gap-2 text-xs">
                    <span className="text-quiet">{placement.name}</span>
                    {over?.kind === 'overflows' && <span className="font-medium text-coral-ink">too long by {over.overBy}</span>}
                    {dropped > 0 && <span className="text-quiet">{dropped} left out</span>}
                  </p>
                </li>
              );
            })}
          </ul>
        </div>
      ))}
    </section>
  );
}
