/** How a text sounds. */
export const tones = ['plain', 'warm', 'bright', 'calm', 'formal'] as const;
export type Tone = (typeof tones)[number];

/** A sentence with places to fill: `{thing}` takes what the post is about, `{the thing}` the same with the article that it needs within a sentence, `{fact}` one of the brand's facts by its key. It claims nothing by itself. */
export interface Pattern {
  readonly text: string;
  readonly tone: Tone;
  /** It asks. */
  readonly asks?: true;
}

/** Patterns of one tone, a line each; a line that ends with a question mark asks. */
export function patternsIn(tone: Tone, lines: string): readonly Pattern[] {
  return lines
    .trim()
    .split('\n')
    .map((line) => line.trim())
    .map((text): Pattern => (text.endsWith('?') ? { text, tone, asks: true } : { text, tone }));
}
