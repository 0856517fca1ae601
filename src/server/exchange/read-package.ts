import { finished } from 'node:stream/promises';
import split from 'split2';
import { ValidationError } from 'yup';
import { MANIFEST_NAME, MAX_RECORD_BYTES, manifestSchema, recordSchemas, type Manifest, type RecordKind, type RecordOf } from '../../contract/package-format.ts';
import { ProblemError } from '../errors.ts';
import { isNestedTooDeep } from '../web/nesting.ts';
import { openZip, type OpenZip } from '../zip/read-zip.ts';
import { recordFileName } from './write-package.ts';

/** Records of one kind may take up so much. */
const MAX_KIND_BYTES = 2 * 1024 ** 3;
const MAX_MANIFEST_BYTES = 256 * 1024;
/** After so many records others get their turn. */
const TURN = 50;

/** A package that has been opened, with what it says it is. */
export interface OpenPackage {
  readonly zip: OpenZip;
  readonly manifest: Manifest;
}

/** @throws ProblemError 422 when the file is no package, or of a version that is not known here */
export async function openPackage(path: string): Promise<OpenPackage> {
  const zip = await openZip(path);
  try {
    if (!zip.names.has(MANIFEST_NAME)) throw new ProblemError(422, 'no-package', 'This ZIP is no package of Confetti: it has no confetti.json. Choose a file that “Export” made.');
    const json = parse(await readAll(zip, MANIFEST_NAME), MANIFEST_NAME);
    const version = (json as { readonly version?: unknown } | null)?.version;
    if (Number.isInteger(version) && (version as number) > 1) throw new ProblemError(422, 'newer-package', 'This package was made by a newer Confetti. Bring this one up to date first.');
    return { zip, manifest: checked(() => manifestSchema.validateSync(json, { strict: true }) as Manifest, MANIFEST_NAME) };
  } catch (error) {
    zip.close();
    throw error;
  }
}

async function readAll(zip: OpenZip, name: string): Promise<Buffer> {
  const chunks: Buffer[] = [];
  for await (const chunk of await zip.open(name, MAX_MANIFEST_BYTES)) chunks.push(chunk as Buffer);
  return Buffer.concat(chunks);
}

/**
 * The records of a kind, one after the other, each checked. A package without that kind has none.
 * @throws ProblemError 422 naming the file and the line of the first fault
 */
export async function* readRecords<Kind extends RecordKind>({ zip }: OpenPackage, folder: string, kind: Kind, signal: AbortSignal): AsyncGenerator<RecordOf<Kind>> {
  const name = recordFileName(folder, kind);
  if (!zip.names.has(name)) return;
  const source = await zip.open(name, MAX_KIND_BYTES);
  const lines = source.pipe(split(/\n/, { maxLength: MAX_RECORD_BYTES }));
  // What goes wrong while unpacking is met where the lines are read.
  finished(source).catch((error: unknown) => lines.destroy(error instanceof Error ? error : new Error(String(error))));
  let number = 0;
  try {
    for await (const line of lines) {
      number += 1;
      signal.throwIfAborted();
      if (number % TURN === 0) await new Promise((resolve) => setImmediate(resolve));
      if ((line as string).trim() !== '') yield readRecord(kind, line as string, `${name}, line ${number}`);
    }
  } catch (error) {
    if (error instanceof ProblemError || signal.aborted) throw error;
    throw new ProblemError(422, 'damaged-package', `The package is damaged: “${name}” cannot be read beyond line ${number}. Export it again.`, { reason: error instanceof Error ? error.message : String(error) });
  } finally {
    source.destroy();
  }
}

function readRecord<Kind extends RecordKind>(kind: Kind, line: string, place: string): RecordOf<Kind> {
  const json = parse(Buffer.from(line), place);
  return checked(() => recordSchemas[kind].validateSync(json, { strict: true }) as RecordOf<Kind>, place);
}

function parse(bytes: Buffer, place: string): unknown {
  if (isNestedTooDeep(bytes)) throw new ProblemError(422, 'damaged-package', `${place} is nested deeper than any record is.`);
  try {
    return JSON.parse(bytes.toString('utf8'));
  } catch {
    throw new ProblemError(422, 'damaged-package', `${place} is no JSON. Export the package again.`);
  }
}

function checked<Value>(read: () => Value, place: string): Value {
  try {
    return read();
  } catch (error) {
    if (error instanceof ValidationError) throw new ProblemError(422, 'damaged-package', `${place}: ${error.errors[0] ?? error.message}`);
    throw error;
  }
}
