import { lazy, number, object, string, type Schema } from 'yup';

/** What a person has chosen to stand for a video: a moment of it, a picture of the media, or one of its shots. */
export type Cover = { readonly kind: 'frame'; readonly atMs: number } | { readonly kind: 'picture'; readonly mediaId: string } | { readonly kind: 'shot'; readonly frameId: string };

const id = () => string().matches(/^[A-Za-z0-9_-]{1,40}$/, 'Not an id').required();
const schemas: Readonly<Record<Cover['kind'], Schema>> = {
  frame: object({ kind: string<'frame'>().oneOf(['frame']).required(), atMs: number().integer().min(0).max(24 * 3_600_000).required() }).noUnknown(),
  picture: object({ kind: string<'picture'>().oneOf(['picture']).required(), mediaId: id() }).noUnknown(),
  shot: object({ kind: string<'shot'>().oneOf(['shot']).required(), frameId: id() }).noUnknown(),
};

export const coverSchema = lazy((given: unknown) => {
  if (given === undefined) return object().default(undefined);
  const kind = typeof given === 'object' && given !== null && 'kind' in given ? String(given.kind) : '';
  return schemas[kind as Cover['kind']] ?? schemas.frame;
});
