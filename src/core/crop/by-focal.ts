import type { FocalPoint, PictureFacts } from './picture-facts.ts';

/** Remembers what was found at a focal point of a picture for as long as its facts live: every keystroke asks again. */
export function byFocal<Found>(find: (facts: PictureFacts, focal: FocalPoint) => Found): (facts: PictureFacts, focal: FocalPoint) => Found {
  const found = new WeakMap<PictureFacts, Map<string, { readonly value: Found }>>();
  return (facts, focal) => {
    const known = found.get(facts) ?? new Map<string, { readonly value: Found }>();
    found.set(facts, known);
    const key = `${focal.x} ${focal.y}`;
    const kept = known.get(key) ?? { value: find(facts, focal) };
    known.set(key, kept);
    return kept.value;
  };
}
