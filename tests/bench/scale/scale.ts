import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { printFigure } from '../figure.ts';
import { requestMs } from '../request-time.ts';
import { withPage, withServer } from '../bench-server.ts';
import { LARGE, POPULAR_MEDIA, SCALE_BRAND, seedScale, SMALL, type Amounts } from './seed-scale.ts';

/** First pages, counts and uses within this time at the large size, and within this many times of their cost at the small one. */
const MAX_MS = 100;
const MAX_RATIO = 1.5;
/** Costs below this are noise: two of them have no ratio. */
const FLOOR_MS = 4;
const WARM_UP = 10;
const ROUNDS = 41;
const VIEW_ROUNDS = 7;

const base = `/api/brands/${SCALE_BRAND}`;
/** What a person waits for, by its address. */
const requests: Readonly<Record<string, string>> = {
  'pieces-first-page': `${base}/pieces?limit=48`,
  'media-first-page': `${base}/media?limit=48`,
  'media-by-tag': `${base}/media?limit=48&tag=kite`,
  'media-search-of-a-usual-word': `${base}/media?limit=48&words=kite`,
  'media-search-of-two-usual-words': `${base}/media?limit=48&words=kite+harbour`,
  // Its hits lie further apart in the large brand: the small one has fourteen in all.
  'media-search-of-a-word-and-a-beginning': `${base}/media?limit=48&words=kite+item4`,
  'media-search-of-a-rare-word': `${base}/media?limit=48&words=item777`,
  'media-search-without-a-hit': `${base}/media?limit=48&words=nowhere`,
  'media-tags': `${base}/media-tags`,
  'uses-of-a-popular-picture': `${base}/media/${POPULAR_MEDIA}/uses`,
  'uses-of-a-picture': `${base}/media/m77/uses`,
  'outbox-first-page-and-counts': `${base}/deliveries?limit=48`,
  'outbox-of-one-state': `${base}/deliveries?limit=48&state=failed`,
  'posts-of-a-piece': `${base}/deliveries?limit=20&piece=p7`,
  'opening-a-piece': `${base}/pieces/p7`,
  'channels-and-book': base,
};
/** Views by their address, and what stands on them first. */
const views: Readonly<Record<string, readonly [path: string, selector: string]>> = {
  pieces: [`/b/${SCALE_BRAND}/make/pieces`, 'a[href*="/make/pieces/p"]'],
  media: [`/b/${SCALE_BRAND}/make/media`, 'main [role="listitem"] button'],
  outbox: [`/b/${SCALE_BRAND}/send/outbox`, '[data-post]'],
};

/** A brand of one size: where its data lies, and what lets requests in. */
interface Seeded {
  readonly dataFolder: string;
  readonly token: string;
}

/** Costs at the small size and at the large one, in milliseconds. */
type Costs = readonly [small: number, large: number];

const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;

/** Seeds a small and a large brand, and prints what each list, search and count costs. Requests go to both in turns, so that a machine that gets slower meanwhile is no difference between them. */
export async function measureScale(): Promise<void> {
  await withBrand(SMALL, (small) =>
    withBrand(LARGE, async (large) => {
      // By the web server alone, whose cost it is.
      await withServer(small.dataFolder, (smallOrigin) => withServer(large.dataFolder, (largeOrigin) => measureRequests([{ origin: smallOrigin, token: small.token }, { origin: largeOrigin, token: large.token }]), ['web.mjs']), ['web.mjs']);
      // Views show pictures, which the worker makes.
      const before = await withServer(small.dataFolder, timeViews);
      for (const [name, ms] of await withServer(large.dataFolder, timeViews)) printFigure(`scale-${name}-shows-its-first-items-against-a-small-brand`, ms / (before.get(name) ?? ms), MAX_RATIO);
    }),
  );
}

async function measureRequests(servers: readonly [small: { readonly origin: string; readonly token: string }, large: { readonly origin: string; readonly token: string }]): Promise<void> {
  for (const [name, path] of Object.entries(requests)) {
    const [before, ms] = await inTurns(WARM_UP, ROUNDS, servers, ({ origin, token }) => requestMs(origin, path, token, 1));
    printFigure(`scale-${name}-in-milliseconds`, ms, MAX_MS);
    printFigure(`scale-${name}-against-a-small-brand`, Math.max(ms, FLOOR_MS) / Math.max(before, FLOOR_MS), MAX_RATIO);
  }
}

/** Medians of what the same costs with each of two, one after the other, again and again. */
async function inTurns<Item>(warmUp: number, rounds: number, [small, large]: readonly [Item, Item], cost: (item: Item) => Promise<number>): Promise<Costs> {
  const costs = { small: [] as number[], large: [] as number[] };
  for (let round = 0; round < warmUp + rounds; round += 1) {
    const [ofSmall, ofLarge] = [await cost(small), await cost(large)];
    if (round < warmUp) continue;
    costs.small.push(ofSmall);
    costs.large.push(ofLarge);
  }
  return [median(costs.small), median(costs.large)];
}

/** Seeds a brand and keeps it while the work lasts. */
async function withBrand(amounts: Amounts, work: (brand: Seeded) => Promise<void>): Promise<void> {
  const dataFolder = await mkdtemp(join(tmpdir(), 'confetti-scale-'));
  try {
    process.stdout.write(`seeding ${amounts.posts} posts, ${amounts.media} media, ${amounts.channels} channels, ${amounts.pieces} pieces\n`);
    const token = await seedScale(dataFolder, amounts, Date.now());
    await work({ dataFolder, token });
  } finally {
    await rm(dataFolder, { recursive: true, force: true });
  }
}

/** From the address to the first items on the screen, in the real program. */
function timeViews(origin: string): Promise<ReadonlyMap<string, number>> {
  return withPage(origin, async (page) => {
    const costs = new Map<string, number>();
    for (const [name, [path, selector]] of Object.entries(views)) {
      const times: number[] = [];
      for (let round = 0; round < VIEW_ROUNDS; round += 1) {
        const started = performance.now();
        await page.goto(`${origin}${path}`, { waitUntil: 'commit' });
        await page.locator(selector).first().waitFor();
        times.push(performance.now() - started);
      }
      costs.set(name, median(times));
    }
    return costs;
  });
}
