import { serveStatic } from '@hono/node-server/serve-static';
import { Hono, type Context } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import { consentApi, indieAuthMetadata } from './consent.ts';
import { kindRefusal } from './account-kinds.ts';
import { pictureLibrary } from './library.ts';
import { DroppedConnection, faultKinds, strikeEarly } from './faults.ts';
import type { StandinOptions } from './options.ts';
import { followUpsApi } from './follow-ups.ts';
import { mostBytesOf, seeMedia } from './see-media.ts';
import { accountPage, mailboxPage, postPage, switchboardPage, type ShownMedia } from './pages.ts';
import { isOffers, readDetails, type Details } from './details.ts';
import { micropubApi } from './micropub.ts';
import { reachApi } from './reach.ts';
import { historyApi } from './audience/history-api.ts';
import { resultsApi } from './audience/results-api.ts';
import { alongRefusal, networks, refusalOf, VIDEO_MIME, type NetworkRules } from './rules.ts';
import { sampleBlog } from './blog.ts';
import { sampleSites } from './sites.ts';
import { readShown, shownIn, type Along, type Entry, type Shown } from './entry.ts';
import type { Account } from './store.ts';

/** All stand-in networks as one HTTP service: an API each, public pages, and a switchboard for testers. */
export function standinApp(options: StandinOptions): Hono {
  const { store, faults, mailbox } = options;
  const app = new Hono();
  const nowMs = (): number => Date.now() + store.clockOffsetMs();

  app.onError((error, context) => {
    if (error instanceof DroppedConnection) throw error;
    return context.json({ reason: 'Something broke.' }, 500);
  });

  app.get('/mailbox', (context) => context.html(mailboxPage(mailbox.mails)));
  app.get('/mailbox/:mail/:attachment', (context) => {
    const found = mailbox.mails[Number(context.req.param('mail'))]?.attachments[Number(context.req.param('attachment'))];
    return found ? context.body(new Uint8Array(found.bytes), 200, { 'content-type': found.mime, 'content-disposition': `attachment; filename="${found.name.replace(/[^\w.-]/g, '_')}"` }) : context.notFound();
  });
  app.get('/switchboard', (context) => context.html(switchboardPage(faults)));
  app.post('/switchboard/faults', async (context) => {
    const isJson = context.req.header('content-type')?.includes('json') ?? false;
    const given = (isJson ? await context.req.json() : await context.req.parseBody()) as Record<string, unknown>;
    const kind = [...faultKinds, 'none' as const].find((each) => each === given['kind']);
    if (!kind || !networks.some((rules) => rules.key === given['network'])) return context.json({ reason: 'No such network or fault.' }, 400);
    faults.set(given['about'] === 'results' ? resultsKey(String(given['network'])) : String(given['network']), kind, Math.max(1, Number(given['times'] ?? 1)));
    return isJson ? context.body(null, 204) : context.redirect('/switchboard');
  });
  app.post('/switchboard/clock', async (context) => {
    store.setClockOffsetMs(Number((await context.req.json<{ offsetMs: number }>()).offsetMs) || 0);
    return context.body(null, 204);
  });
  app.post('/switchboard/accounts', async (context) => {
    const { network, handle, name, kind, offers } = await context.req.json<Account & { offers?: unknown }>();
    if (!networks.some((rules) => rules.key === network) || !/^@[a-z0-9.]{2,40}$/.test(handle)) return context.json({ reason: 'No such network, or a handle that cannot be.' }, 400);
    return context.json({ token: store.openAccount({ network, handle, name: String(name).slice(0, 80), ...(typeof kind === 'string' ? { kind } : {}), ...(isOffers(offers) ? { offers } : {}) }) }, 201);
  });

  app.post('/switchboard/end-tokens', async (context) => {
    store.endTokens(String((await context.req.json<{ network: string }>()).network));
    return context.body(null, 204);
  });
  app.post('/switchboard/end-access', async (context) => {
    const { network, handle } = await context.req.json<{ network: string; handle: string }>();
    store.endAccess(String(network), String(handle));
    return context.body(null, 204);
  });

  app.route('/switchboard', historyApi(store, options.publicOrigin));

  for (const rules of networks) {
    app.route(`/${rules.key}`, consentApi(rules, store, options.publicOrigin, nowMs));
    app.route(`/${rules.key}/api`, rules.manner === 'micropub' ? micropubApi(rules, options, nowMs) : networkApi(rules, options, nowMs));
    app.get(`/${rules.key}/p/:id`, (context) => {
      const found = store.findPost(rules.key, context.req.param('id'));
      const post = found && store.isReady(found.id, Date.now()) ? found : null;
      if (!post) return context.notFound();
      const withFiles = (shown: readonly Shown[]): readonly ShownMedia[] =>
        shown.flatMap(({ mediaId, altText }) => {
          const media = store.findMedia(mediaId);
          return media ? [{ ...media, altText }] : [];
        });
      const { thread = [] } = JSON.parse(post.details) as Details;
      return context.html(postPage(rules, post, withFiles(shownIn(post)), thread.map(({ text, media }) => ({ text, media: withFiles(media) }))));
    });
    app.get(`/${rules.key}/media/:id`, async (context, next) => {
      const media = store.findMedia(context.req.param('id'));
      if (media?.network !== rules.key) return context.notFound();
      // A player asks for parts: without them it can neither go to a moment nor show a cover that is one.
      const response = await serveStatic({ path: store.mediaPath(media.id) })(context, next);
      response?.headers.set('content-type', media.mime);
      return response ?? context.notFound();
    });
    if (rules.manner === 'micropub') app.get(`/${rules.key}/metadata`, (context) => context.json(indieAuthMetadata(`${options.publicOrigin}/${rules.key}`)));
    app.get(`/${rules.key}/:handle`, (context) => {
      // A site says where it takes entries, as programs look for it.
      const base = `${options.publicOrigin}/${rules.key}`;
      if (rules.manner === 'micropub') context.header('link', `<${base}/api/micropub>; rel="micropub", <${base}/metadata>; rel="indieauth-metadata", <${base}/consent>; rel="authorization_endpoint", <${base}/token>; rel="token_endpoint"`);
      return context.html(accountPage(rules, context.req.param('handle'), store.listPosts(rules.key, context.req.param('handle')).map((post) => ({ ...post, mime: store.findMedia(post.mediaId)?.mime ?? '' }))));
    });
  }
  app.route('/library', pictureLibrary());
  app.route('/sites/quay-museum', sampleBlog(options.publicOrigin, nowMs));
  app.route('/sites', sampleSites());
  app.get('/', (context) => context.redirect('/switchboard'));
  return app;
}

/** Faults of what is asked about results strike apart from those of publishing: programs ask for results all the time. */
const resultsKey = (network: string): string => `${network} results`;
const isAboutResults = (method: string, path: string): boolean => /\/api\/(?:posts\/figures|account\/|heard|answers|hook|public)/.test(path) || (method === 'GET' && path.endsWith('/api/posts'));

/** Largest part of an upload that comes in parts. */
const PART_BYTES = 4 * 1024 * 1024;

function networkApi(rules: NetworkRules, { store, faults, publicOrigin, slowMs }: StandinOptions, nowMs: () => number): Hono {
  const api = new Hono<{ Variables: { account: Account } }>();
  /** Where a post is, once it is public. */
  const published = (postId: string): { published: boolean; processing?: true; id: string; url?: string } =>
    store.isReady(postId, Date.now()) ? { published: true, id: postId, url: `${publicOrigin}/${rules.key}/p/${postId}` } : { published: false, processing: true, id: postId };
  /** Processes a video for a while before it becomes public. */
  const process = (postId: string, post: Pick<Entry, 'mediaId'>): void => {
    if (rules.processingMs !== undefined && store.findMedia(post.mediaId)?.mime === VIDEO_MIME) store.processUntil(postId, Date.now() + rules.processingMs);
  };

  api.use(async (context, next) => {
    const early = await strikeEarly(isAboutResults(context.req.method, context.req.path) ? resultsKey(rules.key) : rules.key, faults, slowMs, context);
    if (early) return early;
    const token = /^Bearer (\S+)$/.exec(context.req.header('authorization') ?? '')?.[1];
    const account = token === undefined ? null : store.accountOf(rules.key, token, nowMs());
    if (!account) return context.json({ reason: 'This access has ended.' }, 401);
    context.set('account', account);
    return next();
  });

  const mostBytes = Math.max(rules.maxImageBytes, rules.maxDocumentBytes, rules.maxVideoBytes);
  const keepFile = async (context: Context<{ Variables: { account: Account } }>, bytes: Uint8Array): Promise<Response> => {
    // Dimensions and kind come from the bytes; what the sender claims is not asked.
    const seen = await seeMedia(bytes);
    const most = seen && mostBytesOf(rules, seen.mime);
    if (!seen || !most) return context.json({ reason: 'This is no file that can be shown here.' }, 422);
    if (bytes.length > most) return context.json({ reason: `Such a file may have ${most} bytes.` }, 413);
    const { handle } = context.get('account');
    return context.json({ id: store.keepMedia({ network: rules.key, handle, ...seen }, bytes).id }, 201);
  };
  api.post('/media', bodyLimit({ maxSize: mostBytes, onError: (context) => context.json({ reason: `Files may have ${mostBytes} bytes.` }, 413) }), async (context) => {
    return keepFile(context, new Uint8Array(await context.req.arrayBuffer()));
  });

  // Large files come in parts; a broken upload resumes at its offset.
  api.post('/uploads', (context) => context.json({ id: store.beginUpload(rules.key, context.get('account').handle), partBytes: PART_BYTES }, 201));
  api.get('/uploads/:id', (context) => {
    const received = store.receivedOf(rules.key, context.get('account').handle, context.req.param('id'));
    return received === null ? context.json({ reason: 'There is no such upload.' }, 404) : context.json({ received });
  });
  api.post('/uploads/:id', bodyLimit({ maxSize: PART_BYTES, onError: (context) => context.json({ reason: `A part has at most ${PART_BYTES} bytes.` }, 413) }), async (context) => {
    const [id, { handle }] = [context.req.param('id'), context.get('account')];
    const received = store.receivedOf(rules.key, handle, id);
    if (received === null) return context.json({ reason: 'There is no such upload.' }, 404);
    if (Number(context.req.query('offset')) !== received) return context.json({ reason: `The next part begins at ${received}.`, received }, 422);
    const part = new Uint8Array(await context.req.arrayBuffer());
    if (received + part.length > mostBytes) return context.json({ reason: `Files may have ${mostBytes} bytes.` }, 413);
    return context.json({ received: store.appendUpload(rules.key, handle, id, part) });
  });
  api.post('/uploads/:id/finish', async (context) => {
    const [id, { handle }] = [context.req.param('id'), context.get('account')];
    if (store.receivedOf(rules.key, handle, id) === null) return context.json({ reason: 'There is no such upload.' }, 404);
    return keepFile(context, store.takeUpload(rules.key, handle, id));
  });

  const readPost = async (context: Context, handle: string) => {
    const given = (await context.req.json().catch(() => ({}))) as Record<string, unknown>;
    const field = (name: string): string => String(given[name] ?? '');
    const post = { placement: field('placement'), text: field('text'), altText: field('altText'), title: field('title'), link: field('link'), firstComment: '', mediaId: field('mediaId'), more: JSON.stringify(readShown(given['more'])) };
    const details = readDetails(given);
    if (details === null) return { kind: 'refused' as const, reason: 'One of the details cannot be read.' };
    const media = shownIn(post).flatMap(({ mediaId }) => store.findMedia(mediaId) ?? []);
    if (media.length < shownIn(post).length || media.some((each) => each.network !== rules.key || each.handle !== handle)) return { kind: 'refused' as const, reason: 'There is no such picture.' };
    const along = readAlong(given['along']);
    const held = (id: string | undefined) => (id === undefined ? null : (store.findMedia(id) ?? undefined));
    const [cover, subtitles] = [held(along.coverId), held(along.subtitlesId)];
    if (cover === undefined || subtitles === undefined || [cover, subtitles].some((each) => each && (each.network !== rules.key || each.handle !== handle))) return { kind: 'refused' as const, reason: 'There is no such cover, or no such subtitles.' };
    const reason = kindRefusal(rules.key, store.listAccounts(rules.key).find((each) => each.handle === handle)?.kind ?? '', post.placement) ?? refusalOf(rules, post, media, details, store.offersOf({ network: rules.key, handle })) ?? alongRefusal(rules, post.placement, media[0], { cover, coverAtMs: along.coverAtMs ?? null, subtitles });
    return reason === null ? { kind: 'fine' as const, post: { ...post, along: JSON.stringify(along), details: JSON.stringify(details), shows: '{}', network: rules.key, handle } } : { kind: 'refused' as const, reason };
  };

  api.get('/account', (context) => context.json({ ...context.get('account'), offers: store.offersOf(context.get('account')) }));
  api.route('/', reachApi(rules.key));
  api.route('/', resultsApi({ store, network: rules.key, publicOrigin, nowMs }));
  api.route('/', followUpsApi(rules, store, faults));

  api.delete('/posts/:id', (context) => {
    const removed = rules.afterwards.includes('remove') && store.removePost(rules.key, context.get('account').handle, context.req.param('id'));
    return removed ? context.body(null, 204) : context.json({ reason: rules.afterwards.includes('remove') ? 'There is no such post.' : 'Posts are not removed by programs here.' }, rules.afterwards.includes('remove') ? 404 : 403);
  });
  api.patch('/posts/:id', async (context) => {
    if (!rules.afterwards.includes('text')) return context.json({ reason: 'What is out stays as it is here.' }, 403);
    const { text, title } = (await context.req.json().catch(() => ({}))) as { readonly text?: unknown; readonly title?: unknown };
    const [id, { handle }] = [context.req.param('id'), context.get('account')];
    const post = store.findPost(rules.key, id);
    if (typeof text !== 'string' || post?.handle !== handle) return context.json({ reason: 'There is no such post, or no text.' }, 404);
    if (rules.countText(text) > rules.maxText) return context.json({ reason: `The text has ${rules.countText(text)} characters; the most is ${rules.maxText}.` }, 422);
    store.rewritePost(rules.key, handle, id, { text, ...(typeof title === 'string' ? { title } : {}) });
    return context.json(published(id));
  });

  if (rules.manner === 'draft-then-publish') {
    api.post('/drafts', async (context) => {
      const read = await readPost(context, context.get('account').handle);
      return read.kind === 'refused' ? context.json({ reason: read.reason }, 422) : context.json({ id: store.keepDraft(read.post).id }, 201);
    });
    api.get('/drafts/:id', (context) => {
      const draft = store.findDraft(rules.key, context.get('account').handle, context.req.param('id'));
      if (!draft) return context.json({ reason: 'There is no such draft.' }, 404);
      return context.json(draft.postId ? published(draft.postId) : { published: false });
    });
    api.post('/drafts/:id/publish', async (context) => {
      const draft = store.findDraft(rules.key, context.get('account').handle, context.req.param('id'));
      if (!draft) return context.json({ reason: 'There is no such draft.' }, 422);
      if (draft.postId) return context.json({ reason: 'This draft is public already.' }, 422);
      const postId = store.publishDraft(draft, nowMs());
      process(postId, draft);
      if (faults.strike(rules.key, ['drop-after-publish'])) throw new DroppedConnection();
      return context.json(published(postId), 201);
    });
  } else {
    api.post('/posts', async (context) => {
      const read = await readPost(context, context.get('account').handle);
      if (read.kind === 'refused') return context.json({ reason: read.reason }, 422);
      const key = context.req.header('idempotency-key') ?? null;
      const isFirst = key === null || store.findPostByKey(rules.key, context.get('account').handle, key) === null;
      const postId = store.publishOnce(read.post, key, nowMs());
      if (isFirst) process(postId, read.post);
      if (faults.strike(rules.key, ['drop-after-publish'])) throw new DroppedConnection();
      return context.json(published(postId), 201);
    });
    api.get('/posts/by-key/:key', (context) => {
      const postId = store.findPostByKey(rules.key, context.get('account').handle, context.req.param('key'));
      return postId ? context.json(published(postId)) : context.json({ published: false });
    });
  }
  return api as unknown as Hono;
}

/** What goes along with a video, as far as what was sent names any. */
function readAlong(given: unknown): Along {
  const { coverId, coverAtMs, subtitlesId } = (typeof given === 'object' && given !== null ? given : {}) as Readonly<Record<string, unknown>>;
  return {
    ...(typeof coverId === 'string' ? { coverId } : {}),
    ...(typeof coverAtMs === 'number' ? { coverAtMs } : {}),
    ...(typeof subtitlesId === 'string' ? { subtitlesId } : {}),
  };
}

