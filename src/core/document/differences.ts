import { dequal as equal } from 'dequal/lite';
import { identityOf, type Path } from './merge.ts';

/** A place in which two documents differ; undefined where one of them has nothing there. */
export interface Difference {
  readonly path: Path;
  readonly before: unknown;
  readonly after: unknown;
}

/** Where two documents differ, as deep in them as it can be said, in the order of the second; what only the first has comes last. */
export function differencesOf(before: unknown, after: unknown, path: Path = []): readonly Difference[] {
  if (before === after || equal(before, after)) return [];
  const entries = [before, after].map(namedEntries);
  const [old, now] = entries;
  if (!old || !now || kindOf(before) !== kindOf(after)) return [{ path, before, after }];
  const names = [...new Set([...now.keys(), ...old.keys()])];
  const within = names.flatMap((name) => differencesOf(old.get(name), now.get(name), [...path, name]));
  // Only the order of entries differs.
  return within.length > 0 ? within : [{ path, before, after }];
}

function kindOf(value: unknown): unknown {
  return (value as { readonly kind?: unknown }).kind;
}

/** The entries of an object by key, or those of a list by identity; null for everything else. */
function namedEntries(value: unknown): ReadonlyMap<string, unknown> | null {
  if (Array.isArray(value)) {
    const named = value.map((entry) => [`#${identityOf(entry) ?? ''}`, entry] as const);
    return named.some(([name]) => name === '#') ? null : new Map(named);
  }
  return typeof value === 'object' && value !== null ? new Map(Object.entries(value)) : null;
}
