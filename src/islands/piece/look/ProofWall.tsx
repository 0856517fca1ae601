import Grid from 'lucide-react/icons/layout-grid';
import { memo, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { scaleToFit } from '../../../core/geometry/pack-rows.ts';
import type { Adjustment } from '../../../core/piece/adjustment.ts';
import { commonAdjustment, differsFrom } from '../../../core/piece/common-adjustment.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { DropFiles } from '../../media/DropFiles.tsx';
import { UploadList } from '../../media/UploadList.tsx';
import type { LookProps } from '../view-props.ts';
import { usePictureSlots } from './use-picture-slots.ts';
import { CutCanvas } from '../../preview/CutCanvas.tsx';
import { ExportCuts } from './ExportCuts.tsx';
import { WALL_SCALES, type Cut, type Cuts } from '../use-cuts.ts';
import { Button } from '../../ui/Button.tsx';
import { WallScale } from '../../preview/WallScale.tsx';

interface WallProps extends LookProps {
  readonly onChoose: (key: string) => void;
}

/** All cuts side by side at one scale, grouped by channel, repainted with every keystroke. */
export function ProofWall({ onChoose, ...props }: WallProps) {
  const { cuts, brand, pieceId, store, piece, template } = props;
  const pictures = usePictureSlots(props, template, piece.frames[0]);
  const [grouping, setGrouping] = useState<Grouping>('channel');
  const [isAll, setAll] = useState(false);
  const head = useRef<HTMLDivElement>(null);
  useScaleOfAll(isAll, head, cuts);
  const groups = groupCuts(cuts.list, isAll ? 'all' : grouping);
  const common = useMemo(() => commonAdjustment(cuts.list.map(({ adjustment }) => adjustment)), [cuts.list]);
  return (
    <DropFiles as="section" isOpen={pictures.isTaking} onFiles={pictures.add} aria-label="Proof wall" className="relative min-w-0 flex-1 overflow-auto px-6 py-4">
      <UploadList uploads={pictures.uploads} />
      <div ref={head} className="mb-3 flex flex-wrap items-center justify-between gap-x-3 gap-y-2">
        <p className="mr-auto text-xs whitespace-nowrap text-quiet">{cuts.list.length} cuts</p>
        <Button size="small" look={isAll ? 'primary' : 'plain'} aria-pressed={isAll} onClick={() => setAll(!isAll)}>
          <Grid aria-hidden className="size-3.5" />
          See all
        </Button>
        <label className="flex items-center gap-2 text-xs whitespace-nowrap text-quiet">
          <span className="sr-only">Grouped by</span>
          <select value={grouping} disabled={isAll} onChange={(event) => setGrouping(event.target.value as Grouping)} className="h-7 rounded-md border border-line bg-panel px-1 text-sm text-ink">
            <option value="channel">By channel</option>
            <option value="shape">By shape</option>
          </select>
        </label>
        <WallScale cuts={cuts} />
        <ExportCuts brand={brand.slug} pieceId={pieceId} store={store} cuts={cuts} />
      </div>
      {cuts.problem && (
        <p role="alert" className="mb-3 text-sm text-coral-ink">
          The cuts could not be painted: {cuts.problem}
        </p>
      )}
      {groups.map(({ key, cuts: ofGroup }) => {
        const [first] = ofGroup;
        return (
          <div key={key} className="mb-6">
            <h2 className={isAll ? 'sr-only' : 'mb-2 flex items-center gap-2 text-sm font-semibold'}>
              {isAll ? (
                'All cuts'
              ) : grouping === 'channel' ? (
                <>
                  <ChannelBadge badge={first.sheet.badge} />
                  {first.channel.name}
                </>
              ) : (
                key
              )}
            </h2>
            <ul className={`flex flex-wrap items-start ${isAll ? 'gap-x-3 gap-y-2' : 'gap-5'}`}>
              {ofGroup.map((cut) => (
                <WallCut key={cut.key} {...wallCutProps(cut, common, cuts)} grouping={isAll ? 'all' : grouping} onChoose={onChoose} />
              ))}
            </ul>
          </div>
        );
      })}
    </DropFiles>
  );
}

/** How the wall is laid out: `all` is one group, packed by shape. */
type Grouping = 'channel' | 'shape' | 'all';

/** What stands around the cuts of a wall that shows them all, in pixels: as the classes of its list and captions have it. */
const ALL_GAPS = { acrossPx: 12, downPx: 8, captionPx: 20 };
/** Smaller than people would set it: all are to be seen. */
const ALL_SCALES = { least: 0.05, most: WALL_SCALES.most };
const PAD_PX = { across: 48, down: 32 + 12 };

/** While all cuts are to be seen at once, their scale follows the room; afterwards it is as it was. */
function useScaleOfAll(isAll: boolean, head: { readonly current: HTMLElement | null }, { list, wallScale, setWallScale }: Cuts): void {
  const sizes = useMemo(() => byShape(list).map(({ placement }) => ({ widthPx: placement.exportPx.width, heightPx: placement.exportPx.height })), [list]);
  const before = useRef(wallScale);
  const restore = useCallback((): void => setWallScale(before.current), [setWallScale]);
  useEffect(() => {
    if (!isAll) before.current = wallScale;
  }, [isAll, wallScale]);
  useEffect(() => {
    const wall = head.current?.parentElement;
    if (!isAll || !wall) return undefined;
    const observer = new ResizeObserver(() => {
      const room = { widthPx: wall.clientWidth - PAD_PX.across, heightPx: wall.clientHeight - PAD_PX.down - (head.current?.offsetHeight ?? 0) };
      setWallScale(scaleToFit(sizes, room, ALL_GAPS, ALL_SCALES));
    });
    observer.observe(wall);
    return () => {
      observer.disconnect();
      restore();
    };
  }, [isAll, head, sizes, setWallScale, restore]);
}

interface CutGroup {
  readonly key: string;
  readonly cuts: readonly [Cut, ...Cut[]];
}

/** Shapes by their width against their height, the tallest first. */
const shapes: readonly (readonly [number, string])[] = [
  [0.6, 'Tall'],
  [0.72, 'Card, 2:3'],
  [0.95, 'Portrait, 4:5'],
  [1.2, 'Square'],
  [1.5, '4:3'],
  [Infinity, 'Wide'],
];

const shapeOf = ({ placement }: Cut): number => shapes.findIndex(([below]) => placement.exportPx.width / placement.exportPx.height < below);

function byShape(list: readonly Cut[]): readonly Cut[] {
  return list.toSorted((a, b) => shapeOf(a) - shapeOf(b));
}

function groupCuts(list: readonly Cut[], grouping: Grouping): readonly CutGroup[] {
  const groups = new Map<string, [Cut, ...Cut[]]>();
  const ordered = grouping === 'channel' ? list : byShape(list);
  for (const cut of ordered) {
    const key = grouping === 'all' ? 'all' : grouping === 'channel' ? cut.channel.id : (shapes[shapeOf(cut)]?.[1] ?? '');
    const group = groups.get(key);
    if (group) group.push(cut);
    else groups.set(key, [cut]);
  }
  return [...groups].map(([key, cuts]) => ({ key, cuts }));
}

interface WallCutProps extends Pick<Cuts, 'wall' | 'wallScale'> {
  readonly cutKey: string;
  readonly networkName: string;
  readonly placementName: string;
  readonly width: number;
  readonly height: number;
  readonly isOwn: boolean;
  /** Characters that are too many; null where all fit. */
  readonly overBy: number | null;
}

function wallCutProps({ key, sheet, placement, adjustment }: Cut, common: Adjustment, { wall, wallScale, reports }: Cuts): WallCutProps {
  const over = reports.get(key)?.texts.find((text) => text.kind === 'overflows');
  return { wall, wallScale, cutKey: key, networkName: sheet.name, placementName: placement.name, ...placement.exportPx, isOwn: differsFrom(adjustment, common), overBy: over?.kind === 'overflows' ? over.overBy : null };
}

/** A cut on the wall. Its picture changes with every key, what stands around it seldom. */
const WallCut = memo(function WallCut({ wall, wallScale, cutKey, networkName, placementName, width, height, isOwn, overBy, grouping, onChoose }: WallCutProps & { readonly grouping: Grouping; readonly onChoose: (key: string) => void }) {
  return (
    <li>
      <button type="button" data-look={cutKey} onClick={() => onChoose(cutKey)} aria-label={`${networkName} ${placementName}, ${width} × ${height}: look at it large`} className="block hover:outline-2 hover:outline-offset-2 hover:outline-edge">
        <CutCanvas wall={wall} cutKey={cutKey} widthPx={Math.round(width * wallScale)} heightPx={Math.round(height * wallScale)} />
      </button>
      <p className={grouping === 'all' ? 'h-5 w-0 min-w-full truncate text-[11px] leading-5' : 'mt-1.5 flex items-baseline justify-between gap-2 text-xs'}>
        <span className={grouping === 'all' ? '' : 'font-semibold'}>
          {grouping === 'channel' ? '' : `${networkName} `}
          {placementName}
          {isOwn && <span className="ml-1.5 rounded-md bg-house-soft px-1 font-medium text-house">differs</span>}
        </span>
        {overBy !== null ? (
          <span className="font-medium text-coral-ink">too long by {overBy}</span>
        ) : grouping === 'all' ? null : (
          <span className="text-quiet tabular-nums">
            {width} × {height}
          </span>
        )}
      </p>
    </li>
  );
});
