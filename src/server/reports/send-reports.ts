import { DateTime } from 'luxon';
import { nextReportMs } from '../../core/results/report-schedule.ts';
import { findBrandById } from '../db/brand-repository.ts';
import type { NewJob } from '../db/job-repository.ts';
import { claimDueReport, keepReportOutcome, type StoredReport } from '../db/report-repository.ts';
import type { JobHandler } from '../jobs/job-handler.ts';
import { sendLetter } from '../mail/mailer.ts';
import type { Services } from '../services.ts';
import { gatherReport } from './gather-report.ts';
import { reportForms } from './report-forms.ts';

const KIND = 'reports';
const EVERY_MS = 30_000;
const AGAIN_MS = 15 * 60_000;

export const reportsJob: NewJob = { key: KIND, kind: KIND, lane: 'learn', payload: {}, maxAttempts: 8 };

/** Sends reports at their moments; it comes round for ever. A report that cannot be sent says why, and is tried again. */
export function reportsHandler(services: Services): JobHandler {
  return {
    async run() {
      const nowMs = await services.clock.nowMs();
      for (let due = await claimDueReport(services.db, nowMs, AGAIN_MS); due; due = await claimDueReport(services.db, nowMs, AGAIN_MS)) await sendReport(services, due, nowMs);
      return { kind: 'again', afterMs: EVERY_MS };
    },
  };
}

/** Makes a report and sends it to everybody on its list. */
export async function sendReport(services: Services, { id, brandId, report }: StoredReport, nowMs: number): Promise<void> {
  const brand = await findBrandById(services.db, brandId);
  const { schedule } = report;
  if (!brand || !schedule) return;
  try {
    const data = await gatherReport(services, brand, report, nowMs);
    const name = `${brand.slug}-${data.until}`;
    const { reportFile } = await import('./report-files.ts');
    const attachments = [];
    for (const form of ['pdf', 'xlsx'] as const) attachments.push({ filename: `${name}.${form}`, content: await reportFile(services, brand, report, data, form), contentType: reportForms[form] });
    const text = `${report.name}\n${brand.name}, ${data.from} to ${data.until}\n\nPosts: ${data.overview.now.posts}. The PDF is to be read, the table has every figure.\n\nConfetti sends this each ${schedule.every}. Change or end it in Learn > Results > Reports.\n`;
    for (const to of schedule.to) await sendLetter(services.settings, { to, subject: `${report.name}: ${brand.name}, ${DateTime.fromISO(data.until).toFormat('d LLL yyyy')}`, text, attachments });
    await keepReportOutcome(services.db, id, { lastSentMs: nowMs, problem: null, nextMs: nextReportMs(schedule, nowMs, brand.zone) });
  } catch (error) {
    services.log.error({ err: error, report: id }, 'a report was not sent');
    await keepReportOutcome(services.db, id, { lastSentMs: null, problem: services.settings.smtp === null ? 'This installation sends no mail. Whoever runs it sets CONFETTI_SMTP.' : 'It could not be sent. It is tried again in a quarter of an hour.', nextMs: nowMs + AGAIN_MS });
  }
}
