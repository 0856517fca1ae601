import { seriesClock } from '../../core/time/series-clock.ts';
import { wallTimeOf } from '../../core/time/wall-time.ts';
import { renameBrand, type Brand } from '../db/brand-repository.ts';
import type { Db } from '../db/connection.ts';
import { moveDeliveriesOf } from '../db/delivery-repository.ts';
import { rescheduleJob } from '../db/job-repository.ts';
import { changePlanEntry, listPlanEntries } from '../db/plan-entry-repository.ts';
import { listWaitingPosts, setPostMoment } from '../db/post-repository.ts';
import { moveRepeatsTo } from '../db/repeat-repository.ts';
import { deliveryJobKey } from '../dispatch/delivery-handler.ts';
import type { Services } from '../services.ts';

/** What of a scheduled post stays when the brand's zone changes: what its clock shows, or the moment itself. */
export type KeepOfZone = 'wall' | 'moment';

const MAX_ENTRIES = 5_000;
const FAR_MS = 5 * 366 * 86_400_000;

/** Gives a brand a name and a zone. Everything that waits keeps its wall time or its moment, as a person says; what would be past keeps its moment. */
export async function changeNameAndZone({ db, clock }: Services, brand: Brand, { name, zone, keep }: { readonly name: string; readonly zone: string; readonly keep: KeepOfZone }, nowMs: number): Promise<void> {
  const machineNowMs = clock.machineNowMs();
  await db.transaction(async (trx) => {
    await renameBrand(trx, brand.id, { name, zone });
    if (zone === brand.zone) return;
    const inZone = seriesClock(zone);
    const momentOf = (wall: string, dueMs: number): { readonly dueMs: number; readonly wall: string } => {
      const { atMs } = inZone(wall.slice(0, 10), wall.slice(11));
      return keep === 'wall' && atMs > nowMs ? { dueMs: atMs, wall: wallTimeOf(atMs, zone) } : { dueMs, wall: wallTimeOf(dueMs, zone) };
    };
    for (const post of await listWaitingPosts(trx, brand.id)) await movePost(trx, brand.id, post.id, { ...momentOf(post.wall, post.dueMs), zone }, machineNowMs);
    for (const entry of await listPlanEntries(trx, brand.id, { fromMs: nowMs - FAR_MS, toMs: nowMs + FAR_MS, limit: MAX_ENTRIES })) await changePlanEntry(trx, brand.id, entry.id, entry.revision, { ...momentOf(entry.wall, entry.dueMs), zone }, machineNowMs);
    await moveRepeatsTo(trx, brand.id, zone);
  });
}

async function movePost(trx: Db, brandId: string, postId: string, moment: { readonly dueMs: number; readonly wall: string; readonly zone: string }, machineNowMs: number): Promise<void> {
  await setPostMoment(trx, brandId, postId, moment, machineNowMs);
  for (const id of await moveDeliveriesOf(trx, postId, moment.dueMs, machineNowMs)) await rescheduleJob(trx, deliveryJobKey(id), moment.dueMs);
}
