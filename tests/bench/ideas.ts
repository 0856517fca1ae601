import { undisturbed } from '../../src/server/jobs/job-handler.ts';
import { createServer } from 'node:http';
import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { nanoid } from 'nanoid';
import { findBrandBySlug } from '../../src/server/db/brand-repository.ts';
import { insertFeed, listFeeds } from '../../src/server/db/feed-repository.ts';
import { checkTableHandler } from '../../src/server/ideas/tables/check-table.ts';
import { takeTable } from '../../src/server/ideas/tables/take-table.ts';
import { proposePlanFor } from '../../src/server/ideas/plan-proposal.ts';
import { pollFeed } from '../../src/server/ideas/poll-feeds.ts';
import { closeServices, openServices } from '../../src/server/services.ts';
import { readSettings } from '../../src/server/settings.ts';
import seedOnce from '../server/seed-once.ts';
import { startStack } from '../server/stack.ts';
import { printFigure } from './figure.ts';

const ROWS = 5_000;
const FEEDS = 1_000;
const DAY_MS = 86_400_000;
const HOUR_S = 3_600;

/** What a person waits for who brings a whole month at once, and what a thousand feeds cost. */
export async function measureIdeas(): Promise<void> {
  await seedOnce();
  const site = createServer((request, response) => {
    if (request.headers['if-none-match'] === '"1"') return void response.writeHead(304).end();
    response.writeHead(200, { 'content-type': 'application/rss+xml', etag: '"1"' }).end(`<rss version="2.0"><channel><title>Feed ${request.url ?? ''}</title>${Array.from({ length: 20 }, (_, index) => `<item><title>Item ${index}</title><guid>${index}</guid><description>About item ${index} and what it is for.</description></item>`).join('')}</channel></rss>`);
  }).listen(0, '127.0.0.1');
  await once(site, 'listening');
  const host = `127.0.0.1:${(site.address() as AddressInfo).port}`;
  const stack = await startStack({ lanes: ['upkeep'], environment: { CONFETTI_TRUSTED_HOSTS: host } });
  const services = await openServices(readSettings({ ...stack.environment }), 2);
  try {
    const brand = await findBrandBySlug(services.db, 'gullwick');
    if (!brand) throw new Error('The demo has no such brand');
    const nowMs = await services.clock.nowMs();

    const header = ['Key', 'Date', 'Time', 'Channels', 'Headline', 'Caption', 'Link'];
    const rows = Array.from({ length: ROWS }, (_, index) => [`k${index}`, new Date(nowMs + (3 + (index % 300)) * DAY_MS).toISOString().slice(0, 10), '09:30', index % 3 === 0 ? 'Petalry, Quipline' : 'Petalry', `Kite number ${index} with a tail`, `The tail of kite ${index} is as long as the quay is wide, which is to say long enough.`, 'https://gullwickkites.example']);
    const { table } = await takeTable(services, brand, { header, rows }, { name: 'bench', into: null, personId: 'bench' }, nowMs);
    const started = performance.now();
    await checkTableHandler(services).run({ payload: { tableId: table.id, brandId: brand.id } } as never, undisturbed);
    printFigure('ideas-check-of-5000-rows-in-seconds', (performance.now() - started) / 1_000, 60);

    const proposing = performance.now();
    await proposePlanFor(services, brand, { days: 28, channelIds: [], without: [] }, nowMs);
    printFigure('ideas-proposal-of-a-month-in-seconds', (performance.now() - proposing) / 1_000, 5);

    for (let index = 0; index < FEEDS; index += 1) await insertFeed(services.db, { id: nanoid(12), brandId: brand.id, name: `Feed ${index}`, address: `http://${host}/${index}`, nextPollMs: 0, createdBy: 'bench' }, services.clock.machineNowMs());
    const feeds = await listFeeds(services.db, brand.id);
    for (const feed of feeds.slice(0, 50)) await pollFeed(services, feed);
    const before = process.cpuUsage();
    for (const feed of feeds) await pollFeed(services, feed);
    const used = process.cpuUsage(before);
    // The site that answers runs in this process as well, so this is more than the reading alone.
    printFigure('ideas-share-of-a-core-for-1000-feeds-an-hour', (used.user + used.system) / 1e6 / HOUR_S, 0.05);
  } finally {
    await closeServices(services);
    await stack.close();
    site.close();
  }
}
