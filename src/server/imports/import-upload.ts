import { fileTypeFromFile } from 'file-type';
import { noteChange } from '../db/change-repository.ts';
import { findUploadById, noteImported, type PendingUpload } from '../db/upload-repository.ts';
import type { Job, NewJob } from '../db/job-repository.ts';
import type { MediaItem } from '../db/media-repository.ts';
import { requestDerived } from '../derived/derived-file.ts';
import { recordingCopy } from '../derived/recording-copies.ts';
import { smallCopy } from '../derived/small-copy.ts';
import { ProblemError } from '../errors.ts';
import type { JobHandler, JobOutcome } from '../jobs/job-handler.ts';
import { isRecordingType } from '../media/receive-upload.ts';
import { UploadParts } from '../media/upload-parts.ts';
import type { Services } from '../services.ts';
import { keepMedia } from './keep-media.ts';
import { replaceMedia } from './replace-media.ts';

const KIND = 'import';
const MAX_IMPORT_ATTEMPTS = 3;
/** Sizes that lists show: made at once, so that the first look at them does not wait. */
const LISTED_PX = [240, 640] as const;

/** The key of the work that imports an upload. */
export const importJobKey = (uploadId: string): string => `${KIND}:${uploadId}`;

/** An item whose file an import takes the place of, if the item is still at this revision. */
export interface Replacement {
  readonly mediaId: string;
  readonly revision: number;
}

/** What an import has to know beside the file. */
export interface ImportAbout {
  readonly replaces?: Replacement;
  /** Where it was fetched from. */
  readonly sourceAddress?: string;
}

/** Imports a file that has arrived whole: pictures take a second, clips up to minutes. Its bytes say which it is. */
export async function importJob(parts: UploadParts, uploadId: string, about: ImportAbout = {}): Promise<NewJob> {
  const type = await fileTypeFromFile(parts.pathOf(uploadId));
  const lane = isRecordingType(type?.mime) ? 'import' : 'import-picture';
  return { key: importJobKey(uploadId), kind: KIND, lane, payload: { uploadId, ...about }, maxAttempts: MAX_IMPORT_ATTEMPTS, priority: 1 };
}

type ImportServices = Pick<Services, 'db' | 'clock' | 'media'>;

export function importHandler(services: ImportServices): JobHandler {
  return {
    async run(job, { signal, progress }) {
      const upload = await findUploadById(services.db, job.payload['uploadId'] as string);
      // It was dropped, or imported by an attempt that could not say so any more.
      if (!upload || upload.mediaId !== null) return { kind: 'done' };
      const parts = new UploadParts(services.media);
      try {
        const incoming = { path: parts.pathOf(upload.id), hash: await parts.hashOf(upload.id), name: upload.name, options: { signal, onProgress: progress } };
        const { replaces, sourceAddress } = job.payload as ImportAbout;
        const brand = { id: upload.brandId };
        const item = replaces ? await replaceMedia(services, brand, replaces, incoming) : await keepMedia(services, brand, { ...incoming, ...(sourceAddress === undefined ? {} : { sourceAddress }) }, await services.clock.nowMs());
        await noteImported(services.db, upload, item.id, services.clock.machineNowMs());
        await parts.drop(upload.id);
        await requestCopies(services, item);
        return { kind: 'done', result: { mediaId: item.id } };
      } catch (error) {
        return refused(services, upload, error);
      }
    },
  };
}

/** A file that is at fault is refused with a sentence; it stays until it is dropped, so that nothing has to be uploaded again to retry. */
async function refused({ db, clock }: ImportServices, upload: PendingUpload, error: unknown): Promise<JobOutcome> {
  if (!(error instanceof ProblemError)) throw error;
  await noteChange(db, { brandId: upload.brandId, kind: 'upload', subjectId: upload.id }, clock.machineNowMs());
  return { kind: 'failed', problem: error.sentence, result: { status: error.status, code: error.code, details: error.details } };
}

/** Asks for what pages will show of an item, before a page does. */
async function requestCopies(services: ImportServices, { storedHash, recording }: MediaItem): Promise<void> {
  for (const fitPx of LISTED_PX) await requestDerived(services, smallCopy(services, storedHash, fitPx).job);
  if (!recording) return;
  await requestDerived(services, recordingCopy(services, recording, 'playback').job);
  if (recording.kind === 'clip') await requestDerived(services, recordingCopy(services, recording, 'strip').job);
  if (recording.hasSound) await requestDerived(services, recordingCopy(services, recording, 'wave').job);
}

/** The problem that an import ended with, as it would have been answered at once. */
export function importProblem(job: Job): ProblemError {
  const { status, code, details } = (job.result ?? {}) as { status?: ProblemError['status']; code?: string; details?: Record<string, unknown> };
  return new ProblemError(status ?? 422, code ?? 'not-imported', job.problem ?? 'This file could not be imported.', details ?? {});
}
