import { unzipSync } from 'fflate';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Piece } from '../../src/core/piece/piece.ts';
import { startStack, type Answer, type Stack } from './stack.ts';

let stack: Stack;
beforeAll(async () => {
  stack = await startStack();
});
afterAll(() => stack.close());

interface Stored {
  readonly id: string;
  readonly revision: number;
  readonly document: Piece;
}

const stored = (answer: Answer): Stored => answer.body as unknown as Stored;
const create = async (template = 'aside'): Promise<Stored> => stored(await stack.wren.ask('POST', '/api/brands/gullwick/pieces', { template }));
const change = (piece: Stored, patches: unknown, revision = piece.revision): Promise<Answer> => stack.wren.ask('PATCH', `/api/brands/gullwick/pieces/${piece.id}`, { revision, patches });
const headline = (text: string) => ({ op: 'add', path: '/frames/0/slots/headline', value: { kind: 'text', text } });

describe('a piece', () => {
  it('starts with a cut for every placement of the brand’s channels', async () => {
    const piece = await create();
    expect(piece.document.cuts.map((cut) => cut.placement)).toEqual([
      'feed-square', 'feed-portrait', 'story', 'post-square', 'post-wide', 'page-wide', 'page-square', 'page-portrait', 'story', 'update-wide', 'update-square', 'update-portrait', 'card', 'update', 'article',
    ]);
    expect(piece.document.frames).toHaveLength(1);
  });

  it('keeps patches one after the other, and names itself by its headline', async () => {
    const piece = await create();
    const once = stored(await change(piece, [headline('Wind is free')]));
    expect(once.revision).toBe(piece.revision + 1);
    const { body } = await stack.wren.ask('GET', '/api/brands/gullwick/pieces?limit=1');
    expect(body['items']).toMatchObject([{ id: piece.id, name: 'Wind is free', template: 'aside', cuts: 15 }]);
  });

  it('saved by two in one place keeps the first, and shows it to the second with both texts', async () => {
    const piece = await create();
    const answers = await Promise.all([change(piece, [headline('Mine')]), change(piece, [headline('Theirs')])]);
    expect(answers.map((answer) => answer.status).sort()).toEqual([200, 409]);
    const [winner, loser] = answers[0]?.status === 200 ? answers : [...answers].reverse();
    expect(loser?.body).toMatchObject({ code: 'conflict', by: 'Wren Adeyemi-Holt', conflicts: [{ path: ['frames', expect.stringMatching(/^#/) as string, 'slots', 'headline', 'text'] }] });
    const current = loser?.body['current'] as unknown as Stored;
    expect(current.document).toEqual(winner && stored(winner).document);
    // On top of what the other has saved it can be saved.
    const kept = await change(current, [{ op: 'replace', path: '/title', value: 'Both seen' }]);
    expect(stored(kept).document.title).toBe('Both seen');
  });

  it('saved by many at once in different places keeps all of it', async () => {
    const piece = await create();
    const own = piece.document.cuts.map(({ channelId }) => channelId).filter((id, index, all) => all.indexOf(id) === index).slice(0, 5);
    const answers = await Promise.all([
      change(piece, [headline('Mine')]),
      change(piece, [{ op: 'replace', path: '/title', value: 'Theirs' }]),
      ...own.map((channelId) => change(piece, [{ op: 'add', path: `/words/own/${channelId}`, value: { caption: channelId } }])),
    ]);
    expect(answers.map(({ status }) => status)).toEqual(answers.map(() => 200));
    const { document } = stored(await stack.wren.ask('GET', `/api/brands/gullwick/pieces/${piece.id}`));
    expect([document.title, Object.keys(document.words.own).sort()]).toEqual(['Theirs', [...own].sort()]);
    expect(document.frames[0].slots['headline']).toEqual({ kind: 'text', text: 'Mine' });
  });

  it('keeps every saved state with who saved it; each can be read', async () => {
    const piece = await create();
    await change(piece, [headline('One')]);
    const { revision } = stored(await stack.wren.ask('GET', `/api/brands/gullwick/pieces/${piece.id}`));
    await change({ ...piece, revision }, [headline('Two')]);
    const base = `/api/brands/gullwick/pieces/${piece.id}/revisions`;
    const { items } = (await stack.wren.ask('GET', base)).body as unknown as { items: { revision: number; personName: string }[] };
    expect(items.map((item) => [item.revision, item.personName])).toEqual([3, 2, 1].map((number) => [number, 'Wren Adeyemi-Holt']));
    expect((await stack.wren.ask('GET', `/api/brands/gullwick/pieces/${piece.id}`)).body).toMatchObject({ changedBy: 'Wren Adeyemi-Holt' });
    const saved = (await stack.wren.ask('GET', `${base}/2`)).body as unknown as Stored;
    expect(saved.document.frames[0].slots['headline']).toEqual({ kind: 'text', text: 'One' });
    expect((await stack.wren.ask('GET', `${base}/99`)).status).toBe(404);
  });

  it('is not sent again to whom has its picture already', async () => {
    const piece = await create();
    await change(piece, [headline('One')]);
    const path = `/api/brands/gullwick/pieces/${piece.id}/thumbnail`;
    const first = await stack.wren.raw('GET', path);
    const etag = first.headers.get('etag') ?? '';
    const again = await stack.wren.raw('GET', path, { headers: { 'if-none-match': etag } });
    expect([first.status, etag !== '', again.status, (await again.arrayBuffer()).byteLength]).toEqual([200, true, 304, 0]);
  });

  it.each([
    ['a patch into nowhere', [{ op: 'replace', path: '/frames/3/slots', value: {} }]],
    ['a patch at the prototype', [{ op: 'add', path: '/__proto__/polluted', value: true }]],
    ['a picture of another brand', [{ op: 'add', path: '/frames/0/slots/photo', value: { kind: 'picture', mediaId: 'not-ours' } }]],
    ['a channel of another brand', [{ op: 'add', path: '/words/own/not-ours', value: { caption: 'x' } }]],
    ['a cut that no channel has', [{ op: 'replace', path: '/cuts/0/placement', value: 'billboard' }]],
    ['an unknown template', [{ op: 'replace', path: '/template/key', value: 'nothing' }]],
    ['a key that is not in the document', [{ op: 'add', path: '/owner', value: 'me' }]],
  ])('refuses %s and stays as it was', async (_, patches) => {
    const piece = await create();
    expect((await change(piece, patches)).status).toBe(422);
    expect(stored(await stack.wren.ask('GET', `/api/brands/gullwick/pieces/${piece.id}`))).toMatchObject({ revision: piece.revision, document: piece.document });
    expect(({} as Record<string, unknown>)['polluted']).toBeUndefined();
  });

  it('cannot be reached through another brand', async () => {
    const piece = await create();
    expect((await stack.wren.ask('GET', `/api/brands/lanternfall/pieces/${piece.id}`)).status).toBe(404);
  });

  it('gives every cut as a PNG of its export size, and a small picture of its first', async () => {
    const piece = stored(await change(await create(), [headline('Wind is free')]));
    const sizes: Record<string, string> = {};
    for (const cut of piece.document.cuts) {
      const response = await stack.wren.raw('GET', `/api/brands/gullwick/pieces/${piece.id}/cuts/${cut.channelId}/${cut.placement}`);
      expect(response.headers.get('content-disposition')).toMatch(/^attachment; filename="wind-is-free-\w+-[\w-]+-\d+x\d+\.png"$/);
      const { format, width, height, hasAlpha } = await sharp(Buffer.from(await response.arrayBuffer())).metadata();
      sizes[cut.placement] = `${format} ${width}x${height} ${hasAlpha}`;
    }
    expect(sizes).toMatchObject({ 'feed-square': 'png 1080x1080 false', story: 'png 1080x1920 false', 'page-wide': 'png 1200x630 false', 'update-wide': 'png 1200x627 false', card: 'png 1000x1500 false', update: 'png 1200x900 false' });
    const thumbnail = await stack.wren.raw('GET', `/api/brands/gullwick/pieces/${piece.id}/thumbnail`);
    expect((await sharp(Buffer.from(await thumbnail.arrayBuffer())).metadata()).width).toBe(480);
  });

  it('gives all its cuts in a ZIP, in the format that was asked for, by names that say what they are', async () => {
    const piece = stored(await change(await create(), [headline('Wind is free')]));
    for (const [as, format, ending] of [['jpeg', 'jpeg', 'jpg'], ['webp', 'webp', 'webp'], ['svg', 'svg', 'svg']] as const) {
      const response = await stack.wren.raw('GET', `/api/brands/gullwick/pieces/${piece.id}/archive?as=${as}`);
      expect(response.headers.get('content-disposition')).toBe(`attachment; filename="wind-is-free-${as}.zip"`);
      const files = unzipSync(new Uint8Array(await response.arrayBuffer()));
      const names = Object.keys(files);
      expect(names).toHaveLength(15);
      expect(names.slice(0, 3)).toEqual(['petalry-feed-square-1080x1080', 'petalry-feed-portrait-1080x1350', 'petalry-story-1080x1920'].map((name) => `wind-is-free-${name}.${ending}`));
      for (const bytes of Object.values(files)) expect((await sharp(bytes).metadata()).format).toBe(format);
    }
    expect((await stack.wren.raw('GET', `/api/brands/gullwick/pieces/${piece.id}/archive?as=bmp`)).status).toBe(422);
  });

  it('names the files by a pattern of one’s own, at double size where that is wanted', async () => {
    const piece = stored(await change(await create(), [headline('Wind is free')]));
    const take = (query: string) => stack.wren.raw('GET', `/api/brands/gullwick/pieces/${piece.id}/archive?${query}`);
    const files = unzipSync(new Uint8Array(await (await take(`as=jpeg&scale=2&names=${encodeURIComponent('{number} {network} {width}')}`)).arrayBuffer()));
    expect(Object.keys(files).slice(0, 4)).toEqual(['01 petalry 2160.jpg', '02 petalry 2160.jpg', '03 petalry 2160.jpg', '04 quipline 2160.jpg']);
    expect((await sharp(files['05 quipline 3200.jpg']).metadata()).width).toBe(3200);
    expect((await take(`as=jpeg&names=${encodeURIComponent('{piece}-{nonsense}')}`)).status).toBe(422);
  });

  it('carries title, alt text, credit and licence in its files', async () => {
    const media = (await stack.wren.ask('GET', '/api/brands/gullwick/media?words=diamond')).body['items'] as unknown as { id: string; credit: string }[];
    const [photo] = media;
    const piece = stored(
      await change(await create('headland'), [
        headline('Kites & sea'),
        { op: 'add', path: '/frames/0/slots/photo', value: { kind: 'picture', mediaId: photo?.id } },
        { op: 'replace', path: '/words/shared/altText', value: 'A red kite, {handle}' },
      ]),
    );
    const [cut] = piece.document.cuts;
    const response = await stack.wren.raw('GET', `/api/brands/gullwick/pieces/${piece.id}/cuts/${cut?.channelId}/${cut?.placement}?as=jpeg`);
    const xmp = (await sharp(Buffer.from(await response.arrayBuffer())).metadata()).xmp?.toString('utf8') ?? '';
    expect(photo?.credit).not.toBe('');
    for (const text of ['Kites &amp; sea', 'A red kite, @gullwickkites', photo?.credit ?? '', 'CC0-1.0']) expect(xmp).toContain(text);
  });

  it('is checked by preflight with the same sentences as in the editor', async () => {
    const piece = await create('headland');
    const { body } = await stack.wren.ask('GET', `/api/brands/gullwick/pieces/${piece.id}/preflight`);
    expect(body['ready']).toBe(false);
    expect((body['findings'] as unknown as { sentence: string }[]).map((finding) => finding.sentence).slice(0, 2)).toEqual(['Picture is empty. Headland cannot go out without it.', 'Headline is empty. Headland cannot go out without it.']);
  });
});
