import { text } from 'node:stream/consumers';
import { fromBufferPromise, type Entry } from 'yauzl';

const MAX_ENTRIES = 2_000;
const MAX_XML_BYTES = 40 * 1024 * 1024;

/**
 * Whether an office file holds a document type definition, or more XML than a person writes. Office Open XML has no such definitions
 * (ECMA-376 part 2, 8.2.5); readers of XML spend seconds on a page of them.
 */
export async function holdsTypeDefinitions(bytes: Uint8Array): Promise<boolean> {
  const zip = await fromBufferPromise(Buffer.from(bytes), { lazyEntries: true, autoClose: false, validateEntrySizes: true });
  const entries: Entry[] = [];
  for await (const entry of zip.eachEntry()) {
    if (/\.(?:xml|rels)$/i.test(entry.fileName)) entries.push(entry);
    if (entries.length > MAX_ENTRIES) return true;
  }
  if (entries.reduce((total, { uncompressedSize }) => total + uncompressedSize, 0) > MAX_XML_BYTES) return true;
  for (const entry of entries) if (/<!DOCTYPE/i.test(await text(await zip.openReadStreamPromise(entry)))) return true;
  return false;
}
