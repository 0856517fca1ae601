import type { Draft } from 'immer';
import type { Frame } from './piece.ts';

/** Shows the picture of a slot as it was taken, or as the brand's photographs look. A slot without a picture stays as it is. */
export function keepAsTaken({ slots }: Draft<Frame>, slot: string, isAsTaken: boolean): void {
  const value = slots[slot];
  if (value?.kind !== 'picture') return;
  if (isAsTaken) value.untreated = true;
  else delete value.untreated;
}
