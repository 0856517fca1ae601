declare module 'snowball-stemmers' {
  export function newStemmer(language: string): { stem(word: string): string };
}

declare module 'stopword' {
  export const eng: readonly string[];
  export const deu: readonly string[];
  export const fra: readonly string[];
  export const spa: readonly string[];
  export const por: readonly string[];
}
