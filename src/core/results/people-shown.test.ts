import { describe, expect, it } from 'vitest';
import { showsPeople } from './people-shown.ts';

describe('whether a picture shows people', () => {
  it.each([
    ['A girl lets a red kite go above the dunes', true],
    ['Hände kneten Teig auf bemehltem Holz', true],
    ['Deux enfants courent sur la plage', true],
    ['Una mujer sostiene una cometa', true],
    ['Crianças na praia', true],
    ['A kite with a long tail above the sea', false],
    ['Handmade paper and a handle of beech', false],
  ])('reads it from %j', (altText, shown) => {
    expect(showsPeople(altText)).toBe(shown);
  });

  it('does not know where nobody described the picture', () => {
    expect(showsPeople('  ')).toBeNull();
  });
});
