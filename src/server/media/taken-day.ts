import { open } from 'node:fs/promises';
import { isDay } from '../../core/time/day.ts';

/** Metadata stand at the beginning of a file. */
const HEAD_BYTES = 256 * 1024;

/** The day that a picture was taken, as its metadata say; null where they say none, or none that there is. */
export async function takenDayOf(path: string): Promise<string | null> {
  const file = await open(path);
  try {
    const head = Buffer.alloc(HEAD_BYTES);
    const { bytesRead } = await file.read(head, 0, HEAD_BYTES, 0);
    const { default: ExifReader } = await import('exifreader');
    const tags = ExifReader.load(Uint8Array.from(head.subarray(0, bytesRead)).buffer);
    const day = (tags['DateTimeOriginal'] ?? tags['DateTime'])?.description.slice(0, 10).replaceAll(':', '-') ?? '';
    return isDay(day) ? day : null;
  } catch {
    // A file without readable metadata is a picture all the same.
    return null;
  } finally {
    await file.close();
  }
}
