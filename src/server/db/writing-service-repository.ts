import type { Db } from './connection.ts';

/** How a brand's writing service is reached. `headers` is sealed JSON: a key is among them. */
export interface WritingService {
  readonly brandId: string;
  readonly address: string;
  readonly headers: string;
  readonly body: string;
  readonly answerPath: string;
  readonly isOn: boolean;
  /** Name of who agreed that texts are sent there, and when. */
  readonly agreedBy: string;
  readonly agreedMs: number;
}

export async function findWritingService(db: Db, brandId: string): Promise<WritingService | null> {
  const row = await db('writing_services').where({ brand_id: brandId }).first();
  return row ? { brandId, address: row.address, headers: row.headers, body: row.body, answerPath: row.answer_path, isOn: Boolean(row.is_on), agreedBy: row.agreed_by, agreedMs: Number(row.agreed_ms) } : null;
}

export async function saveWritingService(db: Db, service: WritingService): Promise<void> {
  await db('writing_services')
    .insert({ brand_id: service.brandId, address: service.address, headers: service.headers, body: service.body, answer_path: service.answerPath, is_on: service.isOn, agreed_by: service.agreedBy, agreed_ms: service.agreedMs })
    .onConflict('brand_id')
    .merge();
}

export async function removeWritingService(db: Db, brandId: string): Promise<void> {
  await db('writing_services').where({ brand_id: brandId }).delete();
}
