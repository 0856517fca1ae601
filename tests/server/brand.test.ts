import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { BrandBook } from '../../src/core/brand/brand-book.ts';
import { Client, PASSWORD, startStack, type Stack } from './stack.ts';

let stack: Stack;
beforeAll(async () => {
  stack = await startStack();
});
afterAll(() => stack.close());

interface Stored {
  readonly revision: number;
  readonly book: BrandBook;
}
const read = async (): Promise<Stored> => (await stack.wren.ask('GET', '/api/brands/gullwick')).body as unknown as Stored;
const save = (stored: Stored, book: unknown) => stack.wren.ask('POST', '/api/brands/gullwick/book', { revision: stored.revision, book });
const recoloured = (book: BrandBook, hex: string): BrandBook => ({ ...book, colours: book.colours.map((colour) => (colour.key === 'sail-yellow' ? { ...colour, hex } : colour)) });

describe('the brand book', () => {
  it('is kept with its changes, and new cuts follow it', async () => {
    const stored = await read();
    const piece = (await stack.wren.ask('POST', '/api/brands/gullwick/pieces', { template: 'aside' })).body as unknown as { id: string };
    const thumbnail = async (): Promise<string> => Buffer.from(await (await stack.wren.raw('GET', `/api/brands/gullwick/pieces/${piece.id}/thumbnail`)).arrayBuffer()).toString('base64');
    const before = await thumbnail();
    expect((await save(stored, recoloured(stored.book, '#FFD166'))).body).toMatchObject({ revision: stored.revision + 1 });
    expect((await read()).book.colours.find((colour) => colour.key === 'sail-yellow')?.hex).toBe('#FFD166');
    expect(await thumbnail()).not.toBe(before);
  });

  it('saved by two at once keeps the first', async () => {
    const stored = await read();
    const answers = await Promise.all([save(stored, recoloured(stored.book, '#111111')), save(stored, recoloured(stored.book, '#222222'))]);
    expect(answers.map((answer) => answer.status).sort()).toEqual([200, 409]);
  });

  it.each([
    ['a colour that is none', (book: BrandBook) => recoloured(book, 'yellow')],
    ['a scheme that names a colour which is not there', (book: BrandBook) => ({ ...book, colours: book.colours.slice(1) })],
    ['a typeface that is not on the shelf', (book: BrandBook) => ({ ...book, type: { ...book.type, display: { ...book.type.display, font: 'nowhere-900' } } })],
    ['an unknown key', (book: BrandBook) => ({ ...book, mood: 'salty' })],
    ['no marks', (book: BrandBook) => ({ ...book, marks: [] })],
  ])('refuses %s and stays as it was', async (_, change) => {
    const stored = await read();
    expect((await save(stored, change(stored.book))).status).toBe(422);
    expect(await read()).toEqual(stored);
  });

  it('can be changed by owners and designers only', async () => {
    const writer = new Client(stack.origin);
    await writer.ask('POST', '/api/session', { email: 'caspian@gullwickkites.example', password: PASSWORD });
    const stored = await read();
    expect((await writer.ask('POST', '/api/brands/gullwick/book', { revision: stored.revision, book: stored.book })).status).toBe(403);
  });
});
