import { useEffect, useMemo, useState } from 'react';
import { partUnder } from '../../core/compose/part-boxes.ts';
import type { Box, Size } from '../../core/geometry/box.ts';
import type { Placement } from '../../core/network/network-sheet.ts';
import { linkedCut } from '../../core/piece/adjustment.ts';
import { sampleFrame, sampleLengths, type SampleLength } from '../../core/piece/sample-frame.ts';
import type { PartPath } from '../../core/template/edit-template.ts';
import type { Arrangement, Template } from '../../core/template/template.ts';
import { brandContent, type BrandData } from '../preview/brand-content.ts';
import { CutCanvas } from '../preview/CutCanvas.tsx';
import { useSampleWords } from '../preview/use-sample-words.ts';
import { useWall } from '../preview/wall.ts';
import { Button } from '../ui/Button.tsx';
import type { DrawnParts } from './PartOutline.tsx';
import { SAMPLE_PLACE, workshopShapes } from './shapes.ts';
import { TemplateCheck } from './TemplateCheck.tsx';
import type { MediaItem } from '../media/media-address.ts';
import { sampleMedia } from '../media/sample-media.ts';
import { singlePicture } from '../preview/wanted-cut.ts';

interface WallProps {
  readonly template: Template;
  /** The template as it was saved last, where it has been changed since. */
  readonly saved: Template | null;
  readonly arrangement: Arrangement;
  /** The part that is chosen or pointed at. */
  readonly shown: PartPath;
  readonly brandData: BrandData;
  readonly photos: readonly MediaItem[];
  /** Told where the parts stand in a cut of the arrangement at work. */
  readonly onDrawn: (drawn: DrawnParts) => void;
  /** A part was pressed in a cut. */
  readonly onPick: (arrangement: string, path: PartPath) => void;
}

const HEIGHT_PX = 176;
const lengthNames: Readonly<Record<SampleLength, string>> = { short: 'Short texts', usual: 'Usual texts', cruel: 'Cruel texts' };

/** The template in every shape with short, usual and cruel texts, repainted with every change; the arrangement at work is marked. */
export function TemplateWall({ template: atWork, saved, arrangement, shown, brandData, photos, onDrawn, onPick }: WallProps) {
  const [scheme, setScheme] = useState('');
  const [isBefore, setBefore] = useState(false);
  const [isChecking, setChecking] = useState(false);
  const template = isBefore && saved ? saved : atWork;
  const { sample, content } = useMemo(() => {
    const found = sampleMedia(photos);
    return { sample: found, content: brandContent(brandData, brandData.book, found.items) };
  }, [brandData, photos]);
  const words = useSampleWords(brandData.book.language);
  const request = useMemo(() => {
    if (!words) return null;
    const density = Math.min(2, globalThis.devicePixelRatio || 1);
    return {
      content,
      ghosts: false,
      cuts: sampleLengths.flatMap((length) => {
        const frame = sampleFrame(template, length, sample.pictures, words);
        return workshopShapes.map((placement) => ({
          ...singlePicture({
          key: `${length}.${placement.key}`,
          template,
          frame,
          placement,
          adjustment: scheme === '' ? linkedCut : { scheme },
          scale: (HEIGHT_PX / placement.exportPx.height) * density,
          }),
          wantsParts: true as const,
          ...(template.kind !== 'graphic' ? { place: SAMPLE_PLACE } : {}),
        }));
      }),
    };
  }, [template, content, sample, scheme, words]);
  const { wall, state } = useWall(request);
  const model = workshopShapes.find(({ key }) => state.reports.get(`usual.${key}`)?.arrangement === arrangement.key);
  const modelParts = model && state.reports.get(`usual.${model.key}`)?.parts;
  useEffect(() => {
    if (model && modelParts) onDrawn({ size: sizeOf(model), parts: modelParts });
  }, [model, modelParts, onDrawn]);
  return (
    <section aria-label="Proof wall" data-two-ways className="min-w-0 flex-1 overflow-auto px-5 py-4 max-md:flex-none">
      <div className="mb-3 flex flex-wrap items-center gap-3 text-xs text-quiet">
        <span className="mr-auto">Shapes that “{arrangement.name}” is for are marked. Press a part to choose it.</span>
        {saved && (
          <Button size="small" aria-pressed={isBefore} onClick={() => setBefore(!isBefore)}>
            {isBefore ? 'Show the change' : 'Show as saved'}
          </Button>
        )}
        <Button size="small" aria-pressed={isChecking} onClick={() => setChecking(!isChecking)}>
          {isChecking ? 'Close the check' : 'Check'}
        </Button>
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
      {isChecking && <TemplateCheck template={template} brandData={brandData} photos={photos} />}
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
                  <span
                    className={`relative block ${isAtWork ? 'outline-2 outline-offset-2 outline-house' : ''}`}
                    onClick={(event) => {
                      const { left, top } = event.currentTarget.getBoundingClientRect();
                      const scale = placement.exportPx.height / HEIGHT_PX;
                      const found = report?.parts && partUnder(report.parts, { xPx: (event.clientX - left) * scale, yPx: (event.clientY - top) * scale });
                      if (report && found !== undefined && found !== null) onPick(report.arrangement, found === '' ? [] : found.split('.').map(Number));
                    }}
                  >
                    <CutCanvas wall={wall} cutKey={key} widthPx={Math.round((HEIGHT_PX * placement.exportPx.width) / placement.exportPx.height)} heightPx={HEIGHT_PX} label={`${placement.name}, ${lengthNames[length].toLowerCase()}`} />
                    {isAtWork && shown.length > 0 && <PartFrame box={report.parts?.[shown.join('.')]} scale={HEIGHT_PX / placement.exportPx.height} />}
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

function sizeOf({ exportPx: { width, height } }: Placement): Size {
  return { widthPx: width, heightPx: height };
}

/** A frame around a part of a cut. */
function PartFrame({ box, scale }: { readonly box: Box | undefined; readonly scale: number }) {
  if (!box) return null;
  return <span aria-hidden data-part-frame className="pointer-events-none absolute border-2 border-house bg-house/15" style={{ left: box.xPx * scale, top: box.yPx * scale, width: box.widthPx * scale, height: box.heightPx * scale }} />;
}
