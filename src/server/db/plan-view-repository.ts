import type { Db } from './connection.ts';

/** A view of the plan that a person keeps: an address with its filters, under a name. */
export interface PlanView {
  readonly id: string;
  readonly name: string;
  readonly address: string;
}

export async function listPlanViews(db: Db, brandId: string, personId: string): Promise<readonly PlanView[]> {
  return db('plan_views').where({ brand_id: brandId, person_id: personId }).orderBy('name').limit(100).select('id', 'name', 'address');
}

/** Keeps a view; one of the same name is replaced. */
export async function keepPlanView(db: Db, brandId: string, personId: string, { id, name, address }: PlanView): Promise<void> {
  await db('plan_views').insert({ id, brand_id: brandId, person_id: personId, name, address }).onConflict(['brand_id', 'person_id', 'name']).merge({ address });
}

export async function deletePlanView(db: Db, brandId: string, personId: string, id: string): Promise<boolean> {
  return (await db('plan_views').where({ brand_id: brandId, person_id: personId, id }).delete()) > 0;
}
