import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Hono } from 'hono';
import sharp from 'sharp';

interface Entry {
  readonly id: string;
  readonly file: string;
  readonly title: string;
  readonly alt: string;
  readonly tags: readonly string[];
}

const FOLDER = join('standin', 'library');
const SMALL_PX = 320;

/** A stand-in for a picture library: a search, descriptions with credit and licence, and the pictures themselves. */
export function pictureLibrary(): Hono {
  const entries = JSON.parse(readFileSync(join(FOLDER, 'catalogue.json'), 'utf8')) as Entry[];
  const previews = new Map<string, Buffer>();
  const library = new Hono();
  const find = (id: string): Entry | undefined => entries.find((each) => each.id === id);
  const describe = ({ file: _, ...entry }: Entry) => entry;

  library.get('/', (context) => {
    const words = (context.req.query('words') ?? '').toLowerCase().split(/\s+/).filter((word) => word !== '');
    const matches = entries.filter((entry) => {
      const text = [entry.title, entry.alt, ...entry.tags].join(' ').toLowerCase();
      return words.every((word) => text.includes(word));
    });
    return context.json({ items: matches.map(describe) });
  });
  library.get('/:id', (context) => {
    const entry = find(context.req.param('id'));
    return entry ? context.json(describe(entry)) : context.json({ reason: 'There is no such picture.' }, 404);
  });
  library.get('/:id/whole', (context) => {
    const entry = find(context.req.param('id'));
    return entry ? context.body(new Uint8Array(readFileSync(join(FOLDER, entry.file))), 200, { 'content-type': 'image/jpeg' }) : context.notFound();
  });
  library.get('/:id/small', async (context) => {
    const entry = find(context.req.param('id'));
    if (!entry) return context.notFound();
    const preview = previews.get(entry.id) ?? (await sharp(join(FOLDER, entry.file)).resize(SMALL_PX, SMALL_PX, { fit: 'inside' }).webp({ quality: 80 }).toBuffer());
    previews.set(entry.id, preview);
    return context.body(new Uint8Array(preview), 200, { 'content-type': 'image/webp' });
  });
  return library;
}
