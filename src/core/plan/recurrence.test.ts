import { describe, expect, it } from 'vitest';
import { endBefore, MAX_OCCURRENCES, occurrencesBetween, readRule, RecurrenceError, ruleInWords, seriesMeetsClockChange } from './recurrence.ts';

const NEW_YORK = 'America/New_York';
const START = '1997-09-02T09:00';
const walls = (rule: string, count: number, start = START, except: readonly string[] = []): readonly string[] =>
  occurrencesBetween({ rule, start, zone: NEW_YORK, except }, Date.parse('1997-01-01T00:00Z'), Date.parse('2010-01-01T00:00Z')).slice(0, count).map(({ key }) => key.slice(0, 10));

describe('the examples of RFC 5545, section 3.8.5.3', () => {
  it.each<[string, string, readonly string[], string?]>([
    ['daily for 10 occurrences', 'FREQ=DAILY;COUNT=10', ['1997-09-02', '1997-09-03', '1997-09-04', '1997-09-05', '1997-09-06', '1997-09-07', '1997-09-08', '1997-09-09', '1997-09-10', '1997-09-11']],
    ['every other day', 'FREQ=DAILY;INTERVAL=2', ['1997-09-02', '1997-09-04', '1997-09-06', '1997-09-08']],
    ['every 10 days, 5 occurrences', 'FREQ=DAILY;INTERVAL=10;COUNT=5', ['1997-09-02', '1997-09-12', '1997-09-22', '1997-10-02', '1997-10-12']],
    ['weekly for 10 occurrences', 'FREQ=WEEKLY;COUNT=10', ['1997-09-02', '1997-09-09', '1997-09-16', '1997-09-23', '1997-09-30', '1997-10-07', '1997-10-14', '1997-10-21', '1997-10-28', '1997-11-04']],
    ['every other week on Tuesday and Thursday, for 8', 'FREQ=WEEKLY;INTERVAL=2;COUNT=8;WKST=SU;BYDAY=TU,TH', ['1997-09-02', '1997-09-04', '1997-09-16', '1997-09-18', '1997-09-30', '1997-10-02', '1997-10-14', '1997-10-16']],
    ['monthly on the first Friday', 'FREQ=MONTHLY;COUNT=10;BYDAY=1FR', ['1997-09-05', '1997-10-03', '1997-11-07', '1997-12-05', '1998-01-02', '1998-02-06', '1998-03-06', '1998-04-03', '1998-05-01', '1998-06-05'], '1997-09-05T09:00'],
    ['every other month on the first and last Sunday', 'FREQ=MONTHLY;INTERVAL=2;COUNT=10;BYDAY=1SU,-1SU', ['1997-09-07', '1997-09-28', '1997-11-02', '1997-11-30', '1998-01-04', '1998-01-25', '1998-03-01', '1998-03-29', '1998-05-03', '1998-05-31'], '1997-09-07T09:00'],
    ['monthly on the second-to-last Monday', 'FREQ=MONTHLY;COUNT=6;BYDAY=-2MO', ['1997-09-22', '1997-10-20', '1997-11-17', '1997-12-22', '1998-01-19', '1998-02-16'], '1997-09-22T09:00'],
    ['the third-to-the-last day of the month', 'FREQ=MONTHLY;BYMONTHDAY=-3', ['1997-09-28', '1997-10-29', '1997-11-28', '1997-12-29', '1998-01-29', '1998-02-26'], '1997-09-28T09:00'],
    ['the first and last day of the month', 'FREQ=MONTHLY;COUNT=10;BYMONTHDAY=1,-1', ['1997-09-30', '1997-10-01', '1997-10-31', '1997-11-01', '1997-11-30', '1997-12-01', '1997-12-31', '1998-01-01', '1998-01-31', '1998-02-01'], '1997-09-30T09:00'],
    ['every Tuesday, every other month', 'FREQ=MONTHLY;INTERVAL=2;BYDAY=TU', ['1997-09-02', '1997-09-09', '1997-09-16', '1997-09-23', '1997-09-30', '1997-11-04']],
    ['yearly in June and July', 'FREQ=YEARLY;COUNT=10;BYMONTH=6,7', ['1997-06-10', '1997-07-10', '1998-06-10', '1998-07-10'], '1997-06-10T09:00'],
    ['Friday the 13th', 'FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13', ['1998-02-13', '1998-03-13', '1998-11-13', '1999-08-13', '2000-10-13']],
    ['the last weekday of the month', 'FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1', ['1997-09-30', '1997-10-31', '1997-11-28', '1997-12-31', '1998-01-30']],
    ['every four years, the first Tuesday after a Monday in November', 'FREQ=YEARLY;INTERVAL=4;BYMONTH=11;BYDAY=TU;BYMONTHDAY=2,3,4,5,6,7,8', ['1996-11-05', '2000-11-07', '2004-11-02'].slice(1), '1997-09-02T09:00'],
  ])('%s', (_, rule, expected, start) => {
    // The last one counts its years from its start.
    if (rule.includes('INTERVAL=4')) expect(walls(rule, 2, '1996-11-05T09:00')).toEqual(expected);
    else expect(walls(rule, expected.length, start)).toEqual(expected);
  });

  it('until a day in UTC, with the last one at that instant', () => {
    expect(walls('FREQ=DAILY;UNTIL=19971224T000000Z', 1_000).at(-1)).toBe('1997-12-23');
    expect(walls('FREQ=DAILY;UNTIL=19970905T130000Z', 10)).toEqual(['1997-09-02', '1997-09-03', '1997-09-04', '1997-09-05']);
  });
});

describe('a repeat of posts', () => {
  it('keeps its wall time over a change of clocks, and says where that is not possible', () => {
    const repeat = { rule: 'FREQ=DAILY', start: '2026-03-28T02:30', zone: 'Europe/Berlin', except: [] };
    const found = occurrencesBetween(repeat, Date.parse('2026-03-28T00:00Z'), Date.parse('2026-03-31T00:00Z'));
    expect(found.map(({ atMs, change }) => [new Date(atMs).toISOString().slice(5, 16), change])).toEqual([['03-28T01:30', 'none'], ['03-29T01:30', 'moved'], ['03-30T00:30', 'none']]);
    expect([seriesMeetsClockChange(repeat), seriesMeetsClockChange({ ...repeat, start: '2026-03-28T09:00' })]).toEqual([true, false]);
  });

  it('leaves out what is excepted, and ends before one of its occurrences', () => {
    expect(walls('FREQ=DAILY;COUNT=4', 9, START, ['1997-09-03T09:00'])).toEqual(['1997-09-02', '1997-09-04', '1997-09-05']);
    expect(walls(endBefore('FREQ=DAILY;COUNT=10', '1997-09-05T09:00'), 99)).toEqual(['1997-09-02', '1997-09-03', '1997-09-04']);
  });

  it('with 10,000 occurrences is followed as far as one looks, and no further', () => {
    const repeat = { rule: 'FREQ=DAILY;COUNT=10000', start: '2026-01-01T09:00', zone: NEW_YORK, except: [] };
    expect(occurrencesBetween(repeat, Date.parse('2026-01-01T00:00Z'), Date.parse('2026-01-15T00:00Z'))).toHaveLength(14);
    expect(occurrencesBetween(repeat, Date.parse('2026-01-01T00:00Z'), Date.parse('2060-01-01T00:00Z')).length).toBe(MAX_OCCURRENCES);
    expect(occurrencesBetween(repeat, 5, 5)).toEqual([]);
  });

  it.each(['FREQ=SECONDLY', 'FREQ=HOURLY;COUNT=3', 'COUNT=3', 'FREQ=DAILY;COUNT=3;UNTIL=20270101', 'FREQ=DAILY;COUNT=0', 'FREQ=DAILY;INTERVAL=0', 'FREQ=DAILY;BYEASTER=1', 'every friday', `FREQ=DAILY;BYMONTH=${'1,'.repeat(400)}1`])('is refused as %s', (rule) => {
    expect(() => readRule(rule, START)).toThrow(RecurrenceError);
  });

  it('reads as a sentence', () => expect(ruleInWords('FREQ=WEEKLY;INTERVAL=2;BYDAY=FR', START)).toBe('every 2 weeks on Friday'));
});
