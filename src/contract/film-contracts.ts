import { array, number, object, string } from 'yup';
import type { FilmMeasures } from '../core/video/film-measures.ts';
import { filmExportStates, type FilmExportState } from '../core/post/film-export-state.ts';
import { brandParams } from './brand-params.ts';
import { contract, documentOrNull } from './contract.ts';

/** Played, moving without sound for a few seconds, and the cover. */
export const filmFormats = ['mp4', 'webm', 'webp', 'gif', 'jpg'] as const;
export type FilmFormatName = (typeof filmFormats)[number];

const pieceParams = brandParams.shape({ piece: string().max(40).required() });
const filmParams = pieceParams.shape({ film: string().max(40).required() });
const cutRef = object({ channelId: string().max(40).required(), placement: string().max(40).required() }).noUnknown();

const filmExport = object({
  id: string().required(),
  channelId: string().required(),
  placement: string().required(),
  format: string<FilmFormatName>().oneOf([...filmFormats]).required(),
  state: string<FilmExportState>().oneOf([...filmExportStates]).required(),
  share: number().required(),
  problem: string().nullable().defined(),
  createdMs: number().required(),
  /** Until it is made, by how long it has taken so far; null while that is not known. */
  leftMs: number().nullable().defined(),
  measures: documentOrNull<FilmMeasures>('Loudness, true peak and flashes, measured on what was made'),
});
const filmExports = object({ exports: array(filmExport.required()).required() });

export const startFilms = contract({
  method: 'POST',
  path: '/api/brands/{brand}/pieces/{piece}/films',
  summary: 'Make cuts of a video into files, as the piece is now; they are made one after the other',
  params: pieceParams,
  body: object({ cuts: array(cutRef.required()).min(1, 'Choose at least one cut').max(50).required(), format: string<FilmFormatName>().oneOf([...filmFormats]).required() }).noUnknown(),
  answer: filmExports,
  status: 201,
});

export const listFilms = contract({ method: 'GET', path: '/api/brands/{brand}/pieces/{piece}/films', summary: 'Files of a video that are made, being made or waiting, the newest first', params: pieceParams, answer: filmExports });

export const stopFilm = contract({ method: 'DELETE', path: '/api/brands/{brand}/pieces/{piece}/films/{film}', summary: 'Stop making a file of a video', params: filmParams });

export const getFilmFile = contract({ method: 'GET', path: '/api/brands/{brand}/pieces/{piece}/films/{film}/file', summary: 'The file of a video; answers byte ranges', params: filmParams, answer: 'picture' });
