import { readdirSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { roles, type Role } from '../../src/core/access/access.ts';
import { endpoints } from '../../src/server/api/router.ts';
import { Client, joinAs, PASSWORD, startStack, type Answer, type Stack } from './stack.ts';

/** Who reaches an endpoint: anyone; whoever is signed in, by a token too or in a browser alone; or members down to a role. */
type Reach = 'anyone' | 'signed-in' | 'session' | `${Role}` | `${Role}, session` | 'approvers, session';

/** Writers make posts; they approve none. */
const approvers: readonly Role[] = ['owner', 'designer', 'reviewer'];

function reaches(role: Role, reach: Reach): boolean {
  const [lowest] = reach.split(', ');
  return lowest === 'approvers' ? approvers.includes(role) : roles.indexOf(role) <= roles.indexOf(lowest as Role);
}

/** Every endpoint with the lowest role that reaches it. One without a line fails. */
const table: Readonly<Record<string, Reach>> = {
  'POST /api/session': 'anyone',
  'POST /api/demo/session': 'anyone',
  'DELETE /api/session': 'session',
  'GET /api/me': 'signed-in',
  'POST /api/password': 'session',
  'POST /api/password-links': 'anyone',
  'POST /api/invitations/read': 'anyone',
  'POST /api/invitations/accept': 'anyone',
  'GET /api/sessions': 'session',
  'DELETE /api/sessions/{session}': 'session',
  'DELETE /api/sessions': 'session',
  'GET /api/second-step': 'session',
  'POST /api/second-step/offers': 'session',
  'POST /api/second-step': 'session',
  'POST /api/second-step/end': 'session',
  'GET /api/tokens': 'session',
  'POST /api/tokens': 'session',
  'DELETE /api/tokens/{token}': 'session',
  'POST /api/demo/clock': 'anyone',
  'GET /api/brands/{brand}': 'viewer',
  'POST /api/brands/{brand}/experiments/{piece}/versions': 'designer',
  'GET /api/brands/{brand}/conversations/{conversation}/proposals': 'viewer',
  'POST /api/brands': 'session',
  'PATCH /api/brands/{brand}': 'designer',
  'GET /api/brands/{brand}/channels': 'viewer',
  'POST /api/brands/{brand}/connections': 'designer, session',
  'GET /api/brands/{brand}/connections/{connection}': 'designer, session',
  'POST /api/brands/{brand}/connections/{connection}': 'designer, session',
  'GET /api/brands/{brand}/channels/{channel}/leaving': 'designer',
  'POST /api/brands/{brand}/channels/{channel}/{action}': 'designer',
  'PATCH /api/brands/{brand}/channels/{channel}': 'designer',
  'DELETE /api/brands/{brand}/channels/{channel}': 'designer',
  'GET /api/brands/{brand}/network-sheets': 'viewer',
  'POST /api/brands/{brand}/network-sheets': 'designer',
  'DELETE /api/brands/{brand}/network-sheets/{network}': 'designer',
  'GET /api/brands/{brand}/reviews': 'viewer',
  'GET /api/brands/{brand}/posts/{post}/review': 'viewer',
  'POST /api/brands/{brand}/posts/{post}/verdicts': 'approvers, session',
  'POST /api/brands/{brand}/posts/{post}/review-again': 'writer',
  'POST /api/brands/{brand}/posts/{post}/remarks': 'reviewer',
  'POST /api/brands/{brand}/posts/{post}/remarks/{remark}': 'reviewer',
  'POST /api/brands/{brand}/posts/{post}/review-links': 'designer, session',
  'DELETE /api/brands/{brand}/posts/{post}/review-links/{link}': 'designer',
  'GET /api/brands/{brand}/send-settings': 'viewer',
  'POST /api/brands/{brand}/send-settings': 'designer',
  'POST /api/review/read': 'anyone',
  'POST /api/review/verdicts': 'anyone',
  'POST /api/review/remarks': 'anyone',
  'POST /api/review/picture': 'anyone',
  'POST /api/review/video': 'anyone',
  'POST /api/brands/{brand}/deliveries/{delivery}/take-down': 'designer',
  'POST /api/brands/{brand}/deliveries/{delivery}/rewrite': 'designer',
  'GET /api/brands/{brand}/hand-offs': 'viewer',
  'GET /api/brands/{brand}/deliveries/{delivery}/files/{index}': 'viewer',
  'POST /api/brands/{brand}/deliveries/{delivery}/placed': 'designer',
  'POST /api/brands/{brand}/deliveries/{delivery}/snooze': 'designer',
  'POST /api/brands/{brand}/posts/{post}/duplicate': 'designer',
  'POST /api/brands/{brand}/posts/{post}/boost': 'designer',
  'POST /api/brands/{brand}/posts/{post}/boost/{action}': 'designer',
  'GET /api/brands/{brand}/acts': 'designer',
  'GET /api/brands/{brand}/acts-csv': 'designer',
  'POST /api/brand-sources': 'signed-in',
  'GET /api/standin-networks': 'signed-in',
  'POST /api/brands/{brand}/book': 'designer',
  'GET /api/brands/{brand}/book/{form}': 'viewer',
  'POST /api/brands/{brand}/typefaces': 'designer',
  'GET /api/brands/{brand}/typefaces/{hash}': 'viewer',
  'POST /api/brands/{brand}/marks': 'designer',
  'GET /api/brands/{brand}/people': 'viewer',
  'GET /api/brands/{brand}/invitations': 'owner, session',
  'POST /api/brands/{brand}/invitations': 'owner, session',
  'DELETE /api/brands/{brand}/invitations/{invitation}': 'owner, session',
  'PATCH /api/brands/{brand}/people/{person}': 'owner, session',
  'DELETE /api/brands/{brand}/people/{person}': 'owner, session',
  'GET /api/brands/{brand}/templates': 'viewer',
  'GET /api/brands/{brand}/templates/{template}/document': 'viewer',
  'GET /api/brands/{brand}/templates/{template}': 'viewer',
  'POST /api/brands/{brand}/templates': 'designer',
  'POST /api/brands/{brand}/templates/{template}': 'designer',
  'PATCH /api/brands/{brand}/templates/{template}': 'designer',
  'GET /api/brands/{brand}/media': 'viewer',
  'GET /api/brands/{brand}/media-details': 'viewer',
  'GET /api/brands/{brand}/media-tags': 'viewer',
  'POST /api/brands/{brand}/media': 'writer',
  'POST /api/brands/{brand}/media/by-address': 'writer',
  'POST /api/brands/{brand}/media/from-post': 'writer',
  'GET /api/brands/{brand}/media/{media}': 'viewer',
  'PATCH /api/brands/{brand}/media/{media}': 'writer',
  'DELETE /api/brands/{brand}/media/{media}': 'writer',
  'GET /api/brands/{brand}/media/{media}/uses': 'viewer',
  'POST /api/brands/{brand}/media/{media}/file': 'writer',
  'GET /api/brands/{brand}/media/{media}/file': 'viewer',
  'GET /api/brands/{brand}/media/{media}/recording': 'viewer',
  'GET /api/brands/{brand}/media/{media}/strip': 'viewer',
  'GET /api/brands/{brand}/media/{media}/wave': 'viewer',
  'GET /api/brands/{brand}/library': 'viewer',
  'GET /api/brands/{brand}/library/{picture}/preview': 'viewer',
  'POST /api/brands/{brand}/library/{picture}': 'writer',
  'POST /api/brands/{brand}/uploads': 'writer',
  'GET /api/brands/{brand}/uploads/{upload}': 'writer',
  'POST /api/brands/{brand}/uploads/{upload}': 'writer',
  'POST /api/brands/{brand}/uploads/{upload}/retry': 'writer',
  'DELETE /api/brands/{brand}/uploads/{upload}': 'writer',
  'GET /api/brands/{brand}/pieces': 'viewer',
  'GET /api/brands/{brand}/piece-facets': 'viewer',
  'POST /api/brands/{brand}/pieces': 'writer',
  'POST /api/brands/{brand}/pieces/{piece}/duplicate': 'writer',
  'PATCH /api/brands/{brand}/pieces/{piece}/shelf': 'writer',
  'GET /api/brands/{brand}/pieces/{piece}': 'viewer',
  'PATCH /api/brands/{brand}/pieces/{piece}': 'writer',
  'GET /api/brands/{brand}/pieces/{piece}/revisions': 'viewer',
  'GET /api/brands/{brand}/pieces/{piece}/revisions/{revision}': 'viewer',
  'GET /api/brands/{brand}/pieces/{piece}/thumbnail': 'viewer',
  'GET /api/brands/{brand}/pieces/{piece}/preflight': 'viewer',
  'GET /api/brands/{brand}/pieces/{piece}/cuts/{channelId}/{placement}': 'viewer',
  'GET /api/brands/{brand}/pieces/{piece}/archive': 'viewer',
  'POST /api/brands/{brand}/pieces/{piece}/video-exports': 'writer',
  'GET /api/brands/{brand}/pieces/{piece}/video-exports': 'viewer',
  'DELETE /api/brands/{brand}/pieces/{piece}/video-exports/{export}': 'writer',
  'GET /api/brands/{brand}/pieces/{piece}/video-exports/{export}/file': 'viewer',
  'POST /api/brands/{brand}/pieces/{piece}/deliveries': 'writer',
  'GET /api/brands/{brand}/deliveries': 'viewer',
  'POST /api/brands/{brand}/deliveries/{delivery}/{action}': 'designer',
  'GET /api/brands/{brand}/deliveries/{delivery}/picture': 'viewer',
  'GET /api/brands/{brand}/deliveries/{delivery}/words': 'viewer',
  'PATCH /api/brands/{brand}/deliveries/{delivery}/words': 'designer',
  'GET /api/brands/{brand}/posts/{post}': 'viewer',
  'GET /api/brands/{brand}/posts/{post}/differences': 'viewer',
  'POST /api/brands/{brand}/posts/{post}/reschedule': 'designer',
  'POST /api/brands/{brand}/posts/{post}/refresh': 'designer',
  'POST /api/brands/{brand}/posts/{post}/{action}': 'designer',
  'GET /api/brands/{brand}/events': 'viewer',
  'GET /api/brands/{brand}/today': 'viewer',
  'GET /api/brands/{brand}/notices': 'viewer',
  'POST /api/brands/{brand}/notices/read': 'viewer',
  'POST /api/brands/{brand}/reminders': 'viewer',
  'GET /api/brands/{brand}/plan': 'viewer',
  'POST /api/brands/{brand}/plan': 'designer',
  'GET /api/brands/{brand}/plan/lanes': 'viewer',
  'POST /api/brands/{brand}/plan/what-if': 'viewer',
  'POST /api/brands/{brand}/plan/places': 'designer',
  'POST /api/brands/{brand}/plan/changes': 'designer',
  'GET /api/brands/{brand}/plan/queue': 'viewer',
  'POST /api/brands/{brand}/plan/queue': 'designer',
  'DELETE /api/brands/{brand}/plan/queue/{entry}': 'designer',
  'POST /api/brands/{brand}/plan/queue-order': 'designer',
  'POST /api/brands/{brand}/plan/campaigns': 'writer',
  'GET /api/brands/{brand}/plan/campaigns/{campaign}': 'viewer',
  'DELETE /api/brands/{brand}/plan/campaigns/{campaign}': 'writer',
  'POST /api/brands/{brand}/plan/hold': 'designer',
  'POST /api/brands/{brand}/plan/release': 'designer',
  'GET /api/brands/{brand}/plan/views': 'viewer',
  'POST /api/brands/{brand}/plan/views': 'viewer',
  'DELETE /api/brands/{brand}/plan/views/{view}': 'viewer',
  'GET /api/brands/{brand}/plan/profile': 'viewer',
  'POST /api/brands/{brand}/plan/days': 'designer',
  'POST /api/brands/{brand}/plan/feed': 'designer',
  'DELETE /api/brands/{brand}/plan/feed': 'designer',
  'GET /api/brands/{brand}/plan/rotations': 'viewer',
  'POST /api/brands/{brand}/plan/suggestions': 'viewer',
  'GET /api/holiday-countries': 'signed-in',
  'GET /api/brands/{brand}/pieces/{piece}/plan': 'viewer',
  'PATCH /api/brands/{brand}/pieces/{piece}/plan': 'writer',
  'POST /api/brands/{brand}/pieces/{piece}/repeats': 'designer',
  'POST /api/brands/{brand}/repeats/{repeat}': 'designer',
  'POST /api/brands/{brand}/pieces/{piece}/rotation': 'designer',
  'DELETE /api/brands/{brand}/pieces/{piece}/rotation': 'designer',
  'GET /api/brands/{brand}/words/suggestions': 'viewer',
  'POST /api/brands/{brand}/hashtags/proposals': 'viewer',
  'POST /api/brands/{brand}/pieces/{piece}/desk': 'writer',
  'POST /api/brands/{brand}/pieces/{piece}/desk/request': 'writer',
  'POST /api/brands/{brand}/words/spelling': 'viewer',
  'GET /api/brands/{brand}/link-card': 'viewer',
  'GET /api/brands/{brand}/link-card/picture': 'viewer',
  'POST /api/brands/{brand}/short-links': 'writer',
  'GET /api/brands/{brand}/short-links': 'viewer',
  'GET /api/brands/{brand}/results/overview': 'viewer',
  'GET /api/brands/{brand}/results/posts': 'viewer',
  'GET /api/brands/{brand}/results/posts/{publication}': 'viewer',
  'GET /api/brands/{brand}/results/works': 'viewer',
  'GET /api/brands/{brand}/results/audience': 'viewer',
  'GET /api/brands/{brand}/results/facets': 'viewer',
  'GET /api/brands/{brand}/learn-settings': 'viewer',
  'POST /api/brands/{brand}/learn-settings': 'designer',
  'GET /api/brands/{brand}/conversations': 'viewer',
  'GET /api/brands/{brand}/conversations/{conversation}': 'viewer',
  'POST /api/brands/{brand}/conversations/move': 'writer',
  'POST /api/brands/{brand}/conversations/assign': 'writer',
  'POST /api/brands/{brand}/conversations/label': 'writer',
  'POST /api/brands/{brand}/conversations/{conversation}/answers': 'writer',
  'POST /api/brands/{brand}/conversations/{conversation}/answers/{answer}/retry': 'writer',
  'POST /api/brands/{brand}/conversations/{conversation}/notes': 'writer',
  'POST /api/brands/{brand}/conversations/{conversation}/writing': 'writer',
  'POST /api/brands/{brand}/conversations/{conversation}/utterances/{utterance}/fate': 'writer',
  'GET /api/brands/{brand}/saved-answers': 'viewer',
  'POST /api/brands/{brand}/saved-answers': 'writer',
  'DELETE /api/brands/{brand}/saved-answers/{saved}': 'writer',
  'GET /api/brands/{brand}/answer-times': 'viewer',
  'POST /api/hooks/{channel}': 'anyone',
  'GET /api/brands/{brand}/reports': 'viewer',
  'POST /api/brands/{brand}/reports/{report}': 'designer',
  'DELETE /api/brands/{brand}/reports/{report}': 'designer',
  'GET /api/brands/{brand}/reports/{report}/{form}': 'viewer',
  'POST /api/brands/{brand}/reports/{report}/send': 'designer',
  'GET /api/brands/{brand}/archive': 'viewer',
  'POST /api/brands/{brand}/deliveries/{delivery}/as-piece': 'writer',
  'POST /api/brands/{brand}/results/posts/{publication}/as-piece': 'writer',
  'GET /api/brands/{brand}/ideas': 'viewer',
  'POST /api/brands/{brand}/ideas': 'writer',
  'PATCH /api/brands/{brand}/ideas/{idea}': 'writer',
  'POST /api/brands/{brand}/ideas/{idea}/piece': 'writer',
  'POST /api/brands/{brand}/ideas/{idea}/placeholder': 'designer',
  'POST /api/brands/{brand}/ideas/{idea}/theme-note': 'designer',
  'GET /api/brands/{brand}/idea-settings': 'viewer',
  'POST /api/brands/{brand}/idea-settings': 'writer',
  'GET /api/brands/{brand}/feeds': 'viewer',
  'POST /api/brands/{brand}/feeds': 'writer',
  'DELETE /api/brands/{brand}/feeds/{feed}': 'writer',
  'POST /api/brands/{brand}/feeds/{feed}/poll': 'writer',
  'POST /api/brands/{brand}/feed-rules': 'designer',
  'DELETE /api/brands/{brand}/feed-rules/{rule}': 'designer',
  'POST /api/brands/{brand}/idea-sources': 'writer',
  'POST /api/brands/{brand}/idea-sources/address': 'writer',
  'POST /api/brands/{brand}/proposals': 'writer',
  'POST /api/brands/{brand}/proposals/one': 'writer',
  'POST /api/brands/{brand}/proposals/series': 'writer',
  'POST /api/brands/{brand}/proposals/keep': 'writer',
  'POST /api/brands/{brand}/plan/proposal': 'viewer',
  'POST /api/brands/{brand}/plan/proposal/take': 'designer',
  'POST /api/brands/{brand}/pieces/from-files': 'writer',
  'GET /api/brands/{brand}/boilerplates': 'viewer',
  'POST /api/brands/{brand}/boilerplates': 'writer',
  'DELETE /api/brands/{brand}/boilerplates/{boilerplate}': 'writer',
  'POST /api/brands/{brand}/boilerplates/{boilerplate}/pieces': 'writer',
  'POST /api/brands/{brand}/quick-posts': 'writer',
  'GET /api/brands/{brand}/pieces/{piece}/series': 'viewer',
  'POST /api/brands/{brand}/post-tables': 'writer',
  'POST /api/brands/{brand}/post-tables/paste': 'writer',
  'GET /api/brands/{brand}/post-table-form': 'viewer',
  'GET /api/brands/{brand}/post-tables': 'viewer',
  'GET /api/brands/{brand}/post-tables/{table}': 'viewer',
  'PATCH /api/brands/{brand}/post-tables/{table}': 'writer',
  'DELETE /api/brands/{brand}/post-tables/{table}': 'writer',
  'GET /api/brands/{brand}/post-tables/{table}/rows': 'viewer',
  'PATCH /api/brands/{brand}/post-tables/{table}/rows/{row}': 'writer',
  'POST /api/brands/{brand}/post-tables/{table}/check': 'writer',
  'POST /api/brands/{brand}/post-tables/{table}/make': 'writer',
  'POST /api/brands/{brand}/post-tables/{table}/cancel': 'writer',
  'GET /api/brands/{brand}/experiments': 'viewer',
  'POST /api/brands/{brand}/experiments/{piece}': 'designer',
  'GET /api/brands/{brand}/others': 'viewer',
  'POST /api/brands/{brand}/others': 'writer',
  'POST /api/brands/{brand}/others/remove': 'writer',
  'GET /api/brands/{brand}/others/search': 'viewer',
  'GET /api/brands/{brand}/links': 'viewer',
  'POST /api/brands/{brand}/links/{code}/check': 'writer',
  'GET /api/brands/{brand}/writing-service': 'viewer',
  'POST /api/brands/{brand}/channel-feeds': 'writer',
  'GET /api/brands/{brand}/package': 'writer',
  'GET /api/packages/all': 'signed-in',
  'POST /api/packages': 'session',
  'POST /api/packages/{package}/parts': 'session',
  'GET /api/packages/{package}': 'signed-in',
  'POST /api/packages/{package}/import': 'session',
  'DELETE /api/packages/{package}': 'session',
  'POST /api/brands/{brand}/writing-service': 'owner, session',
  'DELETE /api/brands/{brand}/writing-service': 'owner, session',
};

/** What these do cannot be taken back within one run: they have tests of their own. */
const ENDS_THE_SESSION = new Set(['DELETE /api/session', 'DELETE /api/sessions']);

let stack: Stack;
const members = new Map<Role, Client>();
let token: Client;
let outsider: Client;
const ids: Record<string, string> = {};

beforeAll(async () => {
  stack = await startStack();
  const signIn = async (email: string): Promise<Client> => {
    const client = new Client(stack.origin);
    await client.ask('POST', '/api/session', { email, password: PASSWORD });
    return client;
  };
  const ottoline = await signIn('ottoline@gullwickkites.example');
  members.set('owner', ottoline);
  for (const role of roles.filter((each) => each !== 'owner')) members.set(role, await joinAs(ottoline, 'gullwick', `${role}@x.example`, role));
  outsider = await signIn('hemi@lanternfall.example');
  token = new Client(stack.origin, String((await ottoline.ask('POST', '/api/tokens', { name: 'roles', scope: 'send', days: 7 })).body['token']));
  const { db } = stack.services;
  const first = async (name: string, table_: string, column = 'id'): Promise<void> => {
    const brandId = (await db('brands').where({ slug: 'gullwick' }).first('id')).id as string;
    ids[name] = String((await db(table_).where({ brand_id: brandId }).first(column))?.[column]);
  };
  for (const [name, source] of [['piece', 'pieces'], ['media', 'media'], ['post', 'posts'], ['channelId', 'channels'], ['channel', 'channels'], ['publication', 'publications'], ['conversation', 'conversations'], ['saved', 'saved_answers'], ['report', 'reports'], ['code', 'short_links']] as const) await first(name, source, name === 'code' ? 'code' : 'id');
  // Somebody who is in this brand alone: others may be removed from theirs.
  ids['person'] = String((await db('people').where({ email: 'ottoline@gullwickkites.example' }).first('id'))?.id);
  ids['delivery'] = String((await db('deliveries').join('posts', 'posts.id', 'deliveries.post_id').where('posts.id', ids['post']).first('deliveries.id')).id);
  ids['upload'] = String((await ottoline.ask('POST', '/api/brands/gullwick/uploads', { name: 'a.jpg', bytes: 9 })).body['id']);
  ids['invitation'] = String(((await ottoline.ask('POST', '/api/brands/gullwick/invitations', { email: 'i@x.example', role: 'viewer' })).body['invitation'] as unknown as { id: string }).id);
});
afterAll(() => stack.close());

/** Parts of an address that stand for nothing, in the shape that their contract asks for. */
const nowhere: Readonly<Record<string, string>> = { hash: 'f'.repeat(64), form: 'css', picture: 'none', revision: '999999', action: 'cancel', placement: 'story', index: '0', row: '1' };
/** What has to be asked for, where something has. */
const period = '?from=2026-01-01&until=2026-01-31';
const asked: Readonly<Record<string, string>> = { '/api/brands/{brand}/results/overview': period, '/api/brands/{brand}/results/posts': period, '/api/brands/{brand}/results/works': period, '/api/brands/{brand}/links': period, '/api/brands/{brand}/others/search': '?network=petalry&words=harbour', '/api/brands/{brand}/media/{media}/file': '?fit=240', '/api/brands/{brand}/pieces/{piece}/archive': '?as=png' };
/** Actions that an address knows, where they are not those of deliveries and posts. */
const actions: Readonly<Record<string, string>> = { '/api/brands/{brand}/channels/{channel}/{action}': 'pause', '/api/brands/{brand}/posts/{post}/boost/{action}': 'done' };
/** The form of a file, where it is not that of a brand book. */
const forms: Readonly<Record<string, string>> = { '/api/brands/{brand}/reports/{report}/{form}': 'csv' };
const addressOf = (path: string, brand: string, known: Readonly<Record<string, string>> = {}): string => path.replace(/\{(\w+)\}/g, (_, name: string) => (name === 'brand' ? brand : (known[name] ?? (name === 'action' ? actions[path] : name === 'form' ? forms[path] : undefined) ?? nowhere[name] ?? 'none'))) + (asked[path] ?? '');

/** Asks without a body: whoever may not, hears so before anything of it is looked at. Streams are not read. */
async function ask(client: Client, method: string, address: string): Promise<Answer> {
  const response = await client.raw(method, address, method === 'GET' || method === 'DELETE' ? {} : { body: '{}', headers: { 'content-type': 'application/json' } });
  const isStream = response.headers.get('content-type')?.startsWith('text/event-stream') ?? false;
  if (isStream) await response.body?.cancel();
  const text = isStream ? '' : await response.text();
  return { status: response.status, body: text.startsWith('{') ? (JSON.parse(text) as Answer['body']) : {}, headers: response.headers };
}

const lines = endpoints.map(({ contract: { method, path } }) => ({ key: `${method} ${path}`, method, path }));

it('every endpoint has a line, and every line an endpoint', () => {
  expect(lines.map(({ key }) => key).sort()).toEqual(Object.keys(table).sort());
});

it('no other file answers requests beside the router, the pages, calendars, short links and the files of fonts and emoji', () => {
  expect(readdirSync('src/pages', { recursive: true, encoding: 'utf8' }).filter((name) => name.endsWith('.ts')).sort()).toEqual(['api/[...path].ts', 'calendar/[file].ts', 'emoji/[file].ts', 'emoji/en/[list].json.ts', 'fonts/[...file].ts', 'l/[code].ts']);
});

describe.each(lines.filter(({ key }) => !ENDS_THE_SESSION.has(key)))('$key', ({ key, method, path }) => {
  const reach = table[key] ?? 'owner, session';
  const needsSession = reach.includes('session');

  it('answers strangers 401, unless it is for anyone', async () => {
    const { status } = await ask(new Client(stack.origin), method, addressOf(path, 'gullwick'));
    if (reach === 'anyone') expect(status).not.toBe(403);
    else expect(status).toBe(401);
  });

  it('answers a token as far as tokens go', async () => {
    if (reach === 'anyone') return expect(needsSession).toBe(false);
    const { status, body } = await ask(token, method, addressOf(path, 'gullwick'));
    if (needsSession) expect([status, body['code']]).toEqual([403, 'session-needed']);
    else expect([401, 403]).not.toContain(status);
  });

  it('answers members as their role may, and others as if it were not there', async () => {
    if (!path.includes('{brand}')) return expect(['anyone', 'signed-in', 'session']).toContain(reach);
    for (const [role, client] of members) {
      const { status, body } = await ask(client, method, addressOf(path, 'gullwick'));
      if (reaches(role, reach)) expect([401, 403], role).not.toContain(status);
      else expect([status, body['code']], role).toEqual([403, 'role-too-low']);
      expect(status, role).toBeLessThan(500);
    }
    expect((await ask(outsider, method, addressOf(path, 'gullwick'))).status).toBe(404);
  });

  it('takes no name of another brand’s things', async () => {
    const names = [...path.matchAll(/\{(\w+)\}/g)].map(([, name = '']) => name).filter((name) => name !== 'brand' && ids[name] !== undefined);
    if (names.length === 0 || !path.includes('{brand}')) return expect(names.filter((name) => name === 'brand')).toEqual([]);
    const { status } = await ask(outsider, method, addressOf(path, 'lanternfall', ids));
    // Without a body some are refused for that first; none does what it is asked.
    expect([404, 409, 415, 422]).toContain(status);
    if (method === 'GET' || method === 'DELETE') expect([404, 409]).toContain(status);
  });
});

describe('bodies', () => {
  it('that name another brand’s things are refused', async () => {
    const at = '/api/brands/lanternfall';
    const own = (await outsider.ask('POST', `${at}/pieces`, { template: 'headland' })).body as unknown as { id: string; revision: number; document: { frames: unknown } };
    const patch = (path: string, value: unknown): Promise<Answer> => outsider.ask('PATCH', `${at}/pieces/${own.id}`, { revision: own.revision, patches: [{ op: 'add', path, value }] });
    const answers = [
      await outsider.ask('POST', `${at}/pieces`, { template: 'headland', media: [ids['media']] }),
      await patch('/frames/0/slots/photo', { kind: 'picture', mediaId: ids['media'] }),
      await patch('/cuts/0', { channelId: ids['channelId'], placement: 'story' }),
      await patch(`/words/own/${ids['channelId'] ?? ''}`, { caption: 'x' }),
      await outsider.ask('POST', `${at}/pieces/${own.id}/deliveries`, { revision: own.revision, cuts: [{ channelId: ids['channelId'], placement: 'story' }], when: { kind: 'now' } }),
      await outsider.ask('POST', `${at}/media/from-post`, { deliveryId: ids['delivery'] }),
    ];
    for (const [index, { status, body }] of answers.entries()) expect([404, 422], `${index}: ${JSON.stringify(body)}`).toContain(status);
    expect(JSON.stringify((await outsider.ask('GET', `${at}/pieces/${own.id}`)).body)).not.toContain(ids['channelId']);
  });
});
