import { undisturbed } from '../src/server/jobs/job-handler.ts';
import { DateTime } from 'luxon';
import { nanoid } from 'nanoid';
import { describePost } from '../src/core/results/describe-post.ts';
import { connectorFor } from '../src/server/connectors/registry.ts';
import { openChannel } from '../src/server/connect/open-channel.ts';
import { listChannels, listSheetsOf, type Brand, type Channel } from '../src/server/db/brand-repository.ts';
import { getCollection, keepCollection } from '../src/server/db/collection-repository.ts';
import { assignConversations, findConversation, insertUtterance, keepSavedAnswer, listUtterances, moveConversations, pageConversations, setLabel, type Conversation } from '../src/server/db/conversation-repository.ts';
import type { NewDelivery } from '../src/server/db/delivery-repository.ts';
import { enqueueJob, getJob } from '../src/server/db/job-repository.ts';
import { planFiles } from '../src/server/dispatch/outgoing-files.ts';
import type { Snapshot } from '../src/core/post/snapshot.ts';
import { answerHandler, answerJob } from '../src/server/replies/answer-handler.ts';
import { collectHeard } from '../src/server/replies/hear.ts';
import { collectAccount } from '../src/server/results/collect-account.ts';
import { collectFigures, describeUnmeasured } from '../src/server/results/collect-figures.ts';
import { keepOther } from '../src/server/db/others-repository.ts';
import { countClick } from '../src/server/db/short-link-repository.ts';
import type { Services } from '../src/server/services.ts';
import { shortLinkTo } from '../src/server/words/short-link.ts';
import type { DemoPerson } from './send.ts';

const COUNTRIES = ['GB', 'GB', 'IE', 'GB', 'DE', 'GB', 'NL'] as const;
const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
const PAST_WEEKS = 8;
/** How far the clock moves at a time while the past is played through. */
const STEP_MS = 2 * HOUR_MS;

/** How a demo brand learns: what it answers, and what its networks have changed about counting. */
export interface DemoLearn {
  readonly answers: readonly (readonly [name: string, text: string])[];
  readonly changes: readonly { readonly network: string; readonly metric: string; readonly kind: 'stops' | 'anew'; readonly daysAgo: number }[];
  readonly answerer: string;
  /** Public accounts that the brand looks at. */
  readonly others: readonly (readonly [network: string, handle: string, name: string])[];
  /** Short links: where on the networks' sample sites they lead, for which network, and clicks a day. */
  readonly links: readonly (readonly [path: string, network: string, clicksADay: number])[];
}

/** A delivery of the past, with all that its network has to know of it. */
export type PastDelivery = NewDelivery & { readonly address?: string };

async function tell(services: Pick<Services, 'settings'>, path: string, body: unknown): Promise<unknown> {
  const response = await fetch(new URL(path, services.settings.standinOrigin ?? ''), { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });
  if (!response.ok) throw new Error(`The stand-in networks answered ${response.status} to ${path}`);
  return response.status === 204 ? null : response.json();
}

/** Puts what went out in the past on the stand-in networks, and answers it with its addresses. */
export async function publishPast(services: Services, snapshot: Snapshot, channels: readonly Channel[], made: readonly NewDelivery[], publishedMs: number, seed: string): Promise<readonly PastDelivery[]> {
  const posts = made.flatMap((delivery) => {
    const channel = channels.find(({ id }) => id === delivery.channelId);
    if (!channel) return [];
    const plan = planFiles(services, snapshot, { ...delivery, pin: '', pieceName: '', network: channel.network });
    const { format, traits } = describePost(delivery.words, plan.frames, plan.video ? 'video' : plan.asDocument ? 'document' : 'pictures');
    const { caption = '', title = '', firstComment = '' } = delivery.words;
    return [{ network: channel.network, handle: channel.handle, key: delivery.idempotencyKey, publishedMs, placement: delivery.placement, text: caption, title, firstComment, kind: format, slides: traits.slides, seed: `${seed} ${channel.network} ${channel.handle}` }];
  });
  const { addresses } = (await tell(services, '/switchboard/posts', posts)) as { readonly addresses: readonly string[] };
  return made.map((delivery, index) => ({ ...delivery, address: addresses[index] ?? '' }));
}

/** Lets people take part in the brand's accounts from eight weeks ago on. */
export async function beginLife(services: Services, brand: Brand, demo: DemoLearn, nowMs: number): Promise<void> {
  for (const { network, handle } of await listChannels(services.db, brand.id)) await tell(services, '/switchboard/life', { network, handle, zone: brand.zone, sinceMs: nowMs - PAST_WEEKS * 7 * DAY_MS, ownPosts: ['petalry', 'hearthside'].includes(network) });
  for (const { daysAgo, ...change } of demo.changes) await tell(services, '/switchboard/metrics', { ...change, atMs: nowMs - daysAgo * DAY_MS });
}

/** Sets the networks' clock to the product's. */
export async function setNetworksClock(services: Services): Promise<void> {
  await tell(services, '/switchboard/clock', { offsetMs: (await services.clock.nowMs()) - Date.now() });
}

/** Plays the past through, as it would have been: figures measured as they came, some comments answered soon, most of what people wrote closed by now. */
export async function playPast(services: Services, brand: Brand, demo: DemoLearn, person: DemoPerson, nowMs: number): Promise<void> {
  const { db } = services;
  const sheets = await listSheetsOf(db, brand.id);
  const lines = await Promise.all((await listChannels(db, brand.id)).map(async ({ id, network }) => {
    const channel = await openChannel(services, id);
    const sheet = sheets.find(({ key }) => key === network);
    return { channel, connector: sheet ? connectorFor(channel, sheet) : null };
  }));
  const signal = new AbortController().signal;
  let turn = 0;
  for (let atMs = nowMs - PAST_WEEKS * 7 * DAY_MS; atMs <= nowMs; atMs = atMs < nowMs ? Math.min(nowMs, atMs + STEP_MS) : atMs + 1) {
    const past: Services = { ...services, clock: { nowMs: async () => atMs, machineNowMs: () => Date.now() } };
    await tell(services, '/switchboard/clock', { offsetMs: atMs - Date.now() });
    for (const { channel, connector } of lines) {
      const due: { id: string; published_ms: number }[] = await db('publications').where({ channel_id: channel.id }).where('next_measure_ms', '<=', atMs).select('id', 'published_ms');
      if (due.length === 0 || !connector?.results) continue;
      // After three posts of five somebody sits there and answers the first comments.
      const isFresh = due.some(({ published_ms }) => atMs - published_ms < STEP_MS);
      if (isFresh && connector.talk && (turn += 1) % 5 < 3) await attend(past, channel, demo, person, atMs);
      await collectFigures(past, channel.id, connector.results, atMs, signal);
    }
  }
  const now: Services = { ...services, clock: { nowMs: async () => nowMs, machineNowMs: () => Date.now() } };
  for (const { channel, connector } of lines) {
    if (connector?.results) await collectAccount(now, { id: channel.id, brandId: brand.id, zone: brand.zone }, await getCollection(db, channel.id), connector.results, nowMs, signal);
    if (connector?.results) await collectFigures(now, channel.id, connector.results, nowMs, signal);
    else await describeUnmeasured(now, channel.id, nowMs);
    if (connector?.talk) await collectHeard(now, channel, await getCollection(db, channel.id), connector.talk, nowMs, signal);
    await keepCollection(db, channel.id, { nextMs: nowMs });
  }
  await sortReplies(services, brand, demo, person, nowMs);
}

/** Reads what has come in on a channel and answers the first that waits. */
async function attend(services: Services, channel: Channel, demo: DemoLearn, person: DemoPerson, atMs: number): Promise<void> {
  const { db } = services;
  const sheet = (await listSheetsOf(db, channel.brandId)).find(({ key }) => key === channel.network);
  const line = sheet && connectorFor(channel, sheet).talk;
  if (!line) return;
  await collectHeard(services, channel, await getCollection(db, channel.id), line, atMs, new AbortController().signal);
  const waiting = await pageConversations(db, channel.brandId, { state: 'unread', channelIds: [channel.id], kind: 'comment', assignedTo: null, label: null, words: [], beforeMs: null, after: null, limit: 2 });
  for (const conversation of waiting) await answer(services, conversation, demo, person, atMs);
}

async function answer(services: Services, conversation: Conversation, demo: DemoLearn, person: DemoPerson, atMs: number): Promise<void> {
  const { db, clock } = services;
  const said = await listUtterances(db, conversation.id, 1);
  const plain = demo.answers.map(([, each]) => each).filter((each) => !each.includes('{'));
  const [id, text] = [nanoid(12), plain[Math.floor(atMs / HOUR_MS) % plain.length] ?? 'Thank you!'];
  await insertUtterance(db, conversation, { id, conversationId: conversation.id, kind: 'out', personId: person.id, author: person.name, text, atMs, state: 'waiting', target: said[0]?.remoteId ?? '', answerKey: id }, clock.machineNowMs());
  const network = conversation.channelId;
  const job = answerJob({ id }, conversation.brandId, network);
  await enqueueJob(db, job, clock.machineNowMs());
  await answerHandler(services).run(await getJob(db, job.key), undisturbed);
  await db('jobs').where({ key: job.key }).delete();
  await moveConversations(db, conversation.brandId, [conversation.id], 'close', clock.machineNowMs());
}

/** Short links that people have clicked for weeks, more of them in the evening of the week. */
export async function seedLinks(services: Services, brand: Brand, demo: DemoLearn, person: DemoPerson, nowMs: number): Promise<void> {
  const { db, settings } = services;
  for (const [network, handle, name] of demo.others) await keepOther(db, brand.id, { network, handle, name });
  const channels = await listChannels(db, brand.id);
  for (const [index, [path, network, often]] of demo.links.entries()) {
    const channel = channels.find((each) => each.network === network);
    const { code } = await shortLinkTo(services, brand, `${settings.standinOrigin ?? ''}${path}`, channel?.id ?? '', person.id);
    for (let ago = 0; ago < PAST_WEEKS * 7; ago += 1) {
      const day = DateTime.fromMillis(nowMs - ago * DAY_MS, { zone: brand.zone });
      const clicks = Math.round(often * (1 + Math.sin(ago * 1.7 + index)) * (day.weekday > 5 ? 1.6 : 1));
      for (let click = 0; click < clicks; click += 1) await countClick(db, code, { day: day.toISODate() ?? '', country: COUNTRIES[(click + ago) % COUNTRIES.length] ?? '', source: click % 3 === 0 ? '' : `${network}.example`, isBot: click % 9 === 8 });
    }
  }
}

/** What is older than a few days is done; of the rest some have been read, given to somebody, or labelled. */
async function sortReplies({ db, clock }: Services, brand: Brand, demo: DemoLearn, person: DemoPerson, nowMs: number): Promise<void> {
  for (const [name, text] of demo.answers) await keepSavedAnswer(db, brand.id, { id: nanoid(12), name, text });
  const all = { state: 'to-do' as const, channelIds: null, kind: null, assignedTo: null, label: null, words: [], after: null, limit: 400 };
  const recent = await pageConversations(db, brand.id, { ...all, beforeMs: null, limit: 41 });
  const edgeMs = recent.at(-1)?.lastMs ?? nowMs;
  for (let old = await pageConversations(db, brand.id, { ...all, beforeMs: edgeMs }); old.length > 0; old = await pageConversations(db, brand.id, { ...all, beforeMs: edgeMs })) {
    await moveConversations(db, brand.id, old.map(({ id }) => id), 'close', clock.machineNowMs());
  }
  const messages = recent.filter(({ kind }) => kind === 'message').map(({ id }) => id);
  await assignConversations(db, brand.id, messages.slice(0, 2), person.id, clock.machineNowMs());
  await moveConversations(db, brand.id, recent.slice(24).map(({ id }) => id), 'read', clock.machineNowMs());
  const complaint = recent.find(({ snippet }) => /Ordered twelve|closed door|spars in my kit|delivered/.test(snippet));
  if (complaint) await setLabel(db, brand.id, [complaint.id], 'complaint', true, clock.machineNowMs());
  const noted = complaint && (await findConversation(db, brand.id, complaint.id));
  if (noted) await insertUtterance(db, noted, { id: nanoid(12), conversationId: noted.id, kind: 'note', personId: person.id, author: person.name, text: 'I have asked the post office; they call back before noon.', atMs: nowMs - HOUR_MS, state: 'sent', target: null, answerKey: null }, clock.machineNowMs());
}
