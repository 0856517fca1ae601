import { execFile } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { promisify } from 'node:util';
import { serveStatic } from '@hono/node-server/serve-static';
import { Hono, type Context } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import { PDFDocument } from 'pdf-lib';
import sharp from 'sharp';
import { pictureLibrary } from './library.ts';
import { faultKinds, type FaultKind, type Faults } from './faults.ts';
import { accountPage, postPage, switchboardPage } from './pages.ts';
import { alongRefusal, DOCUMENT_MIME, SUBTITLES_MIME, VIDEO_MIME, networks, refusalOf, type NetworkRules, type SeenMedia } from './rules.ts';
import { sampleSites } from './sites.ts';
import { shownIn, type Account, type Along, type Shown, type StandinStore } from './store.ts';

export interface StandinOptions {
  readonly store: StandinStore;
  readonly faults: Faults;
  /** Address under which people see the networks' pages. */
  readonly publicOrigin: string;
  readonly slowMs: number;
}

/** Thrown to make the connection break without an answer; the server turns it into a closed socket. */
export class DroppedConnection extends Error {
  override readonly name = 'DroppedConnection';
}

const RETRY_AFTER_S = 2;
const MAX_SUBTITLE_BYTES = 1024 * 1024;

/** All stand-in networks as one HTTP service: an API each, public pages, and a switchboard for testers. */
export function standinApp(options: StandinOptions): Hono {
  const { store, faults } = options;
  const app = new Hono();
  const nowMs = (): number => Date.now() + store.clockOffsetMs();

  app.onError((error, context) => {
    if (error instanceof DroppedConnection) throw error;
    return context.json({ reason: 'Something broke.' }, 500);
  });

  app.get('/switchboard', (context) => context.html(switchboardPage(faults)));
  app.post('/switchboard/faults', async (context) => {
    const isJson = context.req.header('content-type')?.includes('json') ?? false;
    const given = (isJson ? await context.req.json() : await context.req.parseBody()) as Record<string, unknown>;
    const kind = [...faultKinds, 'none' as const].find((each) => each === given['kind']);
    if (!kind || !networks.some((rules) => rules.key === given['network'])) return context.json({ reason: 'No such network or fault.' }, 400);
    faults.set(String(given['network']), kind, Math.max(1, Number(given['times'] ?? 1)));
    return isJson ? context.body(null, 204) : context.redirect('/switchboard');
  });
  app.post('/switchboard/clock', async (context) => {
    store.setClockOffsetMs(Number((await context.req.json<{ offsetMs: number }>()).offsetMs) || 0);
    return context.body(null, 204);
  });
  app.post('/switchboard/accounts', async (context) => {
    const { network, handle, name } = await context.req.json<Account>();
    if (!networks.some((rules) => rules.key === network) || !/^@[a-z0-9.]{2,40}$/.test(handle)) return context.json({ reason: 'No such network, or a handle that cannot be.' }, 400);
    return context.json({ token: store.openAccount({ network, handle, name: String(name).slice(0, 80) }) }, 201);
  });

  for (const rules of networks) {
    app.route(`/${rules.key}/api`, networkApi(rules, options, nowMs));
    app.get(`/${rules.key}/p/:id`, (context) => {
      const post = store.findPost(rules.key, context.req.param('id'));
      return post ? context.html(postPage(rules, post, shownIn(post).flatMap(({ mediaId, altText }) => {
        const media = store.findMedia(mediaId);
        return media ? [{ ...media, altText }] : [];
      }))) : context.notFound();
    });
    app.get(`/${rules.key}/media/:id`, async (context, next) => {
      const media = store.findMedia(context.req.param('id'));
      if (media?.network !== rules.key) return context.notFound();
      // A player asks for parts: without them it can neither go to a moment nor show a cover that is one.
      const response = await serveStatic({ path: store.mediaPath(media.id) })(context, next);
      response?.headers.set('content-type', media.mime);
      return response ?? context.notFound();
    });
    app.get(`/${rules.key}/:handle`, (context) => context.html(accountPage(rules, context.req.param('handle'), store.listPosts(rules.key, context.req.param('handle')).map((post) => ({ ...post, mime: store.findMedia(post.mediaId)?.mime ?? '' })))));
  }
  app.route('/library', pictureLibrary());
  app.route('/sites', sampleSites());
  app.get('/', (context) => context.redirect('/switchboard'));
  return app;
}

function networkApi(rules: NetworkRules, { store, faults, publicOrigin, slowMs }: StandinOptions, nowMs: () => number): Hono {
  const api = new Hono<{ Variables: { account: Account } }>();
  const published = (postId: string): { published: true; id: string; url: string } => ({ published: true, id: postId, url: `${publicOrigin}/${rules.key}/p/${postId}` });

  api.use(async (context, next) => {
    const early = await strikeEarly(rules.key, faults, slowMs, context);
    if (early) return early;
    const token = /^Bearer (\S+)$/.exec(context.req.header('authorization') ?? '')?.[1];
    const account = token === undefined ? null : store.accountOf(rules.key, token);
    if (!account) return context.json({ reason: 'This access has ended.' }, 401);
    context.set('account', account);
    return next();
  });

  const mostBytes = Math.max(rules.maxImageBytes, rules.maxDocumentBytes, rules.maxVideoBytes);
  api.post('/media', bodyLimit({ maxSize: mostBytes, onError: (context) => context.json({ reason: `Files may have ${mostBytes} bytes.` }, 413) }), async (context) => {
    const bytes = new Uint8Array(await context.req.arrayBuffer());
    // Dimensions and kind come from the bytes; what the sender claims is not asked.
    const seen = await seeMedia(bytes);
    const most = seen && mostBytesOf(rules, seen.mime);
    if (!seen || !most) return context.json({ reason: 'This is no file that can be shown here.' }, 422);
    if (bytes.length > most) return context.json({ reason: `Such a file may have ${most} bytes.` }, 413);
    const { handle } = context.get('account');
    return context.json({ id: store.keepMedia({ network: rules.key, handle, ...seen }, bytes).id }, 201);
  });

  const readPost = async (context: Context, handle: string) => {
    const given = (await context.req.json().catch(() => ({}))) as Record<string, unknown>;
    const field = (name: string): string => String(given[name] ?? '');
    const post = { placement: field('placement'), text: field('text'), altText: field('altText'), title: field('title'), link: field('link'), firstComment: field('firstComment'), mediaId: field('mediaId'), more: JSON.stringify(moreOf(given['more'])) };
    const media = shownIn(post).flatMap(({ mediaId }) => store.findMedia(mediaId) ?? []);
    if (media.length < shownIn(post).length || media.some((each) => each.network !== rules.key || each.handle !== handle)) return { kind: 'refused' as const, reason: 'There is no such picture.' };
    const along = readAlong(given['along']);
    const held = (id: string | undefined) => (id === undefined ? null : (store.findMedia(id) ?? undefined));
    const [cover, subtitles] = [held(along.coverId), held(along.subtitlesId)];
    if (cover === undefined || subtitles === undefined || [cover, subtitles].some((each) => each && (each.network !== rules.key || each.handle !== handle))) return { kind: 'refused' as const, reason: 'There is no such cover, or no such subtitles.' };
    const reason = refusalOf(rules, post, media) ?? alongRefusal(rules, post.placement, media[0], { cover, coverAtMs: along.coverAtMs ?? null, subtitles });
    return reason === null ? { kind: 'fine' as const, post: { ...post, along: JSON.stringify(along), network: rules.key, handle } } : { kind: 'refused' as const, reason };
  };

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
      if (faults.strike(rules.key, ['drop-after-publish'])) throw new DroppedConnection();
      return context.json(published(postId), 201);
    });
  } else {
    api.post('/posts', async (context) => {
      const read = await readPost(context, context.get('account').handle);
      if (read.kind === 'refused') return context.json({ reason: read.reason }, 422);
      const postId = store.publishOnce(read.post, context.req.header('idempotency-key') ?? null, nowMs());
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

/** How large a file of a kind may be; 0 where none is taken. */
function mostBytesOf(rules: NetworkRules, mime: string): number {
  if (mime === DOCUMENT_MIME) return rules.maxDocumentBytes;
  if (mime === VIDEO_MIME) return rules.maxVideoBytes;
  if (mime === SUBTITLES_MIME) return MAX_SUBTITLE_BYTES;
  return rules.mimes.includes(mime) ? rules.maxImageBytes : 0;
}

/** What a file is, by its bytes; null for what is neither picture, document nor video. */
async function seeMedia(bytes: Uint8Array): Promise<SeenMedia | null> {
  if (Buffer.from(bytes.subarray(0, 5)).toString('latin1') === '%PDF-') {
    const document = await PDFDocument.load(bytes).catch(() => null);
    const size = document && document.getPageCount() > 0 ? document.getPage(0).getSize() : null;
    // Points become pixels of a page seen at its usual size.
    return document && size ? { mime: DOCUMENT_MIME, widthPx: Math.round(size.width / 0.75), heightPx: Math.round(size.height / 0.75), pages: document.getPageCount(), seconds: 0 } : null;
  }
  if (Buffer.from(bytes.subarray(0, 6)).toString('latin1') === 'WEBVTT') return { mime: SUBTITLES_MIME, widthPx: 0, heightPx: 0, pages: 1, seconds: 0 };
  if (Buffer.from(bytes.subarray(4, 8)).toString('latin1') === 'ftyp') return seeVideo(bytes);
  const seen = await sharp(bytes).metadata().catch(() => null);
  return seen ? { mime: `image/${seen.format}`, widthPx: seen.width, heightPx: seen.height, pages: 1, seconds: 0 } : null;
}

/** A video that every player can play: H.264 in 4:2:0, with sound in AAC. */
async function seeVideo(bytes: Uint8Array): Promise<SeenMedia | null> {
  const folder = mkdtempSync(join(tmpdir(), 'standin-video-'));
  try {
    const path = join(folder, 'video.mp4');
    writeFileSync(path, bytes);
    const { stdout } = await promisify(execFile)('ffprobe', ['-loglevel', 'error', '-show_streams', '-show_format', '-of', 'json', path]);
    const { streams, format } = JSON.parse(stdout) as { streams: readonly { codec_type: string; codec_name: string; pix_fmt?: string; width?: number; height?: number }[]; format: { duration?: string } };
    const video = streams.find((stream) => stream.codec_type === 'video');
    const plays = video?.codec_name === 'h264' && video.pix_fmt === 'yuv420p' && streams.some((stream) => stream.codec_type === 'audio' && stream.codec_name === 'aac');
    return plays ? { mime: VIDEO_MIME, widthPx: video.width ?? 0, heightPx: video.height ?? 0, pages: 1, seconds: Number(format.duration ?? 0) } : null;
  } catch {
    return null;
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/** The further pictures of a carousel, as far as what was sent names any. */
function moreOf(given: unknown): readonly Shown[] {
  if (!Array.isArray(given)) return [];
  return given.flatMap((each: unknown) => (typeof each === 'object' && each !== null && 'mediaId' in each ? [{ mediaId: String(each.mediaId), altText: 'altText' in each ? String(each.altText) : '' }] : []));
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

/** Faults that strike before a request is looked at. */
async function strikeEarly(network: string, faults: Faults, slowMs: number, context: Context): Promise<Response | null> {
  const fault: FaultKind | null = faults.strike(network, ['down', 'slow', 'busy', 'broken']);
  switch (fault) {
    case 'down':
      throw new DroppedConnection();
    case 'slow':
      await sleep(slowMs);
      return null;
    case 'busy':
      return context.json({ reason: 'Too many requests.' }, 429, { 'retry-after': String(RETRY_AFTER_S) });
    case 'broken':
      return context.json({ reason: 'Something broke.' }, 500);
    default:
      return null;
  }
}
