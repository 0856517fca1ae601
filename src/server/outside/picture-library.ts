import { array, number, object, string, ValidationError, type InferType } from 'yup';
import { notFound, ProblemError } from '../errors.ts';
import type { Settings } from '../settings.ts';

const WITHIN_MS = 10_000;

/** A picture of the library as the library describes it. */
const entrySchema = object({
  id: string().matches(/^[a-z0-9-]{1,60}$/).required(),
  title: string().required().max(200),
  credit: string().required().max(200),
  licence: string().required().max(200),
  licenceUntil: string().matches(/^\d{4}-\d{2}-\d{2}$/).nullable().defined(),
  alt: string().defined().max(1000),
  tags: array(string().required().max(40)).required(),
  widthPx: number().required(),
  heightPx: number().required(),
});
export type LibraryEntry = InferType<typeof entrySchema>;

async function ask(settings: Pick<Settings, 'standinOrigin'>, path: string): Promise<Response> {
  if (settings.standinOrigin === null) throw new ProblemError(422, 'no-library', 'No picture library is connected here.');
  try {
    return await fetch(new URL(path, settings.standinOrigin), { signal: AbortSignal.timeout(WITHIN_MS) });
  } catch (error) {
    throw new ProblemError(422, 'library-silent', 'The picture library does not answer.', { reason: error instanceof Error ? error.name : 'unknown' });
  }
}

async function readChecked<Value>(response: Response, read: (json: unknown) => Value): Promise<Value> {
  if (response.status === 404) throw notFound('picture in the library');
  try {
    return read(await response.json());
  } catch (error) {
    if (error instanceof ValidationError || error instanceof SyntaxError) throw new ProblemError(422, 'library-broken', 'The picture library answered something unreadable.');
    throw error;
  }
}

/** Pictures of the library that have all the words in their title, tags or description. */
export async function searchPictureLibrary(settings: Pick<Settings, 'standinOrigin'>, words: string): Promise<readonly LibraryEntry[]> {
  const answer = await ask(settings, `/library?words=${encodeURIComponent(words)}`);
  return readChecked(answer, (json) => object({ items: array(entrySchema.required()).required() }).validateSync(json).items);
}

export async function getLibraryEntry(settings: Pick<Settings, 'standinOrigin'>, id: string): Promise<LibraryEntry> {
  return readChecked(await ask(settings, `/library/${id}`), (json) => entrySchema.validateSync(json));
}

/** The bytes of a picture of the library: whole, or small for looking at. */
export async function libraryFile(settings: Pick<Settings, 'standinOrigin'>, id: string, size: 'whole' | 'small'): Promise<Uint8Array> {
  const response = await ask(settings, `/library/${id}/${size}`);
  if (!response.ok) throw notFound('picture in the library');
  return new Uint8Array(await response.arrayBuffer());
}
