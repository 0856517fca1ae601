import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { ListBox, ListBoxItem, useDragAndDrop } from 'react-aria-components';
import type { AnswerOf } from '../../../contract/contract.ts';
import { getPieceThumbnail } from '../../../contract/piece-contracts.ts';
import { getProfile, orderQueue } from '../../../contract/plan-contracts.ts';
import { getDeliveryPicture } from '../../../contract/send-contracts.ts';
import { roleMay } from '../../../core/access/access.ts';
import type { Theme } from '../../../core/plan/plan.ts';
import type { ProfileRule } from '../../../core/network/network-sheet.ts';
import { formatMoment } from '../../../core/time/wall-time.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { addressOf, call } from '../../ui/call.ts';
import { Button } from '../../ui/Button.tsx';
import { Queries } from '../../ui/Queries.tsx';
import { GuideLink } from '../../ui/GuideLink.tsx';
import { PictureWithFallback } from '../../ui/PictureWithFallback.tsx';
import { toast } from '../../ui/toast.tsx';
import { ThemeTile } from '../ThemeTile.tsx';
import { usePlanContext, usePlanQuery, type PlanContext, type PlanProps } from '../use-plan.ts';

type Tile = AnswerOf<typeof getProfile>['tiles'][number];

export default function ProfileView(props: PlanProps) {
  return (
    <Queries>
      <ProfileOf {...props} />
    </Queries>
  );
}

function ProfileOf(props: PlanProps) {
  const context = usePlanContext(props);
  const [query, setQuery] = usePlanQuery();
  const { channels, sheets } = context;
  const channel = channels.find(({ id }) => id === query.channel) ?? channels[0];
  return (
    <main className="min-h-0 flex-1 overflow-auto px-4 py-4">
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <h1 className="text-xl font-semibold">Profile</h1>
        <div role="group" aria-label="Channel" className="flex flex-wrap gap-1">
          {channels.map((each) => {
            const sheet = sheets.get(each.network);
            return (
              <button key={each.id} type="button" aria-pressed={each.id === channel?.id} onClick={() => setQuery({ channel: each.id })} className={`flex items-center gap-1.5 rounded-md px-2 py-1 text-sm ${each.id === channel?.id ? 'bg-panel font-semibold text-house shadow-[inset_0_0_0_1px_var(--c-line)]' : 'text-quiet hover:text-ink'}`}>
                {sheet && <ChannelBadge badge={sheet.badge} size={15} />}
                {sheet?.name}
                {channels.filter(({ network }) => network === each.network).length > 1 && <span className="font-normal text-quiet">{each.handle}</span>}
              </button>
            );
          })}
        </div>
      </div>
      {channel && <Grid key={channel.id} context={context} channelId={channel.id} wall={sheets.get(channel.network)?.profile ?? USUAL_WALL} />}
    </main>
  );
}

/** A network whose sheet says nothing of its wall shows squares. */
const USUAL_WALL: Pick<ProfileRule, 'columns' | 'tile'> = { columns: 3, tile: { width: 1, height: 1 } };
/** Widths of the wall: tall tiles are drawn narrower, so that several rows are seen at once. */
const [WIDE_REM, NARROW_REM] = [34, 26];
/** Places that stand empty on a profile where nothing is out yet. */
const EMPTY_ROWS = 2;

/** The grid as a visitor will see it: the newest first, what is ahead marked, what waits to be put in another order. */
function Grid({ context, channelId, wall: { columns, tile: shape } }: { readonly context: PlanContext; readonly channelId: string; readonly wall: Pick<ProfileRule, 'columns' | 'tile'> }) {
  const { brand, themes, nowMs } = context;
  const client = useQueryClient();
  const [seed, setSeed] = useState(0);
  const [order, setOrder] = useState<readonly string[] | null>(null);
  const profile = useQuery({ queryKey: ['plan', brand.slug, 'profile', channelId], queryFn: () => call(getProfile, { params: { brand: brand.slug }, query: { channel: channelId } }) });
  const tiles = useMemo(() => profile.data?.tiles ?? [], [profile.data]);
  const mayMove = roleMay(brand.role, 'send');
  // The grid shows the newest first; the queue goes out from its beginning.
  const queued = tiles.filter(({ kind }) => kind === 'waiting').toReversed().flatMap(({ entryId }) => entryId ?? []);
  const ask = useMutation({
    mutationFn: ({ keep, order: asked, seed: by }: { readonly order: readonly string[]; readonly seed?: number; readonly keep: boolean }) => call(orderQueue, { params: { brand: brand.slug }, body: { channelId, keep, order: [...asked], seed: by } }),
    onSuccess: async (answer, { keep }) => {
      setOrder(answer.order);
      if (!keep) return;
      setOrder(null);
      setSeed(0);
      toast('done', 'The queue has this order now.');
      await client.invalidateQueries({ queryKey: ['plan', brand.slug] });
    },
    onError: (error) => toast('problem', error.message),
  });
  const shown = order === null ? tiles : reordered(tiles, order);
  const { dragAndDropHooks } = useDragAndDrop({
    isDisabled: !mayMove,
    getItems: (keys) => [...keys].map((key) => ({ 'text/plain': String(key) })),
    onReorder: ({ keys, target }) => {
      const [moved] = [...keys].map(String);
      const to = String(target.key);
      const now = order ?? queued;
      // Squares change places: what stood there goes where this one came from.
      if (moved === undefined || !now.includes(moved) || !now.includes(to)) return toast('problem', 'Only what waits in the queue can change places.');
      ask.mutate({ order: now.map((id) => (id === moved ? to : id === to ? moved : id)), keep: false });
    },
  });
  return (
    <div className="flex flex-wrap gap-8">
      <ListBox aria-label="The profile as a visitor will see it" layout="grid" items={shown} dragAndDropHooks={dragAndDropHooks} selectionMode="none" dependencies={[shown, nowMs, shape]} renderEmptyState={() => profile.isSuccess && Array.from({ length: columns * EMPTY_ROWS }, (_, index) => <span key={index} aria-hidden className="border border-dashed border-line" style={{ aspectRatio: `${shape.width} / ${shape.height}` }} />)} className="grid max-w-full gap-0.5 outline-none" style={{ width: `${shape.height > shape.width ? NARROW_REM : WIDE_REM}rem`, gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))` }}>
        {(tile) => (
          <ListBoxItem id={tile.entryId ?? tile.key} textValue={`${tile.pieceName}, ${placeWords(tile, brand.zone)}`} aria-label={`${tile.pieceName}, ${placeWords(tile, brand.zone)}`} style={{ aspectRatio: `${shape.width} / ${shape.height}` }} className="group relative overflow-hidden bg-sunk outline-0 data-[drop-target]:outline-2 data-[drop-target]:outline-house data-[focus-visible]:outline-2 data-[focus-visible]:outline-house data-[dragging]:opacity-40">
            <PictureWithFallback src={tile.deliveryId === null ? addressOf(getPieceThumbnail, { brand: brand.slug, piece: tile.pieceId }, { channel: channelId, placement: tile.placement }) : addressOf(getDeliveryPicture, { brand: brand.slug, delivery: tile.deliveryId })} alt="" className={`h-full w-full object-cover ${tile.kind === 'waiting' ? 'opacity-75' : ''}`} />
            <TileSign tile={tile} theme={tile.themeId === null ? undefined : themes.get(tile.themeId)} zone={brand.zone} />
          </ListBoxItem>
        )}
      </ListBox>
      <aside className="w-72 text-sm">
        <h2 className="text-base font-semibold">As a visitor will see it</h2>
        <p className="mt-1 text-quiet">{tiles.filter(({ kind }) => kind === 'out').length} out, {tiles.filter(({ kind }) => kind === 'planned').length} scheduled, {queued.length} in the queue. Drag a waiting square onto another one to swap them.</p>
        {mayMove && queued.length > 1 && (
          <div className="mt-3 flex flex-wrap gap-2">
            <Button
              disabled={ask.isPending}
              onClick={() => {
                setSeed(seed + 1);
                ask.mutate({ order: queued, seed: seed + 1, keep: false });
              }}
            >
              Shuffle
            </Button>
            {seed > 1 && (
              <Button
                look="quiet"
                disabled={ask.isPending}
                onClick={() => {
                  setSeed(seed - 1);
                  ask.mutate({ order: queued, seed: seed - 1, keep: false });
                }}
              >
                The one before
              </Button>
            )}
          </div>
        )}
        {order !== null && (
          <div className="mt-4 border-t border-line pt-3">
            <p className="font-semibold">{ask.data?.moves.length ?? 0} would go out at another time:</p>
            <ul className="mt-1 space-y-1 text-xs">
              {ask.data?.moves.slice(0, 8).map(({ entryId, fromMs, toMs }) => (
                <li key={entryId} className="tabular-nums">
                  <span className="font-medium">{tiles.find((tile) => tile.entryId === entryId)?.pieceName}</span>: {fromMs === null ? 'no slot' : formatMoment(fromMs, brand.zone)} → {toMs === null ? 'no slot' : formatMoment(toMs, brand.zone)}
                </li>
              ))}
            </ul>
            <div className="mt-3 flex gap-2">
              <Button look="primary" disabled={ask.isPending} onClick={() => ask.mutate({ order, keep: true })}>
                Keep this order
              </Button>
              <Button
                onClick={() => {
                  setOrder(null);
                  setSeed(0);
                }}
              >
                Leave it
              </Button>
            </div>
          </div>
        )}
        {queued.length > 0 && <QueueList ids={order ?? queued} nameOf={(id) => tiles.find((tile) => tile.entryId === id)?.pieceName ?? ''} mayMove={mayMove && !ask.isPending} onOrder={(next) => ask.mutate({ order: next, keep: false })} />}
        {profile.isSuccess && tiles.length === 0 && <p className="mt-4 text-quiet">Nothing is out or planned on this channel yet. <GuideLink view="profile" /></p>}
      </aside>
    </div>
  );
}

/** What waits, in the order in which it goes out: to the top, to the end, or a place up or down. */
function QueueList({ ids, nameOf, mayMove, onOrder }: { readonly ids: readonly string[]; readonly nameOf: (id: string) => string; readonly mayMove: boolean; readonly onOrder: (ids: readonly string[]) => void }) {
  const without = (id: string): readonly string[] => ids.filter((each) => each !== id);
  const step = (index: number, by: number): readonly string[] => {
    const id = ids[index] ?? '';
    return without(id).toSpliced(index + by, 0, id);
  };
  return (
    <section aria-label="Queue" className="mt-5">
      <h3 className="border-b border-line pb-1 font-semibold">Queue</h3>
      <ol>
        {ids.map((id, index) => (
          <li key={id} className="flex items-center gap-1.5 border-b border-line py-1">
            <span className="w-5 shrink-0 text-right text-xs text-quiet tabular-nums">{index + 1}</span>
            <span className="min-w-0 flex-1 truncate">{nameOf(id)}</span>
            {mayMove && (
              <>
                <Button size="small" look="quiet" aria-label={`${nameOf(id)}: to the top`} title="To the top" disabled={index === 0} onClick={() => onOrder([id, ...without(id)])}>
                  ⤒
                </Button>
                <Button size="small" look="quiet" aria-label={`${nameOf(id)}: up`} title="Up" disabled={index === 0} onClick={() => onOrder(step(index, -1))}>
                  ↑
                </Button>
                <Button size="small" look="quiet" aria-label={`${nameOf(id)}: down`} title="Down" disabled={index === ids.length - 1} onClick={() => onOrder(step(index, 1))}>
                  ↓
                </Button>
                <Button size="small" look="quiet" aria-label={`${nameOf(id)}: to the end`} title="To the end" disabled={index === ids.length - 1} onClick={() => onOrder([...without(id), id])}>
                  ⤓
                </Button>
              </>
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}

const placeWords = ({ kind, atMs }: Tile, zone: string): string => (atMs === null ? 'waits without a slot' : `${kind === 'out' ? 'out' : kind === 'planned' ? 'scheduled' : 'from the queue'}, ${formatMoment(atMs, zone)}`);

function TileSign({ tile, theme, zone }: { readonly tile: Tile; readonly theme: Theme | undefined; readonly zone: string }) {
  if (tile.kind === 'out') return null;
  return (
    <span className={`absolute inset-x-0 bottom-0 flex items-center gap-1.5 bg-panel px-1.5 py-0.5 text-[11px] tabular-nums ${tile.kind === 'waiting' ? 'text-quiet' : 'font-semibold'}`}>
      {theme && <ThemeTile theme={theme} />}
      <span className="truncate">{tile.atMs === null ? 'waits without a slot' : formatMoment(tile.atMs, zone).replace(/ \d{4},/, ',')}</span>
    </span>
  );
}

/** The tiles with what waits in another order; everything else keeps its square. */
function reordered(tiles: readonly Tile[], order: readonly string[]): readonly Tile[] {
  const byId = new Map(tiles.flatMap((tile) => (tile.entryId === null ? [] : [[tile.entryId, tile] as const])));
  const places = tiles.filter(({ kind }) => kind === 'waiting');
  const next = order.toReversed().flatMap((id) => byId.get(id) ?? []);
  const moved = new Map(places.map((place, index) => [place.key, { ...(next[index] ?? place), atMs: place.atMs }]));
  return tiles.map((tile) => moved.get(tile.key) ?? tile);
}
