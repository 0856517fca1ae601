import { cutShort } from '../../words/cut-short.ts';
import { templatesFor, type Content } from '../propose/draft.ts';
import type { Template } from '../../template/template.ts';
import type { ReadRow } from './read-row.ts';

const MAX_LEAD = 90;

/** What a row shows: its headline, else how its caption begins; its points where it has some. */
export function contentOfRow({ cells, points }: Pick<ReadRow, 'cells' | 'points'>): Content {
  const headline = (cells.headline ?? '').trim() || lead(cells.caption ?? '');
  const line = (cells.line ?? '').trim();
  if (points.length >= 2) return { form: 'list', roles: { headline }, points: points.map((point) => ({ heading: point, text: '' })) };
  return { form: 'announce', roles: { headline, ...(line === '' ? {} : { line }) }, points: [] };
}

/** How a caption begins, up to the end of its first sentence or a word. */
function lead(caption: string): string {
  const [first = ''] = caption.trim().split('\n');
  const sentence = /^.{1,90}?(?:[.!?…](?=\s|$)|[。！？])/u.exec(first)?.[0] ?? first;
  return cutShort(sentence.replace(/(?<=[^.])\.$/u, ''), MAX_LEAD);
}

/** The template of a row: the one that it names, else the first that carries its content. Null: none does. */
export function templateOfRow(row: Pick<ReadRow, 'templateKey' | 'cells' | 'points' | 'picture'>, templates: readonly Template[], usual: string | null): Template | null {
  const named = templates.find(({ key }) => key === (row.templateKey ?? usual));
  return named ?? templatesFor(contentOfRow(row), templates, ['graphic', 'carousel'], row.picture === null ? 0 : 1)[0] ?? null;
}
