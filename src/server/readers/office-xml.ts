import { SaxesParser } from 'saxes';
import { fromBufferPromise, type Entry } from 'yauzl';

const MAX_ENTRIES = 2_000;
const MAX_XML_BYTES = 40 * 1024 * 1024;
/** Real documents with nested tables stay far below this. */
const MAX_DEPTH = 250;

/**
 * Makes sure that the XML of an office file is XML as Office Open XML has it: well formed, without type definitions (ECMA-376 part 2,
 * 8.2.5), and neither deeper nor longer than what a person writes. Readers of documents spend minutes on anything else.
 * @throws Error what is wrong with it
 */
export async function requireOfficeXml(bytes: Uint8Array): Promise<void> {
  const zip = await fromBufferPromise(Buffer.from(bytes), { lazyEntries: true, autoClose: false, validateEntrySizes: true });
  const entries: Entry[] = [];
  for await (const entry of zip.eachEntry()) {
    if (/\.(?:xml|rels)$/i.test(entry.fileName)) entries.push(entry);
    if (entries.length > MAX_ENTRIES) throw new RangeError('The file has too many parts');
  }
  if (entries.reduce((total, { uncompressedSize }) => total + uncompressedSize, 0) > MAX_XML_BYTES) throw new RangeError('The file holds too much XML');
  for (const entry of entries) await requireXml(await zip.openReadStreamPromise(entry));
}

async function requireXml(parts: AsyncIterable<Buffer>): Promise<void> {
  const parser = new SaxesParser({ xmlns: true });
  let depth = 0;
  parser.on('error', (error) => {
    throw error;
  });
  parser.on('doctype', () => {
    throw new SyntaxError('No office file holds type definitions');
  });
  parser.on('opentagstart', () => {
    depth += 1;
    if (depth > MAX_DEPTH) throw new RangeError('Its elements are nested too deep');
  });
  parser.on('closetag', () => {
    depth -= 1;
  });
  const decoder = new TextDecoder('utf-8', { fatal: true });
  for await (const part of parts) parser.write(decoder.decode(part, { stream: true }));
  parser.write(decoder.decode()).close();
}
