import { useMemo, useState } from 'react';
import { linkedCut } from '../../core/piece/adjustment.ts';
import { sampleFrame, type SamplePictures } from '../../core/piece/sample-frame.ts';
import { MAX_REGIONS, regionKinds, templateFromSketch } from '../../core/template/from-sketch.ts';
import { addRegion, firstSketch, sharesOf, type SketchRegion } from '../../core/template/sketch-regions.ts';
import type { Template } from '../../core/template/template.ts';
import type { WallContent } from '../../workers/wall-protocol.ts';
import { CutCanvas } from '../preview/CutCanvas.tsx';
import { useSampleWords } from '../preview/use-sample-words.ts';
import { useWall } from '../preview/wall.ts';
import { singlePicture } from '../preview/wanted-cut.ts';
import { Button } from '../ui/Button.tsx';
import { Field, inputClasses } from '../ui/Field.tsx';
import { ModalFrame } from '../ui/ModalFrame.tsx';
import { regionNames, SketchSheet } from './SketchSheet.tsx';
import { workshopShapes } from './shapes.ts';

interface SketchDialogProps {
  readonly content: WallContent;
  readonly pictures: SamplePictures;
  readonly isBusy: boolean;
  readonly onMake: (template: Template) => void;
  readonly onClose: () => void;
}

const PREVIEW_PX = 156;
const shown = [workshopShapes[0], workshopShapes[1], workshopShapes[4]].flatMap((shape) => (shape ? [shape] : []));

/** A template of one's own from a drawing of where things stand; how it looks in three shapes is seen at once. */
export default function SketchDialog({ content, pictures, isBusy, onMake, onClose }: SketchDialogProps) {
  const [regions, setRegions] = useState<readonly SketchRegion[]>(firstSketch);
  const [name, setName] = useState('');
  const { template, problem } = useMemo(() => made(name.trim() || 'Sketch', regions), [name, regions]);
  const words = useSampleWords(content.book.language);
  const request = useMemo(() => {
    if (!template || !words) return null;
    const density = Math.min(2, globalThis.devicePixelRatio || 1);
    const frame = sampleFrame(template, 'usual', pictures, words);
    return { content, ghosts: true, cuts: shown.map((placement) => singlePicture({ key: placement.key, template, frame, placement, adjustment: linkedCut, scale: (PREVIEW_PX / placement.exportPx.height) * density })) };
  }, [template, pictures, content, words]);
  const { wall } = useWall(request);
  return (
    <ModalFrame title="New template from a sketch" width="wide" onClose={onClose}>
      <div className="flex flex-wrap gap-5">
        <div className="max-w-full">
          <SketchSheet regions={regions} onChange={setRegions} />
          <div role="group" aria-label="Add a region" className="mt-2 flex max-w-72 flex-wrap gap-1">
            {regionKinds.map((kind) => (
              <Button key={kind} size="small" disabled={regions.length >= MAX_REGIONS} onClick={() => setRegions(addRegion(regions, kind))}>
                + {regionNames[kind]}
              </Button>
            ))}
          </div>
        </div>
        <div className="flex min-w-56 max-w-full flex-1 flex-col gap-3">
          <div className="flex max-w-full flex-wrap items-end gap-2.5 overflow-hidden" role="img" aria-label="The sketch in a tall, an upright and a wide cut">
            {template && shown.map((placement) => <CutCanvas key={placement.key} wall={wall} cutKey={placement.key} widthPx={(PREVIEW_PX * placement.exportPx.width) / placement.exportPx.height} heightPx={PREVIEW_PX} />)}
          </div>
          {problem ? (
            <p role="alert" className="text-sm text-coral-ink">
              {problem}
            </p>
          ) : (
            <p className="text-sm text-quiet">What stands above each other here stands side by side in wide cuts. Words on a picture find its calmest place.</p>
          )}
          <form
            noValidate
            onSubmit={(event) => {
              event.preventDefault();
              if (template) onMake(template);
            }}
            className="mt-auto space-y-3"
          >
            <Field label="Name">{({ id, describedBy }) => <input id={id} value={name} maxLength={60} aria-describedby={describedBy} placeholder="Sketch" onChange={(event) => setName(event.target.value)} className={inputClasses} />}</Field>
            <div className="flex justify-end gap-2">
              <Button onClick={onClose}>Cancel</Button>
              <Button type="submit" look="primary" disabled={!template || isBusy}>
                Create and open in the workshop
              </Button>
            </div>
          </form>
        </div>
      </div>
    </ModalFrame>
  );
}

function made(name: string, regions: readonly SketchRegion[]): { readonly template: Template | null; readonly problem: string | null } {
  try {
    return { template: templateFromSketch(name, sharesOf(regions)), problem: null };
  } catch (error) {
    if (error instanceof RangeError) return { template: null, problem: `${error.message}.` };
    throw error;
  }
}
