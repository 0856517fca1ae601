import mammoth from 'mammoth';
import { parseHTML } from 'linkedom';
import { ProblemError } from '../errors.ts';
import { requireOfficeXml } from './office-xml.ts';

/** The text of a document as Markdown: headings, lists and paragraphs. */
export interface ReadDocument {
  readonly text: string;
}

const MAX_PAGES = 80;
const MAX_TEXT = 120_000;

/** @throws ProblemError 422 when it is no document, or holds no text */
export async function readDocx(bytes: Uint8Array): Promise<ReadDocument> {
  let html: string;
  try {
    await requireOfficeXml(bytes);
    ({ value: html } = await mammoth.convertToHtml({ buffer: Buffer.from(bytes) }, { convertImage: mammoth.images.imgElement(() => Promise.resolve({ src: '' })) }));
  } catch {
    throw new ProblemError(422, 'not-a-document', 'This is no DOCX file. Save it as .docx, or paste its text.');
  }
  return filled(markdownOf(html), 'This document holds no text.');
}

/** Headings, items and paragraphs of HTML as Markdown. */
export function markdownOf(html: string): string {
  const { document } = parseHTML(`<!doctype html><html><body>${html}</body></html>`);
  const blocks = [...document.querySelectorAll('h1,h2,h3,h4,h5,h6,p,li,blockquote')].flatMap((element): readonly string[] => {
    const text = (element.textContent ?? '').replace(/\s+/gu, ' ').trim();
    // A paragraph in an item is the item's.
    if (text === '' || (element.tagName === 'P' && element.closest('li,blockquote'))) return [];
    const level = /^H([1-6])$/u.exec(element.tagName)?.[1];
    if (level !== undefined) return [`\n${'#'.repeat(Number(level))} ${text}\n`];
    return [element.tagName === 'LI' ? `- ${text}` : `\n${text}\n`];
  });
  return blocks.join('\n').replaceAll(/\n{3,}/gu, '\n\n').trim();
}

interface TextItem {
  readonly str: string;
  readonly hasEOL: boolean;
  readonly height: number;
  readonly transform: readonly number[];
}

/**
 * The text of a PDF, its paragraphs put together from lines. Lines much larger than most are headings.
 * @throws ProblemError 422 when it is no PDF, is locked, or holds no text, as a scan does
 */
export async function readPdf(bytes: Uint8Array): Promise<ReadDocument> {
  const { getDocument } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  try {
    const pdf = await getDocument({ data: new Uint8Array(bytes), isEvalSupported: false, useSystemFonts: false, disableFontFace: true, verbosity: 0 }).promise;
    const lines: { text: string; size: number; gap: number }[] = [];
    for (let number = 1; number <= Math.min(pdf.numPages, MAX_PAGES); number += 1) {
      const { items } = await (await pdf.getPage(number)).getTextContent();
      lines.push(...linesOf(items as readonly TextItem[]));
    }
    return filled(paragraphsOf(lines), 'This PDF holds no text: it is a scan or a picture. Paste the text instead.');
  } catch (error) {
    if (error instanceof ProblemError) throw error;
    const name = error instanceof Error ? error.name : '';
    throw new ProblemError(422, 'not-a-pdf', name === 'PasswordException' ? 'This PDF is locked with a password. Save a copy without one.' : 'This is no PDF, or it is damaged.');
  }
}

function linesOf(items: readonly TextItem[]): { text: string; size: number; gap: number }[] {
  const lines: { text: string; size: number; gap: number }[] = [];
  let [text, size, lastY] = ['', 0, Number.NaN];
  const close = (y: number): void => {
    if (text.trim() !== '') lines.push({ text: text.replace(/\s+/gu, ' ').trim(), size, gap: Number.isNaN(lastY) ? 0 : Math.abs(lastY - y) });
    [text, size, lastY] = ['', 0, y];
  };
  let y = 0;
  for (const { str, hasEOL, height, transform } of items) {
    y = transform[5] ?? y;
    text += str;
    size = Math.max(size, height);
    if (hasEOL) close(y);
  }
  close(y);
  return lines;
}

/** Lines as paragraphs: one that ends with a mark, before a larger gap or another size, ends its paragraph. */
function paragraphsOf(lines: readonly { readonly text: string; readonly size: number; readonly gap: number }[]): string {
  const sizes = lines.map(({ size }) => Math.round(size)).toSorted((a, b) => a - b);
  const usual = sizes[Math.floor(sizes.length / 2)] ?? 0;
  const out: string[] = [];
  let open = '';
  const end = (): void => {
    if (open !== '') out.push(open);
    open = '';
  };
  for (const { text, size, gap } of lines) {
    const isHeading = usual > 0 && size > usual * 1.2 && text.length < 120;
    const isItem = /^(?:[-•*–]|\d{1,2}[.)])\s/u.test(text);
    if (isHeading || isItem || gap > size * 1.9) end();
    if (isHeading) {
      out.push(`${size > usual * 1.6 && out.length === 0 ? '#' : '##'} ${text}`);
      continue;
    }
    // A word that was parted at the end of a line.
    open = open === '' ? text : /\p{Ll}-$/u.test(open) && /^\p{Ll}/u.test(text) ? open.slice(0, -1) + text : `${open} ${text}`;
    if (isItem && /[.!?]$/u.test(text)) end();
  }
  end();
  return out.join('\n\n');
}

function filled(text: string, sentence: string): ReadDocument {
  if (!/\p{L}{3}/u.test(text)) throw new ProblemError(422, 'no-text', sentence);
  return { text: text.slice(0, MAX_TEXT) };
}
