import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { getSeries } from '../../contract/begin-contracts.ts';
import { Button } from '../ui/Button.tsx';
import { call } from '../ui/call.ts';
import { NumberBox } from '../ui/NumberBox.tsx';
import type { PlanActions } from './use-plan-actions.ts';

/** For a piece of a series: what else belongs to it, and one press that moves all of it by days. */
export function SeriesMove({ brand, pieceId, actions, onMoved }: { readonly brand: string; readonly pieceId: string; readonly actions: PlanActions; readonly onMoved: () => void }) {
  const [days, setDays] = useState(1);
  const [sign, setSign] = useState<1 | -1>(1);
  const found = useQuery({ queryKey: ['plan', brand, 'series', pieceId], queryFn: () => call(getSeries, { params: { brand, piece: pieceId } }) });
  const series = found.data?.series;
  if (!series) return null;
  const items = [...series.postIds.map((postId) => ({ postId, entryId: null })), ...series.entryIds.map((entryId) => ({ postId: null, entryId }))];
  return (
    <section aria-label="Series" className="mt-4 border-t border-line pt-3 text-sm">
      <p className="font-semibold">Part of the series “{series.name}”</p>
      <ol className="mt-1 max-h-32 space-y-0.5 overflow-auto text-xs text-quiet">
        {series.pieces.map((piece) => (
          <li key={piece.id} className="flex justify-between gap-3">
            <a href={`/b/${brand}/make/pieces/${piece.id}`} className={`min-w-0 truncate underline ${piece.id === pieceId ? 'font-semibold text-ink' : ''}`}>
              {piece.name}
            </a>
            <span className="shrink-0 tabular-nums">{piece.wall?.replace('T', ', ') ?? 'not planned'}</span>
          </li>
        ))}
      </ol>
      {items.length > 0 && (
        <p className="mt-2 flex flex-wrap items-center gap-2">
          Move the whole series by
          <NumberBox label="Days to move the series by" value={days} min={1} max={60} onChange={setDays} />
          {days === 1 ? 'day' : 'days'}
          <select aria-label="Direction" value={sign} onChange={(event) => setSign(event.target.value === '1' ? 1 : -1)} className="h-8 rounded-md border border-line bg-panel px-1.5">
            <option value={1}>later</option>
            <option value={-1}>earlier</option>
          </select>
          <Button size="small" onClick={() => void actions.shift(items, sign * days).then(onMoved)}>
            Move all {items.length}
          </Button>
        </p>
      )}
    </section>
  );
}
