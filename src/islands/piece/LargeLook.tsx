import ArrowLeft from 'lucide-react/icons/arrow-left';
import Download from 'lucide-react/icons/download';
import { useEffect, useMemo, useRef, useState } from 'react';
import { getCutFile } from '../../contract/piece-contracts.ts';
import { addressOf } from '../ui/call.ts';
import { Button, buttonClasses } from '../ui/Button.tsx';
import { toast } from '../ui/toast.tsx';
import { WALL_PICTURE_PX } from './brand-content.ts';
import { CropDrag } from './CropDrag.tsx';
import { CutCanvas } from './CutCanvas.tsx';
import { CutControls } from './CutControls.tsx';
import type { SheetProps } from './LookSheet.tsx';
import type { Cut } from './use-cuts.ts';
import { useWall } from './wall.ts';

interface LargeProps extends SheetProps {
  readonly cut: Cut;
  readonly onClose: () => void;
}

const LARGE_PICTURE_PX = 2048;
const FRAME_PX = 24;

/** One cut painted at its full export size, shown as large as there is room, with its safe zone to see. */
export function LargeLook(props: LargeProps) {
  const { cut, cuts, brand, store, pieceId, template, readOnly, onClose } = props;
  const [showSafe, setShowSafe] = useState(false);
  const [room, setRoom] = useState({ width: 600, height: 560 });
  const area = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const element = area.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => entry && setRoom({ width: entry.contentRect.width, height: entry.contentRect.height }));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  const { content, wanted } = cuts;
  const request = useMemo(
    () => ({
      ...content,
      ghosts: true,
      pictures: content.pictures.map((each) => ({ ...each, address: each.address.replace(`fit=${WALL_PICTURE_PX}`, `fit=${LARGE_PICTURE_PX}`) })),
      cuts: [wanted(cut, 1)],
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
    location.assign(addressOf(getCutFile, { brand: brand.slug, piece: pieceId, channelId: cut.ref.channelId, placement: cut.ref.placement }));
  };
  return (
    <section aria-label={`${cut.sheet.name} ${cut.placement.name}, large`} className="flex min-w-0 flex-1 flex-col">
      <div className="flex items-center gap-3 px-6 py-3">
        <button type="button" onClick={onClose} className={buttonClasses('plain')}>
          <ArrowLeft aria-hidden className="size-4" />
          All cuts
        </button>
        <h2 className="text-base font-semibold">
          {cut.sheet.name} {cut.placement.name}
        </h2>
        <span className="text-sm text-quiet tabular-nums">
          {width} × {height}
        </span>
        <label className="ml-auto flex items-center gap-1.5 text-sm">
          <input type="checkbox" checked={showSafe} onChange={(event) => setShowSafe(event.target.checked)} className="accent-house" />
          Safe zone
        </label>
        <Button onClick={() => void download()}>
          <Download aria-hidden className="size-4" />
          PNG
        </Button>
      </div>
      <CutControls {...props} report={report} />
      <div ref={area} className="grid min-h-0 flex-1 place-items-center overflow-hidden" data-large={cut.key} data-settled={state.settledId}>
        <div className="relative">
          <CutCanvas wall={wall} cutKey={cut.key} widthPx={width * scale} heightPx={height * scale} label={`The cut for ${cut.sheet.name} ${cut.placement.name}`} />
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
        {report && `${report.texts.map((text) => `${labelOf(text.slot)}: ${Math.round(text.sizePx)} px, ${text.lines} line${text.lines === 1 ? '' : 's'}`).join(' · ')}`}
      </p>
    </section>
  );
}
