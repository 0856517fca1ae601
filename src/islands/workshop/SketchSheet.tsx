import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { RegionKind } from '../../core/template/from-sketch.ts';
import { GRID, moveRegion, removeRegion, sizeRegion, type SketchRegion } from '../../core/template/sketch-regions.ts';

interface SketchSheetProps {
  readonly regions: readonly SketchRegion[];
  readonly onChange: (regions: readonly SketchRegion[]) => void;
}

export const regionNames: Readonly<Record<RegionKind, string>> = { picture: 'Picture', headline: 'Headline', label: 'Label', line: 'Line', list: 'List', mark: 'Mark' };

const SHEET_PX = 288;
const percent = (cells: number, of: number): string => `${(cells / of) * 100}%`;
const looks: Readonly<Record<RegionKind, string>> = {
  picture: 'border-house bg-house-soft text-house',
  headline: 'border-ink bg-panel font-heading text-base font-semibold text-ink',
  label: 'border-edge bg-panel text-xs text-quiet',
  line: 'border-edge bg-panel text-xs text-ink',
  list: 'border-edge bg-panel text-xs text-ink',
  mark: 'border-coral bg-panel text-xs text-coral-ink',
};
const steps: Readonly<Record<string, readonly [across: number, down: number]>> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

/** A drag that has begun: which region, where it was, and where it was taken hold of. */
interface Drag {
  readonly region: SketchRegion;
  readonly isSizing: boolean;
  readonly fromX: number;
  readonly fromY: number;
}

/** An upright sheet on which regions are moved and sized, with the mouse or with the keys; they snap to a grid. */
export function SketchSheet({ regions, onChange }: SketchSheetProps) {
  const drag = useRef<Drag | null>(null);
  const sheet = useRef<HTMLDivElement>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  const begin = (event: PointerEvent<HTMLElement>, region: SketchRegion, isSizing: boolean): void => {
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    drag.current = { region, isSizing, fromX: event.clientX, fromY: event.clientY };
    setChosen(region.id);
  };
  const go = ({ clientX, clientY }: PointerEvent): void => {
    if (!drag.current) return;
    const { region, isSizing, fromX, fromY } = drag.current;
    const cellPx = (sheet.current?.clientWidth ?? SHEET_PX) / GRID.columns;
    const [across, down] = [(clientX - fromX) / cellPx, (clientY - fromY) / cellPx];
    onChange(isSizing ? sizeRegion(regions, region.id, region.columns + across, region.rows + down) : moveRegion(regions, region.id, region.column + across, region.row + down));
  };
  const end = (): void => {
    drag.current = null;
  };
  const press = (event: KeyboardEvent, region: SketchRegion): void => {
    const step = steps[event.key];
    if (event.key === 'Delete' || event.key === 'Backspace') {
      event.preventDefault();
      onChange(removeRegion(regions, region.id));
    } else if (step) {
      event.preventDefault();
      const [across, down] = step;
      onChange(event.shiftKey ? sizeRegion(regions, region.id, region.columns + across, region.rows + down) : moveRegion(regions, region.id, region.column + across, region.row + down));
    }
  };
  return (
    <>
      <div ref={sheet} role="group" aria-label="Sketch" className="relative max-w-full border border-edge bg-sunk" style={{ width: SHEET_PX, aspectRatio: `${GRID.columns} / ${GRID.rows}` }}>
        {regions.map((region) => (
          <button
            key={region.id}
            type="button"
            aria-label={`${regionNames[region.kind]}, ${region.columns} by ${region.rows} at column ${region.column + 1}, row ${region.row + 1}`}
            aria-describedby="sketch-keys"
            data-region={region.kind}
            onFocus={() => setChosen(region.id)}
            onPointerDown={(event) => begin(event, region, false)}
            onPointerMove={go}
            onPointerUp={end}
            onPointerCancel={end}
            onKeyDown={(event) => press(event, region)}
            className={`absolute grid cursor-move touch-none place-items-center overflow-hidden rounded-sm border leading-none outline-none focus-visible:ring-2 focus-visible:ring-house ${looks[region.kind]} ${chosen === region.id ? 'ring-2 ring-house' : ''}`}
            style={{ left: percent(region.column, GRID.columns), top: percent(region.row, GRID.rows), width: percent(region.columns, GRID.columns), height: percent(region.rows, GRID.rows) }}
          >
            {regionNames[region.kind]}
            <span aria-hidden onPointerDown={(event) => begin(event, region, true)} onPointerMove={go} onPointerUp={end} onPointerCancel={end} className="absolute right-0 bottom-0 size-3.5 cursor-nwse-resize touch-none rounded-tl-sm bg-house" />
          </button>
        ))}
      </div>
      <p id="sketch-keys" className="mt-1.5 max-w-72 text-xs text-quiet">
        Drag to move, drag the corner to size. Arrow keys move, with Shift they size; Delete removes.
      </p>
    </>
  );
}
