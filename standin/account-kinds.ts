/** A kind of account as its network knows it. */
export interface AccountKind {
  readonly key: string;
  readonly name: string;
  /** Whether programs may publish there at all, and at which of the network's places; missing: at all of them. */
  readonly publishes: boolean;
  readonly places?: readonly string[];
  /** What a program hears when it publishes where it may not. */
  readonly why?: string;
}

const business: AccountKind = { key: 'business', name: 'Business account', publishes: true };
const byPersonAlone = (name: string): AccountKind => ({ key: 'personal', name, publishes: false, why: 'Personal accounts are posted to by people alone.' });

/** The kinds of accounts that people may have on each network, the usual one first. */
export const accountKinds: Readonly<Record<string, readonly AccountKind[]>> = {
  petalry: [business, byPersonAlone('Personal profile')],
  hearthside: [{ key: 'business', name: 'Page', publishes: true }, { key: 'group', name: 'Group', publishes: true, places: ['page-wide', 'page-square', 'page-portrait'] }, byPersonAlone('Personal profile')],
  quipline: [business],
  guildrow: [{ key: 'business', name: 'Company page', publishes: true }],
  whirlo: [business],
  tackboard: [business],
  kerbside: [{ key: 'listing', name: 'Listing', publishes: true }],
  longhall: [{ key: 'business', name: 'Shelf', publishes: true }],
  openweb: [{ key: 'site', name: 'Website', publishes: true }],
};

export const usualKinds: Readonly<Record<string, string>> = Object.fromEntries(Object.entries(accountKinds).map(([network, kinds]) => [network, kinds[0]?.key ?? 'business']));

/** Why a program may not publish at a place of such an account; null when it may. */
export function kindRefusal(network: string, kind: string, placement: string): string | null {
  const rule = accountKinds[network]?.find(({ key }) => key === kind);
  if (!rule) return null;
  if (!rule.publishes) return rule.why ?? 'Programs may not post here.';
  return rule.places === undefined || rule.places.includes(placement) ? null : `A ${rule.name.toLowerCase()} has no place called '${placement}'.`;
}
