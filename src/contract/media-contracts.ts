import { array, boolean, number, object, string } from 'yup';
import type { Recording } from '../core/video/recording.ts';
import { jobStates, type JobState } from '../core/job/job-state.ts';
import type { PictureFacts } from '../core/crop/picture-facts.ts';
import { brandParams, pageQuery } from './brand-params.ts';
import { contract, documentOf, documentOrNull } from './contract.ts';

/** Largest upload, in bytes: a 24-megapixel photo straight from a camera fits well. */
export const MAX_UPLOAD_BYTES = 50 * 1024 * 1024;
/** Largest upload of a clip or sound, in bytes. */
export const MAX_RECORDING_BYTES = 500 * 1024 * 1024;
/** Largest picture, in pixels: what decodes in reasonable memory. */
export const MAX_PICTURE_PIXELS = 120_000_000;

/** Moments at which the subject of a clip is known. */
/** Places of a clip's subject that a person may set. */
export const MAX_SUBJECT_POINTS = 200;

const share = () => number().min(0).max(1).required();

export const mediaItemSchema = object({
  id: string().required(),
  name: string().required(),
  widthPx: number().required(),
  heightPx: number().required(),
  bytes: number().required(),
  mime: string().required(),
  altText: string().defined(),
  credit: string().defined(),
  licence: string().defined(),
  licenceUntil: string().nullable().defined(),
  tags: array(string().required()).required(),
  sourceAddress: string().nullable().defined(),
  archived: boolean().required(),
  focal: object({ x: share(), y: share() }).required(),
  focalBy: string<'proposal' | 'person'>().oneOf(['proposal', 'person']).required(),
  facts: documentOf<PictureFacts>('Luminance and saliency grid'),
  /** A clip or sound: its length, and where it is black, still, silent or changes the scene; null for a picture. */
  recording: documentOrNull<Recording>('What is known of a clip or sound'),
  revision: number().required(),
  createdMs: number().required(),
});

/** What lists say of an item: all but the grids that layout needs, which come with the item itself. */
export const mediaSummarySchema = mediaItemSchema.omit(['facts', 'recording']).shape({
  recording: object({ kind: string<Recording['kind']>().oneOf(['clip', 'sound']).required(), durationMs: number().required(), hasSound: boolean().required() }).nullable().defined(),
});

const mediaParams = brandParams.shape({ media: string().max(40).required() });

export const listMedia = contract({
  method: 'GET',
  path: '/api/brands/{brand}/media',
  summary: 'Pictures of the brand, newest first; `words` searches names, alt texts, tags and credits',
  params: brandParams,
  query: pageQuery.shape({ words: string().max(100), tag: string().max(40), archived: string<'only'>().oneOf(['only']), kind: string<'seen' | 'sound'>().oneOf(['seen', 'sound']) }),
  answer: object({ items: array(mediaSummarySchema.required()).required(), next: string().nullable().defined() }),
});

export const listMediaDetails = contract({
  method: 'GET',
  path: '/api/brands/{brand}/media-details',
  summary: 'Items with all that layout needs to know of them: by their ids, separated by commas, or the latest that can be seen',
  params: brandParams,
  query: object({ ids: string().max(2_000), latest: number().integer().min(1).max(60) }),
  answer: object({ items: array(mediaItemSchema.required()).required() }),
});

export const listMediaTags = contract({
  method: 'GET',
  path: '/api/brands/{brand}/media-tags',
  summary: 'Tags of the brand’s pictures, the most used first',
  params: brandParams,
  answer: object({ tags: array(object({ tag: string().required(), count: number().required() }).required()).required() }),
});

export const uploadMedia = contract({
  method: 'POST',
  path: '/api/brands/{brand}/media',
  summary: 'Import a picture, a clip or a sound; the body is the file. It is answered when it is imported',
  params: brandParams,
  query: object({ name: string().max(200).required() }),
  body: 'bytes',
  answer: mediaItemSchema,
  status: 201,
});

export const getMedia = contract({ method: 'GET', path: '/api/brands/{brand}/media/{media}', summary: 'One picture', params: mediaParams, answer: mediaItemSchema });

export const changeMedia = contract({
  method: 'PATCH',
  path: '/api/brands/{brand}/media/{media}',
  summary: 'Move the focal point or, of a clip, the moments at which its subject is known (null goes back to the proposal), change what is known of a picture, archive or restore it',
  params: mediaParams,
  body: object({
    revision: number().integer().required(),
    focal: object({ x: share(), y: share() }).noUnknown().nullable().default(undefined).optional(),
    subject: array(object({ atMs: number().integer().min(0).required(), x: share(), y: share() }).noUnknown().required()).max(MAX_SUBJECT_POINTS).nullable(),
    name: string().trim().min(1, 'A picture needs a name').max(200),
    altText: string().max(1000, 'Alt text holds 1000 characters'),
    credit: string().max(200),
    licence: string().max(200),
    licenceUntil: string().matches(/^\d{4}-\d{2}-\d{2}$/, 'A day is written YYYY-MM-DD').nullable(),
    tags: array(string().trim().min(1).max(40).required()).max(30),
    archived: boolean(),
  }).noUnknown(),
  answer: mediaItemSchema,
});

export const deleteMedia = contract({
  method: 'DELETE',
  path: '/api/brands/{brand}/media/{media}',
  summary: 'Delete a picture that nothing uses; one in use is answered 409 and can be archived instead',
  params: mediaParams,
});

export const getMediaUses = contract({
  method: 'GET',
  path: '/api/brands/{brand}/media/{media}/uses',
  summary: 'Pieces that show the picture, and how many posts keep it',
  params: mediaParams,
  answer: object({
    /** The last changed of them. */
    pieces: array(object({ id: string().required(), name: string().required() }).required()).required(),
    pieceCount: number().required(),
    scheduled: number().required(),
    sent: number().required(),
    inBook: boolean().required(),
  }),
});

export const replaceMediaFile = contract({
  method: 'POST',
  path: '/api/brands/{brand}/media/{media}/file',
  summary: 'Put another file in the picture’s place; pieces follow, scheduled posts keep what they had. The body is the file',
  params: mediaParams,
  query: object({ revision: number().integer().required(), name: string().max(200).required() }),
  body: 'bytes',
  answer: mediaItemSchema,
});

export const fetchMedia = contract({
  method: 'POST',
  path: '/api/brands/{brand}/media/by-address',
  summary: 'Import the picture, clip or sound at a public web address',
  params: brandParams,
  body: object({ address: string().trim().required('Say where the picture is').max(2000) }).noUnknown(),
  answer: mediaItemSchema,
  status: 201,
});

export const mediaFromPost = contract({
  method: 'POST',
  path: '/api/brands/{brand}/media/from-post',
  summary: 'Import what a post showed, at full size',
  params: brandParams,
  body: object({ delivery: string().max(40).required() }).noUnknown(),
  answer: mediaItemSchema,
  status: 201,
});

const libraryPicture = object({ id: string().required(), title: string().required(), credit: string().required(), licence: string().required(), widthPx: number().required(), heightPx: number().required() });

export const searchLibrary = contract({
  method: 'GET',
  path: '/api/brands/{brand}/library',
  summary: 'Search the picture library',
  params: brandParams,
  query: object({ words: string().max(100) }),
  answer: object({ items: array(libraryPicture.required()).required() }),
});

export const getLibraryPreview = contract({
  method: 'GET',
  path: '/api/brands/{brand}/library/{picture}/preview',
  summary: 'A small picture from the library',
  params: brandParams.shape({ picture: string().matches(/^[a-z0-9-]{1,60}$/).required() }),
  answer: 'picture',
});

export const takeFromLibrary = contract({
  method: 'POST',
  path: '/api/brands/{brand}/library/{picture}',
  summary: 'Import a picture from the library, with its credit and licence',
  params: brandParams.shape({ picture: string().matches(/^[a-z0-9-]{1,60}$/).required() }),
  answer: mediaItemSchema,
  status: 201,
});

const uploadParams = brandParams.shape({ upload: string().max(40).required() });
const uploadState = object({
  id: string().required(),
  received: number().required(),
  /** What it has become; null until it is imported. */
  item: mediaItemSchema.nullable().defined(),
  /** The import, from when all bytes are here; null before. */
  work: object({ state: string<JobState>().oneOf([...jobStates]).required(), progress: number().required(), problem: string().nullable().defined() }).nullable().defined(),
});

export const startUpload = contract({
  method: 'POST',
  path: '/api/brands/{brand}/uploads',
  summary: 'Announce a file that comes in parts, so that it can resume after a break',
  params: brandParams,
  body: object({ name: string().trim().required().max(200), bytes: number().integer().min(1, 'The file is empty.').max(MAX_RECORDING_BYTES, `The file is larger than ${MAX_RECORDING_BYTES / 1024 / 1024} MB. Export it smaller and import it again.`).required() }).noUnknown(),
  answer: uploadState,
  status: 201,
});

export const getUpload = contract({ method: 'GET', path: '/api/brands/{brand}/uploads/{upload}', summary: 'How much of a file has arrived, and how far its import is', params: uploadParams, answer: uploadState });

export const sendUploadPart = contract({
  method: 'POST',
  path: '/api/brands/{brand}/uploads/{upload}',
  summary: 'The bytes of a file from `at` on; with the last ones the import begins',
  params: uploadParams,
  query: object({ at: number().integer().min(0).required() }),
  body: 'bytes',
  answer: uploadState,
});

export const retryUpload = contract({ method: 'POST', path: '/api/brands/{brand}/uploads/{upload}/retry', summary: 'Import a file again whose import has failed; it need not be uploaded again', params: uploadParams, answer: uploadState });

export const dropUpload = contract({ method: 'DELETE', path: '/api/brands/{brand}/uploads/{upload}', summary: 'Cancel an upload and its import', params: uploadParams });

export const getMediaFile = contract({
  method: 'GET',
  path: '/api/brands/{brand}/media/{media}/file',
  summary: 'The picture as WebP, no wider or higher than one of the offered sizes',
  params: mediaParams,
  query: object({ fit: number().oneOf([240, 640, 1280, 2048]).required(), of: number().integer() }),
  answer: 'picture',
});

export const getRecordingFile = contract({
  method: 'GET',
  path: '/api/brands/{brand}/media/{media}/recording',
  summary: 'A clip (MP4, H.264 and AAC, 30 frames a second, small enough to scrub in) or sound to play; answers byte ranges',
  params: mediaParams,
  query: object({ of: number().integer() }),
  answer: 'picture',
});

/** Frames of a clip's strip. */
export const CLIP_STRIP_FRAMES = 12;

export const getClipStrip = contract({
  method: 'GET',
  path: '/api/brands/{brand}/media/{media}/strip',
  summary: `${CLIP_STRIP_FRAMES} frames of a clip side by side as JPEG, evenly spread over its length`,
  params: mediaParams,
  query: object({ of: number().integer() }),
  answer: 'picture',
});

/** Values a second of a wave form. */
export const WAVE_PEAKS_A_SECOND = 25;

export const getSoundWave = contract({
  method: 'GET',
  path: '/api/brands/{brand}/media/{media}/wave',
  summary: `How loud a clip or sound is, ${WAVE_PEAKS_A_SECOND} values a second in [0, 1]`,
  params: mediaParams,
  answer: object({ peaks: array(number().required()).required() }),
});
