import type { OpenSlot } from '../../core/ideas/propose-plan.ts';
import type { Brand } from '../db/brand-repository.ts';
import { forecastFrom, readSources } from '../plan/brand-forecast.ts';
import type { Services } from '../services.ts';

const DAY_MS = 86_400_000;

/** Slots of the rota that nothing goes out in, the earliest first, each with the channels on which it is open. */
export async function openSlotsFor(services: Pick<Services, 'db'>, brand: Brand, { channelIds, themeId, days }: { readonly channelIds: readonly string[]; /** Null takes slots of every theme. */ readonly themeId: string | null; readonly days: number }, nowMs: number): Promise<readonly OpenSlot[]> {
  const untilMs = nowMs + days * DAY_MS;
  const { fills } = forecastFrom(await readSources(services, brand, nowMs, untilMs), brand.zone, nowMs, untilMs);
  const slots = new Map<string, OpenSlot & { channelIds: string[] }>();
  for (const { slot, channelId, filling } of fills) {
    if (filling.kind !== 'open' || (channelIds.length > 0 && !channelIds.includes(channelId))) continue;
    if (themeId !== null && slot.themeId !== null && slot.themeId !== themeId) continue;
    const known = slots.get(slot.key) ?? { key: slot.key, day: slot.day, time: slot.time, atMs: slot.atMs, themeId: slot.themeId, channelIds: [] };
    known.channelIds.push(channelId);
    slots.set(slot.key, known);
  }
  return [...slots.values()];
}
