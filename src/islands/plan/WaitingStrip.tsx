import { useQuery } from '@tanstack/react-query';
import { useRef } from 'react';
import { useDrag } from 'react-aria';
import { listPieces } from '../../contract/piece-contracts.ts';
import { getPiecePlan } from '../../contract/piece-plan-contracts.ts';
import { addToQueue, listQueue } from '../../contract/plan-contracts.ts';
import { roleMay } from '../../core/access/access.ts';
import { channelsOfTheme } from '../../core/plan/plan.ts';
import { call } from '../ui/call.ts';
import { PieceThumbnail } from '../ui/PieceThumbnail.tsx';
import { toast } from '../ui/toast.tsx';
import { dragItem } from './drag.ts';
import type { PlanActions } from './use-plan-actions.ts';
import type { PlanContext } from './use-plan.ts';

const SHOWN = 14;

interface Shown {
  readonly pieceId: string;
  readonly name: string;
  readonly waits: boolean;
}

/** Pieces that wait in a queue or are planned nowhere, to be dragged onto a lane, or put there by a key. */
export function WaitingStrip({ context, actions }: { readonly context: PlanContext; readonly actions: PlanActions }) {
  const { brand, themes } = context;
  const queue = useQuery({ queryKey: ['plan', brand.slug, 'queue'], queryFn: () => call(listQueue, { params: { brand: brand.slug }, query: {} }) });
  const drafts = useQuery({ queryKey: ['plan', brand.slug, 'drafts'], queryFn: () => call(listPieces, { params: { brand: brand.slug }, query: { status: 'draft', limit: SHOWN } }) });
  const waiting = new Map((queue.data?.items ?? []).map(({ pieceId, pieceName }): [string, Shown] => [pieceId, { pieceId, name: pieceName, waits: true }]));
  const others = (drafts.data?.items ?? []).filter(({ id }) => !waiting.has(id)).map(({ id, name }): Shown => ({ pieceId: id, name, waits: false }));
  const shown = [...waiting.values(), ...others].slice(0, SHOWN);
  const mayMove = roleMay(brand.role, 'send');
  const channelsOf = async (pieceId: string): Promise<{ readonly themeId: string | null; readonly channelIds: readonly string[] }> => {
    const { themeId, channelIds } = await call(getPiecePlan, { params: { brand: brand.slug, piece: pieceId } });
    return { themeId, channelIds: channelsOfTheme(themeId === null ? undefined : themes.get(themeId), channelIds) };
  };
  const placeNext = async (pieceId: string): Promise<void> => {
    const { themeId, channelIds } = await channelsOf(pieceId);
    await actions.placeInNextSlot(pieceId, themeId, channelIds);
  };
  const enqueue = async (pieceId: string): Promise<void> => {
    try {
      const { channelIds } = await channelsOf(pieceId);
      const { added } = await call(addToQueue, { params: { brand: brand.slug }, body: { pieceId, channelIds: [...channelIds], cuts: [] } });
      toast('done', added.length === 0 ? 'It waits there already.' : `It waits for a slot on ${added.length} ${added.length === 1 ? 'channel' : 'channels'}.`);
      await actions.refresh();
    } catch (error) {
      toast('problem', error instanceof Error ? error.message : 'It could not be queued.');
    }
  };
  if (shown.length === 0) return null;
  return (
    <section aria-labelledby="waiting" className="mt-3 flex shrink-0 items-center gap-3 max-md:hidden">
      <h2 id="waiting" className="shrink-0 text-sm font-semibold">
        Waiting for a slot <span className="font-normal text-quiet tabular-nums">{waiting.size}</span>
      </h2>
      <ul className="flex min-w-0 gap-2 overflow-x-auto p-1">
        {shown.map((piece) => (
          <li key={piece.pieceId}>
            <StripTile brand={brand.slug} piece={piece} mayMove={mayMove} onNext={() => void placeNext(piece.pieceId)} onQueue={() => void enqueue(piece.pieceId)} />
          </li>
        ))}
      </ul>
      {mayMove && <p className="shrink-0 text-xs text-quiet max-xl:hidden">Drag onto a lane; S puts it into the next open slot of its theme, Q into the queue.</p>}
    </section>
  );
}

function StripTile({ brand, piece, mayMove, onNext, onQueue }: { readonly brand: string; readonly piece: Shown; readonly mayMove: boolean; readonly onNext: () => void; readonly onQueue: () => void }) {
  const ref = useRef<HTMLAnchorElement>(null);
  const { dragProps, isDragging } = useDrag({ isDisabled: !mayMove, hasDragButton: true, getItems: () => [dragItem({ kind: 'piece', brand, pieceId: piece.pieceId })], getAllowedDropOperations: () => ['move'] });
  return (
    <a
      {...dragProps}
      ref={ref}
      href={`/b/${brand}/make/pieces/${piece.pieceId}`}
      title={piece.name}
      aria-label={`${piece.name}${piece.waits ? ', in the queue' : ', planned nowhere'}${mayMove ? '. S: next open slot. Q: queue' : ''}`}
      data-waiting={piece.pieceId}
      onKeyDown={(event) => {
        if (!mayMove || event.ctrlKey || event.metaKey || event.altKey) return;
        if (event.key.toLowerCase() === 's') onNext();
        else if (event.key.toLowerCase() === 'q') onQueue();
      }}
      className={`block shrink-0 rounded-md ${isDragging ? 'opacity-40' : ''}`}
    >
      <PieceThumbnail brand={brand} piece={piece.pieceId} className={`size-11 rounded-md border object-cover ${piece.waits ? 'border-edge' : 'border-dashed border-line'}`} />
    </a>
  );
}
