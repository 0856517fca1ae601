import { array, number, object, string } from 'yup';
import type { Report } from '../core/results/report.ts';
import { reportSchema } from '../core/results/report.ts';
import { brandParams } from './brand-params.ts';
import { contract, documentOf } from './contract.ts';
import { id } from './plan-fields.ts';

const reportParams = brandParams.shape({ report: id() });
const storedReport = object({ id: id(), report: documentOf<Report>('The report document'), nextMs: number().nullable().defined(), lastSentMs: number().nullable().defined(), problem: string().nullable().defined() });

export const listReports = contract({ method: 'GET', path: '/api/brands/{brand}/reports', summary: 'Saved reports, with when each goes out next', params: brandParams, answer: object({ reports: array(storedReport.required()).required() }) });

export const keepReport = contract({ method: 'POST', path: '/api/brands/{brand}/reports/{report}', summary: 'Save a report: its parts, its days, its paper, and when and to whom it goes out', params: reportParams, body: reportSchema, answer: storedReport });

export const removeReport = contract({ method: 'DELETE', path: '/api/brands/{brand}/reports/{report}', summary: 'Remove a report; it goes out no more', params: reportParams });

export const getReportFile = contract({ method: 'GET', path: '/api/brands/{brand}/reports/{report}/{form}', summary: 'A report as PDF, XLSX or CSV, with the figures of now', params: reportParams.shape({ form: string<'pdf' | 'xlsx' | 'csv'>().oneOf(['pdf', 'xlsx', 'csv']).required() }), answer: 'archive' });

export const sendReportNow = contract({ method: 'POST', path: '/api/brands/{brand}/reports/{report}/send', summary: 'Send a report to everybody on its list now', params: reportParams, body: object({}).noUnknown(), answer: object({ to: number().required() }) });
