import { readFile, rm } from 'node:fs/promises';
import { decodeTable } from '../../core/ideas/table/read-table.ts';
import { readSubtitles, SubtitleError } from '../../core/video/subtitles.ts';
import { ProblemError } from '../errors.ts';
import { receiveUpload } from '../media/receive-upload.ts';
import { guardedFetch } from '../outside/guarded-fetch.ts';
import { MAX_DOCUMENT_BYTES } from '../readers/reading-limits.ts';
import type { Services } from '../services.ts';

/** A text that ideas are made from, with what people call it. */
export interface IdeaSource {
  readonly name: string;
  readonly text: string;
}

const MAX_PAGE_BYTES = 4 * 1024 * 1024;
const MAX_TEXT = 120_000;
/** Subtitles that follow each other at once belong to one sentence. */
const NO_END = /[^.!?…]$/u;

/**
 * The text of an uploaded document or of subtitles, told apart by what is in it.
 * @throws ProblemError 422 when there is no text in it
 */
export async function readSourceFile(services: Services, request: Request, name: string): Promise<IdeaSource> {
  const received = await receiveUpload(request, services.media, () => MAX_DOCUMENT_BYTES);
  try {
    const bytes = new Uint8Array(await readFile(received.path));
    return { name, text: (await textOf(services, bytes, name)).slice(0, MAX_TEXT) };
  } finally {
    await rm(received.path, { force: true });
  }
}

async function textOf({ readers }: Services, bytes: Uint8Array, name: string): Promise<string> {
  const start = Buffer.from(bytes.subarray(0, 5)).toString('latin1');
  if (start.startsWith('%PDF')) return (await readers.read({ kind: 'pdf', bytes })).text;
  if (start.startsWith('PK')) return (await readers.read({ kind: 'docx', bytes })).text;
  const text = decodeTable(bytes);
  if (text.includes('\u0000')) throw new ProblemError(422, 'no-text', `“${name}” is no text. DOCX, PDF, Markdown, plain text and subtitles are read.`);
  if (/^\s*(?:WEBVTT|\d+\s*\r?\n\d{1,2}:\d{2}:\d{2}[,.])/u.test(text)) return spokenText(text);
  if (!/\p{L}{3}/u.test(text)) throw new ProblemError(422, 'no-text', `“${name}” holds no text.`);
  return text;
}

/** What subtitles say, as sentences. */
function spokenText(text: string): string {
  try {
    return readSubtitles(text).reduce((said, cue) => `${said}${said === '' ? '' : NO_END.test(said) ? ' ' : '\n'}${cue.text.replaceAll(/\s+/gu, ' ')}`, '');
  } catch (error) {
    if (error instanceof SubtitleError) throw new ProblemError(422, error.code, error.message);
    throw error;
  }
}

/** @throws ProblemError 422 when there is no article at the address */
export async function readSourceAddress(services: Services, address: string): Promise<IdeaSource & { readonly link: string }> {
  const fetched = await guardedFetch(address, { mostBytes: MAX_PAGE_BYTES, trustedHosts: services.settings.trustedHosts, accept: 'text/html' });
  if (!fetched.mime.includes('html')) throw new ProblemError(422, 'no-article', 'There is no web page at this address. Paste the text instead.');
  const { title, text } = await services.words.run({ kind: 'article', html: fetched.bytes.toString('utf8'), address: fetched.address });
  return { name: title || new URL(fetched.address).hostname, text: `# ${title}\n\n${text}`.slice(0, MAX_TEXT), link: fetched.address };
}
