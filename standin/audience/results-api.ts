import { Hono, type Context } from 'hono';
import type { Account, StandinStore } from '../store.ts';
import { habits } from './habits.ts';
import { AccountLife } from './life.ts';
import { publicAccount, publicPosts, searchPosts } from './others.ts';

/** Posts that may be asked for at once. */
const MAX_POSTS = 50;
const MAX_HEARD = 100;
const MAX_DAYS = 100;
const DAY_MS = 86_400_000;
const DAY = /^\d{4}-\d{2}-\d{2}$/;

interface Context_ {
  readonly store: StandinStore;
  readonly network: string;
  readonly publicOrigin: string;
  readonly nowMs: () => number;
}

/** What an account can ask and do about what came back: figures, what people wrote, and its answers. */
export function resultsApi({ store, network, publicOrigin, nowMs }: Context_): Hono<{ Variables: { account: Account } }> {
  const api = new Hono<{ Variables: { account: Account } }>();
  const talk = habits[network]?.talk;
  const lifeOf = (context: Context): AccountLife => new AccountLife(store, network, (context.get('account') as Account).handle, nowMs());
  const refuse = (context: Context, reason: string, status: 403 | 404 | 422 = 422): Response => context.json({ reason }, status);

  api.get('/posts/figures', (context) => {
    const ids = (context.req.query('ids') ?? '').split(',').filter((id) => id !== '');
    return ids.length > MAX_POSTS ? refuse(context, `At most ${MAX_POSTS} posts at once.`) : context.json({ posts: lifeOf(context).figuresOf(ids) });
  });
  api.get('/posts', (context) => {
    const life = lifeOf(context);
    const posts = life.posts(Number(context.req.query('since') ?? 0)).slice(0, 200);
    return context.json({ posts: posts.map((post) => ({ id: post.id, publishedMs: post.publishedMs, text: post.text, title: post.title, placement: post.placement, ...life.shows(post), url: `${publicOrigin}/${network}/p/${post.id}` })) });
  });
  api.get('/account/figures', (context) => {
    const [from = '', until = ''] = [context.req.query('from'), context.req.query('until')];
    if (!DAY.test(from) || !DAY.test(until) || Date.parse(until) - Date.parse(from) > MAX_DAYS * DAY_MS) return refuse(context, `Days are written like 2026-05-01, at most ${MAX_DAYS} of them.`);
    return context.json({ days: lifeOf(context).days(from, until), followers: lifeOf(context).followers() });
  });
  api.get('/account/audience', (context) => {
    const audience = lifeOf(context).audience();
    return audience ? context.json(audience) : refuse(context, 'An audience is shown from a hundred followers on.', 404);
  });

  api.get('/heard', (context) => {
    const [afterMs, afterId = ''] = (context.req.query('after') ?? '0.').split('.');
    const later = lifeOf(context).heard().filter(({ atMs, id }) => atMs > Number(afterMs) || (atMs === Number(afterMs) && id > afterId));
    const items = later.slice(0, MAX_HEARD);
    const last = items.at(-1);
    return context.json({ items: items.map((item) => ({ ...item, url: item.postId === null ? null : `${publicOrigin}/${network}/p/${item.postId}` })), next: last ? `${last.atMs}.${last.id}` : null, more: later.length > items.length });
  });
  api.post('/heard/:id/answers', async (context) => {
    const { text } = (await context.req.json().catch(() => ({}))) as { readonly text?: unknown };
    const target = lifeOf(context).heard().find(({ id }) => id === context.req.param('id'));
    if (!talk || !target) return refuse(context, 'That is not there any more.', 404);
    if (typeof text !== 'string' || text.trim() === '') return refuse(context, 'An answer needs a text.');
    if ([...text].length > talk.maxAnswer) return refuse(context, `An answer has at most ${talk.maxAnswer} characters.`);
    const key = context.req.header('idempotency-key') ?? `${nowMs()} ${text}`;
    return context.json({ id: store.talk.answer(network, context.get('account').handle, { target: target.id, text, key }, nowMs()) }, 201);
  });
  api.get('/answers/by-key/:key', (context) => context.json({ id: store.talk.findAnswer(network, context.get('account').handle, context.req.param('key')) }));
  api.patch('/heard/:id', async (context) => {
    if (!talk?.hide) return refuse(context, 'Comments are not hidden here.', 403);
    const { hidden } = (await context.req.json().catch(() => ({}))) as { readonly hidden?: unknown };
    store.talk.setFate(network, context.get('account').handle, context.req.param('id'), hidden === true ? 'hidden' : null);
    return context.body(null, 204);
  });
  api.delete('/heard/:id', (context) => {
    if (!talk?.remove) return refuse(context, 'Comments are not removed by programs here.', 403);
    store.talk.setFate(network, context.get('account').handle, context.req.param('id'), 'removed');
    return context.body(null, 204);
  });
  api.put('/hook', async (context) => {
    const { url, secret } = (await context.req.json().catch(() => ({}))) as { readonly url?: unknown; readonly secret?: unknown };
    if (typeof url !== 'string' || !/^https?:\/\//.test(url) || typeof secret !== 'string' || secret.length < 16) return refuse(context, 'A hook needs an address and a secret of at least 16 characters.');
    store.talk.keepHook({ network, handle: context.get('account').handle, url, secret, toldMs: nowMs() });
    return context.body(null, 204);
  });

  api.get('/public/search', (context) => {
    const words = (context.req.query('words') ?? '').split(/\s+/u).filter((word) => word !== '').slice(0, 8);
    return context.json({ posts: words.length === 0 ? [] : searchPosts(network, words, nowMs()).map((post) => ({ ...post, url: `${publicOrigin}/${network}/${post.handle}#${post.id}` })) });
  });
  api.get('/public/:handle', (context) => {
    const handle = context.req.param('handle');
    const account = publicAccount(network, handle, nowMs());
    if (!account) return refuse(context, 'There is nobody of that name.', 404);
    return context.json({ ...account, posts: publicPosts(network, handle, nowMs() - 60 * DAY_MS, nowMs()).map((post) => ({ ...post, url: `${publicOrigin}/${network}/${handle}#${post.id}` })) });
  });
  return api;
}
