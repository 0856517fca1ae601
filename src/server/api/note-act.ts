import { noteAct, type ActKind } from '../db/act-repository.ts';
import type { Brand } from '../db/brand-repository.ts';
import type { Services } from '../services.ts';
import type { Caller } from '../auth/caller.ts';

interface Acting {
  readonly services: Pick<Services, 'db'>;
  readonly brand: Pick<Brand, 'id'>;
  readonly caller: Pick<Caller, 'person'>;
  readonly nowMs: number;
}

/** Writes down what the caller of an endpoint has done, after it is done. */
export async function noteActOf({ services, brand, caller, nowMs }: Acting, kind: ActKind, subjectId: string, sentence: string): Promise<void> {
  await noteAct(services.db, { brandId: brand.id, atMs: nowMs, personId: caller.person.id, name: caller.person.name, kind, subjectId, sentence });
}
