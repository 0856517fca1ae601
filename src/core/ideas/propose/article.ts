import { fromMarkdown } from 'mdast-util-from-markdown';
import { toString as textOf } from 'mdast-util-to-string';
import type { Language } from '../../words/language.ts';
import { sentencesOf } from '../../words/sentences.ts';

/** A sentence of an article, with where it stands. */
export interface ArticleSentence {
  readonly text: string;
  /** Among all sentences of the article, counted from 1. */
  readonly number: number;
  /** Among the sections, from 0. */
  readonly section: number;
}

export interface ArticleSection {
  /** Empty: what stands before the first heading. */
  readonly heading: string;
  readonly sentences: readonly ArticleSentence[];
  /** The items of a list that stands in it, as they are written. */
  readonly items: readonly string[];
}

/** An article as the desk reads it: its title, and its sections with their sentences. */
export interface Article {
  readonly title: string;
  readonly sections: readonly ArticleSection[];
}

/** What an article may hold; the rest is left aside. */
const MAX_SENTENCES = 400;
const MAX_SECTIONS = 60;
const MAX_HEADING = 120;

/** Reads Markdown or plain text as an article. A line of its own without an end mark, with text below it, is a heading. */
export function articleOf(text: string, language: Language): Article {
  const sections: { heading: string; paragraphs: string[]; items: string[] }[] = [{ heading: '', paragraphs: [], items: [] }];
  let title = '';
  const begin = (heading: string): void => void sections.push({ heading, paragraphs: [], items: [] });
  for (const node of fromMarkdown(withHeadings(text)).children) {
    const last = sections.at(-1);
    if (!last) break;
    const words = plain(textOf(node));
    if (node.type === 'heading') {
      if (title === '' && sections.length === 1 && last.paragraphs.length === 0 && last.items.length === 0) title = words;
      else begin(words);
    } else if (node.type === 'list') last.items.push(...node.children.map((item) => plain(textOf(item))).filter((item) => item !== ''));
    else if (node.type === 'paragraph' || node.type === 'blockquote') last.paragraphs.push(words);
  }
  let number = 0;
  const read = sections.filter(({ paragraphs, items, heading }) => paragraphs.length + items.length > 0 || heading !== '').slice(0, MAX_SECTIONS).map(({ heading, paragraphs, items }, section): ArticleSection => ({
    heading,
    items,
    sentences: [...paragraphs, ...items].flatMap((paragraph) => sentencesOf(paragraph, language)).slice(0, Math.max(0, MAX_SENTENCES - number)).map((sentence) => ({ text: sentence.text, number: (number += 1), section })),
  }));
  return { title, sections: read };
}

/** A short line of its own before a paragraph is a heading, where no line is marked as one. */
function withHeadings(text: string): string {
  const clean = text.replace(/\r\n?/gu, '\n').replace(/^\uFEFF/u, '').replaceAll(/^([ \t]*)[•–][ \t]+/gmu, '$1- ').split('\n').flatMap(apart).join('\n');
  if (/^#{1,6} /mu.test(clean)) return clean;
  const lines = clean.split('\n');
  const isHeading = (index: number): boolean => {
    const line = (lines[index] ?? '').trim();
    const next = lines.slice(index + 1).find((each) => each.trim() !== '')?.trim() ?? '';
    return line !== '' && line.length <= MAX_HEADING && !/[.!?…:;,]["”“»’)]?$/u.test(line) && !/^[-*•–\d]/u.test(line) && next.length > line.length && (lines[index - 1] ?? '').trim() === '';
  };
  return lines.map((line, index) => (isHeading(index) ? `${index === lines.findIndex((each) => each.trim() !== '') ? '#' : '##'} ${line.trim()}\n` : line)).join('\n');
}

const ITEM = /^[ \t]*(?:[-*+]|\d{1,3}[.)])[ \t]/u;

/** A line right below a list that is no item and not indented is a paragraph of its own, as people mean it. */
function apart(line: string, index: number, lines: readonly string[]): readonly string[] {
  const before = lines[index - 1] ?? '';
  return ITEM.test(before) && !ITEM.test(line) && /^\S/u.test(line) ? ['', line] : [line];
}

const plain = (text: string): string => text.replace(/\s+/gu, ' ').trim();

/** All sentences of an article in their order. */
export function sentencesOfArticle({ sections }: Article): readonly ArticleSentence[] {
  return sections.flatMap(({ sentences }) => sentences);
}
