import type { Plan } from '../../core/plan/plan.ts';
import { shuffleTiles, type Tile } from '../../core/plan/shuffle.ts';
import { listChannels, listSheetsOf, type Brand } from '../db/brand-repository.ts';
import { listLastOutings } from '../db/outing-repository.ts';
import type { QueueEntry } from '../db/queue-repository.ts';
import type { Services } from '../services.ts';
import { groundOfDelivery, groundOfPiece } from './tile-grounds.ts';

const USUAL_COLUMNS = 3;

/** Shuffles a channel's queue by how it will look on the channel's wall. @returns ids of its entries */
export async function shuffleQueue(services: Pick<Services, 'db' | 'media' | 'render'>, brand: Brand, channelId: string, waiting: readonly QueueEntry[], { apart }: Plan, seed: number, nowMs: number): Promise<readonly string[]> {
  const [channels, sheets] = await Promise.all([listChannels(services.db, brand.id), listSheetsOf(services.db, brand.id)]);
  const network = channels.find(({ id }) => id === channelId)?.network;
  const columns = sheets.find(({ key }) => key === network)?.profile?.columns ?? USUAL_COLUMNS;
  const last = await listLastOutings(services.db, brand.id, channelId, nowMs, columns * 2);
  const tiles = await Promise.all(waiting.map(async ({ id, themeId, template, kind, mediaIds, pieceId, placement }): Promise<Tile> => ({ id, themeId, template, kind, mediaIds, ground: await groundOfPiece(services, brand, pieceId, { channel: channelId, placement }) })));
  const before = await Promise.all(last.toReversed().map(async ({ id, themeId, template, kind }): Promise<Tile> => ({ id, themeId, template, kind, mediaIds: [], ground: await groundOfDelivery(services, id) })));
  return shuffleTiles(tiles, before, { columns, themeTwice: apart.themeTwice, template: apart.template, picture: apart.picture }, seed).map(({ id }) => id);
}
