import type { getMe } from '../../contract/account-contracts.ts';
import type { AnswerOf } from '../../contract/contract.ts';
import { listMemberships, mayBeginBrands, type Person } from '../db/people-repository.ts';
import type { Services } from '../services.ts';

/** Whether somebody may begin a brand: whom the installation lets, and everybody in the demo. */
export async function personMayBeginBrands(services: Pick<Services, 'db' | 'settings'>, personId: string): Promise<boolean> {
  return services.settings.demo || (await mayBeginBrands(services.db, personId));
}

/** A person as pages and scripts see themselves. */
export async function describeMe(services: Pick<Services, 'db' | 'settings' | 'clock'>, { id, name, email }: Person): Promise<AnswerOf<typeof getMe>> {
  return {
    person: { id, name, email },
    brands: [...(await listMemberships(services.db, id))],
    mayBeginBrands: await personMayBeginBrands(services, id),
    demo: services.settings.demo,
    nowMs: await services.clock.nowMs(),
  };
}
