import { PDFDocument } from 'pdf-lib';
import { unzipSync } from 'fflate';
import sharp from 'sharp';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { draftSlides } from '../../src/core/piece/draft-slides.ts';
import type { Piece } from '../../src/core/piece/piece.ts';
import { readPoints } from '../../src/core/piece/read-points.ts';
import { getShippedTemplate } from '../../src/core/template/shipped-templates.ts';
import type { Connector } from '../../src/server/connectors/connector.ts';
import { ConnectorError } from '../../src/server/connectors/connector.ts';
import { standinConnector } from '../../src/server/connectors/standin-connector.ts';
import { clearQueue, sendDue, startStack, type Answer, type Stack } from './stack.ts';

let stack: Stack;
beforeAll(async () => {
  stack = await startStack();
});
beforeEach(() => clearQueue(stack));
afterAll(() => stack.close());

interface Made {
  readonly id: string;
  readonly revision: number;
  readonly document: Piece;
}

const list = 'Six winds and the kite for each\n\n1. A breath: sled kites\n2. A breeze: the diamond\n3. A steady wind: deltas\n4. A stiff one: box kites\n5. A blow: stay in\n6. A storm: stay in and mend';

/** A carousel from a pasted list: cover, six points, closing card. */
async function makeCarousel(): Promise<Made> {
  const strand = getShippedTemplate('strand');
  const created = (await stack.wren.ask('POST', '/api/brands/gullwick/pieces', { template: 'strand' })).body as unknown as Made;
  let next = 0;
  const slides = draftSlides(strand, created.document.frames, readPoints(list), () => `s${(next += 1)}`).map((frame, index) => ({ ...frame, altText: `Slide number ${index + 1}` }));
  const closing = { ...slides.at(-1), slots: { headline: { kind: 'text', text: 'The rest is knots' }, call: { kind: 'text', text: 'Come by' } } };
  const changed = await stack.wren.ask('PATCH', `/api/brands/gullwick/pieces/${created.id}`, {
    revision: created.revision,
    patches: [
      { op: 'replace', path: '/frames', value: [...slides.slice(0, -1), closing] },
      { op: 'replace', path: '/words/shared/caption', value: `Winds ${created.id}` },
      { op: 'add', path: '/words/shared/title', value: 'Six winds' },
    ],
  });
  expect(changed.status).toBe(200);
  return changed.body as unknown as Made;
}

const channelOf = async (network: string): Promise<string> => {
  const { channels } = (await stack.wren.ask('GET', '/api/brands/gullwick')).body as unknown as { channels: { id: string; network: string }[] };
  return channels.find((channel) => channel.network === network)?.id ?? '';
};
const cutsAt = async (places: readonly (readonly [string, string])[]) => Promise.all(places.map(async ([network, placement]) => ({ channelId: await channelOf(network), placement })));
const schedule = async (piece: Made, places: readonly (readonly [string, string])[]): Promise<Answer> =>
  stack.wren.ask('POST', `/api/brands/gullwick/pieces/${piece.id}/deliveries`, { revision: piece.revision, cuts: await cutsAt(places), when: { kind: 'now' } });
const addresses = async (piece: Made): Promise<ReadonlyMap<string, string>> => {
  const { items } = (await stack.wren.ask('GET', `/api/brands/gullwick/deliveries?piece=${piece.id}`)).body as unknown as { items: { placement: string; address: string | null; state: string }[] };
  expect(items.map(({ state }) => state)).toEqual(items.map(() => 'sent'));
  return new Map(items.map(({ placement, address }) => [placement, address ?? '']));
};

describe('a carousel', () => {
  it('is made for every placement, the document among them; a graphic is not', async () => {
    const { document } = await makeCarousel();
    expect([document.kind, document.frames.length]).toEqual(['carousel', 8]);
    expect(document.cuts.map(({ placement }) => placement)).toContain('document');
    const graphic = (await stack.wren.ask('POST', '/api/brands/gullwick/pieces', { template: 'aside' })).body as unknown as Made;
    expect(graphic.document.cuts.map(({ placement }) => placement)).not.toContain('document');
  });

  it('goes out in order, with as many slides as each network takes, each with its alt text, and as a document', async () => {
    const piece = await makeCarousel();
    expect((await schedule(piece, [['petalry', 'feed-portrait'], ['quipline', 'post-square'], ['tackboard', 'card'], ['guildrow', 'document'], ['kerbside', 'update']])).status).toBe(201);
    expect(await sendDue(stack)).toBe(5);
    const sent = await addresses(piece);
    const page = async (placement: string): Promise<string> => (await fetch(sent.get(placement) ?? '')).text();
    const alts = (html: string): readonly string[] => [...html.matchAll(/<img src="[^"]+" alt="Slide number (\d)"/g)].map(([, number]) => number ?? '');
    expect(alts(await page('feed-portrait'))).toEqual(['1', '2', '3', '4', '5', '6', '7', '8']);
    expect(alts(await page('post-square'))).toEqual(['1', '2', '3', '8']);
    expect(alts(await page('card'))).toEqual(['1', '2', '3', '4', '8']);
    expect(alts(await page('update'))).toEqual(['1']);
    const document = await page('document');
    expect(document).toContain('data-document="8"');
    const pdf = await PDFDocument.load(await (await fetch(new URL(/<object data="([^"]+)"/.exec(document)?.[1] ?? '', stack.standin.origin))).arrayBuffer());
    expect([pdf.getPageCount(), pdf.getPage(0).getSize()]).toEqual([8, { width: 810, height: 1012.5 }]);
  });

  it('goes out as a thread with a picture for each part, the rest with the last', async () => {
    const piece = await makeCarousel();
    const caption = Array.from({ length: 7 }, (_, index) => `Wind number ${index + 1} is a friend of one kite and of no other kind.`).join(' ');
    const changed = await stack.wren.ask('PATCH', `/api/brands/gullwick/pieces/${piece.id}`, { revision: piece.revision, patches: [{ op: 'add', path: `/words/own/${await channelOf('quipline')}`, value: { caption, thread: 'pictures' } }] });
    expect(changed.status).toBe(200);
    expect((await schedule(changed.body as unknown as Made, [['quipline', 'post-square']])).status).toBe(201);
    await sendDue(stack);
    const html = await (await fetch((await addresses(piece)).get('post-square') ?? '')).text();
    const parts = [...html.matchAll(/<li>([\s\S]*?)<\/li>/gu)].map(([, part = '']) => part);
    expect(parts.length).toBe(2);
    const altsIn = (part: string): readonly string[] => [...part.matchAll(/alt="Slide number (\d)"/gu)].map(([, number = '']) => number);
    expect([altsIn(html), altsIn(parts[0] ?? ''), altsIn(parts[1] ?? '')]).toEqual([['1', '2', '3', '8'], [], ['2', '3', '8']]);
    expect(parts.map((part) => /<p class="words">([\s\S]*?) \d\/2<\/p>/u.exec(part)?.[1]).join(' ')).toBe(caption);
  });

  it('uploads the remaining slides after a break, and appears once', async () => {
    const piece = await makeCarousel();
    await schedule(piece, [['petalry', 'feed-square']]);
    const uploads: number[] = [];
    const breaking = (failAt: number) => (channel: Parameters<typeof standinConnector>[0], sheet: Parameters<typeof standinConnector>[1]): Connector => {
      const connector = standinConnector(channel, sheet);
      let count = 0;
      return {
        ...connector,
        async upload(picture, signal) {
          count += 1;
          if (count === failAt) throw new ConnectorError('unreachable', 'The line broke.');
          const answer = await connector.upload(picture, signal);
          uploads.push(count);
          return answer;
        },
      };
    };
    await sendDue(stack, breaking(4));
    expect(uploads).toHaveLength(3);
    stack.clock.aheadMs += 3_600_000;
    await sendDue(stack, breaking(99));
    expect(uploads).toHaveLength(8);
    await addresses(piece);
    expect(stack.standin.store.listPosts('petalry', '@gullwickkites').filter(({ text }) => text === `Winds ${piece.id}`)).toHaveLength(1);
  });

  it('leaves out of a cut what a person has left out of it', async () => {
    const piece = await makeCarousel();
    const [cut] = await cutsAt([['quipline', 'post-wide']]);
    const without = piece.document.frames.slice(1, 5).map(({ id }) => id);
    const changed = (await stack.wren.ask('PATCH', `/api/brands/gullwick/pieces/${piece.id}`, { revision: piece.revision, patches: [{ op: 'add', path: `/adjustments/${cut?.channelId ?? ''}.post-wide`, value: { withoutSlides: without } }] })).body as unknown as Made;
    await schedule(changed, [['quipline', 'post-wide']]);
    await sendDue(stack);
    const page = await (await fetch((await addresses(changed)).get('post-wide') ?? '')).text();
    expect([...page.matchAll(/alt="Slide number (\d)"/g)].map(([, number]) => number)).toEqual(['1', '6', '7', '8']);
  });

  it('is exported as numbered files, and as one PDF a cut with text to search', { tags: 'long' }, async () => {
    const piece = await makeCarousel();
    const archive = async (as: string): Promise<Record<string, Uint8Array>> => unzipSync(new Uint8Array(await (await stack.wren.raw('GET', `/api/brands/gullwick/pieces/${piece.id}/archive?as=${as}`)).arrayBuffer()));
    const names = Object.keys(await archive('webp'));
    expect(names.filter((name) => name.includes('petalry-feed-square'))).toEqual(Array.from({ length: 8 }, (_, index) => expect.stringMatching(new RegExp(`feed-square-1080x1080-0${index + 1}\\.webp$`))));
    expect(names.filter((name) => name.includes('petalry-story'))).toHaveLength(1);
    const pdfs = await archive('pdf');
    expect(Object.keys(pdfs)).toHaveLength(16);
    const document = Object.entries(pdfs).find(([name]) => name.includes('guildrow-document'))?.[1] ?? new Uint8Array();
    expect((await PDFDocument.load(document)).getPageCount()).toBe(8);
    const [channel] = await cutsAt([['petalry', 'feed-square']]);
    const third = await stack.wren.raw('GET', `/api/brands/gullwick/pieces/${piece.id}/cuts/${channel?.channelId ?? ''}/feed-square?slide=3`);
    expect(third.headers.get('content-disposition')).toMatch(/-03\.png"/);
    expect(await sharp(Buffer.from(await third.arrayBuffer())).metadata()).toMatchObject({ width: 1080, height: 1080 });
    expect((await stack.wren.raw('GET', `/api/brands/gullwick/pieces/${piece.id}/cuts/${channel?.channelId ?? ''}/feed-square?slide=9`)).status).toBe(404);
  });

  it('says before it is sent what would go wrong with it', async () => {
    const piece = await makeCarousel();
    const bare = (await stack.wren.ask('PATCH', `/api/brands/gullwick/pieces/${piece.id}`, {
      revision: piece.revision,
      patches: [
        { op: 'remove', path: '/frames/3' },
        { op: 'replace', path: '/frames/2/altText', value: '' },
        { op: 'replace', path: '/words/shared/title', value: '' },
      ],
    })).body as unknown as Made;
    const { findings } = (await stack.wren.ask('GET', `/api/brands/gullwick/pieces/${bare.id}/preflight`)).body as unknown as { findings: { sentence: string; severity: string; fix: string | null }[] };
    const said = findings.map(({ sentence }) => sentence).join('\n');
    expect(said).toContain('The cover says 6, and there are 5 points.');
    expect(said).toContain('Slide 3 has no alt text.');
    expect(said).toContain('Quipline Square takes 4 slides: slides 4 to 6 stay behind.');
    expect(said).toContain('Kerbside Update takes no carousel: slide 1 goes alone.');
    expect(findings.find(({ sentence }) => sentence.startsWith('Slide 3 has'))?.fix).toBe('Take its words');
    const refused = await schedule(bare, [['guildrow', 'document']]);
    expect([refused.status, String(refused.body['title'] ?? refused.body['detail'] ?? '')]).toEqual([422, expect.stringMatching(/document title/i)]);
  });
});
