import { DateTime } from 'luxon';

/**
 * The moments of a month in a zone: from its first to that of the next, which is no longer part of it.
 * @param month `YYYY-MM`
 * @throws RangeError when there is no such month or zone
 */
export function monthRange(month: string, zone: string): { readonly fromMs: number; readonly toMs: number } {
  const first = DateTime.fromISO(`${month}-01`, { zone });
  if (!first.isValid) throw new RangeError(`'${month}' in zone '${zone}' is no month`);
  return { fromMs: first.startOf('month').toMillis(), toMs: first.plus({ months: 1 }).startOf('month').toMillis() };
}
