/** Folders deeper than this are a mistake of the hand. */
const DEEPEST = 12;
const MAX_FILES = 500;
const PICTURE_NAME = /\.(jpe?g|png|webp)$/i;

/** The files of a drop or a paste; a folder gives all pictures in it, in the order of their names. */
export async function filesOf(transfer: DataTransfer): Promise<readonly File[]> {
  const entries = [...transfer.items].map((item) => item.webkitGetAsEntry());
  // The list of a transfer empties after the event: what it holds directly is taken first.
  const direct = [...transfer.files];
  if (!entries.some((entry) => entry?.isDirectory)) return direct;
  const found: File[] = [];
  for (const entry of entries) if (entry) await collect(entry, found, 0);
  return found;
}

async function collect(entry: FileSystemEntry, found: File[], depth: number): Promise<void> {
  if (found.length >= MAX_FILES || depth > DEEPEST) return;
  if (entry instanceof FileSystemFileEntry) {
    const isAlone = depth === 0;
    // Beside the pictures of a folder lie other things; what is dropped by itself is tried and answered.
    if (isAlone || PICTURE_NAME.test(entry.name)) found.push(await new Promise<File>((resolve, reject) => entry.file(resolve, reject)));
    return;
  }
  if (!(entry instanceof FileSystemDirectoryEntry)) return;
  const reader = entry.createReader();
  const inside: FileSystemEntry[] = [];
  for (;;) {
    const batch = await new Promise<readonly FileSystemEntry[]>((resolve, reject) => reader.readEntries(resolve, reject));
    if (batch.length === 0) break;
    inside.push(...batch);
  }
  for (const each of inside.toSorted((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }))) await collect(each, found, depth + 1);
}
