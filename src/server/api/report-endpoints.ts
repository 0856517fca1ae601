import * as contracts from '../../contract/report-contracts.ts';
import { nextReportMs } from '../../core/results/report-schedule.ts';
import type { Brand } from '../db/brand-repository.ts';
import type { Db } from '../db/connection.ts';
import { findReport, keepReport as keep, listReports as list, removeReport as remove, type StoredReport } from '../db/report-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import { gatherReport } from '../reports/gather-report.ts';
import { reportForms } from '../reports/report-forms.ts';
import { sendReport } from '../reports/send-reports.ts';
import { attachment } from './attachment.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';
import { noteActOf } from './note-act.ts';

const answerOf = ({ id, report, nextMs, lastSentMs, problem }: StoredReport) => ({ id, report, nextMs, lastSentMs, problem });

/** @throws ProblemError 404 */
async function found(db: Db, brand: Brand, id: string): Promise<StoredReport> {
  const report = await findReport(db, brand.id, id);
  if (!report) throw notFound('report');
  return report;
}

const listReports = defineEndpoint({ contract: contracts.listReports, may: 'see', handle: async ({ services, brand }) => ({ reports: (await list(services.db, brand.id)).map(answerOf) }) });

const keepReport = defineEndpoint({
  contract: contracts.keepReport,
  may: 'send',
  async handle(context) {
    const { services, brand, params, body, nowMs } = context;
    await keep(services.db, brand.id, params.report, body, body.schedule === null ? null : nextReportMs(body.schedule, nowMs, brand.zone));
    await noteActOf(context, 'settings', params.report, `Saved the report “${body.name}”${body.schedule === null ? '' : `, which goes to ${body.schedule.to.join(', ')} each ${body.schedule.every}`}`);
    return answerOf(await found(services.db, brand, params.report));
  },
});

const removeReport = defineEndpoint({
  contract: contracts.removeReport,
  may: 'send',
  async handle(context) {
    const { services, brand, params } = context;
    const { report } = await found(services.db, brand, params.report);
    await remove(services.db, brand.id, params.report);
    await noteActOf(context, 'settings', params.report, `Removed the report “${report.name}”`);
    return undefined;
  },
});

const getReportFile = defineEndpoint({
  contract: contracts.getReportFile,
  may: 'see',
  async handle({ services, brand, params, nowMs }) {
    const { report } = await found(services.db, brand, params.report);
    const data = await gatherReport(services, brand, report, nowMs);
    const { reportFile } = await import('../reports/report-files.ts');
    const bytes = await reportFile(services, brand, report, data, params.form);
    return new Response(new Uint8Array(bytes), { headers: { 'content-type': reportForms[params.form], 'content-disposition': attachment(`${brand.slug}-${data.until}.${params.form}`), 'cache-control': 'no-store', 'x-content-type-options': 'nosniff' } });
  },
});

const sendNow = defineEndpoint({
  contract: contracts.sendReportNow,
  may: 'send',
  async handle(context) {
    const { services, brand, params, nowMs } = context;
    const stored = await found(services.db, brand, params.report);
    if (stored.report.schedule === null) throw new ProblemError(409, 'nobody', 'This report goes to nobody. Say who gets it first.');
    await sendReport(services, stored, nowMs);
    const { problem } = await found(services.db, brand, params.report);
    if (problem !== null) throw new ProblemError(503, 'not-sent', problem);
    await noteActOf(context, 'settings', params.report, `Sent the report “${stored.report.name}”`);
    return { to: stored.report.schedule.to.length };
  },
});

export const reportEndpoints: readonly Endpoint[] = [listReports, keepReport, removeReport, getReportFile, sendNow];
