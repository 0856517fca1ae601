import EyeOff from 'lucide-react/icons/eye-off';
import Undo2 from 'lucide-react/icons/undo-2';
import { memo } from 'react';
import { leaveSlideOut, takeSlideIn } from '../../../core/piece/adjust.ts';
import type { LeftSlide } from '../../../core/piece/slides-of-cut.ts';
import { CutCanvas } from '../../preview/CutCanvas.tsx';
import type { PieceStore } from '../piece-store.ts';
import type { Wall } from '../../preview/wall.ts';

/** What stays behind takes little room. */
const MAX_LEFT_PX = 72;

/** Ids of slides as one word: a cell that is given the same word need not be drawn again. */
export const joinIds = (ids: readonly string[]): string => ids.join(' ');
const splitIds = (joined: string): readonly string[] => (joined === '' ? [] : joined.split(' '));

interface CellProps {
  readonly store: PieceStore;
  readonly readOnly: boolean;
  readonly cutKey: string;
  /** Network and placement, as people read them. */
  readonly cutName: string;
  readonly frameId: string;
  /** Place of the slide in the piece, from 1 on. */
  readonly number: number;
  readonly widthPx: number;
  readonly heightPx: number;
  /** Slides that stay behind in this cut. */
  readonly left: string;
}

interface ShownProps extends CellProps {
  readonly wall: Wall | null;
  readonly slideKey: string;
  readonly isAtWork: boolean;
  /** Characters that are too many; null where all fit. */
  readonly overBy: number | null;
  readonly onLook: (cutKey: string, frameId: string) => void;
}

/** A slide as it goes out in one cut. There are many, and a keystroke changes few of them. */
export const ShownCell = memo(function ShownCell({ store, readOnly, cutKey, cutName, frameId, number, widthPx, heightPx, left, wall, slideKey, isAtWork, overBy, onLook }: ShownProps) {
  return (
    <div className="group relative">
      <button type="button" data-look={cutKey} data-frame={frameId} onClick={() => onLook(cutKey, frameId)} aria-label={`${cutName}, slide ${number}: look at it large`} className={`block ${isAtWork ? 'outline-2 outline-offset-2 outline-house' : 'hover:outline-2 hover:outline-offset-2 hover:outline-edge'}`}>
        <CutCanvas wall={wall} cutKey={slideKey} widthPx={widthPx} heightPx={heightPx} />
      </button>
      {overBy !== null && <p className="mt-1 text-xs font-medium text-coral-ink">too long by {overBy}</p>}
      {!readOnly && (
        <button
          type="button"
          aria-label={`Leave slide ${number} out of ${cutName}`}
          title="Leave it out here"
          onClick={() => store.change(`without-${cutKey}`, (draft) => leaveSlideOut(draft, cutKey, frameId, splitIds(left)))}
          className="absolute top-1 right-1 rounded-md border border-line bg-panel p-1 opacity-0 group-hover:opacity-100 focus-visible:opacity-100"
        >
          <EyeOff aria-hidden className="size-3.5" />
        </button>
      )}
    </div>
  );
});

const reasons: Readonly<Record<LeftSlide['because'], string>> = { chosen: 'left out', limit: 'no room', single: 'stays behind' };

interface LeftProps extends CellProps {
  readonly because: LeftSlide['because'];
  /** Slides that go out in this cut. */
  readonly shown: string;
  /** As many as this cut may have. */
  readonly most: number;
}

/** A slide that stays behind in one cut, with why. */
export const LeftCell = memo(function LeftCell({ store, readOnly, cutKey, cutName, frameId, number, widthPx, heightPx, left, because, shown, most }: LeftProps) {
  const takeIn = (): void => store.change(`without-${cutKey}`, (draft) => takeSlideIn(draft, cutKey, frameId, { left: splitIds(left), shown: splitIds(shown), most }));
  return (
    <div style={{ width: widthPx, height: Math.min(MAX_LEFT_PX, heightPx) }} className="flex flex-col items-center justify-center gap-1 rounded-md border border-dashed border-edge text-xs text-quiet">
      <span>{reasons[because]}</span>
      {!readOnly && (
        <button type="button" aria-label={`Show slide ${number} in ${cutName}`} onClick={takeIn} className="flex items-center gap-1 rounded-md px-1 font-medium text-house hover:underline">
          <Undo2 aria-hidden className="size-3" />
          Show it here
        </button>
      )}
    </div>
  );
});
