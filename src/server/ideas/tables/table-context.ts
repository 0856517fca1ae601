import { createHash } from 'node:crypto';
import { contentOfRow, templateOfRow } from '../../../core/ideas/table/row-content.ts';
import { draftFrames } from '../../../core/ideas/propose/draft.ts';
import { cellsOf, readRow, type ReadRow, type RowRules, type TableNames } from '../../../core/ideas/table/read-row.ts';
import type { RowCells } from '../../../core/ideas/table/table-fields.ts';
import { wallTimeOf } from '../../../core/time/wall-time.ts';
import type { Template } from '../../../core/template/template.ts';
import { listChannels, listSheetsOf, type Brand } from '../../db/brand-repository.ts';
import { findMediaNamed } from '../../db/media-repository.ts';
import { getPlan } from '../../db/plan-repository.ts';
import type { PostTable, TableRow } from '../../db/post-table-repository.ts';
import type { Services } from '../../services.ts';
import { templatesOf } from '../proposals.ts';

/** What rows of a table are read by, got once for many of them. */
export interface TableContext {
  readonly names: TableNames;
  readonly rules: RowRules;
  readonly templates: readonly Template[];
}

/** A row as it stands now, with what it would show. */
export interface StandingRow {
  readonly row: TableRow;
  readonly cells: RowCells;
  readonly read: ReadRow;
  readonly template: Template | null;
}

/** The cells of a row: as they came, with what a person wrote over them. An own cell that is empty has nothing. */
export function standingCells({ mapping }: Pick<PostTable, 'mapping'>, { raw, own }: Pick<TableRow, 'raw' | 'own'>): RowCells {
  return Object.fromEntries(Object.entries({ ...cellsOf(raw, mapping), ...own }).filter(([, cell]) => cell !== '')) as RowCells;
}

/** All that the given rows name, looked up. */
export async function tableContext(services: Pick<Services, 'db'>, brand: Brand, table: PostTable, rows: readonly Pick<TableRow, 'raw' | 'own'>[], nowMs: number): Promise<TableContext> {
  const { db } = services;
  const [channels, sheets, { plan }, templates] = await Promise.all([listChannels(db, brand.id), listSheetsOf(db, brand.id), getPlan(db, brand.id), templatesOf(services, brand)]);
  const networkNames = new Map(sheets.map(({ key, name }) => [key, name]));
  const wanted = new Set(rows.flatMap((row) => standingCells(table, row).picture ?? []).filter((cell) => !/^https?:/iu.test(cell)).map((cell) => cell.split(/[\\/]/u).at(-1) ?? cell));
  const open = channels.filter(({ state }) => state !== 'ended');
  return {
    names: {
      channels: open.map(({ id, network, name, handle }) => ({ id, network, networkName: networkNames.get(network) ?? network, name, handle })),
      templates: templates.map(({ key, name }) => ({ key, name })),
      themes: plan.themes.map(({ id, name }) => ({ id, name })),
      media: await findMediaNamed(db, brand.id, [...wanted]),
    },
    rules: { now: wallTimeOf(nowMs, brand.zone), order: table.settings.order, usualTime: table.settings.usualTime, usualChannelIds: table.settings.usualChannelIds.length > 0 ? table.settings.usualChannelIds : open.map(({ id }) => id) },
    templates,
  };
}

export function standingRow(table: PostTable, row: TableRow, { names, rules, templates }: TableContext): StandingRow {
  const cells = standingCells(table, row);
  const read = readRow(cells, names, rules);
  return { row, cells, read, template: templateOfRow(read, templates, table.settings.templateKey) };
}

/** What a row shows in its template, for painting; null where no template carries it. */
export function draftOf({ read, template }: StandingRow): { readonly template: string; readonly frames: ReturnType<typeof draftFrames> } | null {
  if (!template) return null;
  let count = 0;
  return { template: template.key, frames: draftFrames(template, contentOfRow(read), read.picture?.kind === 'media' ? [{ id: read.picture.id, altText: '' }] : [], () => `f${(count += 1)}`) };
}

/** Names what the piece of a row is made from: another text of the row is another name. */
export function madeFrom({ cells, read, template }: Pick<StandingRow, 'cells' | 'read' | 'template'>): string {
  const { date: _, time: __, ...shown } = cells;
  return createHash('sha256').update(JSON.stringify([Object.entries(shown).toSorted(([a], [b]) => (a < b ? -1 : 1)), read.channelIds, template?.key ?? ''])).digest('hex').slice(0, 24);
}
