import * as chrono from 'chrono-node';
import { DateTime } from 'luxon';
import type { Language } from '../words/language.ts';

/** A word or phrase of a text that means a day. */
export interface DateWord {
  readonly text: string;
  readonly kind: 'past' | 'ended' | 'moves' | 'weekday';
  /** In a sentence, without its subject. */
  readonly problem: string;
}

const parsers: Readonly<Partial<Record<Language, { parse(text: string, reference: chrono.ParsingReference, options: chrono.ParsingOption): chrono.ParsedResult[] }>>> = { en: chrono.en.GB, de: chrono.de, fr: chrono.fr, pt: chrono.pt, es: chrono.es };
const MAX_TEXT = 5_000;
/** What stands before the last day of an offer. */
const UNTIL = /(?:until|till|through|ends|ending|bis|endet|jusqu[’']au|hasta|até)(?:\s+(?:on|the|zum|am|el|o|le))?\s*$/iu;
const DAY = 'ccc d LLL';

/**
 * Date words that disagree with the day on which a post goes out: days that are over by then, offers that have ended, words such as “tomorrow” and “this Saturday” that
 * mean another day by then, and weekdays that their date has not.
 * @param plannedMs when it goes out; null while nobody has said it, so that only days that are over today are found
 */
export function dateProblems(words: string, language: Language, zone: string, nowMs: number, plannedMs: number | null): readonly DateWord[] {
  const parser = parsers[language];
  if (!parser) return [];
  const plain = words.slice(0, MAX_TEXT).replace(/https?:\/\/\S+|[#@]\S+|\{[a-z0-9-]+\}/gu, (span) => ' '.repeat(span.length));
  const [now, out] = [DateTime.fromMillis(nowMs, { zone }), DateTime.fromMillis(plannedMs ?? nowMs, { zone })];
  const read = (at: DateTime): readonly chrono.ParsedResult[] => parser.parse(plain, { instant: at.toJSDate(), timezone: at.offset }, { forwardDate: true });
  const [asNow, asOut] = [read(now), read(out)];
  return asOut.flatMap((result, index): readonly DateWord[] => {
    const day = dayOf(result, zone);
    const isNear = /(?<!\p{L})(?:today|tonight|tomorrow|yesterday|heute|morgen|gestern|aujourd|demain|hoy|mañana|hoje|amanhã)/iu.test(result.text);
    const isDate = !isNear && result.start.isCertain('day') && result.start.isCertain('month');
    const isRelative = !isDate && (isNear || result.start.isCertain('weekday'));
    const text = result.text.replace(/^(?:on|am|le|el|em|no)\s/iu, '');
    if (isDate) {
      if (result.start.isCertain('weekday') && day.weekday % 7 !== result.start.get('weekday')) return [{ text, kind: 'weekday', problem: `is a ${day.setLocale('en-GB').toFormat('cccc')} in ${day.year}` }];
      const written = result.start.isCertain('year') ? day : pastOf(day, out);
      if (written >= out.startOf('day') || out.diff(written, 'days').days >= 200) return [];
      const goesOut = `when the post goes out on ${out.setLocale('en-GB').toFormat(DAY)}`;
      return UNTIL.test(plain.slice(0, result.index)) ? [{ text, kind: 'ended', problem: `has passed ${goesOut}: what holds until then has ended` }] : [{ text, kind: 'past', problem: `is over ${goesOut}` }];
    }
    const before = asNow[index];
    if (!isRelative || plannedMs === null || !before || before.text !== result.text) return [];
    const meant = dayOf(before, zone);
    return meant.hasSame(day, 'day') ? [] : [{ text, kind: 'moves', problem: `means ${meant.setLocale('en-GB').toFormat(DAY)} today, and ${day.setLocale('en-GB').toFormat(DAY)} when the post goes out on ${out.setLocale('en-GB').toFormat(DAY)}` }];
  });
}

function dayOf(result: chrono.ParsedResult, zone: string): DateTime {
  const part = (name: chrono.Component): number => result.start.get(name) ?? 1;
  return DateTime.fromObject({ year: part('year'), month: part('month'), day: part('day') }, { zone });
}

/** A date without a year is read as the coming one; one that was a short while ago is meant as that. */
function pastOf(day: DateTime, out: DateTime): DateTime {
  const earlier = day.minus({ years: 1 });
  return day.diff(out, 'days').days > 300 && out.diff(earlier, 'days').days < 60 ? earlier : day;
}
