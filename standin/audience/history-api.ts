import { Hono } from 'hono';
import { networks } from '../rules.ts';
import type { Life, StandinStore } from '../store.ts';
import { callHooks } from './hooks.ts';
import type { MetricChange } from './talk-store.ts';

interface PastPost {
  readonly network: string;
  readonly handle: string;
  readonly key: string;
  readonly publishedMs: number;
  readonly placement: string;
  readonly text: string;
  readonly title: string;
  readonly firstComment: string;
  readonly kind: string;
  readonly slides: number;
  /** What its chance is drawn from, so that a demo is the same each time. */
  readonly seed?: string;
}

/** Parts of the switchboard that give accounts a past, for demos and tests: posts of earlier weeks, people who write, figures that change. */
export function historyApi(store: StandinStore, publicOrigin: string): Hono {
  const api = new Hono();
  api.post('/posts', async (context) => {
    const posts = await context.req.json<readonly PastPost[]>();
    if (!Array.isArray(posts) || posts.some(({ network }) => !networks.some(({ key }) => key === network))) return context.json({ reason: 'No such network.' }, 400);
    const addresses = posts.map((post: PastPost) => {
      const { kind, slides, seed, key, publishedMs, ...entry } = post;
      const id = store.publishOnce({ ...entry, mediaId: '', altText: '', link: '', more: '[]', along: '{}', details: '{}', shows: JSON.stringify({ kind, slides, ...(seed === undefined ? {} : { seed }) }) }, key, publishedMs);
      return `${publicOrigin}/${post.network}/p/${id}`;
    });
    return context.json({ addresses }, 201);
  });
  api.post('/life', async (context) => {
    const { network, handle, zone, sinceMs, ownPosts } = await context.req.json<Life & { readonly network: string; readonly handle: string }>();
    store.setLife(network, handle, { zone: String(zone), sinceMs: typeof sinceMs === 'number' ? sinceMs : null, ownPosts });
    return context.body(null, 204);
  });
  api.post('/metrics', async (context) => {
    const { network, metric, kind, atMs } = await context.req.json<MetricChange>();
    if (kind !== 'stops' && kind !== 'anew') return context.json({ reason: 'A figure stops, or is counted anew.' }, 400);
    store.talk.keepMetricChange({ network, metric, kind, atMs });
    return context.body(null, 204);
  });
  // Calls go out by themselves every few seconds; a test does not wait for them.
  api.post('/call-hooks', async (context) => {
    await callHooks(store, Date.now() + store.clockOffsetMs());
    return context.body(null, 204);
  });
  return api;
}
