import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { getShippedTemplate } from '../../src/core/template/shipped-templates.ts';
import type { Template } from '../../src/core/template/template.ts';
import { readPin } from '../../src/server/documents/pins.ts';
import { Client, PASSWORD, startStack, type Stack } from './stack.ts';

let stack: Stack;
beforeAll(async () => {
  stack = await startStack();
});
afterAll(() => stack.close());

const base = '/api/brands/gullwick/templates';
interface Own {
  readonly document: Template;
  readonly revision: number;
  readonly archived: boolean;
}
const copyOf = async (key: string, name: string): Promise<Own> => (await stack.wren.ask('POST', base, { document: { ...getShippedTemplate(key), name } })).body as unknown as Own;

describe('templates of a brand’s own', () => {
  it('get a key that is free, are listed before those that ship, and are the brand’s alone', async () => {
    const [first, second] = [await copyOf('aside', 'Aside'), await copyOf('aside', 'Aside')];
    // A shipped key stays the shipped template’s.
    expect([first.document.key, second.document.key]).toEqual(['aside-2', 'aside-3']);
    const { items } = (await stack.wren.ask('GET', base)).body as unknown as { items: { key: string; isOwn: boolean }[] };
    expect(items.slice(0, 3).map(({ key, isOwn }) => `${key} ${isOwn}`).toSorted()).toEqual(['aside-2 true', 'aside-3 true', 'headland false']);
    expect((await stack.wren.ask('GET', '/api/brands/lanternfall/templates/aside-2')).status).toBe(404);
    expect((await stack.wren.ask('POST', '/api/brands/lanternfall/pieces', { template: 'aside-2' })).status).toBe(422);
  });

  it('change under the pieces that have them, and not under posts that are scheduled', async () => {
    const own = await copyOf('tally', 'House number');
    const piece = (await stack.wren.ask('POST', '/api/brands/gullwick/pieces', { template: own.document.key })).body as unknown as { id: string; revision: number; document: { cuts: { channelId: string; placement: string }[] } };
    const filled = (
      await stack.wren.ask('PATCH', `/api/brands/gullwick/pieces/${piece.id}`, {
        revision: piece.revision,
        patches: [
          { op: 'add', path: '/frames/0/slots/number', value: { kind: 'text', text: '7' } },
          { op: 'add', path: '/frames/0/slots/headline', value: { kind: 'text', text: 'benches' } },
        ],
      })
    ).body as unknown as typeof piece;
    const [cut] = filled.document.cuts;
    const posted = await stack.wren.ask('POST', `/api/brands/gullwick/pieces/${piece.id}/deliveries`, { revision: filled.revision, cuts: [cut], when: { kind: 'now' } });
    expect(posted.status).toBe(201);
    const picture = async (): Promise<string> => Buffer.from(await (await stack.wren.raw('GET', `/api/brands/gullwick/pieces/${piece.id}/cuts/${cut?.channelId}/${cut?.placement}`)).arrayBuffer()).toString('base64');
    const before = await picture();
    const changed = await stack.wren.ask('POST', `${base}/${own.document.key}`, { revision: own.revision, document: { ...own.document, scheme: 'bold' } });
    expect(changed.body).toMatchObject({ revision: own.revision + 1 });
    expect(await picture()).not.toBe(before);
    const { pin } = (await stack.services.db('posts').where({ piece_id: piece.id }).first('pin')) as { pin: string };
    expect((await readPin(stack.services.db, pin)).template.scheme).toBe(own.document.scheme);
    expect((await stack.wren.ask('POST', `${base}/${own.document.key}`, { revision: own.revision, document: own.document })).body).toMatchObject({ code: 'stale-revision' });
  });

  it('are archived without taking them from their pieces', async () => {
    const own = await copyOf('band', 'Old band');
    const piece = (await stack.wren.ask('POST', '/api/brands/gullwick/pieces', { template: own.document.key })).body as unknown as { id: string };
    expect((await stack.wren.ask('PATCH', `${base}/${own.document.key}`, { archived: true })).body).toMatchObject({ archived: true });
    expect((await stack.wren.raw('GET', `/api/brands/gullwick/pieces/${piece.id}/thumbnail`)).status).toBe(200);
    expect((await stack.wren.ask('PATCH', `${base}/${own.document.key}`, { archived: false })).body).toMatchObject({ archived: false });
  });

  it.each([
    ['a document with a key nobody knows', { ...getShippedTemplate('aside'), script: 'alert(1)' }, /unspecified|unknown/i],
    ['a part that is none', { ...getShippedTemplate('aside'), arrangements: getShippedTemplate('aside').arrangements.map((each) => ({ ...each, root: { ...each.root, children: [{ part: 'iframe' }] } })) }, /no part called 'iframe'/],
    ['a slot that is not declared', { ...getShippedTemplate('aside'), slots: getShippedTemplate('aside').slots.slice(1) }, /is declared/],
    ['one arrangement alone', { ...getShippedTemplate('aside'), arrangements: getShippedTemplate('aside').arrangements.slice(0, 1) }, /at least 2/],
    ['a slot with the mark’s name', { ...getShippedTemplate('aside'), slots: [...getShippedTemplate('aside').slots, { key: 'mark', kind: 'text', label: 'M', hint: 'M', required: false }] }, /cannot be a slot/],
  ])('refuse %s', async (_, document, sentence) => {
    const answer = await stack.wren.ask('POST', base, { document });
    expect(answer.status).toBe(422);
    expect(String(answer.body['title'])).toMatch(sentence);
  });

  it('are made by owners and designers', async () => {
    const caspian = new Client(stack.origin);
    await caspian.ask('POST', '/api/session', { email: 'caspian@gullwickkites.example', password: PASSWORD });
    expect((await caspian.ask('POST', base, { document: getShippedTemplate('aside') })).status).toBe(403);
    expect((await caspian.ask('GET', base)).status).toBe(200);
  });
});
