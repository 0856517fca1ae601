import { useState } from 'react';
import { differs } from '../../core/piece/adjustment.ts';
import { ChannelBadge } from '../ui/ChannelBadge.tsx';
import type { SheetProps } from './LookSheet.tsx';
import { CutCanvas } from './CutCanvas.tsx';
import { TakeOut } from './TakeOut.tsx';
import type { Cut, Cuts } from './use-cuts.ts';
import { WallScale } from './WallScale.tsx';

interface WallProps extends Pick<SheetProps, 'cuts' | 'brand' | 'pieceId' | 'store'> {
  readonly onChoose: (key: string) => void;
}

/** All cuts side by side at one scale, grouped by channel, repainted with every keystroke. */
export function ProofWall({ cuts, brand, pieceId, store, onChoose }: WallProps) {
  const [grouping, setGrouping] = useState<Grouping>('channel');
  const groups = groupCuts(cuts.list, grouping);
  return (
    <section aria-label="Proof wall" className="relative min-w-0 flex-1 overflow-auto px-6 py-4">
      <div className="mb-3 flex items-center justify-between gap-4">
        <p className="mr-auto text-xs text-quiet">Proof wall: {cuts.list.length} cuts, all at the same scale</p>
        <label className="flex items-center gap-2 text-xs text-quiet">
          Grouped by
          <select value={grouping} onChange={(event) => setGrouping(event.target.value as Grouping)} className="h-7 rounded-md border border-line bg-panel px-1 text-sm text-ink">
            <option value="channel">channel</option>
            <option value="shape">shape</option>
          </select>
        </label>
        <WallScale cuts={cuts} />
        <TakeOut brand={brand.slug} pieceId={pieceId} store={store} cuts={cuts} />
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
            <h2 className="mb-2 flex items-center gap-2 text-sm font-semibold">
              {grouping === 'channel' ? (
                <>
                  <ChannelBadge badge={first.sheet.badge} />
                  {first.channelName}
                </>
              ) : (
                key
              )}
            </h2>
            <ul className="flex flex-wrap items-start gap-5">
              {ofGroup.map((cut) => (
                <WallCut key={cut.key} cut={cut} cuts={cuts} grouping={grouping} onChoose={onChoose} />
              ))}
            </ul>
          </div>
        );
      })}
    </section>
  );
}

type Grouping = 'channel' | 'shape';

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

function groupCuts(list: readonly Cut[], grouping: Grouping): readonly CutGroup[] {
  const groups = new Map<string, [Cut, ...Cut[]]>();
  const shapeOf = ({ placement }: Cut): number => shapes.findIndex(([below]) => placement.exportPx.width / placement.exportPx.height < below);
  const ordered = grouping === 'shape' ? list.toSorted((a, b) => shapeOf(a) - shapeOf(b)) : list;
  for (const cut of ordered) {
    const key = grouping === 'channel' ? cut.channelId : (shapes[shapeOf(cut)]?.[1] ?? '');
    const group = groups.get(key);
    if (group) group.push(cut);
    else groups.set(key, [cut]);
  }
  return [...groups].map(([key, cuts]) => ({ key, cuts }));
}

function WallCut({ cut, cuts, grouping, onChoose }: { readonly cut: Cut; readonly cuts: Cuts; readonly grouping: Grouping; readonly onChoose: (key: string) => void }) {
  const { width, height } = cut.placement.exportPx;
  const report = cuts.reports.get(cut.key);
  const over = report?.texts.find((text) => text.kind === 'overflows');
  return (
    <li>
      <button type="button" onClick={() => onChoose(cut.key)} aria-label={`${cut.sheet.name} ${cut.placement.name}, ${width} × ${height}: look at it large`} className="block hover:outline-2 hover:outline-offset-2 hover:outline-edge">
        <CutCanvas wall={cuts.wall} cutKey={cut.key} widthPx={Math.round(width * cuts.wallScale)} heightPx={Math.round(height * cuts.wallScale)} />
      </button>
      <p className="mt-1.5 flex items-baseline justify-between gap-2 text-xs">
        <span className="font-semibold">
          {grouping === 'shape' ? `${cut.sheet.name} ` : ''}
          {cut.placement.name}
          {differs(cut.adjustment) && <span className="ml-1.5 rounded-md bg-house-soft px-1 font-medium text-house">differs</span>}
        </span>
        {over?.kind === 'overflows' ? (
          <span className="font-medium text-coral-ink">too long by {over.overBy}</span>
        ) : (
          <span className="text-quiet tabular-nums">
            {width} × {height}
          </span>
        )}
      </p>
    </li>
  );
}
