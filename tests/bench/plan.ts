import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { nanoid } from 'nanoid';
import { forecast, type ForecastInput, type Waiting } from '../../src/core/plan/forecast.ts';
import { emptyPlan, type Plan, type RotaRule } from '../../src/core/plan/plan.ts';
import { slotsOf } from '../../src/core/plan/rota-slots.ts';
import { addDays } from '../../src/core/time/day.ts';
import { wallTimeOf } from '../../src/core/time/wall-time.ts';
import { findBrandBySlug, listChannels } from '../../src/server/db/brand-repository.ts';
import { openDatabase } from '../../src/server/db/connection.ts';
import { savePlan } from '../../src/server/db/plan-repository.ts';
import { lanesAnswer } from '../../src/server/plan/lanes-answer.ts';
import { SCALE_BRAND, seedScale } from './scale/seed-scale.ts';

const CHANNELS = 60;
const RULES_A_CHANNEL = 5;
const ZONE = 'Europe/London';
const ROUNDS = 15;
const DAY_MS = 86_400_000;

const rulesFor = (channelIds: readonly string[]): readonly RotaRule[] => channelIds.flatMap((channelId, at) => Array.from({ length: RULES_A_CHANNEL }, (_, index): RotaRule => ({ id: `${channelId}r${index}`, week: 0, weekday: ((index + at) % 7) + 1, time: `${String(8 + ((index * 3 + at) % 12)).padStart(2, '0')}:${at % 2 === 0 ? '00' : '30'}`, themeId: `t${index % 4}`, channelIds: [channelId], from: null, until: null })));
const themes: Plan['themes'] = Array.from({ length: 4 }, (_, index) => ({ id: `t${index}`, name: `Theme ${index}`, letter: String(index), tone: 'blue', channelIds: null }));

/** Milliseconds that a year of slots on 60 channels with 10,000 waiting pieces takes to foresee, several times. */
export function forecastTimes(): readonly number[] {
  const channelIds = Array.from({ length: CHANNELS }, (_, index) => `c${index}`);
  const plan: Plan = { ...emptyPlan, themes, rota: { ...emptyPlan.rota, rules: [...rulesFor(channelIds)] }, apart: { themeTwice: true, template: 2, picture: 6 } };
  const nowMs = Date.parse('2026-11-27T08:30Z');
  const waiting = Array.from({ length: 10_000 }, (_, index): Waiting => ({ id: String(index), pieceId: `p${index}`, channelId: `c${index % CHANNELS}`, themeId: `t${Math.floor(index / CHANNELS) % 4}`, template: `template-${index % 9}`, mediaIds: [`m${index % 300}`] }));
  return Array.from({ length: ROUNDS }, () => {
    const begun = performance.now();
    const slots = slotsOf(plan, ZONE, nowMs, nowMs + 365 * DAY_MS);
    const input: ForecastInput = { plan, slots, channels: channelIds.map((id) => ({ id, dailyMax: 25, leastGapMin: 5 })), waiting, rotations: [], runs: [], fixed: [] };
    forecast(input);
    return performance.now() - begun;
  });
}

/** Milliseconds that the server takes for four weeks of lanes in a brand of 60 channels with so many posts. */
export async function laneTimes(posts: number): Promise<readonly number[]> {
  const folder = await mkdtemp(join(tmpdir(), 'confetti-plan-'));
  try {
    const nowMs = Date.now();
    await seedScale(folder, { posts, media: 300, channels: CHANNELS, pieces: 300 }, nowMs);
    const db = await openDatabase(folder);
    try {
      const brand = await findBrandBySlug(db, SCALE_BRAND);
      if (!brand) throw new Error('The brand was not seeded');
      const channels = await listChannels(db, brand.id);
      await savePlan(db, brand.id, 1, { ...emptyPlan, themes, rota: { ...emptyPlan.rota, rules: [...rulesFor(channels.map(({ id }) => id))] } }, nowMs);
      const pieces: string[] = await db('pieces').limit(200).pluck('id');
      await db.batchInsert('queue_entries', channels.flatMap(({ id }) => pieces.slice(0, 10).map((pieceId, index) => ({ id: nanoid(12), brand_id: brand.id, channel_id: id, piece_id: pieceId, placement: 'feed-square', position: index, added_by: 'wren', added_ms: nowMs }))), 60);
      // Seeded posts stand an hour apart; the last of them is the present here, so that every size has as much to show.
      const presentMs = nowMs + (posts / 100) * 3_600_000;
      const from = addDays(wallTimeOf(presentMs, ZONE).slice(0, 10), -21);
      const times: number[] = [];
      for (let round = 0; round < ROUNDS; round += 1) {
        const begun = performance.now();
        JSON.stringify(await lanesAnswer({ db }, brand, { from, days: 28 } as Parameters<typeof lanesAnswer>[2], presentMs));
        times.push(performance.now() - begun);
      }
      return times;
    } finally {
      await db.destroy();
    }
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
