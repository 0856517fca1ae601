import { setImmediate } from 'node:timers/promises';
import type { CellFault } from '../../../core/ideas/table/read-row.ts';
import type { TableField } from '../../../core/ideas/table/table-fields.ts';
import { placesOf, usualCut } from '../../../core/cut/places.ts';
import { resolveCuts } from '../../../core/cut/resolve-cuts.ts';
import { cutToCheck, type Finding } from '../../../core/preflight/finding.ts';
import { preflight } from '../../../core/preflight/preflight.ts';
import { mediaOfPiece, type Piece } from '../../../core/piece/piece.ts';
import type { Snapshot } from '../../../core/post/snapshot.ts';
import { resolveWallTime } from '../../../core/time/wall-time.ts';
import { findBrandById, listChannels, listSheetsOf, type Brand } from '../../db/brand-repository.ts';
import { findMediaByIds, type MediaItem } from '../../db/media-repository.ts';
import type { NewJob } from '../../db/job-repository.ts';
import { changeRow, countRows, findTable, pageRows, type PostTable, type TableRow } from '../../db/post-table-repository.ts';
import { noteChange } from '../../db/change-repository.ts';
import { ProblemError } from '../../errors.ts';
import type { JobHandler } from '../../jobs/job-handler.ts';
import { picturesOfSnapshot } from '../../pieces/make-snapshot.ts';
import { cutSourceOf } from '../../render/cut-source.ts';
import type { Services } from '../../services.ts';
import { pieceOfRows } from './row-piece.ts';
import { standingRow, tableContext, type StandingRow, type TableContext } from './table-context.ts';

const KIND = 'table-check';
/** Rows whose cuts are composed in one go: what they share travels to the thread once. */
const BATCH = 24;

export const checkJob = (tableId: string, brandId: string): NewJob => ({ key: `${KIND}:${tableId}`, kind: KIND, lane: 'ideas', payload: { tableId, brandId }, maxAttempts: 3 });

/** Checks all rows of a table as preflight would. */
export function checkTableHandler(services: Services): JobHandler {
  return {
    async run({ payload }, { progress, signal }) {
      const brand = await findBrandById(services.db, payload['brandId'] as string);
      const table = brand && (await findTable(services.db, brand.id, payload['tableId'] as string));
      if (!brand || !table) return { kind: 'done' };
      const nowMs = await services.clock.nowMs();
      const { rows: total } = await countRows(services.db, table.id);
      let done = 0;
      for (let page = await pageRows(services.db, table.id, { after: 0, limit: BATCH, only: null }); page.length > 0 && !signal.aborted; page = await pageRows(services.db, table.id, { after: page.at(-1)?.number ?? 0, limit: BATCH, only: null })) {
        await checkRows(services, brand, table, page, nowMs);
        done += page.length;
        progress(done / Math.max(1, total));
        await setImmediate();
      }
      await services.db.transaction((trx) => noteChange(trx, { brandId: brand.id, kind: 'table', subjectId: table.id }, services.clock.machineNowMs()));
      return { kind: 'done' };
    },
  };
}

/** Checks some rows and keeps what is wrong with them; answers them as they stand. */
export async function checkRows(services: Services, brand: Brand, table: PostTable, rows: readonly TableRow[], nowMs: number): Promise<readonly (StandingRow & { readonly faults: readonly CellFault[] })[]> {
  const context = await tableContext(services, brand, table, rows, nowMs);
  const standing = rows.map((row) => standingRow(table, row, context));
  const composed = await composedFaults(services, brand, standing.filter(({ read }) => read.faults.every(({ severity }) => severity !== 'stops')), context, nowMs);
  const checked = standing.map((each) => ({ ...each, faults: [...each.read.faults, ...(composed.get(each.row.number) ?? [])] }));
  await services.db.transaction(async (trx) => {
    for (const { row, faults } of checked) if (JSON.stringify(faults) !== JSON.stringify(row.faults)) await changeRow(trx, table.id, row, { faults });
  });
  return checked;
}

interface Composed {
  readonly number: number;
  readonly piece: Piece;
  readonly snapshot: Snapshot;
  readonly atMs: number;
}

/** What preflight says of the cuts of rows, by their numbers. One message to the thread carries all of them. */
async function composedFaults(services: Services, brand: Brand, rows: readonly StandingRow[], context: TableContext, nowMs: number): Promise<ReadonlyMap<number, readonly CellFault[]>> {
  const faults = new Map<number, readonly CellFault[]>();
  const [channels, sheets, media] = await Promise.all([listChannels(services.db, brand.id), listSheetsOf(services.db, brand.id), findMediaByIds(services.db, brand.id, [...new Set(rows.flatMap(({ read }) => (read.picture?.kind === 'media' ? [read.picture.id] : [])))])]);
  const marks = await picturesOfSnapshot(services, brand, []);
  const composed: Composed[] = [];
  for (const row of rows) {
    // A picture from an address is fetched when the piece is made; until then the row is checked without it.
    if (row.read.picture?.kind === 'address' || !row.template) {
      if (!row.template) faults.set(row.row.number, [{ field: 'headline', severity: 'stops', sentence: 'No template carries this row. Give it a headline, or a picture.', fix: null }]);
      continue;
    }
    const shown = row.read.picture;
    const item = shown ? media.find(({ id }) => id === shown.id) : undefined;
    try {
      const piece = await pieceOfRows(services, brand, context.templates, [row], item ? [{ id: item.id, altText: item.altText }] : []);
      const pictures = await picturesOfSnapshot(services, brand, item ? [item] : []);
      const snapshot: Snapshot = { piece, template: row.template, book: brand.book, sheets, pictures: [...pictures, ...marks.filter(({ id }) => !pictures.some((each) => each.id === id))] };
      composed.push({ number: row.row.number, piece, snapshot, atMs: momentOf(row, brand, nowMs) });
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      faults.set(row.row.number, [{ field: 'headline', severity: 'stops', sentence: error.sentence, fix: null }]);
    }
  }
  const cutsOf = ({ snapshot }: Composed) => placesOf(resolveCuts({ ...snapshot, channels }, snapshot.piece.cuts)).filter((place, index, all) => all.findIndex((other) => other.cuts[0].channel.id === place.cuts[0].channel.id) === index).map((place) => usualCut(place.cuts));
  const cuts = composed.map(cutsOf);
  const reports = await services.render.afterOthers(() => services.render.reports({ kind: 'report', sources: composed.flatMap(({ snapshot }, index) => (cuts[index] ?? []).map(({ channel, ref }) => cutSourceOf(snapshot, channel.network, ref, services.media))) }));
  let next = 0;
  composed.forEach((each, index) => {
    const own = (cuts[index] ?? []).map((cut) => {
      const report = reports[next];
      next += 1;
      return cutToCheck(cut, (_, at) => report?.[at]);
    });
    const items = media.filter(({ id }) => mediaOfPiece(each.piece).includes(id));
    const findings = preflight({ piece: each.piece, template: each.snapshot.template, book: brand.book, cuts: own.filter(({ slides }) => slides.length > 0), pictures: items.map(asChecked), atMs: each.atMs, zone: brand.zone });
    faults.set(each.number, [...(faults.get(each.number) ?? []), ...findings.map(asFault)]);
  });
  return faults;
}

const asChecked = ({ id, name, altText, widthPx, heightPx, recording, terms }: MediaItem) => ({ id, name, altText, widthPx, heightPx, recording, licence: terms.licence, licenceUntil: terms.licenceUntil });

function momentOf({ read }: StandingRow, brand: Brand, nowMs: number): number {
  if (read.wall === null) return nowMs;
  const resolved = resolveWallTime(read.wall, brand.zone);
  return resolved.kind === 'exact' ? resolved.atMs : resolved.kind === 'repeated' ? resolved.earlierMs : resolved.resumesAtMs;
}

/** The cell in which a finding can be mended. */
function asFault({ severity, sentence, view }: Finding): CellFault {
  const field: TableField = view === 'words' ? (/alt text/iu.test(sentence) ? 'altText' : /link/iu.test(sentence) ? 'link' : /hashtag/iu.test(sentence) ? 'hashtags' : 'caption') : view === 'media' || /picture|photo/iu.test(sentence) ? 'picture' : 'headline';
  return { field, severity: severity === 'stops' ? 'stops' : 'warns', sentence, fix: null };
}
