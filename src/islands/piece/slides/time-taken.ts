/** Bytes at the start of a picture file that hold what its camera wrote. */
const HEAD_BYTES = 256 * 1024;

/**
 * When a picture was taken, in milliseconds since 1970 on the camera's own clock (EXIF 2.3, DateTimeOriginal); where its camera wrote
 * nothing, when the file was last changed.
 */
export async function timeTaken(file: File): Promise<number> {
  const { default: ExifReader } = await import('exifreader');
  try {
    const tags = ExifReader.load(await file.slice(0, HEAD_BYTES).arrayBuffer());
    const [date, time] = String(tags.DateTimeOriginal?.description ?? '').split(' ');
    const taken = Date.parse(`${(date ?? '').replaceAll(':', '-')}T${time ?? ''}Z`);
    return Number.isNaN(taken) ? file.lastModified : taken;
  } catch {
    // A file without this header is no error here; the import reports a file that cannot be read.
    return file.lastModified;
  }
}
