import type { ReadTable } from './read-table.ts';
import { readDay, readTime, type DayOrder } from './read-day.ts';
import { completeAddress, isWebAddress } from '../../words/fields.ts';
import type { Mapping, RowCells, TableField } from './table-fields.ts';

/** Something that is wrong in a cell, with what would mend it. */
export interface CellFault {
  readonly field: TableField;
  readonly severity: 'stops' | 'warns';
  readonly sentence: string;
  /** What the cell would hold instead. */
  readonly fix: { readonly label: string; readonly value: string } | null;
}

/** What tables name, with what it means. */
export interface TableNames {
  readonly channels: readonly { readonly id: string; readonly network: string; readonly networkName: string; readonly name: string; readonly handle: string }[];
  readonly templates: readonly { readonly key: string; readonly name: string }[];
  readonly themes: readonly { readonly id: string; readonly name: string }[];
  /** Media by their names in small letters, with and without the ending. */
  readonly media: ReadonlyMap<string, string>;
}

export interface RowRules {
  /** The day and the time that the brand's clock shows, such as `2026-11-28T14:05`. */
  readonly now: string;
  readonly order: DayOrder | null;
  /** Where a row names no time. */
  readonly usualTime: string;
  /** Where a row names no channel. */
  readonly usualChannelIds: readonly string[];
}

/** A row as it is understood. */
export interface ReadRow {
  readonly cells: RowCells;
  readonly wall: string | null;
  readonly channelIds: readonly string[];
  readonly templateKey: string | null;
  readonly themeId: string | null;
  readonly picture: { readonly kind: 'media'; readonly id: string } | { readonly kind: 'address'; readonly address: string } | null;
  readonly points: readonly string[];
  readonly faults: readonly CellFault[];
}

const ALL = new Set(['all', 'alle', 'tous', 'todos', 'everywhere', 'überall']);
const MAX_TABLE_HEADLINE = 300;

/** The cells of a row by field. */
export function cellsOf(row: readonly string[], mapping: Mapping): RowCells {
  return Object.fromEntries(Object.entries(mapping).flatMap(([field, column]) => (row[column] ? [[field, row[column]]] : []))) as RowCells;
}

/** Reads a row: what it means, and what of it is wrong, cell by cell. */
export function readRow(cells: RowCells, names: TableNames, rules: RowRules): ReadRow {
  const faults: CellFault[] = [];
  const fault = (field: TableField, severity: CellFault['severity'], sentence: string, fix: CellFault['fix'] = null): void => void faults.push({ field, severity, sentence, fix });
  const wall = momentOf(cells, rules, fault);
  const channelIds = channelsOf(cells.channels, names, rules, fault);
  const templateKey = oneOf('template', cells.template, names.templates.map(({ key, name }) => ({ id: key, names: [key, name] })), fault);
  const themeId = oneOf('theme', cells.theme, names.themes.map(({ id, name }) => ({ id, names: [name] })), fault);
  const picture = pictureOf(cells.picture, names, fault);
  const points = (cells.points ?? '').split(/\n|\s\|\s|\|/u).map((point) => point.replace(/^\s*[-–•*]\s*/u, '').trim()).filter((point) => point !== '');
  if (cells.link !== undefined && !isWebAddress(cells.link)) {
    const whole = completeAddress(cells.link);
    if (isWebAddress(whole)) fault('link', 'warns', 'The address is incomplete.', { label: `Use ${whole}`, value: whole });
    else fault('link', 'stops', 'This is no web address.');
  }
  if ((cells.headline ?? '').length > MAX_TABLE_HEADLINE) fault('headline', 'stops', `A headline of ${cells.headline?.length ?? 0} characters fits on no picture. Put it into the caption.`);
  for (const field of ['headline', 'line', 'caption'] as const) {
    // A spreadsheet writes such a thing when a formula has failed.
    if (/^#(?:REF|NAME|VALUE|N\/A|DIV\/0|BEZUG|WERT|NV)[!?]?$/iu.test(cells[field] ?? '')) fault(field, 'stops', 'The spreadsheet had an error here. Mend it there, or write the text.');
  }
  if ([cells.headline, cells.caption, cells.points].every((cell) => (cell ?? '').trim() === '') && picture === null) fault('headline', 'stops', 'There is nothing to say or to show in this row.');
  return { cells, wall, channelIds, templateKey, themeId, picture, points, faults };
}

type Report = (field: TableField, severity: CellFault['severity'], sentence: string, fix?: CellFault['fix']) => void;

function momentOf({ date, time }: RowCells, { now, order, usualTime }: RowRules, fault: Report): string | null {
  const today = now.slice(0, 10);
  if (date === undefined) {
    if (time !== undefined) fault('date', 'warns', 'It has a time and no date: the piece is made, and not planned.');
    return null;
  }
  // Date and time in one cell, as exports write them.
  const [, day = date, rest] = /^(\d{4}-\d{2}-\d{2}|\d{1,2}[./-]\d{1,2}[./-]\d{2,4})[T ,]+(\d.*)$/u.exec(date) ?? [];
  const read = readDay(day, today, order);
  if (read.kind === 'none') fault('date', 'stops', `“${date}” is no date.`);
  if (read.kind === 'no-such-day') fault('date', 'stops', `There is no such day: ${date}.`);
  if (read.kind === 'ambiguous') fault('date', 'stops', `This is ${read.dayFirst} or ${read.monthFirst}: say for the whole table which number is the day.`);
  const timeText = time ?? rest?.replace(/(:\d{2}):\d{2}(?:\.\d+)?(?:z|[+-]\d{2}:?\d{2})?$/iu, '$1');
  const clock = timeText === undefined ? usualTime : readTime(timeText);
  if (clock === null) fault('time', 'stops', `There is no such time: “${timeText ?? ''}”.`);
  if (read.kind !== 'day' || clock === null) return null;
  const wall = `${read.day}T${clock}`;
  if (read.day < today) fault('date', 'stops', `${read.day} has passed.`);
  else if (wall <= now) fault('time', 'stops', `${clock} has passed on that day: it is ${now.slice(11)}.`);
  return wall;
}

const plain = (text: string): string => text.toLowerCase().replace(/^@/u, '').replaceAll(/[^\p{L}\p{N}]+/gu, '');

function channelsOf(cell: string | undefined, { channels }: TableNames, { usualChannelIds }: RowRules, fault: Report): readonly string[] {
  if (cell === undefined) return usualChannelIds;
  if (ALL.has(plain(cell))) return channels.map(({ id }) => id);
  const found = cell.split(/[,;\n]|\s[&+/]\s/u).map((part) => part.trim()).filter((part) => part !== '').flatMap((part): readonly string[] => {
    const key = plain(part);
    const exact = channels.filter(({ name, handle }) => plain(name) === key || plain(handle) === key);
    const [first, ...more] = exact.length > 0 ? exact : channels.filter(({ network, networkName }) => plain(networkName) === key || network === key);
    if (!first) {
      const begins = key.slice(0, 3);
      const near = channels.find(({ networkName }) => begins !== '' && plain(networkName).startsWith(begins))?.networkName ?? channels.find(({ name }) => key !== '' && plain(name).includes(key))?.name;
      fault('channels', 'stops', `There is no channel “${part}”.`, near === undefined ? null : { label: `Use ${near}`, value: cell.replace(part, () => near) });
      return [];
    }
    if (more.length > 0) fault('channels', 'warns', `“${part}” has ${more.length + 1} accounts; ${first.name} is taken.`);
    return [first.id];
  });
  return [...new Set(found)];
}

function oneOf(field: 'template' | 'theme', cell: string | undefined, options: readonly { readonly id: string; readonly names: readonly string[] }[], fault: Report): string | null {
  if (cell === undefined) return null;
  const found = options.find(({ names }) => names.some((name) => plain(name) === plain(cell))) ?? null;
  if (!found) {
    const near = options.find(({ names }) => names.some((name) => plain(name).startsWith(plain(cell).slice(0, 3))));
    fault(field, 'warns', `There is no ${field} “${cell}”${field === 'template' ? ': the usual one is taken' : ': it has none'}.`, near ? { label: `Use ${near.names.at(-1) ?? ''}`, value: near.names.at(-1) ?? '' } : null);
  }
  return found?.id ?? null;
}

function pictureOf(cell: string | undefined, { media }: TableNames, fault: Report): ReadRow['picture'] {
  if (cell === undefined) return null;
  if (/^https?:\/\//iu.test(cell)) return { kind: 'address', address: cell };
  const name = (cell.split(/[\\/]/u).at(-1) ?? cell).toLowerCase();
  const id = media.get(name) ?? media.get(name.replace(/\.[a-z0-9]{2,5}$/u, ''));
  if (id !== undefined) return { kind: 'media', id };
  fault('picture', 'stops', `No picture is called “${cell}”. Upload it, or choose another.`);
  return null;
}

/** The dates of a table that can be read in two ways; empty: none. */
export function ambiguousDates({ rows }: ReadTable, mapping: Mapping, today: string): readonly string[] {
  const column = mapping.date;
  return column === undefined ? [] : rows.map((row) => row[column] ?? '').filter((cell) => readDay(cell, today, null).kind === 'ambiguous');
}
