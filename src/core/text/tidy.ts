import { languages } from '../words/language.ts';

const NO_BREAK_SPACE = '\u00a0';

/** A number and its unit, which must not part at a line's end. */
const UNIT_NAMES = 'am|pm|a\\.m\\.|p\\.m\\.|uhr|h|min|s|km|m|cm|mm|km²|m²|cm²|m³|mi|ha|km/h|mph|kn|bft|kg|g|mg|lb|oz|l|dl|cl|ml|kWh|Wh|kW|GB|MB|px|%|‰|°|°C|°F|€|£|\\$|¥|zł|kr|ct|chf|eur|usd|gbp|x|×';
const UNITS = new RegExp(`(\\d)[ ](?=(?:${UNIT_NAMES})(?![\\p{L}\\p{N}]))`, 'giu');
/** `18 h 30`, and a sign or abbreviation with its number. */
const HOURS_AND_MINUTES = /(\d\u00a0h)[ ](?=\d\d(?!\d))/giu;
const NUMBERED = /(^|[\s(])(№|n°|nr\.|no\.|s\.|p\.|pp\.|§)[ ](?=\d)/giu;
/** Short names of months, but those that are other words as well. The browser's own list may differ from the server's. */
const SHORT_MONTHS = 'jan|feb|mar|apr|jun|jul|aug|sep|sept|oct|nov|dec|jän|mär|okt|dez|janv|févr|avr|juil|déc|ene|abr|dic|gen|giu|ott|mrt|fev|sty|kwi|cze|wrz|paź|gru';
/** A day and its month: `28 November`, `3. Oktober`, `12 Sept`. A long month in a narrow column is still narrower than most words. */
const DAY_AND_MONTH = new RegExp(`(^|[^\\p{L}\\p{N}])(\\d{1,2}(?:\\.|er|st|nd|rd|th|º)?)[ ](?=(?:${monthNames().join('|')}|${SHORT_MONTHS})(?![\\p{L}\\p{N}]))`, 'giu');
/** French puts a space before these signs; it must not break. */
const FRENCH_SIGNS = /[ ](?=[?!:;»](?:\s|$))/gu;
const AFTER_GUILLEMET = /«[ ]/gu;
/** A dot between two things closes a line and does not open one. */
const BEFORE_MIDDLE_DOT = /[ ](?=·[ ])/gu;

/** Sets what typing leaves out: no-break spaces inside numbers with units, dates and before French signs, and single spaces between words. */
export function tidyText(text: string): string {
  return text
    .replace(/[ \t]{2,}|\t/g, ' ')
    .replace(UNITS, `$1${NO_BREAK_SPACE}`)
    .replace(HOURS_AND_MINUTES, `$1${NO_BREAK_SPACE}`)
    .replace(NUMBERED, `$1$2${NO_BREAK_SPACE}`)
    .replace(DAY_AND_MONTH, `$1$2${NO_BREAK_SPACE}`)
    .replace(FRENCH_SIGNS, NO_BREAK_SPACE)
    .replace(BEFORE_MIDDLE_DOT, NO_BREAK_SPACE)
    .replace(AFTER_GUILLEMET, `«${NO_BREAK_SPACE}`);
}

/** The names of months as they stand beside a day, in all known languages; short ones differ from system to system. */
function monthNames(): readonly string[] {
  const names = languages.flatMap((language) => {
    const format = new Intl.DateTimeFormat(language, { day: 'numeric', month: 'long', timeZone: 'UTC' });
    return Array.from({ length: 12 }, (_, index) => format.formatToParts(Date.UTC(2026, index, 2)).find((part) => part.type === 'month')?.value ?? '');
  });
  return [...new Set(names.filter((name) => /^\p{L}+$/u.test(name)))].sort((a, b) => b.length - a.length);
}
