import { nanoid } from 'nanoid';
import { decideFeed, type FeedItem } from '../../core/ideas/feed-rule.ts';
import { fillIn } from '../../core/ideas/fill-ins.ts';
import { pieceName } from '../../core/piece/piece.ts';
import { seriesClock } from '../../core/time/series-clock.ts';
import { wallTimeOf } from '../../core/time/wall-time.ts';
import { listChannels, type Brand } from '../db/brand-repository.ts';
import { endRuleAct, listItemsOf, listUndecided, noteRuleActs, stopRule, type Feed, type StoredRule } from '../db/feed-repository.ts';
import { insertPiece } from '../db/piece-repository.ts';
import { noPiecePlan, savePiecePlan } from '../db/piece-plan-repository.ts';
import { addToQueue } from '../db/queue-repository.ts';
import { ProblemError } from '../errors.ts';
import { keepEntry, usualCutsOf } from '../plan/place-piece.ts';
import type { Services } from '../services.ts';
import { fetchPicture } from './fetch-picture.ts';
import { pieceFromContent } from './piece-from-content.ts';
import { templatesOf } from './proposals.ts';

const MAX_UNDECIDED = 200;
const MAX_EARLIER = 30;
/** A draft for a person to look at stands in the plan so long after it came. */
const DRAFT_AFTER_HOURS = 24;

/** Lets a rule decide on what is new in its feed, and does it: at most one piece, once for each item. */
export async function runRule(services: Services, brand: Brand, rule: StoredRule, feed: Feed): Promise<void> {
  const { db, clock } = services;
  const nowMs = await clock.nowMs();
  const fresh = await listUndecided(db, rule, MAX_UNDECIDED);
  const freshIds = new Set(fresh.map(({ guid }) => guid));
  const earlier = (await listItemsOf(db, feed.id, fresh.length + MAX_EARLIER)).filter(({ guid }) => !freshIds.has(guid));
  const isFirst = (await db('feed_rule_log').where({ rule_id: rule.id }).first('guid')) === undefined;
  const decision = decideFeed({ rule: rule.settings, fresh, earlier, isFirst, lastMs: rule.lastMs, nowMs });
  if (decision.kind === 'wait') return;
  if (decision.kind === 'stop') {
    await db.transaction((trx) => stopRule(trx, rule, decision.sentence, clock.machineNowMs()));
    return;
  }
  const { item, passed } = decision;
  // The item is claimed before anything is made of it: another process that decides the same makes nothing.
  const isMine = await db.transaction(async (trx) => {
    const claimed = await noteRuleActs(trx, rule, [{ guid: item.guid, title: item.title, outcome: 'made', sentence: 'It is being made.', pieceId: null, atMs: nowMs }]);
    if (claimed) await noteRuleActs(trx, rule, passed.map(({ guid, title }) => ({ guid, title, outcome: 'passed' as const, sentence: 'Passed over for a newer one.', pieceId: null, atMs: nowMs })));
    return claimed;
  });
  if (!isMine) return;
  try {
    const { pieceId, sentence } = await makeOf(services, brand, rule, item, nowMs);
    await db.transaction((trx) => endRuleAct(trx, rule, { guid: item.guid, title: item.title, outcome: 'made', sentence, pieceId, atMs: nowMs }, clock.machineNowMs()));
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error;
    await db.transaction((trx) => endRuleAct(trx, rule, { guid: item.guid, title: item.title, outcome: 'failed', sentence: error.sentence, pieceId: null, atMs: nowMs }, clock.machineNowMs()));
  }
}

async function makeOf(services: Services, brand: Brand, { settings, createdBy }: StoredRule, item: FeedItem, nowMs: number): Promise<{ readonly pieceId: string; readonly sentence: string }> {
  const { db, clock } = services;
  const known = new Set((await listChannels(db, brand.id)).filter(({ state }) => state !== 'ended').map(({ id }) => id));
  const channelIds = settings.channelIds.filter((id) => known.has(id));
  if (channelIds.length === 0) throw new ProblemError(422, 'unknown-channel', 'None of its channels is connected any more.');
  const templates = await templatesOf(services, brand);
  let note = '';
  let pictures: readonly { readonly id: string; readonly altText: string }[] = [];
  if (item.picture !== '') {
    try {
      const { id, altText } = await fetchPicture(services, brand, item.picture, nowMs);
      pictures = [{ id, altText }];
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      note = ` Without its picture: ${error.sentence}`;
    }
  }
  const caption = fillIn(settings.caption, { title: item.title, summary: item.summary, link: item.link });
  const template = templates.find(({ key }) => key === settings.templateKey) ?? null;
  const needsPicture = template?.slots.some(({ kind, required }) => kind === 'picture' && required) ?? false;
  const document = await pieceFromContent(services, brand, templates, {
    content: { form: 'announce', roles: { headline: item.title }, points: [] },
    pictures,
    template: needsPicture && pictures.length === 0 ? null : template,
    words: { caption, link: item.link, ...(settings.button === '' ? {} : { button: settings.button }) },
    channelIds,
  });
  const id = nanoid(12);
  const stored = await insertPiece(db, { id, brandId: brand.id, document, createdBy }, nowMs);
  await db.transaction((trx) => savePiecePlan(trx, brand.id, id, { ...noPiecePlan, themeId: settings.themeId, labels: ['from a feed'] }, clock.machineNowMs()));
  const cuts = await usualCutsOf(services, brand, stored, channelIds);
  if (cuts.length === 0) return { pieceId: id, sentence: `“${pieceName(document)}” is made; it has no cut for these channels.${note}` };
  if (settings.as === 'queue') {
    await addToQueue(db, brand.id, id, cuts.map(({ channelId, placement }) => ({ id: nanoid(12), channelId, placement })), createdBy, clock.machineNowMs());
    return { pieceId: id, sentence: `“${pieceName(document)}” waits in the queue of ${cuts.length} ${cuts.length === 1 ? 'channel' : 'channels'}.${note}` };
  }
  const wall = `${wallTimeOf(nowMs + DRAFT_AFTER_HOURS * 3_600_000, brand.zone).slice(0, 13)}:00`;
  await keepEntry(services, brand, { id: nanoid(12), pieceId: id, text: '', themeId: settings.themeId, campaignId: null, wall, dueMs: seriesClock(brand.zone)(wall.slice(0, 10), wall.slice(11)).atMs, zone: brand.zone, slotKey: null, cuts }, createdBy);
  return { pieceId: id, sentence: `“${pieceName(document)}” stands in the plan as a draft.${note}` };
}
