import { COMPARED_HOURS, nextMeasureMs } from '../../core/results/collection.ts';
import { engagementOf, type Figures } from '../../core/results/measures.ts';
import { valueAtAge, type Measurement } from '../../core/results/series.ts';
import { POSTS_AT_ONCE, type ResultsReader } from '../connectors/results-reader.ts';
import { agedMetrics, keepMeasured, leaveUnmeasured, listDueToMeasure, listMeasurements, stopMeasuring, type AgedFigures, type Measured, type Publication } from '../db/publication-repository.ts';
import type { Services } from '../services.ts';
import { describePublication } from './describe-publication.ts';

const HOUR_MS = 3_600_000;
/** Requests that one round makes to a network for one channel: the rest comes with the next. */
const MAX_REQUESTS = 40;

/** Measures what is due on a channel, in batches; answers how many posts it measured. Throws what the network's reader throws. */
export async function collectFigures(services: Pick<Services, 'db' | 'media' | 'clock'>, channelId: string, reader: ResultsReader, nowMs: number, signal: AbortSignal): Promise<number> {
  const { db, clock } = services;
  let total = 0;
  for (let request = 0; request < MAX_REQUESTS; request += 1) {
    const due = await listDueToMeasure(db, channelId, nowMs, POSTS_AT_ONCE);
    if (due.length === 0) break;
    const answered = new Map((await reader.figures(due.map(({ remoteId }) => remoteId), signal)).map((each) => [each.remoteId, each]));
    const reached = due.filter((publication) => COMPARED_HOURS.some((hours) => publication.aged[hours] === undefined && nowMs - publication.publishedMs >= hours * HOUR_MS));
    const series = await listMeasurements(db, reached.map(({ id }) => id), agedMetrics);
    const measured: Measured[] = [];
    for (const publication of due) {
      const found = answered.get(publication.remoteId);
      if (!found) {
        await stopMeasuring(db, publication.id, nowMs);
        continue;
      }
      await describePublication(services, publication);
      const aged = reached.includes(publication) ? agedFigures(publication, series.get(publication.id) ?? new Map(), found.figures, found.counted, nowMs) : publication.aged;
      measured.push({ publication, atMs: nowMs, figures: found.figures, counted: found.counted, nextMs: nextMeasureMs(publication.publishedMs, nowMs), aged });
    }
    await keepMeasured(db, measured, clock.machineNowMs());
    total += measured.length;
    if (due.length < POSTS_AT_ONCE) break;
  }
  return total;
}

/** Describes what went out to a network that tells no figures, once: it stands in the lists with a dash. */
export async function describeUnmeasured(services: Pick<Services, 'db' | 'media'>, channelId: string, nowMs: number): Promise<void> {
  const due = await listDueToMeasure(services.db, channelId, nowMs, POSTS_AT_ONCE);
  for (const publication of due) await describePublication(services, publication);
  await leaveUnmeasured(services.db, due.map(({ id }) => id));
}

/** What a post had at the ages at which posts are compared, as far as it has reached them, with the figures of now as the last point. */
function agedFigures(publication: Publication, known: ReadonlyMap<string, readonly Measurement[]>, figures: Figures, counted: Readonly<Record<string, number>>, nowMs: number): Publication['aged'] {
  const aged: Partial<Record<(typeof COMPARED_HOURS)[number], AgedFigures>> = { ...publication.aged };
  for (const hours of COMPARED_HOURS) {
    if (aged[hours] !== undefined || nowMs - publication.publishedMs < hours * HOUR_MS) continue;
    const at = (metric: string): number | null => {
      const now = figures[metric];
      if (now === undefined) return null;
      return valueAtAge([...(known.get(metric) ?? []).filter(({ atMs }) => atMs < nowMs), { atMs: nowMs, value: now, counted: counted[metric] ?? 1 }], publication.publishedMs, hours * HOUR_MS);
    };
    const values = Object.fromEntries(agedMetrics.flatMap((metric) => (at(metric) === null ? [] : [[metric, at(metric) ?? 0]])));
    const engagement = engagementOf(values);
    const [reach, impressions] = [values['reach'] ?? null, values['impressions'] ?? null];
    if (engagement !== null && (reach !== null || impressions !== null)) aged[hours] = { engagement, reach, impressions };
  }
  return aged;
}
