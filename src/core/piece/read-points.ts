import { cutShort } from '../words/cut-short.ts';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { toString as textOf } from 'mdast-util-to-string';
import type { List, RootContent } from 'mdast';
import Papa from 'papaparse';

/** One point of a list: a few words, and a sentence or two about them. */
export interface Point {
  readonly heading: string;
  readonly text: string;
}

/** What was found in a text: what it is about, and its points. */
export interface ReadPoints {
  readonly title: string;
  readonly points: readonly Point[];
  /** What was done to it, in sentences. */
  readonly notes: readonly string[];
}

/** A heading longer than this is a sentence, and its first words lead. */
const MAX_HEADING = 60;
/** A text longer than this is split over two slides. */
const MAX_TEXT = 220;
/** Two points as short as this go on one slide, where there are more than slides can carry. */
const SHORT_POINT = 28;
const MAX_POINTS = 90;
const MAX_COLUMNS = 12;
/** Most signs of a text that a note repeats. */
const MAX_QUOTED = 160;

/** Finds the points of a pasted text: a list, Markdown, a table (CSV) or an article. */
export function readPoints(given: string): ReadPoints {
  const text = given.replace(/\r\n?/g, '\n').replace(/^\uFEFF/, '').trim();
  if (text === '') return { title: '', points: [], notes: ['There is no text to read.'] };
  return settle(readTable(text) ?? readPipes(text) ?? readMarkdown(text));
}

const PIPE_ROW = /^\|.*\|$/u;
const PIPE_RULE = /^[|\-: ]+$/u;

/** A table drawn with pipes, as in Markdown. */
function readPipes(text: string): ReadPoints | null {
  const lines = text.split('\n').map((line) => line.trim()).filter((line) => line !== '');
  if (lines.length < 2 || !lines.every((line) => PIPE_ROW.test(line))) return null;
  return pointsOfTable(lines.filter((line) => !PIPE_RULE.test(line)).map((line) => line.slice(1, -1).split('|').map((cell) => cell.trim())));
}

/** A table has the same number of cells in every row: the first cell leads, the others say more. */
function readTable(text: string): ReadPoints | null {
  const [first = ''] = text.split('\n');
  if (!/[,;\t]/.test(first) || /^\s*(?:[-*•–#]|\d{1,3}[.)])\s/.test(first)) return null;
  const { data, meta } = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy' });
  return meta.delimiter === '' ? null : pointsOfTable(data);
}

function pointsOfTable(data: readonly (readonly string[])[]): ReadPoints | null {
  const width = data[0]?.length ?? 0;
  const even = data.filter((row) => row.length === width).length;
  if (width < 2 || data.length < 2 || even < data.length * 0.8) return null;
  const isHead = data[0]?.every((cell) => cell.trim() !== '' && cell.length <= 30 && !/\d/.test(cell)) ?? false;
  const rows = isHead && data.length > 2 ? data.slice(1) : data;
  const names = isHead && rows !== data ? (data[0] ?? []) : [];
  const points = rows.map((row): Point => ({
    heading: (row[0] ?? '').trim(),
    text: row
      .slice(1, MAX_COLUMNS)
      .map((cell, index) => ({ cell: cell.trim(), name: names[index + 1]?.trim() ?? '' }))
      .filter(({ cell }) => cell !== '')
      .map(({ cell, name }) => (width > 2 && name !== '' ? `${name}: ${cell}` : cell))
      .join(width > 2 ? ', ' : ' '),
  }));
  return { title: '', points, notes: width > MAX_COLUMNS ? [`The table has ${width} columns; the first ${MAX_COLUMNS} are used.`] : [] };
}

const ITEM = /^(?:[-*+]|\d{1,3}[.)])[ \t]+/;

/** People indent by any number of spaces or tabs; Markdown by as many as the item's number is wide. What stands under an item becomes part of it. */
function indentUnderItems(text: string): string {
  let offset = 0;
  return text
    .split('\n')
    .map((line) => {
      const item = ITEM.exec(line);
      if (item) offset = item[0].length;
      else if (/^\S/.test(line)) offset = 0;
      return offset > 0 && /^[ \t]+\S/.test(line) ? ' '.repeat(offset) + line.trimStart() : line;
    })
    .join('\n');
}

/** What a block says. What Markdown takes for the target of a link is a line like any other here. */
function textOfBlock(node: RootContent, source: string): string {
  return plain(node.type === 'definition' ? source.slice(node.position?.start.offset, node.position?.end.offset) : textOf(node));
}

/** Says which texts find no place on any slide. */
function leftOut(texts: readonly string[], where: string): readonly string[] {
  const said = texts.filter((each) => each !== '').join(' ');
  if (said === '') return [];
  return [`Left out, as it stands ${where}: “${cutShort(said, MAX_QUOTED)}”`];
}

/** Lists by their items, sections by their headings, an article by its paragraphs. */
function readMarkdown(text: string): ReadPoints {
  const source = indentUnderItems(text.replaceAll(/^([ \t]*)[•–][ \t]+/gm, '$1- '));
  const { children } = fromMarkdown(source);
  const firstHeading = children.find((node) => node.type === 'heading');
  const list = children.find((node): node is List => node.type === 'list' && node.children.length > 1);
  const sections = sectionsOf(children, source);
  if (list) {
    const before = children.slice(0, children.indexOf(list));
    const intro = before.find((node) => node.type === 'heading') ?? before.at(-1);
    const points = children.filter((node): node is List => node.type === 'list').flatMap(({ children: items }) => items.map(pointOfItem));
    const outside = children.filter((node) => node !== intro && node.type !== 'list').map((node) => textOfBlock(node, source));
    return { title: intro ? textOfBlock(intro, source).replace(/:$/, '') : '', points, notes: leftOut(outside, 'outside the list') };
  }
  if (sections.length > 1) {
    const isTitle = firstHeading?.type === 'heading' && sections[0]?.depth === 1 && sections.filter(({ depth }) => depth === 1).length === 1;
    const [lead, ...rest] = sections;
    const before = children.slice(0, children.findIndex((node) => node.type === 'heading')).map((node) => textOfBlock(node, source));
    const outside = isTitle && lead ? [...before, lead.text] : before;
    return { title: isTitle ? (lead?.heading ?? '') : '', points: isTitle ? rest : sections, notes: leftOut(outside, 'before the first section') };
  }
  const paragraphs = children.filter((node) => node !== firstHeading).map((node) => textOfBlock(node, source)).filter((each) => each !== '');
  const title = firstHeading ? plain(textOf(firstHeading)) : '';
  const lines = paragraphs.length === 1 && text.includes('\n') ? text.split('\n').map((line) => plain(line)) : paragraphs;
  const leads = title === '' && lines.length > 2 && (lines[0]?.length ?? 0) <= MAX_HEADING && !/[.!?]$/.test(lines[0] ?? '');
  return { title: leads ? (lines[0] ?? '') : title, points: (leads ? lines.slice(1) : lines).map(pointOfSentence), notes: [] };
}

function sectionsOf(children: readonly RootContent[], source: string): readonly (Point & { readonly depth: number })[] {
  const sections: { heading: string; text: string; depth: number }[] = [];
  for (const node of children) {
    if (node.type === 'heading') sections.push({ heading: textOfBlock(node, source), text: '', depth: node.depth });
    else {
      const last = sections.at(-1);
      if (last) last.text = `${last.text} ${textOfBlock(node, source)}`.trim();
    }
  }
  return sections;
}

/** An item's first line, or its bold beginning, leads; the lines and bullets under it say more. */
function pointOfItem({ children }: List['children'][number]): Point {
  const [first, ...rest] = children;
  if (first?.type !== 'paragraph') return pointOfSentence(plain(first ? textOf(first) : ''));
  const [line = '', ...under] = textOf(first).split('\n').map(plain);
  const more = joined([...under, ...rest.flatMap(linesOf)]);
  const [lead, ...others] = first.children;
  if (lead?.type === 'strong' && others.length > 0) {
    return { heading: plain(textOf(lead)).replace(/[:.]$/, ''), text: joined([plain(others.map((node) => textOf(node)).join('')).replace(/^[:.–-]\s*/, ''), ...rest.flatMap(linesOf)]) };
  }
  const split = pointOfSentence(line);
  return { heading: split.heading.replace(/[:–—-]$/, '').trim(), text: joined([split.text, more]) };
}

/** The lines of a block: a list's are its items. */
function linesOf(node: RootContent): readonly string[] {
  return node.type === 'list' ? node.children.map((item) => plain(textOf(item))) : [plain(textOf(node))];
}

/** Lines as one text: short ones one after the other, with a comma where none ends them. */
function joined(lines: readonly string[]): string {
  return lines.filter((line) => line !== '').reduce((text, line) => (text === '' ? line : /[.!?:;,]$/.test(text) ? `${text} ${line}` : `${text}, ${line}`), '');
}

/** A line's words before a colon or dash lead; a short line leads alone; of a long one the first sentence does. */
function pointOfSentence(line: string): Point {
  const parted = /^(.{2,60}?)(?:: | [–—] )(.+)$/u.exec(line);
  if (parted) return { heading: parted[1] ?? '', text: parted[2] ?? '' };
  if (line.length <= MAX_HEADING) return { heading: line.replace(/\.$/, ''), text: '' };
  const sentence = /^(.{4,60}?(?:[.!?] |[。！？]))(.+)$/u.exec(line);
  if (sentence) return { heading: (sentence[1] ?? '').trim().replace(/[.。]$/u, ''), text: sentence[2] ?? '' };
  return { heading: cutShort(line, MAX_HEADING), text: line };
}

function plain(text: string): string {
  return text.replace(/\s+/g, ' ').trim();
}

/** Empty points go, long ones are split, and more than slides can carry are merged or kept back. */
function settle({ title, points, notes }: ReadPoints): ReadPoints {
  const said = [...notes];
  const filled = points.filter(({ heading, text }) => heading !== '' || text !== '');
  if (filled.length < points.length) said.push(`${points.length - filled.length} empty ${points.length - filled.length === 1 ? 'point was' : 'points were'} left out.`);
  const split = filled.flatMap(splitLong);
  if (split.length > filled.length) said.push(`${split.length - filled.length} long ${split.length - filled.length === 1 ? 'point goes' : 'points go'} on over a second slide.`);
  const merged = split.length > MAX_POINTS ? mergeShort(split) : split;
  if (merged.length < split.length) said.push('Short points stand together in pairs, as there are so many.');
  if (merged.length > MAX_POINTS) said.push(`${merged.length} points are more than one carousel can carry: the first ${MAX_POINTS} are used. Make another one of the rest.`);
  return { title, points: merged.slice(0, MAX_POINTS), notes: said };
}

/** Splits a text that is too long at the end of a sentence; the rest gets a slide under the same heading. */
function splitLong({ heading, text }: Point): readonly Point[] {
  if (text.length <= MAX_TEXT) return [{ heading, text }];
  const sentences = text.split(/(?<=[.!?]["”’)]{0,3})\s+|(?<=[。！？])/u).filter((sentence) => sentence !== '');
  const parts: string[] = [];
  for (const sentence of sentences) {
    const last = parts.at(-1);
    if (last !== undefined && last.length + sentence.trim().length + 1 <= MAX_TEXT) parts[parts.length - 1] = `${last} ${sentence.trim()}`;
    else parts.push(sentence.trim());
  }
  return parts.map((part, index) => ({ heading: index === 0 ? heading : `${heading}, continued`, text: part }));
}

function mergeShort(points: readonly Point[]): readonly Point[] {
  const merged: Point[] = [];
  for (const point of points) {
    const last = merged.at(-1);
    const isShort = (each: Point): boolean => each.text === '' && each.heading.length <= SHORT_POINT;
    if (last && isShort(last) && isShort(point)) merged[merged.length - 1] = { heading: last.heading, text: point.heading };
    else merged.push(point);
  }
  return merged;
}
