import type { NetworkSheet } from './network-sheet.ts';

/** What a kind of account can do on its network. */
export type AccountKind = NonNullable<NetworkSheet['accounts']>[number];

const ANY: AccountKind = { key: '', name: 'Account', sends: 'automatic', placements: undefined, without: undefined };

/** The kind of an account; one that the sheet does not know counts as the usual one. */
export function accountKindOf(sheet: NetworkSheet, kind: string | undefined): AccountKind {
  return sheet.accounts?.find(({ key }) => key === kind) ?? sheet.accounts?.[0] ?? ANY;
}

/** Whether a person has to place posts there. */
export function isByHand(sheet: NetworkSheet, kind: string | undefined): boolean {
  return accountKindOf(sheet, kind).sends === 'by-hand';
}

const narrowed = new WeakMap<NetworkSheet, Map<string, NetworkSheet>>();

/** The sheet as it holds for an account of a kind: its placements and fields alone. The same sheet and kind answer the same value. */
export function sheetOfAccount(sheet: NetworkSheet, kind: string | undefined): NetworkSheet {
  const { key, placements, without } = accountKindOf(sheet, kind);
  if (placements === undefined && without === undefined) return sheet;
  const known = narrowed.get(sheet) ?? new Map<string, NetworkSheet>();
  narrowed.set(sheet, known);
  const before = known.get(key);
  if (before) return before;
  const made: NetworkSheet = {
    ...sheet,
    placements: sheet.placements.filter((placement) => placements?.includes(placement.key) ?? true),
    words: { ...sheet.words, fields: sheet.words.fields.filter((field) => !(without?.includes(field.key) ?? false)) },
  };
  known.set(key, made);
  return made;
}

/** What such an account can and cannot do, a line each, for people who choose. */
export function whatAccountCan(sheet: NetworkSheet, kind: string | undefined): { readonly can: readonly string[]; readonly cannot: readonly string[] } {
  const { sends } = accountKindOf(sheet, kind);
  const own = sheetOfAccount(sheet, kind);
  const lost = sheet.placements.filter((each) => !own.placements.includes(each)).map(({ name }) => name);
  const lostFields = sheet.words.fields.filter((each) => !own.words.fields.includes(each)).map(({ label }) => label.toLowerCase());
  return {
    can: [sends === 'automatic' ? 'Confetti posts by itself' : 'Confetti prepares each post; a person places it', own.placements.map(({ name }) => name).join(', ')],
    cannot: [...(sends === 'automatic' ? [] : ['Post by itself: the network lets no program in']), ...(lost.length > 0 ? [`No ${lost.join(', ')}`] : []), ...(lostFields.length > 0 ? [`No ${lostFields.join(', ')}`] : [])],
  };
}
