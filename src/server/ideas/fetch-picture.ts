import { fileTypeFromBuffer } from 'file-type';
import type { Brand } from '../db/brand-repository.ts';
import type { MediaItem } from '../db/media-repository.ts';
import { ProblemError } from '../errors.ts';
import { keepMediaBytes } from '../imports/keep-media.ts';
import { guardedFetch } from '../outside/guarded-fetch.ts';
import type { Services } from '../services.ts';

const MAX_PICTURE_BYTES = 20 * 1024 * 1024;

/**
 * Fetches a picture from an address into the media, told by its bytes.
 * @throws ProblemError 422 when there is no picture there
 */
export async function fetchPicture(services: Services, brand: Brand, address: string, nowMs: number): Promise<MediaItem> {
  const fetched = await guardedFetch(address, { mostBytes: MAX_PICTURE_BYTES, trustedHosts: services.settings.trustedHosts, accept: 'image/*' });
  if (!(await fileTypeFromBuffer(fetched.bytes))?.mime.startsWith('image/')) throw new ProblemError(422, 'no-picture', `There is no picture at ${new URL(fetched.address).hostname}: it answered ${fetched.mime || 'something else'}.`);
  const name = decodeURIComponent(new URL(fetched.address).pathname.split('/').at(-1) ?? '').slice(0, 120) || 'picture';
  return keepMediaBytes(services, brand, fetched.bytes, { name, sourceAddress: fetched.address }, nowMs);
}
