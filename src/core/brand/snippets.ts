import type { Snippet } from './brand-book.ts';

const FILL_IN = /\{([a-z][a-z0-9-]*)\}/g;
const BLANK = /\[([^[\]\n]{1,60})\]/gu;

/** Puts the texts of snippets in the place of `{key}`; what no snippet has as its key stays, for the facts. */
export function fillSnippets(text: string, snippets: readonly Snippet[]): string {
  if (snippets.length === 0) return text;
  return text.replace(FILL_IN, (written, key: string) => snippets.find((snippet) => snippet.key === key)?.text ?? written);
}

/** What a snippet asks for when it is put into a text: what stands in square brackets, each once. */
export function blanksOf(text: string): readonly string[] {
  return [...new Set([...text.matchAll(BLANK)].map((match) => match[1] ?? ''))];
}

/** A snippet's text with its blanks filled in; one without an answer stays to be seen. */
export function fillBlanks(text: string, answers: Readonly<Partial<Record<string, string>>>): string {
  return text.replace(BLANK, (written, blank: string) => answers[blank]?.trim() || written);
}
