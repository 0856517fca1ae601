import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { Typesetter } from '../text/typesetter.ts';
import { getShelfFont } from '../text/font-shelf.ts';
import { setReport, type ReportBlock } from './report-pages.ts';
import { nextReportMs } from './report-schedule.ts';
import { papers, reportSchema } from './report.ts';

const at = (text: string): number => Date.parse(text);

describe('nextReportMs', () => {
  it.each([
    ['week', 1, '09:00', '2026-03-04T12:00Z', '2026-03-09T09:00Z'],
    ['week', 3, '09:00', '2026-03-04T08:59Z', '2026-03-04T09:00Z'],
    ['week', 3, '09:00', '2026-03-04T09:00Z', '2026-03-11T09:00Z'],
    // The clocks go forward on 29 March: 09:00 is an hour earlier in UTC.
    ['week', 1, '09:00', '2026-03-24T12:00Z', '2026-03-30T08:00Z'],
    ['month', 31, '09:00', '2026-02-01T12:00Z', '2026-02-28T09:00Z'],
    ['month', 31, '09:00', '2026-02-28T09:30Z', '2026-03-31T08:00Z'],
    ['month', 1, '01:30', '2026-12-31T23:59Z', '2027-01-01T01:30Z'],
  ] as const)('each %s on %i at %s, after %s: %s', (every, day, time, after, next) => {
    expect(new Date(nextReportMs({ every, day, time }, at(after), 'Europe/London')).toISOString()).toBe(new Date(at(next)).toISOString());
  });
});

describe('reportSchema', () => {
  const report = { name: 'R', days: 28, paper: 'a4', parts: ['totals'], channels: [], themeId: null, schedule: null };
  it('takes a report, and refuses one without parts, with other paper, or that goes to no address', () => {
    expect(reportSchema.isValidSync(report, { strict: true })).toBe(true);
    for (const wrong of [{ parts: [] }, { paper: 'b5' }, { days: 0 }, { schedule: { every: 'week', day: 1, time: '9', to: ['a@b.example'] } }, { schedule: { every: 'week', day: 1, time: '09:00', to: ['nobody'] } }]) expect(reportSchema.isValidSync({ ...report, ...wrong }, { strict: true }), JSON.stringify(wrong)).toBe(false);
  });
});

describe('setReport', () => {
  const font = 'inter-500';
  const typesetter = new Typesetter();
  typesetter.add(font, readFileSync(`fonts/${getShelfFont(font).file}`));
  const look = { ground: '#ffffff', ink: '#111111', accent: '#aa0000', heading: [font], text: [font] };
  const set = (blocks: readonly ReportBlock[], paper: keyof typeof papers = 'a4') => setReport(blocks, papers[paper], look, typesetter, 'Foot');
  const textsOf = (page: ReturnType<typeof set>[number]): readonly string[] => page.texts.flatMap(({ lineTexts }) => lineTexts);

  it('goes on with a long table on the next page, under its head again, and loses no row', () => {
    const rows = Array.from({ length: 90 }, (_, index) => [`Account ${index}`, String(index)]);
    const pages = set([{ kind: 'table', head: ['Account', 'Posts'], rows }]);
    expect(pages.length).toBeGreaterThan(1);
    for (const page of pages) expect(textsOf(page)[0]).toBe('Account');
    expect(pages.flatMap(textsOf).filter((text) => text.startsWith('Account '))).toHaveLength(90);
  });

  it('keeps everything inside the page, and ends what is too wide with an ellipsis', () => {
    for (const paper of ['a4', 'wide'] as const) {
      const pages = set([{ kind: 'title', title: 'A very long name of a report that has to be broken into several lines to fit', line: 'x' }, { kind: 'table', head: ['Account', 'Posts'], rows: [['An account with an endless name '.repeat(9), '1']] }, { kind: 'bars', bars: [{ name: 'Posts on Sundays', value: '+20%', low: -0.1, middle: 0.2, high: 0.5 }] }], paper);
      for (const { texts } of pages) for (const { box } of texts) expect([box.xPx >= 0, box.xPx + box.widthPx <= papers[paper].widthPx, box.yPx + box.heightPx <= papers[paper].heightPx]).toEqual([true, true, true]);
      expect(pages.flatMap(textsOf).some((text) => text.endsWith('…'))).toBe(true);
    }
  });

  it('sets no heading at the foot of a page without what follows it', () => {
    const fill = Array.from({ length: 40 }, (_, index) => [`Row ${index}`, '1']);
    const picture = { pictureId: 'p', widthPx: 100, heightPx: 100, title: 'A post', line: '9%' };
    for (const rows of [fill.slice(0, 30), fill.slice(0, 36), fill]) {
      const pages = set([{ kind: 'table', head: ['Account', 'Posts'], rows }, { kind: 'heading', text: 'Best posts', about: '' }, { kind: 'pictures', pictures: [picture] }]);
      const page = pages.find((each) => textsOf(each).includes('Best posts'));
      expect(page && textsOf(page)).toContain('A post');
    }
  });

  it('breaks a line where days were not told', () => {
    const [page] = set([{ kind: 'line', points: [1, 2, null, 4, 5], labels: ['a', 'b'], low: '1', high: '5' }]);
    expect(page?.nodes.filter((node) => node.kind === 'fill' && node.colour === look.accent)).toHaveLength(2);
  });
});
