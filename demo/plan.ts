import { DateTime } from 'luxon';
import { nanoid } from 'nanoid';
import { wordingsOf } from '../src/core/plan/rotated-piece.ts';
import { emptyPlan, type Plan, type RotaRule, type Tone } from '../src/core/plan/plan.ts';
import { slotsOf } from '../src/core/plan/rota-slots.ts';
import { mondayOf } from '../src/core/time/day.ts';
import { wallTimeOf } from '../src/core/time/wall-time.ts';
import type { CutRef } from '../src/core/piece/piece.ts';
import { listChannels, type Brand, type Channel } from '../src/server/db/brand-repository.ts';
import { keepCampaign } from '../src/server/db/campaign-repository.ts';
import { insertPastDeliveries, type NewDelivery } from '../src/server/db/delivery-repository.ts';
import { savePiecePlan } from '../src/server/db/piece-plan-repository.ts';
import { findPiece, pagePieces, type StoredPiece } from '../src/server/db/piece-repository.ts';
import { savePlan } from '../src/server/db/plan-repository.ts';
import { insertPost, tagPosts } from '../src/server/db/post-repository.ts';
import { addToQueue } from '../src/server/db/queue-repository.ts';
import { insertRuns, keepRotation } from '../src/server/db/rotation-repository.ts';
import { pinSnapshot } from '../src/server/documents/pins.ts';
import { keepEntry, usualCutsOf } from '../src/server/plan/place-piece.ts';
import { saveChanges } from '../src/server/pieces/save-piece.ts';
import { publishPast } from './learn.ts';
import { makeSnapshot } from '../src/server/pieces/make-snapshot.ts';
import { composedCut } from '../src/server/post/schedule.ts';
import type { Services } from '../src/server/services.ts';

interface DemoTheme {
  readonly id: string;
  readonly name: string;
  readonly letter: string;
  readonly tone: Tone;
}

/** A slot: weekday, time, theme, networks. */
type DemoSlot = readonly [weekday: number, time: string, theme: string | null, networks: readonly string[]];

/** How a demo brand plans. */
export interface DemoPlan {
  readonly themes: readonly DemoTheme[];
  readonly slots: readonly DemoSlot[];
  readonly countries: readonly string[];
  /** Name, and first and last day from the demo's start. */
  readonly days: readonly (readonly [string, number, number])[];
  readonly campaigns: readonly { readonly id: string; readonly name: string; readonly from: number; readonly until: number; readonly aim: string; readonly tone: Tone; readonly letter: string }[];
  /** Themes and campaigns of pieces, by the beginnings of their names. */
  readonly about: readonly (readonly [name: string, theme: string, campaign?: string])[];
  /** What waits, in its order: the name of a piece and networks. */
  readonly waiting: readonly (readonly [name: string, networks: readonly string[]])[];
  readonly rotation: { readonly name: string; readonly networks: readonly string[]; readonly pictures: number } | null;
  /** A send that a network refused this morning. */
  readonly failed: { readonly name: string; readonly networks: readonly string[]; readonly problem: string } | null;
  /** A piece that was changed after it was scheduled. */
  readonly changed: { readonly name: string; readonly headline: string } | null;
  readonly placeholders: readonly { readonly text: string; readonly theme: string; readonly inDays: number; readonly time: string; readonly networks: readonly string[] }[];
  readonly labels: readonly (readonly [name: string, labels: readonly string[]])[];
}

export const gullwickPlan: DemoPlan = {
  themes: [
    { id: 'workshops', name: 'Workshops', letter: 'W', tone: 'blue' },
    { id: 'new-kites', name: 'New kites', letter: 'N', tone: 'umber' },
    { id: 'loft', name: 'In the loft', letter: 'L', tone: 'violet' },
    { id: 'wind', name: 'Wind report', letter: 'R', tone: 'teal' },
    { id: 'skies', name: 'Owners’ skies', letter: 'O', tone: 'red' },
    { id: 'big-blow', name: 'Big Blow', letter: 'B', tone: 'olive' },
  ],
  slots: [
    [1, '17:00', 'skies', ['petalry', 'quipline', 'tackboard']],
    [2, '12:00', 'loft', ['hearthside', 'guildrow']],
    [2, '17:00', 'new-kites', ['petalry']],
    [3, '08:00', 'wind', ['quipline']],
    [3, '18:00', 'workshops', ['whirlo', 'longhall']],
    [4, '18:00', 'big-blow', ['petalry', 'hearthside', 'guildrow']],
    [5, '12:00', 'workshops', ['petalry', 'hearthside', 'quipline', 'kerbside']],
    [6, '09:30', 'new-kites', ['petalry', 'tackboard']],
    [7, '10:00', 'loft', ['hearthside', 'openweb']],
  ],
  countries: ['GB-SCT'],
  days: [['Lantern walk', 7, 7], ['Loft closed', 26, 31]],
  campaigns: [
    { id: 'kits-for-december', name: 'Kits for December', from: -6, until: 24, aim: 'Sixty build-a-kite kits out of the door before the 24th.', tone: 'red', letter: 'K' },
    { id: 'big-blow', name: 'Road to Big Blow', from: 3, until: 62, aim: 'Four hundred people on the list by February.', tone: 'olive', letter: 'B' },
  ],
  about: [
    ['The loft is open', 'loft'], ['Sled kite', 'new-kites', 'kits-for-december'], ['What an afternoon', 'workshops'], ['No wind', 'wind'], ['kites left the loft', 'loft', 'kits-for-december'], ['Before your first', 'workshops'], ['The rainbow delta', 'new-kites', 'kits-for-december'], ['Night flight', 'big-blow', 'big-blow'],
    ['The hatch', 'loft'], ['The Box Kite', 'new-kites', 'kits-for-december'], ['You hold the line', 'loft'], ['Build your own', 'workshops', 'kits-for-december'], ['Five winds', 'wind'], ['The wind is free', 'workshops'], ['One sky', 'skies'], ['Late May', 'big-blow', 'big-blow'], ['Six kites', 'skies'], ['Come and catch', 'skies'], ['Three things', 'workshops'], ['Kite day', 'big-blow', 'big-blow'],
  ],
  waiting: [
    ['The rainbow delta', ['petalry', 'tackboard']],
    ['Sled kite', ['petalry', 'tackboard']],
    ['kites left the loft', ['hearthside', 'guildrow']],
    ['The hatch', ['hearthside', 'guildrow', 'openweb']],
    ['No wind', ['quipline']],
    ['What an afternoon', ['petalry', 'hearthside', 'quipline']],
    ['Before your first', ['kerbside', 'petalry', 'hearthside']],
    ['One sky', ['petalry', 'tackboard', 'quipline']],
  ],
  rotation: { name: 'The Box Kite', networks: ['petalry', 'tackboard'], pictures: 3 },
  failed: { name: 'The hatch', networks: ['kerbside'], problem: 'Kerbside refused it: the update has no button.' },
  changed: { name: 'Night flight', headline: 'Night flight on the long dunes' },
  placeholders: [
    { text: 'Something about Big Blow here', theme: 'big-blow', inDays: 13, time: '18:00', networks: ['petalry', 'hearthside'] },
    { text: 'Ottoline’s forty-year kite, once the photographs are in', theme: 'loft', inDays: 9, time: '12:00', networks: ['hearthside'] },
  ],
  labels: [['The Box Kite', ['shop']], ['Sled kite', ['shop']], ['The rainbow delta', ['shop']], ['Build your own', ['booking']]],
};

export const lanternfallPlan: DemoPlan = {
  themes: [
    { id: 'stalls', name: 'Stalls', letter: 'S', tone: 'red' },
    { id: 'tonight', name: 'Tonight', letter: 'T', tone: 'violet' },
    { id: 'harbour', name: 'Harbour', letter: 'H', tone: 'teal' },
  ],
  slots: [
    [2, '19:00', 'stalls', ['petalry', 'hearthside']],
    [4, '12:00', 'harbour', ['petalry', 'tackboard']],
    [5, '16:30', 'tonight', ['petalry', 'quipline', 'hearthside']],
  ],
  countries: ['NZ'],
  days: [['Longest evening', 24, 24]],
  campaigns: [{ id: 'summer', name: 'Summer evenings', from: 0, until: 60, aim: 'Fridays full by the new year.', tone: 'red', letter: 'S' }],
  about: [['The harbour goes quiet', 'stalls'], ['Sixty lanterns', 'tonight', 'summer'], ['The late bowl', 'stalls', 'summer'], ['Dumplings, until', 'tonight', 'summer'], ['The longest evening', 'harbour'], ['Tonight, shed by shed', 'tonight']],
  waiting: [['The harbour goes quiet', ['petalry', 'hearthside']], ['Tonight, shed by shed', ['petalry', 'quipline']]],
  rotation: null,
  failed: null,
  changed: null,
  placeholders: [{ text: 'Who cooks on the last Friday', theme: 'tonight', inDays: 14, time: '16:30', networks: ['petalry', 'quipline'] }],
  labels: [],
};

const DAY_MS = 86_400_000;
const PAST_WEEKS = 8;

/** Gives a brand its rhythm: what it plans, what waits, and what went out in the eight weeks before. */
export async function seedPlan(services: Services, brand: Brand, demo: DemoPlan, personId: string, nowMs: number): Promise<void> {
  const { db } = services;
  const channels = await listChannels(db, brand.id);
  const idsOf = (networks: readonly string[]): readonly string[] => networks.flatMap((network) => channels.filter((channel) => channel.network === network).map(({ id }) => id));
  const dayIn = (days: number): string => DateTime.fromMillis(nowMs, { zone: brand.zone }).plus({ days }).toFormat('yyyy-MM-dd');
  const rules = demo.slots.map(([weekday, time, themeId, networks]): RotaRule => ({ id: nanoid(8), week: 0, weekday, time, themeId, channelIds: [...idsOf(networks)], from: null, until: null }));
  const plan: Plan = {
    ...emptyPlan,
    themes: demo.themes.map((theme) => ({ ...theme, channelIds: null })),
    rota: { weeks: 1, anchor: mondayOf(dayIn(0)), rules: rules.filter(({ channelIds }) => channelIds.length > 0), pauses: [] },
    countries: [...demo.countries],
    days: demo.days.map(([name, from, until]) => ({ id: nanoid(8), name, from: dayIn(from), until: dayIn(until) })),
  };
  await savePlan(db, brand.id, 1, plan, nowMs);
  for (const { from, until, ...campaign } of demo.campaigns) await keepCampaign(db, brand.id, { ...campaign, note: '', fromDay: dayIn(from), untilDay: dayIn(until) }, nowMs);
  const pieces = await allPieces(services, brand);
  const find = (name: string): StoredPiece | undefined => pieces.find((piece) => piece.name.startsWith(name))?.piece ?? pieces.find((piece) => piece.name.includes(name))?.piece;
  for (const [name, themeId, campaignId] of demo.about) {
    for (const { piece } of pieces.filter((each) => each.name.startsWith(name))) {
      const labels = demo.labels.find(([labelled]) => labelled === name)?.[1] ?? [];
      await db.transaction((trx) => savePiecePlan(trx, brand.id, piece.id, { themeId, campaignId: campaignId ?? null, subject: '', notes: '', labels }, nowMs));
      const posts: string[] = await db('posts').where({ piece_id: piece.id }).pluck('id');
      await db.transaction((trx) => tagPosts(trx, brand.id, posts, { themeId, campaignId: campaignId ?? null }, nowMs));
    }
  }
  for (const [name, networks] of demo.waiting) {
    const piece = find(name);
    if (piece) await addToQueue(db, brand.id, piece.id, (await usualCutsOf(services, brand, piece, idsOf(networks))).map((cut) => ({ id: nanoid(12), ...cut })), personId, nowMs);
  }
  if (demo.rotation) await seedRotation(services, brand, demo.rotation, find(demo.rotation.name), idsOf, personId, nowMs);
  for (const { text, theme, inDays, time, networks } of demo.placeholders) {
    const wall = `${dayIn(inDays)}T${time}`;
    await keepEntry(services, brand, { id: nanoid(12), pieceId: null, text, themeId: theme, campaignId: null, wall, zone: brand.zone, dueMs: DateTime.fromISO(wall, { zone: brand.zone }).toMillis(), slotKey: null, cuts: idsOf(networks).map((channelId) => ({ channelId, placement: '' })) }, personId);
  }
  if (demo.failed) await seedFailed(services, brand, find(demo.failed.name), demo.failed, idsOf, channels, personId, nowMs);
  const changed = demo.changed === null ? undefined : find(demo.changed.name);
  if (demo.changed && changed) await saveChanges(services, brand, changed.id, { revision: changed.revision, patches: [{ op: 'replace', path: '/frames/0/slots/headline/text', value: demo.changed.headline }] }, personId, nowMs);
  await seedPast(services, brand, plan, pieces.map(({ piece }) => piece), demo, channels, personId, nowMs);
}

/** Every piece of a brand with its name. */
export async function allPieces({ db }: Services, brand: Brand): Promise<readonly { readonly name: string; readonly piece: StoredPiece }[]> {
  const items = await pagePieces(db, brand.id, { shelf: 'use', words: [], kind: null, template: null, status: null, personId: null, sinceMs: null, sort: 'changed', after: null, limit: 100 });
  const found = await Promise.all(items.map(async ({ id, name }) => ({ name, piece: await findPiece(db, brand.id, id) })));
  return found.flatMap(({ name, piece }) => (piece ? [{ name, piece }] : []));
}

async function seedRotation({ db, ...services }: Services, brand: Brand, { networks, pictures }: NonNullable<DemoPlan['rotation']>, piece: StoredPiece | undefined, idsOf: (networks: readonly string[]) => readonly string[], personId: string, nowMs: number): Promise<void> {
  if (!piece) return;
  const cuts = await usualCutsOf({ db, ...services }, brand, piece, idsOf(networks));
  const others: string[] = await db('media').where({ brand_id: brand.id }).whereIn('name', ['box-kite-sunset.jpg', 'delta-backlit.jpg', 'long-shadow.jpg', 'windsocks.jpg']).orderBy('name').limit(pictures).pluck('id');
  await keepRotation(db, brand.id, piece.id, { settings: { cuts: [...cuts], wordings: wordingsOf(piece.document).map(({ id }) => id), pictures: others, pairDays: 60, restDays: 10, lastDay: null, maxRuns: null, season: null }, isOn: true }, personId, nowMs);
}

/** A send of this morning that was refused. */
async function seedFailed(services: Services, brand: Brand, piece: StoredPiece | undefined, { networks, problem }: NonNullable<DemoPlan['failed']>, idsOf: (networks: readonly string[]) => readonly string[], channels: readonly Channel[], personId: string, nowMs: number): Promise<void> {
  if (!piece) return;
  const { pin, snapshot } = await makePin(services, brand, piece, nowMs);
  const dueMs = nowMs - 45 * 60_000;
  const post = { id: nanoid(12), brandId: brand.id, pieceId: piece.id, pieceName: nameOf(piece), kind: piece.document.kind, pin, pieceHash: piece.hash, state: 'failed' as const, dueMs, wall: wallTimeOf(dueMs, brand.zone), zone: brand.zone, createdBy: personId, themeId: 'loft', campaignId: null, origin: 'person' as const, signOffNeeded: 0 };
  await services.db.transaction(async (trx) => {
    await insertPost(trx, post, [], nowMs);
    await insertPastDeliveries(trx, post, (await usualCutsOf(services, brand, piece, idsOf(networks))).map((cut) => ({ id: nanoid(12), idempotencyKey: nanoid(24), ...composedCut(snapshot, channels, cut) })), dueMs);
    await trx('deliveries').where({ post_id: post.id }).update({ state: 'failed', sent_ms: null, problem, attempt: 1 });
  });
}

/** Hours by which posts of the past were moved, in turn: nothing true could be told of hours that never vary. */
const TRIED_HOURS = [0, -4, 24, 3, 0, -7, 48, -2, 26, 0, -28, 5] as const;

/** Some posts had a first comment, some had none, where the network has one. */
function withFirstComment(delivery: NewDelivery, channels: readonly Channel[], count: number): NewDelivery {
  const network = channels.find(({ id }) => id === delivery.channelId)?.network ?? '';
  if (!['petalry', 'hearthside', 'guildrow'].includes(network)) return delivery;
  const { firstComment: _, ...words } = delivery.words;
  return { ...delivery, words: (count * 7) % 5 < 2 ? { ...words, firstComment: 'Opening hours and the way here are on our page.' } : words };
}

/** What went out before the demo begins, slot by slot: each theme's pieces in turn. */
async function seedPast(services: Services, brand: Brand, plan: Plan, pieces: readonly StoredPiece[], demo: DemoPlan, channels: readonly Channel[], personId: string, nowMs: number): Promise<void> {
  const { db } = services;
  const ofTheme = (themeId: string | null): readonly StoredPiece[] => pieces.filter((piece) => demo.about.some(([name, theme]) => theme === themeId && nameOf(piece).startsWith(name)));
  const pins = new Map<string, { readonly pin: string; readonly snapshot: Awaited<ReturnType<typeof makeSnapshot>> }>();
  const turn = new Map<string | null, number>();
  let [count, runs] = [0, 0];
  for (const planned of slotsOf(plan, brand.zone, nowMs - PAST_WEEKS * 7 * DAY_MS, nowMs - 3_600_000)) {
    // Before the rota was as it is, the brand tried other hours and days.
    count += 1;
    const tried = planned.atMs < nowMs - 8 * DAY_MS ? TRIED_HOURS[count % TRIED_HOURS.length] ?? 0 : 0;
    const movedMs = planned.atMs + tried * 3_600_000;
    const hour = DateTime.fromMillis(movedMs, { zone: brand.zone }).hour;
    const slot = { ...planned, atMs: hour >= 7 && hour < 22 ? movedMs : planned.atMs };
    const candidates = ofTheme(slot.themeId);
    const at = turn.get(slot.themeId) ?? 0;
    turn.set(slot.themeId, at + 1);
    const piece = candidates[at % Math.max(1, candidates.length)];
    if (!piece) continue;
    const cuts: readonly CutRef[] = await usualCutsOf(services, brand, piece, slot.channelIds);
    if (cuts.length === 0) continue;
    const pinned = pins.get(piece.id) ?? (await makePin(services, brand, piece, nowMs));
    pins.set(piece.id, pinned);
    const post = { id: nanoid(12), brandId: brand.id, pieceId: piece.id, pieceName: nameOf(piece), kind: piece.document.kind, pin: pinned.pin, pieceHash: piece.hash, state: 'out' as const, dueMs: slot.atMs, wall: wallTimeOf(slot.atMs, brand.zone), zone: brand.zone, createdBy: personId, themeId: slot.themeId, campaignId: null, origin: 'slot' as const, signOffNeeded: 0 };
    const wordings = demo.rotation && nameOf(piece).startsWith(demo.rotation.name) ? wordingsOf(piece.document) : [];
    const wording = wordings[runs % Math.max(1, wordings.length)];
    if (wording) runs += 1;
    const made = cuts.map((cut) => withFirstComment({ id: nanoid(12), idempotencyKey: nanoid(24), ...composedCut(pinned.snapshot, channels, cut) }, channels, count)).map((each): NewDelivery => (wording ? { ...each, words: { ...each.words, caption: wording.text } } : each));
    const published = await publishPast(services, pinned.snapshot, channels, made, slot.atMs + 20_000, `past ${count}`);
    await db.transaction(async (trx) => {
      await insertPost(trx, post, [], nowMs);
      await insertPastDeliveries(trx, post, published, slot.atMs + 20_000);
      // What a rotation has shown so far: its wordings in turn.
      if (wording) await insertRuns(trx, brand.id, post.id, [...new Set(cuts.map(({ channelId }) => channelId))].map((channelId) => ({ pieceId: piece.id, channelId, wording: wording.id, picture: '', day: post.wall.slice(0, 10) })));
    });
  }
}

const nameOf = ({ document }: StoredPiece): string => document.title || ((document.frames[0].slots['headline'] as { readonly text?: string } | undefined)?.text ?? '');

async function makePin(services: Services, brand: Brand, piece: StoredPiece, nowMs: number) {
  const snapshot = await makeSnapshot(services, brand, piece.document);
  const { pin } = await services.db.transaction((trx) => pinSnapshot(trx, snapshot, nowMs));
  return { pin, snapshot };
}
