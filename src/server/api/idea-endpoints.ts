import { nanoid } from 'nanoid';
import * as contracts from '../../contract/idea-contracts.ts';
import * as proposing from '../../contract/propose-contracts.ts';
import type { AnswerOf } from '../../contract/contract.ts';
import { roleMay } from '../../core/access/access.ts';
import { channelFeedAddress, channelOfFeed } from '../../core/ideas/channel-feed.ts';
import { ideaStates, nextIdeaState, type IdeaState } from '../../core/ideas/idea.ts';
import { completeAddress } from '../../core/words/fields.ts';
import { wallTimeOf } from '../../core/time/wall-time.ts';
import { listChannels, type Brand } from '../db/brand-repository.ts';
import { findConversation } from '../db/conversation-repository.ts';
import type { Db } from '../db/connection.ts';
import * as feeds from '../db/feed-repository.ts';
import * as ideas from '../db/idea-repository.ts';
import { findMediaByIds } from '../db/media-repository.ts';
import { listMembers } from '../db/people-repository.ts';
import { getPlan } from '../db/plan-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import { findFeedAt } from '../ideas/find-feed.ts';
import { gatherIdeas } from '../ideas/gather-ideas.ts';
import { keepAll } from '../ideas/keep-proposals.ts';
import { makePieceOfIdea, noteOnTheme, planIdea as putInPlan } from '../ideas/make-of-idea.ts';
import { openSlotsFor } from '../ideas/open-slots.ts';
import { pollFeed as poll } from '../ideas/poll-feeds.ts';
import { askProposals, variantOf } from '../ideas/proposals.ts';
import { readSourceAddress as fromAddress, readSourceFile as fromFile } from '../ideas/read-source.ts';
import type { Services } from '../services.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';
import { once } from './once.ts';
import { readCursor } from './page-cursor.ts';

type IdeaAnswer = AnswerOf<typeof contracts.addIdea>;

const PAGE = 60;
const MAX_FEEDS = 100;
const MAX_RULES = 40;
const [ITEMS_SHOWN, ACTS_SHOWN] = [6, 12] as const;
/** A note of a person comes before all that comes of itself. */
const NOTE_SCORE = 3;
const SERIES_DAYS_AHEAD = 56;

function describe(idea: ideas.Idea, uses: readonly ideas.IdeaUse[]): IdeaAnswer {
  const { id, kind, title, text, link, pictureUrl, mediaId, day, themeId, source, why, state, snoozedUntil, assignedTo, createdBy, createdMs, details } = idea;
  const text_ = (key: string): string | null => (typeof details[key] === 'string' ? details[key] : null);
  const channelIds = Array.isArray(details['channelIds']) ? details['channelIds'].map(String) : [];
  return { id, kind, title, text, link, pictureUrl, mediaId, day, themeId, source, why: [...why], state, snoozedUntil, assignedTo, createdBy, createdMs, pieceId: text_('pieceId'), slotKey: text_('slotKey'), channelIds, conversationId: text_('conversationId'), uses: uses.map((use) => ({ ...use })) };
}

/** @throws ProblemError 404 */
async function found(db: Db, brand: Brand, id: string): Promise<ideas.Idea> {
  const idea = await ideas.findIdea(db, brand.id, id);
  if (!idea) throw notFound('idea');
  return idea;
}

const described = async (db: Db, brand: Brand, id: string): Promise<IdeaAnswer> => describe(await found(db, brand, id), (await ideas.listIdeaUses(db, [id])).get(id) ?? []);

const list = defineEndpoint({
  contract: contracts.listIdeas,
  may: 'see',
  async handle({ services: { db }, brand, query }) {
    const limit = query.limit ?? PAGE;
    const cursor = readCursor(query.after);
    const page = await ideas.pageIdeas(db, brand.id, {
      state: query.state ?? 'open',
      kind: query.kind ?? null,
      themeId: query.theme ?? null,
      assignedTo: query.assigned ?? null,
      words: (query.words ?? '').toLowerCase().split(/\s+/u).filter((word) => word !== ''),
      isUsed: query.used === undefined ? null : query.used === 'yes',
      after: cursor && { value: cursor.ms / SCORE_SCALE, id: cursor.id },
      limit,
    });
    const [uses, counts] = [await ideas.listIdeaUses(db, page.map(({ id }) => id)), await ideas.countIdeas(db, brand.id)];
    const last = page.at(-1);
    return {
      items: page.map((idea) => describe(idea, uses.get(idea.id) ?? [])),
      next: page.length < limit || !last ? null : `${Math.round(last.score * SCORE_SCALE)}.${last.id}`,
      counts: { open: counts.states['open'] ?? 0, snoozed: counts.states['snoozed'] ?? 0, archived: counts.states['archived'] ?? 0 },
      kinds: Object.entries(counts.kinds).map(([kind, count]) => ({ kind: kind as IdeaAnswer['kind'], count })),
    };
  },
});

/** Cursors carry whole numbers; scores are kept with so many parts. */
const SCORE_SCALE = 1_000_000;

async function requireTheme(db: Db, brand: Brand, themeId: string | null | undefined): Promise<void> {
  if (themeId === null || themeId === undefined) return;
  if (!(await getPlan(db, brand.id)).plan.themes.some(({ id }) => id === themeId)) throw new ProblemError(422, 'unknown-theme', 'There is no such theme any more.');
}

const add = defineEndpoint({
  contract: contracts.addIdea,
  may: 'make',
  handle: ({ services, brand, body, caller, nowMs }) =>
    once(services, brand, body.request, async () => {
      const { db, clock } = services;
      await requireTheme(db, brand, body.themeId);
      if (body.mediaId !== null && (await findMediaByIds(db, brand.id, [body.mediaId])).length === 0) throw new ProblemError(422, 'unknown-picture', 'This picture is not the brand’s any more.');
      const conversation = body.conversationId ? await findConversation(db, brand.id, body.conversationId) : null;
      const id = nanoid(12);
      await db.transaction((trx) => ideas.insertIdea(trx, brand.id, { id, key: `note ${id}`, kind: conversation ? 'reply' : 'note', title: body.title, text: body.text, link: completeAddress(body.link), pictureUrl: '', mediaId: body.mediaId, day: body.day ?? null, themeId: body.themeId, source: conversation ? conversation.authorName : caller.person.name, why: [], details: conversation ? { conversationId: conversation.id } : {}, score: NOTE_SCORE + (nowMs % 1e13) / 1e13, createdBy: caller.person.id, createdMs: nowMs }, clock.machineNowMs()));
      return described(db, brand, id);
    }),
});

const change = defineEndpoint({
  contract: contracts.changeIdea,
  may: 'make',
  async handle({ services: { db, clock }, brand, params, body, nowMs }) {
    const idea = await found(db, brand, params.idea);
    const { event, until, ...fields } = body;
    await requireTheme(db, brand, fields.themeId);
    if (fields.assignedTo && !(await listMembers(db, brand.id)).some(({ id }) => id === fields.assignedTo)) throw new ProblemError(422, 'unknown-person', 'This person is not a member of the brand.');
    let from: readonly IdeaState[] = ideaStates;
    let moved: { state?: IdeaState; snoozedUntil?: string | null } = {};
    if (event !== undefined) {
      const next = nextIdeaState(idea.state, event);
      if (next === null) throw new ProblemError(409, 'wrong-state', 'Somebody else has just moved this idea.');
      if (event === 'snooze' && (until ?? '') <= wallTimeOf(nowMs, brand.zone).slice(0, 10)) throw new ProblemError(422, 'past-day', 'Choose a day that is still to come.');
      from = [idea.state];
      moved = { state: next, snoozedUntil: event === 'snooze' ? (until ?? null) : null };
    }
    const given = Object.fromEntries(Object.entries({ ...fields, ...(fields.link === undefined ? {} : { link: completeAddress(fields.link) }), ...moved }).filter(([, value]) => value !== undefined)) as ideas.IdeaChange;
    if (Object.keys(given).length > 0 && !(await db.transaction((trx) => ideas.changeIdea(trx, brand.id, idea.id, from, given, clock.machineNowMs())))) throw new ProblemError(409, 'wrong-state', 'Somebody else has just moved this idea.');
    return described(db, brand, idea.id);
  },
});

const makePiece = defineEndpoint({
  contract: contracts.makePieceOfIdea,
  may: 'make',
  handle: ({ services, brand, params, body, caller, nowMs }) => once(services, brand, body.request, async () => makePieceOfIdea(services, brand, await found(services.db, brand, params.idea), caller.person.id, nowMs)),
});

const plan = defineEndpoint({
  contract: contracts.planIdea,
  may: 'send',
  async handle({ services, brand, params, body, caller, nowMs }) {
    const idea = await found(services.db, brand, params.idea);
    if ((body.wall ?? null) === null && body.slotKey === null) throw new ProblemError(422, 'no-moment', 'Choose a moment or a slot.');
    const spot = body.slotKey === null ? ({ kind: 'at', wall: body.wall ?? '' } as const) : ({ kind: 'slot', slotKey: body.slotKey } as const);
    return once(services, brand, body.request, () => putInPlan(services, brand, idea, { channelIds: body.channelIds, spot }, caller.person.id, nowMs));
  },
});

const themeNote = defineEndpoint({
  contract: contracts.noteIdeaOnTheme,
  may: 'send',
  async handle({ services, brand, params, body, caller, nowMs }) {
    await noteOnTheme(services, brand, await found(services.db, brand, params.idea), body.themeId, caller.person.id, nowMs);
    return undefined;
  },
});

const getSettings = defineEndpoint({
  contract: contracts.getIdeaSettings,
  may: 'see',
  async handle({ services: { db }, brand }) {
    const settings = await ideas.readIdeaSettings(db, brand.id);
    return { ...settings, kinds: [...settings.kinds] };
  },
});

const keepSettings = defineEndpoint({
  contract: contracts.keepIdeaSettings,
  may: 'make',
  async handle({ services, brand, body, nowMs }) {
    await ideas.keepIdeaSettings(services.db, brand.id, body);
    return { came: await gatherIdeas(services, brand, nowMs) };
  },
});

// Proposals

const readFile = defineEndpoint({ contract: proposing.readSourceFile, may: 'make', handle: async ({ services, request, query }) => ({ ...(await fromFile(services, request, query.name)) }) });
const readAddress = defineEndpoint({ contract: proposing.readSourceAddress, may: 'make', handle: async ({ services, body }) => ({ ...(await fromAddress(services, body.address)) }) });

const propose = defineEndpoint({
  contract: proposing.propose,
  may: 'make',
  async handle({ services, brand, body }) {
    const { title, note, proposals } = await askProposals(services, brand, body, { kind: 'all', count: body.count });
    return { title, note, proposals: structuredClone(proposals) as never };
  },
});

const proposeAgain = defineEndpoint({
  contract: proposing.proposeAgain,
  may: 'make',
  async handle({ services, brand, body }) {
    const { proposals } = await askProposals(services, brand, body, { kind: 'one', key: body.key, variant: variantOf(body.variant), taken: body.takenMedia });
    return { proposal: (proposals[0] ?? null) as never };
  },
});

const proposeSeries = defineEndpoint({
  contract: proposing.proposeSeries,
  may: 'make',
  async handle({ services, brand, body, nowMs }) {
    const [{ title, note, parts }, slots] = [await askProposals(services, brand, body, { kind: 'series', days: body.days }), await openSlotsFor(services, brand, { channelIds: body.channelIds, themeId: body.themeId, days: SERIES_DAYS_AHEAD }, nowMs)];
    // One a day, in the order of the series.
    const byDay = slots.filter((slot, index) => slots.findIndex(({ day }) => day === slot.day) === index);
    return { title, note, parts: parts.map((part, index) => ({ ...part, slot: byDay[index] ? { key: byDay[index].key, wall: `${byDay[index].day}T${byDay[index].time}`, channelIds: [...byDay[index].channelIds] } : null })) as never };
  },
});

const keepProposals = defineEndpoint({
  contract: proposing.keepProposals,
  may: 'make',
  async handle({ services, brand, body, caller, role, nowMs }) {
    if (body.items.some(({ wall, slotKey }) => (wall ?? null) !== null || slotKey !== null)) requireSend(role);
    const kept = await once(services, brand, body.request, () => keepAll(services, brand, body, caller.person.id, nowMs));
    return { ...kept, pieceIds: [...kept.pieceIds], notes: [...kept.notes] };
  },
});

function requireSend(role: Parameters<typeof roleMay>[0]): void {
  if (!roleMay(role, 'send')) throw new ProblemError(403, 'role-too-low', 'You may make pieces and not plan them. Keep them without a moment.');
}

// Feeds

const describeFeed = async (db: Db, { id, name, address, polledMs, problem }: feeds.Feed): Promise<AnswerOf<typeof contracts.addFeed>> => ({ id, name, address, channelId: channelOfFeed(address), polledMs, problem, items: (await feeds.listItemsOf(db, id, ITEMS_SHOWN)).map(({ title, link, publishedMs }) => ({ title, link, publishedMs })) });

const listFeeds = defineEndpoint({
  contract: contracts.listFeeds,
  may: 'see',
  async handle({ services: { db }, brand }) {
    const [all, rules] = [await feeds.listFeeds(db, brand.id), await feeds.listRules(db, { brandId: brand.id })];
    const acts = await feeds.listRuleActs(db, rules.map(({ id }) => id), ACTS_SHOWN);
    return { feeds: await Promise.all(all.map((feed) => describeFeed(db, feed))), rules: rules.map(({ id, feedId, settings, isOn, stopped }) => ({ id, feedId, settings: { ...settings, channelIds: [...settings.channelIds] }, isOn, stopped, acts: (acts.get(id) ?? []).map(({ title, outcome, sentence, pieceId, atMs }) => ({ title, outcome, sentence, pieceId, atMs })) })) };
  },
});

/** @throws ProblemError 422 when the brand reads as many as it may */
async function requireRoomForFeed(db: Db, brand: Brand): Promise<void> {
  if ((await feeds.listFeeds(db, brand.id)).length >= MAX_FEEDS) throw new ProblemError(422, 'too-many', `At most ${MAX_FEEDS} feeds are read. Remove one first.`);
}

const addFeed = defineEndpoint({
  contract: contracts.addFeed,
  may: 'make',
  async handle({ services, brand, body, caller, nowMs }) {
    await requireRoomForFeed(services.db, brand);
    const { address, feed } = await findFeedAt(services, body.address, nowMs);
    return readFromNowOn(services, brand, { name: feed.title || new URL(address).hostname, address }, caller.person.id);
  },
});

async function readFromNowOn(services: Services, brand: Brand, { name, address }: Pick<feeds.Feed, 'name' | 'address'>, personId: string): Promise<AnswerOf<typeof contracts.addFeed>> {
  const { db, clock } = services;
  const id = nanoid(12);
  if (!(await feeds.insertFeed(db, { id, brandId: brand.id, name, address, nextPollMs: clock.machineNowMs(), createdBy: personId }, clock.machineNowMs()))) throw new ProblemError(409, 'known-feed', 'This feed is read already.');
  const kept = await feeds.findFeed(db, id);
  if (!kept) throw notFound('feed');
  await poll(services, kept);
  return describeFeed(db, kept);
}

const followChannel = defineEndpoint({
  contract: contracts.followChannel,
  may: 'make',
  async handle({ services, brand, body, caller }) {
    await requireRoomForFeed(services.db, brand);
    const channel = (await listChannels(services.db, brand.id)).find(({ id }) => id === body.channelId);
    if (!channel) throw notFound('channel');
    return readFromNowOn(services, brand, { name: `By hand on ${channel.name}`, address: channelFeedAddress(channel.id) }, caller.person.id);
  },
});

/** @throws ProblemError 404 */
async function feedOf(db: Db, brand: Brand, id: string): Promise<feeds.Feed> {
  const feed = await feeds.findFeed(db, id);
  if (feed?.brandId !== brand.id) throw notFound('feed');
  return feed;
}

const removeFeed = defineEndpoint({
  contract: contracts.removeFeed,
  may: 'make',
  async handle({ services, brand, params }) {
    if (!(await feeds.deleteFeed(services.db, brand.id, params.feed))) throw notFound('feed');
    return undefined;
  },
});

const pollNow = defineEndpoint({ contract: contracts.pollFeed, may: 'make', handle: async ({ services, brand, params }) => ({ fresh: await poll(services, await feedOf(services.db, brand, params.feed)) }) });

const keepRule = defineEndpoint({
  contract: contracts.keepFeedRule,
  may: 'send',
  async handle({ services, brand, body, caller }) {
    const { db, clock } = services;
    await feedOf(db, brand, body.feedId);
    const known = new Set((await listChannels(db, brand.id)).map(({ id }) => id));
    if (body.settings.channelIds.some((id) => !known.has(id))) throw new ProblemError(422, 'unknown-channel', 'One of the channels is not the brand’s.');
    await requireTheme(db, brand, body.settings.themeId);
    const rules = await feeds.listRules(db, { brandId: brand.id });
    if (!rules.some(({ id }) => id === body.id)) {
      if (rules.length >= MAX_RULES) throw new ProblemError(422, 'too-many', `At most ${MAX_RULES} rules are kept.`);
      if (await db('feed_rules').where({ id: body.id }).first('id')) throw new ProblemError(409, 'known-rule', 'There is another rule of this name.');
    }
    await db.transaction((trx) => feeds.keepRule(trx, { id: body.id, brandId: brand.id, feedId: body.feedId, settings: body.settings, isOn: body.isOn, createdBy: caller.person.id }, clock.machineNowMs()));
    return undefined;
  },
});

const removeRule = defineEndpoint({
  contract: contracts.removeFeedRule,
  may: 'send',
  async handle({ services, brand, params }) {
    if (!(await feeds.deleteRule(services.db, brand.id, params.rule))) throw notFound('rule');
    return undefined;
  },
});

export const ideaEndpoints: readonly Endpoint[] = [list, add, change, makePiece, plan, themeNote, getSettings, keepSettings, readFile, readAddress, propose, proposeAgain, proposeSeries, keepProposals, listFeeds, addFeed, followChannel, removeFeed, pollNow, keepRule, removeRule];
