import ArrowLeft from 'lucide-react/icons/arrow-left';
import ChevronLeft from 'lucide-react/icons/chevron-left';
import ChevronRight from 'lucide-react/icons/chevron-right';
import Download from 'lucide-react/icons/download';
import { useEffect, useMemo, useRef, useState } from 'react';
import { getCutFile } from '../../../contract/piece-contracts.ts';
import { besideSentence, blockSentence, frontSentence, insteadSentence } from '../../../core/compose/block-sentence.ts';
import { addressOf } from '../../ui/call.ts';
import { Button, buttonClasses } from '../../ui/Button.tsx';
import { toast } from '../../ui/toast.tsx';
import { WALL_PICTURE_PX } from '../../preview/brand-content.ts';
import { CropDrag } from './CropDrag.tsx';
import { CutCanvas } from '../../preview/CutCanvas.tsx';
import { CutControls } from './CutControls.tsx';
import type { ViewProps } from '../view-props.ts';
import type { Cut } from '../use-cuts.ts';
import { useWall } from '../../preview/wall.ts';

interface LargeProps extends ViewProps {
  readonly cut: Cut;
  /** The slide to look at; where it does not go out, the first that does. */
  readonly frameId: string;
  readonly onFrame: (frameId: string) => void;
  /** To another cut, by its key. */
  readonly onCut: (key: string) => void;
  readonly onClose: () => void;
}

const LARGE_PICTURE_PX = 2048;
const FRAME_PX = 24;
const UNSEEN_SCALE = 0.02;

/** One cut painted at its full export size, shown as large as there is room, with its safe zone to see. */
export function LargeLook(props: LargeProps) {
  const { cuts, brand, store, pieceId, readOnly, frameId, onFrame, onCut, onClose } = props;
  const cutAt = cuts.list.findIndex(({ key }) => key === props.cut.key);
  const at = Math.max(0, props.cut.slides.findIndex(({ frame }) => frame.id === frameId));
  const slide = props.cut.slides[at];
  const template = slide?.template ?? props.template;
  // From here on a slide is looked at as a graphic is: what is changed is its own.
  const cut = useMemo((): Cut => (slide ? { ...props.cut, key: slide.key, adjustment: slide.adjustment } : props.cut), [props.cut, slide]);
  const [showSafe, setShowSafe] = useState(false);
  const [room, setRoom] = useState({ width: 600, height: 560 });
  const area = useRef<HTMLDivElement>(null);
  const back = useRef<HTMLButtonElement>(null);
  // The button that brought it up is gone: the keyboard goes on here.
  useEffect(() => {
    if (document.activeElement === document.body) back.current?.focus();
  }, []);
  useEffect(() => {
    const element = area.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => entry && setRoom({ width: entry.contentRect.width, height: entry.contentRect.height }));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  const { wanted } = cuts;
  const content = useMemo(
    () => ({ ...cuts.content, pictures: cuts.content.pictures.map((each) => ({ ...each, address: each.address.replace(`fit=${WALL_PICTURE_PX}`, `fit=${LARGE_PICTURE_PX}`) })) }),
    [cuts.content],
  );
  const request = useMemo(
    () => ({
      content,
      ghosts: true,
      // The others are fitted along with it, and need not be seen.
      cuts: wanted(cut, 1).map((each) => (each.key === cut.key ? each : { ...each, scale: UNSEEN_SCALE })),
    }),
    [content, wanted, cut],
  );
  const { wall, state } = useWall(request);
  const { width, height } = cut.placement.exportPx;
  const scale = Math.min(1, (room.width - FRAME_PX * 2) / width, (room.height - FRAME_PX) / height);
  const report = state.reports.get(cut.key);
  const safe = cut.placement.safePercent;
  const labelOf = (slot: string): string => template.slots.find((each) => each.key === slot)?.label ?? slot;
  const download = async (): Promise<void> => {
    // What is downloaded is what is saved: unsaved words would be missing from it.
    await store.flush();
    if (store.hasUnsaved()) return toast('problem', 'The latest changes are not saved yet, so they cannot be in the file. Try again in a moment.');
    location.assign(addressOf(getCutFile, { brand: brand.slug, piece: pieceId, channelId: cut.ref.channelId, placement: cut.ref.placement }, at === 0 ? {} : { slide: at + 1 }));
  };
  return (
    <section aria-label={`${cut.sheet.name} ${cut.placement.name}, large`} className="flex min-w-0 flex-1 flex-col">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2 px-6 py-3">
        <button ref={back} type="button" onClick={onClose} className={buttonClasses('plain')}>
          <ArrowLeft aria-hidden className="size-4" />
          All cuts
        </button>
        <h2 className="text-base font-semibold whitespace-nowrap">
          {cut.sheet.name} {cut.placement.name}
        </h2>
        <span className="text-sm whitespace-nowrap text-quiet tabular-nums">
          {width} × {height}
        </span>
        {props.cut.slides.length > 1 && <Steps label="Slides" before="The slide before" after="The next slide" count={props.cut.slides.length} at={at} onStep={(next) => onFrame(props.cut.slides[next]?.frame.id ?? frameId)} />}
        <Steps label="Cuts" before="The cut before" after="The next cut" count={cuts.list.length} at={cutAt} onStep={(next) => onCut(cuts.list[next]?.key ?? props.cut.key)} />
        <div className="ml-auto flex items-center gap-3">
          <label className="flex items-center gap-1.5 text-sm whitespace-nowrap">
            <input type="checkbox" checked={showSafe} onChange={(event) => setShowSafe(event.target.checked)} className="accent-house" />
            Safe zone
          </label>
          <Button onClick={() => void download()}>
            <Download aria-hidden className="size-4" />
            PNG
          </Button>
        </div>
      </div>
      <CutControls {...props} cut={cut} template={template} frame={slide?.frame ?? props.piece.frames[0]} report={report} />
      <div ref={area} className="grid min-h-0 flex-1 place-items-center overflow-hidden" data-large={cut.key} data-settled={state.settledId}>
        {/* A picture that runs through all slides reaches out of this one. */}
        <div className="relative overflow-hidden">
          <CutCanvas wall={wall} cutKey={cut.key} widthPx={width * scale} heightPx={height * scale} label={`The cut for ${cut.sheet.name} ${cut.placement.name}${props.cut.slides.length > 1 ? `, slide ${at + 1}` : ''}`} />
          {!readOnly && report?.pictures.map((picture) => <CropDrag key={picture.slot} cut={cut} picture={picture} scale={scale} store={store} />)}
          {showSafe && (
            <div
              aria-hidden
              className="pointer-events-none absolute border-2 border-dashed border-coral shadow-[0_0_0_1px_var(--c-panel)]"
              style={{ top: `${safe.top}%`, right: `${safe.right}%`, bottom: `${safe.bottom}%`, left: `${safe.left}%` }}
            />
          )}
        </div>
      </div>
      <p className="min-h-10 px-6 py-3 text-xs text-quiet tabular-nums">
        {report && [...report.texts.map((text) => `${labelOf(text.slot)}: ${Math.round(text.sizePx)} px, ${text.lines} line${text.lines === 1 ? '' : 's'}`), ...report.blocks.map(blockSentence), ...report.fronts.map(frontSentence), ...(report.beside ? [besideSentence(report.beside)] : []), ...(report.insteadOf ? [insteadSentence(report.insteadOf)] : [])].join(' · ')}
      </p>
    </section>
  );
}

interface StepsProps {
  readonly label: string;
  readonly before: string;
  readonly after: string;
  readonly count: number;
  readonly at: number;
  readonly onStep: (next: number) => void;
}

/** Through slides or cuts, by click or by the arrow keys while one of the buttons has the focus. */
function Steps({ label, before, after, count, at, onStep }: StepsProps) {
  const step = (by: -1 | 1): void => {
    if (at + by >= 0 && at + by < count) onStep(at + by);
  };
  return (
    <div
      role="group"
      aria-label={label}
      className="flex items-center gap-1"
      onKeyDown={(event) => {
        if (event.key === 'ArrowLeft') step(-1);
        else if (event.key === 'ArrowRight') step(1);
        else return;
        event.preventDefault();
      }}
    >
      <Button size="icon" aria-label={before} disabled={at === 0} onClick={() => step(-1)}>
        <ChevronLeft aria-hidden className="size-4" />
      </Button>
      <span className="w-14 text-center text-sm tabular-nums" role="status">
        {at + 1} of {count}
      </span>
      <Button size="icon" aria-label={after} disabled={at === count - 1} onClick={() => step(1)}>
        <ChevronRight aria-hidden className="size-4" />
      </Button>
    </div>
  );
}
