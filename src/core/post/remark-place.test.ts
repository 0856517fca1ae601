import { describe, expect, it } from 'vitest';
import { remarkPlaceSchema } from './remark-place.ts';

const isFine = (place: unknown): boolean => remarkPlaceSchema.nullable().isValidSync(place, { strict: true });

describe('the place of a remark', () => {
  it.each([
    [null],
    [{ kind: 'spot', deliveryId: 'd', x: 0, y: 1 }],
    [{ kind: 'spot', deliveryId: 'd', slide: 3, x: 0.5, y: 0.5 }],
    [{ kind: 'moment', deliveryId: 'd', atMs: 0 }],
    [{ kind: 'field', deliveryId: 'd', field: 'caption' }],
  ])('may be %j', (place) => expect(isFine(place)).toBe(true));

  it.each([
    [{ kind: 'spot', deliveryId: 'd', x: 0.5 }],
    [{ kind: 'spot', deliveryId: 'd', x: 1.1, y: 0 }],
    [{ kind: 'spot', deliveryId: 'd', x: 0, y: 0, slide: -1 }],
    [{ kind: 'moment', deliveryId: 'd' }],
    [{ kind: 'moment', deliveryId: 'd', atMs: -1 }],
    [{ kind: 'field', deliveryId: 'd' }],
    [{ kind: 'page', deliveryId: 'd' }],
    [{ kind: 'spot', x: 0, y: 0 }],
    [{ kind: 'spot', deliveryId: 'd', x: 0, y: 0, more: 1 }],
  ])('may not be %j', (place) => expect(isFine(place)).toBe(false));
});
