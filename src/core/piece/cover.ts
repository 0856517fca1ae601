import { number, object, string } from 'yup';
import { oneOfShapes, type Checked } from '../document/schema.ts';

const id = () => string().matches(/^[A-Za-z0-9_-]{1,40}$/, 'Not an id').required();

/** What a person has chosen to stand for a video: a moment of it, a picture of the media, or one of its shots. */
export const coverSchema = oneOfShapes('kind', {
  frame: object({ kind: string<'frame'>().oneOf(['frame']).required(), atMs: number().integer().min(0).max(24 * 3_600_000).required() }).noUnknown(),
  picture: object({ kind: string<'picture'>().oneOf(['picture']).required(), mediaId: id() }).noUnknown(),
  shot: object({ kind: string<'shot'>().oneOf(['shot']).required(), frameId: id() }).noUnknown(),
});

export type Cover = Checked<typeof coverSchema>;
