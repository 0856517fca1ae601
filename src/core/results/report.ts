import { array, number, object, string, type InferType } from 'yup';

/** Parts that a report can have, in the order in which they stand. */
export const reportParts = ['totals', 'followers', 'accounts', 'best', 'works', 'replies', 'links'] as const;
export type ReportPart = (typeof reportParts)[number];
export const reportPartNames: Readonly<Record<ReportPart, string>> = { totals: 'Totals', followers: 'Followers', accounts: 'Accounts', best: 'Best posts', works: 'What works', replies: 'Replies', links: 'Links' };

/** Sheets of paper that a report is set on, in pixels of 96 to the inch: A4 upright, or 16:9 for a screen. */
export const papers = { a4: { widthPx: 794, heightPx: 1123 }, wide: { widthPx: 1280, heightPx: 720 } } as const;
export type Paper = keyof typeof papers;

/** When a report goes out by itself, on the brand's clock. */
export const scheduleSchema = object({
  every: string<'week' | 'month'>().oneOf(['week', 'month']).required(),
  /** Of a week: 1 is Monday. Of a month: the day, at most its last. */
  day: number().integer().min(1).max(31).required(),
  time: string().matches(/^([01]\d|2[0-3]):[0-5]\d$/, 'A time is written like 09:30').required(),
  to: array(string().email('One of the addresses is no mail address').max(200).required()).min(1, 'Say who gets it').max(20).required(),
}).noUnknown();

/** A saved set of views of the results. */
export const reportSchema = object({
  name: string().trim().min(1, 'Give the report a name').max(80).required(),
  /** Days until the day before it is made. */
  days: number().integer().min(1).max(366).required(),
  paper: string<Paper>().oneOf(Object.keys(papers) as Paper[]).required(),
  parts: array(string<ReportPart>().oneOf([...reportParts]).required()).min(1, 'Choose at least one part').max(reportParts.length).required(),
  /** Ids of channels; empty: all. */
  channels: array(string().max(40).required()).max(400).required(),
  themeId: string().max(60).nullable().defined(),
  schedule: scheduleSchema.nullable().defined(),
}).noUnknown();

export type Report = InferType<typeof reportSchema>;
export type ReportSchedule = InferType<typeof scheduleSchema>;
