/** Types of the text packages that ship none; only what is used here. */
declare module 'linebreak' {
  export default class LineBreaker {
    constructor(text: string);
    /** The next break opportunity (UAX 14) as a UTF-16 offset, or null behind the last. */
    nextBreak(): { readonly position: number; readonly required: boolean } | null;
  }
}

declare module 'bidi-js' {
  export interface EmbeddingLevels {
    readonly levels: Uint8Array;
    readonly paragraphs: readonly { readonly start: number; readonly end: number; readonly level: number }[];
  }
  export interface Bidi {
    getEmbeddingLevels(text: string, direction?: 'ltr' | 'rtl'): EmbeddingLevels;
  }
  export default function bidiFactory(): Bidi;
}

declare module 'hyphen/*/index.js' {
  const patterns: {
    /** The text with a soft hyphen at every place where a word may be parted. */
    hyphenateSync(text: string): string;
  };
  export default patterns;
}
