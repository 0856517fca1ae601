import type { AnswerOf } from '../contract/contract.ts';
import type { getMe } from '../contract/account-contracts.ts';
import type { Caller } from './auth/caller.ts';
import { describeMe } from './auth/me.ts';
import { webServices } from './services.ts';

export type Me = AnswerOf<typeof getMe>;
export type MyBrand = Me['brands'][number];

/** What every page of a signed-in person starts from. */
export async function pageMe(caller: Caller): Promise<Me> {
  return describeMe(await webServices(), caller.person);
}

/** The brand that a page's address names, among the person's own; null where it is not one of them. */
export function brandOfPath(me: Me, pathname: string): MyBrand | null {
  const slug = /^\/b\/([^/]+)(?:\/|$)/.exec(pathname)?.[1];
  return me.brands.find((brand) => brand.slug === slug) ?? null;
}

/**
 * The person and the brand of a brand's page. The middleware lets nobody else come this far.
 * @throws Error when it did
 */
export function brandPage(locals: { readonly me: Me | null; readonly brand: MyBrand | null }): { readonly me: Me; readonly brand: MyBrand } {
  if (!locals.me || !locals.brand) throw new Error('A brand page was reached without a person or a brand');
  return { me: locals.me, brand: locals.brand };
}
