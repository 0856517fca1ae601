/** Forms that a report can have, with their media types. */
export const reportForms = { pdf: 'application/pdf', xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', csv: 'text/csv; charset=utf-8' } as const;
export type ReportForm = keyof typeof reportForms;
