import { checkVersion, writeVersions, type DeskAnswer, type DeskBrief } from '../../core/write/desk.ts';
import { guessLanguage } from '../../core/write/guess-language.ts';
import type { Held } from '../../core/write/held.ts';
import { answerProposals, type ProposeAnswer, type ProposeQuestion } from '../ideas/propose-question.ts';
import { workOn, type ThreadJob, type ThreadResult } from '../readers/thread-job.ts';
import { readArticle, readLinkPage, type Article, type LinkPage } from './link-page.ts';
import { checkSpelling, type Spelling } from './spelling.ts';
import { answerTags, type TagAnswer, type TagQuestion } from './tag-question.ts';

/** What is done with words apart from everything else: it takes a while, a lexicon or a dictionary. */
export type WordTask =
  | { readonly kind: 'desk'; readonly brief: DeskBrief }
  | { readonly kind: 'check-version'; readonly texts: readonly string[]; readonly brief: DeskBrief }
  | { readonly kind: 'tags'; readonly question: TagQuestion }
  | { readonly kind: 'spelling'; readonly texts: readonly string[]; /** Null: that of the texts. */ readonly language: string | null; readonly own: readonly string[] }
  | { readonly kind: 'link-page'; readonly html: string; readonly address: string }
  | { readonly kind: 'article'; readonly html: string; readonly address: string }
  | { readonly kind: 'propose'; readonly question: ProposeQuestion };

export interface WordAnswers {
  readonly desk: DeskAnswer;
  readonly 'check-version': readonly (readonly Held[])[];
  readonly tags: TagAnswer;
  readonly spelling: Spelling;
  readonly 'link-page': LinkPage;
  readonly article: Article;
  readonly propose: ProposeAnswer;
}

/** A thread's one task. */
export default function work(job: ThreadJob<WordTask>): Promise<ThreadResult> {
  return workOn(job, answerTo);
}

function answerTo(task: WordTask): WordAnswers[keyof WordAnswers] | Promise<Spelling> {
  switch (task.kind) {
    case 'desk':
      return writeVersions(task.brief);
    case 'check-version':
      return task.texts.map((text) => checkVersion(text, task.brief));
    case 'tags':
      return answerTags(task.question);
    case 'spelling':
      return checkSpelling(task.texts, task.language ?? guessLanguage(task.texts.join('\n')), task.own);
    case 'link-page':
      return readLinkPage(task.html, task.address);
    case 'article':
      return readArticle(task.html, task.address);
    case 'propose':
      return answerProposals(task.question);
  }
}
