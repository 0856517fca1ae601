import { pieceName } from '../../core/piece/piece.ts';
import { getChannel } from '../db/brand-repository.ts';
import { noteChange } from '../db/change-repository.ts';
import { getVideoExport, noteVideoMeasures, type VideoExport } from '../db/video-export-repository.ts';
import type { NewJob } from '../db/job-repository.ts';
import { readPin } from '../documents/pins.ts';
import type { JobHandler } from '../jobs/job-handler.ts';
import type { Services } from '../services.ts';
import type { VideoFormat, VideoOptions } from './render-video.ts';
import { coverFile } from './video-cover.ts';
import { makeVideoFile, type VideoFile } from './video-file.ts';
import { videoProblem } from './video-problem.ts';
import { videoSourceOf } from './video-source.ts';

const KIND = 'video-export';
const MAX_EXPORT_ATTEMPTS = 3;

type ExportServices = Pick<Services, 'db' | 'clock' | 'media' | 'render' | 'log'>;

/** The key of the work that makes an export's file. */
export const exportJobKey = (exportId: string): string => `export:${exportId}`;

export function exportJob(exportId: string): NewJob {
  return { key: exportJobKey(exportId), kind: KIND, lane: 'export', payload: { exportId }, maxAttempts: MAX_EXPORT_ATTEMPTS };
}

/** Makes a cut of a video into a file. Two at once would take as long, and twice the memory: its lane has one place. */
export function exportHandler(services: ExportServices): JobHandler {
  const { db, clock, log } = services;
  return {
    async run(job, { signal, progress }) {
      const made = await getVideoExport(db, job.payload['exportId'] as string);
      try {
        const { path, measures } = await videoFileOfExport(services, made, { signal, onProgress: progress });
        if (measures) await noteVideoMeasures(db, made.id, measures);
        await noteChange(db, { brandId: made.brandId, kind: 'export', subjectId: made.id }, clock.machineNowMs());
        return { kind: 'done', result: { path } };
      } catch (error) {
        if (signal.aborted) throw error;
        log.error({ err: error, export: made.id }, 'a video could not be made');
        await noteChange(db, { brandId: made.brandId, kind: 'export', subjectId: made.id }, clock.machineNowMs());
        return videoProblem(error, job.attempt >= job.maxAttempts);
      }
    },
  };
}

/** The file of an export, made where it is not there. */
export async function videoFileOfExport(services: Pick<Services, 'db' | 'media' | 'render'>, made: VideoExport, { signal, onProgress }: Pick<VideoOptions, 'signal' | 'onProgress'>): Promise<VideoFile> {
  const snapshot = await readPin(services.db, made.pin);
  const { network } = await getChannel(services.db, made.channelId);
  const maxBytes = snapshot.sheets.find(({ key }) => key === network)?.files.maxVideoBytes ?? Infinity;
  const source = videoSourceOf(snapshot, network, made, services.media);
  const file = (format: VideoFormat): Promise<VideoFile> => makeVideoFile(services, source, { format, maxBytes, title: pieceName(snapshot.piece), signal, onProgress });
  return made.format === 'jpg' ? coverFile(services, snapshot, network, made, source, async () => (await file('mp4')).path) : file(made.format);
}
