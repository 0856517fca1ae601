import { array, number, object, string } from 'yup';
import type { VideoMeasures } from '../core/video/video-measures.ts';
import { jobStates, type JobState } from '../core/job/job-state.ts';
import { brandParams } from './brand-params.ts';
import { contract, documentOrNull } from './contract.ts';

/** Played, moving without sound for a few seconds, and the cover. */
export const videoFormats = ['mp4', 'webm', 'webp', 'gif', 'jpg'] as const;
export type VideoFormatName = (typeof videoFormats)[number];

const pieceParams = brandParams.shape({ piece: string().max(40).required() });
const videoExportParams = pieceParams.shape({ export: string().max(40).required() });
const cutRef = object({ channelId: string().max(40).required(), placement: string().max(40).required() }).noUnknown();

const videoExport = object({
  id: string().required(),
  channelId: string().required(),
  placement: string().required(),
  format: string<VideoFormatName>().oneOf([...videoFormats]).required(),
  state: string<JobState>().oneOf([...jobStates]).required(),
  share: number().required(),
  problem: string().nullable().defined(),
  createdMs: number().required(),
  /** Until it is made, by how long it has taken so far; null while that is not known. */
  leftMs: number().nullable().defined(),
  measures: documentOrNull<VideoMeasures>('Loudness, true peak and flashes, measured on what was made'),
});
const videoExports = object({ exports: array(videoExport.required()).required() });

export const startVideoExports = contract({
  method: 'POST',
  path: '/api/brands/{brand}/pieces/{piece}/video-exports',
  summary: 'Make cuts of a video into files, as the piece is now; they are made one after the other',
  params: pieceParams,
  body: object({ cuts: array(cutRef.required()).min(1, 'Choose at least one cut').max(50).required(), format: string<VideoFormatName>().oneOf([...videoFormats]).required() }).noUnknown(),
  answer: videoExports,
  status: 201,
});

export const listVideoExports = contract({ method: 'GET', path: '/api/brands/{brand}/pieces/{piece}/video-exports', summary: 'Files of a video that are made, being made or waiting, the newest first', params: pieceParams, answer: videoExports });

export const cancelVideoExport = contract({ method: 'DELETE', path: '/api/brands/{brand}/pieces/{piece}/video-exports/{export}', summary: 'Cancel making a file of a video', params: videoExportParams });

export const getVideoFile = contract({ method: 'GET', path: '/api/brands/{brand}/pieces/{piece}/video-exports/{export}/file', summary: 'The file of a video; answers byte ranges', params: videoExportParams, answer: 'picture' });
