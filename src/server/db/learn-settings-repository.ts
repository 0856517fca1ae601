import { usualHeldWords } from '../../core/replies/held-words.ts';
import type { RateBase } from '../../core/results/measures.ts';
import type { Db } from './connection.ts';

/** How a brand reads its figures and its replies. */
export interface LearnSettings {
  /** What the rate of engagement is measured by, everywhere. */
  readonly rateBase: RateBase;
  /** Messages with these words are set apart. */
  readonly heldWords: readonly string[];
  /** Somebody who has waited so long stands in Today. */
  readonly answerWithinHours: number;
}

export const usualLearnSettings: LearnSettings = { rateBase: 'reach', heldWords: usualHeldWords, answerWithinHours: 24 };

export async function readLearnSettings(db: Db, brandId: string): Promise<LearnSettings> {
  const row: { settings: string } | undefined = await db('learn_settings').where({ brand_id: brandId }).first();
  return { ...usualLearnSettings, ...(row ? (JSON.parse(row.settings) as Partial<LearnSettings>) : {}) };
}

export async function keepLearnSettings(db: Db, brandId: string, settings: LearnSettings): Promise<void> {
  await db('learn_settings').insert({ brand_id: brandId, settings: JSON.stringify(settings) }).onConflict('brand_id').merge();
}
