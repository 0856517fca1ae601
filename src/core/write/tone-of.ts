import type { Tone } from './patterns/pattern.ts';

/** Words by which brands say how they sound. */
const signs: Readonly<Record<Tone, readonly string[]>> = {
  bright: ['bright', 'cheerful', 'playful', 'lively', 'bold', 'funny', 'witty', 'salty', 'loud', 'fresh', 'young', 'energetic', 'joyful', 'cheeky', 'frech', 'lebendig', 'fröhlich'],
  warm: ['warm', 'friendly', 'kind', 'close', 'homely', 'welcoming', 'neighbourly', 'personal', 'herzlich', 'freundlich', 'nah'],
  calm: ['calm', 'quiet', 'low', 'unhurried', 'soft', 'gentle', 'slow', 'still', 'ruhig', 'leise', 'sanft'],
  formal: ['formal', 'serious', 'official', 'sober', 'professional', 'corporate', 'precise', 'sachlich', 'förmlich'],
  plain: ['plain', 'simple', 'clear', 'direct', 'honest', 'dry', 'matter-of-fact', 'klar', 'schlicht', 'direkt'],
};

/** The tones of a brand, the one that its words say most of first; plain and warm where they say nothing. */
export function tonesOf(tone: string): readonly [Tone, ...Tone[]] {
  const words = tone.toLowerCase().match(/[\p{L}-]+/gu) ?? [];
  const counted = (Object.keys(signs) as Tone[]).map((key) => ({ key, first: words.findIndex((word) => signs[key].includes(word)) })).filter(({ first }) => first !== -1);
  const [first, ...others] = counted.toSorted((a, b) => a.first - b.first).map(({ key }) => key);
  return first === undefined ? ['plain', 'warm'] : [first, ...others, ...(['plain', 'warm'] as const).filter((key) => key !== first && !others.includes(key))];
}
