import { nanoid } from 'nanoid';
import { usualIdeaSettings } from '../src/core/ideas/idea.ts';
import type { Brand } from '../src/server/db/brand-repository.ts';
import { findFeed, insertFeed } from '../src/server/db/feed-repository.ts';
import { insertBoilerplate } from '../src/server/db/boilerplate-repository.ts';
import { insertIdea, keepIdeaSettings } from '../src/server/db/idea-repository.ts';
import { boilerplateOf } from '../src/core/ideas/boilerplate.ts';
import { findFeedAt } from '../src/server/ideas/find-feed.ts';
import { gatherIdeas } from '../src/server/ideas/gather-ideas.ts';
import { pollFeed } from '../src/server/ideas/poll-feeds.ts';
import { pieceFromContent } from '../src/server/ideas/piece-from-content.ts';
import { templatesOf } from '../src/server/ideas/proposals.ts';
import type { Services } from '../src/server/services.ts';

/** What a demo brand has on its shelf, beside what comes by itself. */
export interface DemoIdeas {
  readonly notes: readonly { readonly title: string; readonly text: string; readonly theme: string | null; readonly link?: string }[];
  /** Path of a site of the stand-ins whose feed is read. */
  readonly feed: string | null;
  readonly boilerplate: { readonly name: string; readonly headline: string; readonly caption: string; readonly weekday: number; readonly time: string } | null;
}

export const gullwickIdeas: DemoIdeas = {
  notes: [
    { title: 'A kite out of misprinted sea charts', text: 'The museum has a drawer of charts with the harbour on the wrong side. Ask Thora whether we may have six.', theme: 'new-kites' },
    { title: 'Why the tail is longer than you think', text: 'People ask it every Saturday. Three sentences and a drawing.', theme: 'workshops' },
  ],
  feed: '/sites/quay-museum',
  boilerplate: { name: 'Wind report', headline: 'Force [force], from the [direction]', caption: 'On the quay this morning: force [force] from the [direction]. [advice]\n\n{site}', weekday: 3, time: '08:00' },
};

export const lanternfallIdeas: DemoIdeas = {
  notes: [{ title: 'What the lantern makers do in daylight', text: 'Nobody has ever seen their hands in the sun.', theme: null }],
  feed: null,
  boilerplate: null,
};

/** Fills a brand's shelf: what its people noted, what it reads along, and what comes by itself. */
export async function seedIdeas(services: Services, brand: Brand, demo: DemoIdeas, person: { readonly id: string; readonly name: string }, nowMs: number): Promise<void> {
  const { db, clock, settings } = services;
  if (demo.feed !== null && settings.standinOrigin !== null) {
    const { address, feed } = await findFeedAt(services, `${settings.standinOrigin}${demo.feed}`, nowMs);
    const id = nanoid(12);
    await insertFeed(db, { id, brandId: brand.id, name: feed.title, address, nextPollMs: clock.machineNowMs(), createdBy: person.id }, clock.machineNowMs());
    const kept = await findFeed(db, id);
    if (kept) await pollFeed(services, kept);
  }
  for (const [index, { title, text, theme, link }] of demo.notes.entries()) {
    const id = nanoid(12);
    await db.transaction((trx) => insertIdea(trx, brand.id, { id, key: `note ${id}`, kind: 'note', title, text, link: link ?? '', pictureUrl: '', mediaId: null, day: null, themeId: theme, source: person.name, why: [], details: {}, score: 3 - index / 100, createdBy: person.id, createdMs: nowMs - (index + 1) * 3_600_000 }, clock.machineNowMs()));
  }
  if (demo.boilerplate) {
    const { name, headline, caption, weekday, time } = demo.boilerplate;
    const piece = await pieceFromContent(services, brand, await templatesOf(services, brand), { content: { form: 'announce', roles: { headline }, points: [] }, pictures: [], template: null, kinds: ['graphic'], words: { caption }, channelIds: [], title: name });
    await insertBoilerplate(db, brand.id, { id: nanoid(12), name, ...boilerplateOf(piece, null, { weekday, time }) }, person.id, nowMs);
  }
  await keepIdeaSettings(db, brand.id, { ...usualIdeaSettings, perWeek: 14 });
  await gatherIdeas(services, brand, nowMs);
}
