import { fieldOf, type FieldKey } from '../../../core/words/fields.ts';
import type { SheetChannel, SheetRow } from './sheet/sheet-rows.ts';

interface Choice {
  readonly key: string;
  readonly name: string;
}

/** What can be chosen in a cell: what the network names, or what the account has. The shared row offers what any row does. */
export function choicesOf(field: FieldKey, channel: SheetChannel | null, rows: readonly SheetRow[]): readonly Choice[] {
  if (fieldOf(field).kind !== 'choice') return [];
  const asked = channel ? [channel] : rows.flatMap((row) => row.channel ?? []);
  const all = asked.flatMap(({ channel: account, sheet }): readonly Choice[] => {
    const rule = sheet.words.fields.find((each) => each.key === field);
    return rule?.options ?? (account.offers[field] ?? []).map((name) => ({ key: name, name }));
  });
  return [...new Map(all.map((choice) => [choice.key, choice])).values()];
}
