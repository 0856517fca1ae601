import { Hono, type Context } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import { DroppedConnection, strikeEarly } from './faults.ts';
import type { StandinOptions } from './options.ts';
import { mostBytesOf, seeMedia } from './see-media.ts';
import { refusalOf, type NetworkRules } from './rules.ts';
import type { Details } from './details.ts';
import type { Shown } from './entry.ts';
import type { Account } from './store.ts';

type Properties = Readonly<Record<string, readonly unknown[]>>;
type Site = Context<{ Variables: { account: Account } }>;

/** A site of one's own that speaks Micropub (W3C Recommendation, 23 May 2017): creating entries, a media endpoint, configuration and source. */
export function micropubApi(rules: NetworkRules, { store, faults, publicOrigin, slowMs }: StandinOptions, nowMs: () => number): Hono {
  const api = new Hono<{ Variables: { account: Account } }>();
  const base = `${publicOrigin}/${rules.key}`;
  const refuse = (context: Site, error: string, description: string, status: 400 | 401 | 403 | 413 = 400): Response => context.json({ error, error_description: description }, status);

  api.use(async (context, next) => {
    const early = await strikeEarly(rules.key, faults, slowMs, context);
    if (early) return early;
    const token = /^Bearer (\S+)$/.exec(context.req.header('authorization') ?? '')?.[1];
    const account = token === undefined ? null : store.accountOf(rules.key, token, nowMs());
    if (!account) return refuse(context, 'unauthorized', 'This access has ended.', 401);
    context.set('account', account);
    return next();
  });

  api.get('/micropub', (context) => {
    const { handle } = context.get('account');
    switch (context.req.query('q')) {
      case 'config':
        return context.json({ 'media-endpoint': `${base}/api/media`, 'syndicate-to': [] });
      case 'syndicate-to':
        return context.json({ 'syndicate-to': [] });
      case 'source': {
        const id = /\/p\/([^/]+)$/.exec(context.req.query('url') ?? '')?.[1];
        const post = id === undefined ? null : store.findPost(rules.key, id);
        if (!post || post.handle !== handle) return refuse(context, 'invalid_request', 'There is no such entry.');
        const { categories = [] } = JSON.parse(post.details) as Details;
        return context.json({ type: ['h-entry'], properties: { ...(post.title === '' ? {} : { name: [post.title] }), content: [post.text], ...(categories.length > 0 ? { category: categories } : {}) } });
      }
      default:
        return refuse(context, 'invalid_request', 'There is no such query.');
    }
  });

  const mostBytes = Math.max(rules.maxImageBytes, rules.maxVideoBytes);
  api.post('/media', bodyLimit({ maxSize: mostBytes, onError: (context) => context.json({ error: 'invalid_request', error_description: `Files may have ${mostBytes} bytes.` }, 413) }), async (context) => {
    const file = (await context.req.parseBody())['file'];
    if (!(file instanceof File)) return refuse(context, 'invalid_request', 'There is no file.');
    const bytes = new Uint8Array(await file.arrayBuffer());
    const seen = await seeMedia(bytes);
    const most = seen && mostBytesOf(rules, seen.mime);
    if (!seen || !most) return refuse(context, 'invalid_request', 'This is no file that can be shown here.');
    if (bytes.length > most) return refuse(context, 'invalid_request', `Such a file may have ${most} bytes.`, 413);
    const { id } = store.keepMedia({ network: rules.key, handle: context.get('account').handle, ...seen }, bytes);
    return context.body(null, 201, { location: `${base}/media/${id}` });
  });

  api.post('/micropub', async (context) => {
    const changed = await readChange(context);
    if (changed) {
      const id = /\/p\/([^/]+)$/.exec(changed.url)?.[1] ?? '';
      const { handle } = context.get('account');
      const post = store.findPost(rules.key, id);
      if (post?.handle !== handle) return refuse(context, 'invalid_request', 'There is no such entry.');
      if (changed.kind === 'delete') store.removePost(rules.key, handle, id);
      else store.rewritePost(rules.key, handle, id, { text: changed.content ?? post.text, title: changed.name });
      return context.body(null, 204);
    }
    const properties = await readProperties(context);
    if (!properties) return refuse(context, 'invalid_request', 'Only an h-entry can be created.');
    const { handle } = context.get('account');
    const shown = shownOf(properties);
    const media = shown.flatMap(({ mediaId }) => store.findMedia(mediaId) ?? []);
    if (media.length < shown.length || media.some((each) => each.network !== rules.key || each.handle !== handle)) return refuse(context, 'invalid_request', 'There is no such picture.');
    const [first, ...more] = shown;
    const slug = textOf(properties, 'mp-slug');
    const details: Details = { categories: (properties['category'] ?? []).map(String), ...(slug === '' ? {} : { slug }) };
    const post = { placement: 'article', text: textOf(properties, 'content'), altText: first?.altText ?? '', title: textOf(properties, 'name'), link: '', firstComment: '', mediaId: first?.mediaId ?? '', more: JSON.stringify(more) };
    const reason = refusalOf(rules, post, media, {}, {});
    if (reason !== null) return refuse(context, 'invalid_request', reason);
    const id = store.publishOnce({ ...post, along: '{}', details: JSON.stringify(details), shows: '{}', network: rules.key, handle }, null, nowMs());
    if (faults.strike(rules.key, ['drop-after-publish'])) throw new DroppedConnection();
    return context.body(null, 201, { location: `${base}/p/${id}` });
  });
  return api as unknown as Hono;
}

/** What is to be done to an entry that is there (sections 3.4 and 3.5); null for anything else. Of an update, what is replaced is read. */
type Change = { readonly kind: 'delete'; readonly url: string } | { readonly kind: 'update'; readonly url: string; readonly content?: string | undefined; readonly name?: string | undefined };

async function readChange(context: Site): Promise<Change | null> {
  const isJson = context.req.header('content-type')?.includes('json') ?? false;
  const given = (isJson ? await context.req.json().catch(() => ({})) : await context.req.parseBody()) as { readonly action?: unknown; readonly url?: unknown; readonly replace?: Readonly<Record<string, readonly unknown[]>> };
  if (typeof given.url !== 'string') return null;
  if (given.action === 'delete') return { kind: 'delete', url: given.url };
  if (given.action !== 'update' || !isJson) return null;
  const replaced = (name: string): string | undefined => (given.replace?.[name] === undefined ? undefined : textOf(given.replace, name));
  return { kind: 'update', url: given.url, content: replaced('content'), name: replaced('name') };
}

/** The properties of an entry that is to be created, from JSON or from a form; null for anything else. */
async function readProperties(context: Site): Promise<Properties | null> {
  if (context.req.header('content-type')?.includes('json')) {
    const given = (await context.req.json().catch(() => ({}))) as { readonly type?: unknown; readonly properties?: unknown };
    const isEntry = Array.isArray(given.type) && given.type[0] === 'h-entry';
    const properties = (typeof given.properties === 'object' && given.properties !== null ? given.properties : {}) as Record<string, unknown>;
    return isEntry && Object.values(properties).every((value) => Array.isArray(value)) ? (properties as Properties) : null;
  }
  const form = await context.req.parseBody({ all: true });
  if (form['h'] !== 'entry') return null;
  return Object.fromEntries(Object.entries(form).filter(([name]) => name !== 'h').map(([name, value]) => [name.replace(/\[\]$/, ''), [value].flat()]));
}

function textOf(properties: Properties, name: string): string {
  const [value] = properties[name] ?? [];
  if (typeof value === 'string') return value;
  return typeof value === 'object' && value !== null && 'value' in value ? String(value.value) : '';
}

/** The pictures or the video of an entry: addresses that the media endpoint gave, alone or with an alt text. */
function shownOf(properties: Properties): readonly Shown[] {
  return [...(properties['photo'] ?? []), ...(properties['video'] ?? [])].map((value) => {
    const isPair = typeof value === 'object' && value !== null;
    const address = isPair ? String((value as { value?: unknown }).value ?? '') : String(value);
    return { mediaId: /\/media\/([^/]+)$/.exec(address)?.[1] ?? '', altText: isPair ? String((value as { alt?: unknown }).alt ?? '') : '' };
  });
}

