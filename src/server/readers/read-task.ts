import { readSvg, type ReadSvg } from '../../core/artwork/read-svg.ts';
import type { BrandMark } from '../../core/brand/brand-book.ts';
import { readPage, type PageParts } from '../../core/brand/exchange/web-page.ts';
import type { Held } from '../../core/write/held.ts';
import { checkVersion, writeVersions, type DeskAnswer, type DeskBrief } from '../../core/write/desk.ts';
import { ProblemError } from '../errors.ts';
import { marksOf, readBrandFiles, sourceOf, type BrandSource } from './brand-source.ts';
import { readArticle, readLinkPage, type Article, type LinkPage } from './link-page.ts';
import { checkSpelling, type Spelling } from './spelling.ts';
import { answerTags, type TagAnswer, type TagQuestion } from './tag-question.ts';
import { readTypeface, type ImportedTypeface } from './read-typeface.ts';

/** What comes from outside and is read apart from everything else. */
export type ReadTask =
  | { readonly kind: 'svg'; readonly source: string }
  | { readonly kind: 'icon'; readonly svg: string }
  | { readonly kind: 'page'; readonly html: string }
  | { readonly kind: 'look'; readonly parts: PageParts; readonly sheets: readonly string[] }
  | { readonly kind: 'brand-files'; readonly files: readonly { readonly name: string; readonly text: string }[] }
  | { readonly kind: 'typeface'; readonly bytes: Uint8Array; readonly name: string }
  | { readonly kind: 'desk'; readonly brief: DeskBrief }
  | { readonly kind: 'check-version'; readonly texts: readonly string[]; readonly brief: DeskBrief }
  | { readonly kind: 'tags'; readonly question: TagQuestion }
  | { readonly kind: 'spelling'; readonly texts: readonly string[]; readonly language: string; readonly own: readonly string[] }
  | { readonly kind: 'link-page'; readonly html: string; readonly address: string }
  | { readonly kind: 'article'; readonly html: string; readonly address: string };

export interface ReadAnswers {
  readonly svg: ReadSvg;
  readonly icon: readonly BrandMark[];
  readonly page: PageParts;
  readonly look: BrandSource;
  readonly 'brand-files': BrandSource;
  readonly typeface: ImportedTypeface;
  readonly desk: DeskAnswer;
  readonly 'check-version': readonly (readonly Held[])[];
  readonly tags: TagAnswer;
  readonly spelling: Spelling;
  readonly 'link-page': LinkPage;
  readonly article: Article;
}

/** Errors do not come out of threads whole, so they come out as values. */
export type ReadResult =
  | { readonly kind: 'read'; readonly value: ReadAnswers[keyof ReadAnswers] }
  | { readonly kind: 'problem'; readonly status: ProblemError['status']; readonly code: string; readonly sentence: string; readonly details: Readonly<Record<string, unknown>> };

export async function runReadTask(task: ReadTask): Promise<ReadResult> {
  try {
    return { kind: 'read', value: await valueOf(task) };
  } catch (error) {
    if (error instanceof ProblemError) return { kind: 'problem', status: error.status, code: error.code, sentence: error.sentence, details: error.details };
    throw error;
  }
}

function valueOf(task: ReadTask): ReadAnswers[keyof ReadAnswers] | Promise<ImportedTypeface | Spelling> {
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
    case 'desk':
      return writeVersions(task.brief);
    case 'check-version':
      return task.texts.map((text) => checkVersion(text, task.brief));
    case 'tags':
      return answerTags(task.question);
    case 'spelling':
      return checkSpelling(task.texts, task.language, task.own);
    case 'link-page':
      return readLinkPage(task.html, task.address);
    case 'article':
      return readArticle(task.html, task.address);
  }
}
