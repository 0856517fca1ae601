import { readSvg, type ReadSvg } from '../../core/artwork/read-svg.ts';
import type { BrandMark } from '../../core/brand/brand-book.ts';
import { readPage, type PageParts } from '../../core/brand/exchange/web-page.ts';
import { marksOf, readBrandFiles, sourceOf, type BrandSource } from './brand-source.ts';
import { readCalendar, type CalendarDay } from './read-calendar.ts';
import { readDocx, readPdf, type ReadDocument } from './read-document.ts';
import { feedsOfPage, readFeed, type ReadFeed } from './read-feed.ts';
import { readSheet } from './read-sheet.ts';
import { readTypeface, type ImportedTypeface } from './read-typeface.ts';

/** What comes from outside and is read apart from everything else. */
export type ReadTask =
  | { readonly kind: 'svg'; readonly source: string }
  | { readonly kind: 'icon'; readonly svg: string }
  | { readonly kind: 'page'; readonly html: string }
  | { readonly kind: 'look'; readonly parts: PageParts; readonly sheets: readonly string[] }
  | { readonly kind: 'brand-files'; readonly files: readonly { readonly name: string; readonly text: string }[] }
  | { readonly kind: 'typeface'; readonly bytes: Uint8Array; readonly name: string }
  | { readonly kind: 'calendar'; readonly text: string }
  | { readonly kind: 'docx'; readonly bytes: Uint8Array }
  | { readonly kind: 'pdf'; readonly bytes: Uint8Array }
  | { readonly kind: 'sheet'; readonly bytes: Uint8Array }
  | { readonly kind: 'feed'; readonly text: string; readonly address: string; readonly nowMs: number }
  | { readonly kind: 'feeds-of-page'; readonly html: string; readonly address: string };

export interface ReadAnswers {
  readonly svg: ReadSvg;
  readonly icon: readonly BrandMark[];
  readonly page: PageParts;
  readonly look: BrandSource;
  readonly 'brand-files': BrandSource;
  readonly typeface: ImportedTypeface;
  readonly calendar: readonly CalendarDay[];
  readonly docx: ReadDocument;
  readonly pdf: ReadDocument;
  readonly sheet: readonly (readonly string[])[];
  readonly feed: ReadFeed;
  readonly 'feeds-of-page': readonly string[];
}

/** Reads what comes from outside; called in a thread. */
export function answerOf(task: ReadTask): ReadAnswers[keyof ReadAnswers] | Promise<ReadAnswers[keyof ReadAnswers]> {
  switch (task.kind) {
    case 'svg':
      return readSvg(task.source);
    case 'icon':
      return marksOf(task.svg);
    case 'page':
      return readPage(task.html);
    case 'look':
      return sourceOf(task.parts, task.sheets);
    case 'brand-files':
      return readBrandFiles(task.files);
    case 'typeface':
      return readTypeface(task.bytes, task.name);
    case 'calendar':
      return readCalendar(task.text);
    case 'docx':
      return readDocx(task.bytes);
    case 'pdf':
      return readPdf(task.bytes);
    case 'sheet':
      return readSheet(task.bytes);
    case 'feed':
      return readFeed(task.text, task.address, task.nowMs);
    case 'feeds-of-page':
      return feedsOfPage(task.html, task.address);
  }
}
