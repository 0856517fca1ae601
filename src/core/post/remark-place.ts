import { number, object, string, type InferType } from 'yup';

interface RemarkedPlace {
  readonly kind: 'spot' | 'moment' | 'field';
  readonly x?: number | undefined;
  readonly y?: number | undefined;
  readonly atMs?: number | undefined;
  readonly field?: string | undefined;
}

/** What of a post a remark is about. */
export const remarkPlaceSchema = object({
  kind: string<'spot' | 'moment' | 'field'>().oneOf(['spot', 'moment', 'field']).required(),
  /** The cut, by its delivery. */
  deliveryId: string().max(40).required(),
  /** A slide of a carousel, from 0. */
  slide: number().integer().min(0).max(400),
  /** A spot as shares of the picture's width and height. */
  x: number().min(0).max(1),
  y: number().min(0).max(1),
  /** A moment of a video. */
  atMs: number().min(0).max(43_200_000),
  /** A field of the words, by its key. */
  field: string().max(40),
})
  .noUnknown()
  .test('whole', 'Say which spot, moment or field is meant', (place: RemarkedPlace | null | undefined) => {
    // A remark on the post as a whole has no place.
    if (!place) return true;
    switch (place.kind) {
      case 'spot':
        return place.x !== undefined && place.y !== undefined;
      case 'moment':
        return place.atMs !== undefined;
      case 'field':
        return place.field !== undefined;
    }
  });

export type RemarkPlace = InferType<typeof remarkPlaceSchema>;
