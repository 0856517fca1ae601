import type { AnswerOf } from '../contract/contract.ts';
import type { getMe } from '../contract/account-contracts.ts';
import type { Caller } from './auth/caller.ts';
import { listMemberships } from './db/people-repository.ts';
import { webServices } from './services.ts';

type Me = AnswerOf<typeof getMe>;

/** What every page of a signed-in person starts from. */
export async function pageMe(caller: Caller): Promise<Me> {
  const { db, settings, clock } = await webServices();
  return { person: caller.person, brands: [...(await listMemberships(db, caller.person.id))], demo: settings.demo, nowMs: await clock.nowMs() };
}

/** The page's brand among the caller's own; null where it is not one of them. */
export function brandOf(me: Me, slug: string | undefined): Me['brands'][number] | null {
  return me.brands.find((brand) => brand.slug === slug) ?? null;
}
