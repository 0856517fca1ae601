import type { Language } from './language.ts';

/** A Monday: the days after it are those of a week. */
const MONDAY_MS = Date.UTC(2024, 0, 1);
const DAY_MS = 86_400_000;

const namesOf = new Map<Language, readonly string[]>();

/** The seven weekdays from Monday on, as a list begins its lines with them: `Montag`, `Lundi`. */
export function weekdayNames(language: Language | undefined): readonly string[] {
  const wanted = language ?? 'en';
  const names = namesOf.get(wanted) ?? formatNames(wanted);
  namesOf.set(wanted, names);
  return names;
}

/** What formats a date takes long to make. */
function formatNames(known: Language): readonly string[] {
  const format = new Intl.DateTimeFormat(known, { weekday: 'long', timeZone: 'UTC' });
  return Array.from({ length: 7 }, (_, day) => {
    const name = format.format(MONDAY_MS + day * DAY_MS);
    return name.charAt(0).toLocaleUpperCase(known) + name.slice(1);
  });
}
