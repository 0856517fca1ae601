import { usualReminders, type ReminderSettings } from '../../core/plan/reminders.ts';
import { noteChange } from './change-repository.ts';
import type { Db } from './connection.ts';

/** What a person was told. */
export interface StoredNotice {
  readonly id: string;
  readonly sentence: string;
  readonly path: string;
  readonly atMs: number;
  readonly isRead: boolean;
}

/** A member of a brand with what they want to hear of. */
export interface Reminded {
  readonly personId: string;
  readonly email: string;
  readonly settings: ReminderSettings;
}

const MAX_LISTED = 40;
const KEEP_MS = 30 * 86_400_000;

export async function listNotices(db: Db, brandId: string, personId: string): Promise<readonly StoredNotice[]> {
  const rows: { id: string; sentence: string; path: string; at_ms: number; read_ms: number | null }[] = await db('notices').where({ brand_id: brandId, person_id: personId }).orderBy([{ column: 'at_ms', order: 'desc' }, 'id']).limit(MAX_LISTED).select('id', 'sentence', 'path', 'at_ms', 'read_ms');
  return rows.map((row) => ({ id: row.id, sentence: row.sentence, path: row.path, atMs: Number(row.at_ms), isRead: row.read_ms !== null }));
}

/** Tells somebody something; false when they were told already. */
export async function insertNotice(db: Db, brandId: string, personId: string, notice: { readonly id: string; readonly subject: string; readonly sentence: string; readonly path: string }, nowMs: number, machineNowMs: number): Promise<boolean> {
  return db.transaction(async (trx) => {
    const rows: unknown[] = await trx('notices').insert({ id: notice.id, brand_id: brandId, person_id: personId, subject: notice.subject, sentence: notice.sentence, path: notice.path, at_ms: nowMs }).onConflict(['person_id', 'subject']).ignore().returning('id');
    if (rows.length > 0) await noteChange(trx, { brandId, kind: 'notice', subjectId: personId }, machineNowMs);
    return rows.length > 0;
  });
}

export async function readNotices(db: Db, brandId: string, personId: string, nowMs: number): Promise<void> {
  await db('notices').where({ brand_id: brandId, person_id: personId }).whereNull('read_ms').update({ read_ms: nowMs });
}

export async function getReminders(db: Db, brandId: string, personId: string): Promise<ReminderSettings> {
  const row: { settings: string } | undefined = await db('reminder_settings').where({ brand_id: brandId, person_id: personId }).first('settings');
  return row ? (JSON.parse(row.settings) as ReminderSettings) : usualReminders;
}

export async function keepReminders(db: Db, brandId: string, personId: string, settings: ReminderSettings): Promise<void> {
  await db('reminder_settings').insert({ brand_id: brandId, person_id: personId, settings: JSON.stringify(settings) }).onConflict(['person_id', 'brand_id']).merge(['settings']);
}

/** The members of a brand, each with what they want to hear of. */
export async function listReminded(db: Db, brandId: string): Promise<readonly Reminded[]> {
  const rows: { person_id: string; email: string; settings: string | null }[] = await db('memberships')
    .join('people', 'people.id', 'memberships.person_id')
    .leftJoin('reminder_settings', (join) => void join.on('reminder_settings.person_id', 'memberships.person_id').andOn('reminder_settings.brand_id', 'memberships.brand_id'))
    .where({ 'memberships.brand_id': brandId })
    .select('memberships.person_id', 'people.email', 'reminder_settings.settings');
  return rows.map((row) => ({ personId: row.person_id, email: row.email, settings: row.settings === null ? usualReminders : (JSON.parse(row.settings) as ReminderSettings) }));
}

export async function pruneNotices(db: Db, nowMs: number): Promise<void> {
  await db('notices').where('at_ms', '<', nowMs - KEEP_MS).delete();
}
