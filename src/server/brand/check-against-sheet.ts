import { resolveCut } from '../../core/cut/resolve-cuts.ts';
import type { NetworkSheet } from '../../core/network/network-sheet.ts';
import { cutKey } from '../../core/piece/piece.ts';
import { listChannels, type Brand } from '../db/brand-repository.ts';
import { listWaitingOnNetwork, type Delivery } from '../db/delivery-repository.ts';
import { readPin } from '../documents/pins.ts';
import { preflightSnapshot } from '../pieces/preflight-piece.ts';
import type { Services } from '../services.ts';

/** A scheduled post that would not pass a network sheet, and why. */
export interface Failing {
  readonly delivery: Delivery;
  readonly channelName: string;
  readonly sentence: string;
}

export interface Checked {
  /** How many posts were looked at, the soonest first, of how many that are scheduled there. */
  readonly checked: number;
  readonly scheduled: number;
  readonly failing: readonly Failing[];
}

/** A request checks so many, for so long: the soonest matter most. */
const MAX_CHECKED = 400;
const MAX_LISTED = 1_000;
const WITHIN_MS = 20_000;

/** Holds everything that waits on a network against a sheet of it. Posts keep the sheet that they were scheduled with. */
export async function checkAgainstSheet(services: Services, brand: Brand, sheet: NetworkSheet): Promise<Checked> {
  const waiting = await listWaitingOnNetwork(services.db, brand.id, sheet.key, MAX_LISTED);
  const channels = await listChannels(services.db, brand.id);
  const byPost = new Map<string, Delivery[]>();
  for (const delivery of waiting.slice(0, MAX_CHECKED)) byPost.set(delivery.postId, [...(byPost.get(delivery.postId) ?? []), delivery]);
  const failing: Failing[] = [];
  const startedMs = services.clock.machineNowMs();
  let checked = 0;
  for (const deliveries of byPost.values()) {
    if (services.clock.machineNowMs() - startedMs > WITHIN_MS) break;
    const [first] = deliveries;
    if (!first) continue;
    const pinned = await readPin(services.db, first.pin);
    const snapshot = { ...pinned, sheets: pinned.sheets.map((each) => (each.key === sheet.key ? sheet : each)) };
    const there = deliveries.filter((delivery) => resolveCut({ ...snapshot, channels }, delivery) !== null);
    const findings = there.length === 0 ? [] : await preflightSnapshot(services, brand, snapshot, there, first.dueMs);
    for (const delivery of deliveries) {
      const channelName = channels.find(({ id }) => id === delivery.channelId)?.name ?? '';
      const stop = findings.find(({ severity, cut }) => severity === 'stops' && (cut === null || cut === cutKey(delivery)));
      if (!there.includes(delivery)) failing.push({ delivery, channelName, sentence: `${sheet.name} has no ${delivery.placementName} in this sheet.` });
      else if (stop) failing.push({ delivery, channelName, sentence: stop.sentence });
    }
    checked += deliveries.length;
  }
  return { checked, scheduled: waiting.length, failing };
}
