import type { Outcome, RecordKind } from '../../contract/package-format.ts';
import type { Services } from '../services.ts';
import type { OpenPackage } from './read-package.ts';

export type ImportServices = Pick<Services, 'db' | 'clock' | 'media' | 'readers' | 'settings' | 'sealer'>;

/** What the records of one brand come into. */
export interface ImportContext {
  readonly services: ImportServices;
  readonly opened: OpenPackage;
  readonly folder: string;
  readonly brandId: string;
  /** Nobody had this brand here: it arrives with all that sends by itself, and on hold. */
  readonly isNewBrand: boolean;
  readonly personId: string;
  readonly nowMs: number;
  readonly machineNowMs: number;
  readonly signal: AbortSignal;
  /** Pictures that the brand had under another id: the file’s id to the one here. */
  readonly sameMedia: Map<string, string>;
  /** Undoes each step of the import, for when it is cancelled; the last step first. */
  readonly undo: (() => Promise<unknown>)[];
  readonly report: ImportReport;
}

/** How many records of each kind had which outcome, and sentences on what a person should know. */
export interface ImportReport {
  readonly counts: Partial<Record<RecordKind, Partial<Record<Outcome, number>>>>;
  readonly notes: string[];
}

const MAX_NOTES = 40;

export function newReport(): ImportReport {
  return { counts: {}, notes: [] };
}

export function count({ counts }: ImportReport, kind: RecordKind, outcome: Outcome): void {
  const of = (counts[kind] ??= {});
  of[outcome] = (of[outcome] ?? 0) + 1;
}

/** Notes a sentence once; a package full of faults does not fill the page. */
export function note({ notes }: ImportReport, sentence: string): void {
  if (notes.length < MAX_NOTES && !notes.includes(sentence)) notes.push(sentence);
}
