import type { AnswerOf } from '../../contract/contract.ts';
import type { getProfile } from '../../contract/plan-contracts.ts';
import { listChannels, listSheetsOf, type Brand } from '../db/brand-repository.ts';
import { listLastOutings } from '../db/outing-repository.ts';
import type { QueueEntry } from '../db/queue-repository.ts';
import { notFound } from '../errors.ts';
import type { Services } from '../services.ts';
import { forecastFrom, readSources } from './brand-forecast.ts';

type Tile = AnswerOf<typeof getProfile>['tiles'][number];

/** What waits is told up to this far ahead. */
const HORIZON_MS = 84 * 86_400_000;
const OUT_TILES = 60;

/**
 * The wall of a channel as a visitor will see it, the latest first: what waits without a slot, what is planned, what is out.
 * @throws ProblemError 404 when the brand has no such channel
 */
export async function profileAnswer(services: Pick<Services, 'db'>, brand: Brand, channelId: string, nowMs: number): Promise<{ tiles: Tile[] }> {
  const [channels, sheets] = await Promise.all([listChannels(services.db, brand.id), listSheetsOf(services.db, brand.id)]);
  const channel = channels.find(({ id }) => id === channelId);
  if (!channel) throw notFound('channel');
  const stands = sheets.find(({ key }) => key === channel.network)?.profile?.placements;
  const isOnWall = ({ placement }: { readonly placement: string }): boolean => stands === undefined || stands.includes(placement);
  const untilMs = nowMs + HORIZON_MS;
  const sources = await readSources(services, brand, nowMs, untilMs);
  const { fills, lanes } = forecastFrom(sources, brand.zone, nowMs, untilMs);
  const entries = new Map(sources.waiting.filter(isOnWall).map((entry) => [entry.id, entry]));
  const waiting = (id: string, atMs: number | null): readonly Tile[] => {
    const entry = entries.get(id);
    return entry ? [tileOf(entry, atMs)] : [];
  };
  const ahead = fills.flatMap(({ slot, channelId: of, filling }) => (of === channelId && filling.kind === 'waiting' ? waiting(filling.entryId, slot.atMs) : []));
  const left = (lanes.get(channelId)?.left ?? []).flatMap((id) => waiting(id, null));
  const outings = await listLastOutings(services.db, brand.id, channelId, untilMs, OUT_TILES * 2);
  const out = outings.filter(isOnWall).map((each): Tile => ({ key: each.id, kind: each.state === 'sent' ? 'out' : 'planned', pieceId: each.pieceId, placement: each.placement, pieceName: each.pieceName, atMs: each.dueMs, deliveryId: each.id, postId: each.postId, entryId: null, themeId: each.themeId }));
  return { tiles: [...left.toReversed(), ...[...ahead, ...out].toSorted((a, b) => (b.atMs ?? 0) - (a.atMs ?? 0))].slice(0, OUT_TILES * 3) };
}

const tileOf = ({ id, pieceId, pieceName, placement, themeId }: QueueEntry, atMs: number | null): Tile => ({ key: id, kind: 'waiting', pieceId, placement, pieceName, atMs, deliveryId: null, postId: null, entryId: id, themeId });
