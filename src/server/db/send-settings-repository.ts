import { usualSendSettings, type SendSettings } from '../../core/post/send-settings.ts';
import type { Db } from './connection.ts';

export async function getSendSettings(db: Db, brandId: string): Promise<SendSettings> {
  const row: { settings: string } | undefined = await db('send_settings').where({ brand_id: brandId }).first('settings');
  return row ? (JSON.parse(row.settings) as SendSettings) : usualSendSettings;
}

export async function saveSendSettings(db: Db, brandId: string, settings: SendSettings): Promise<void> {
  await db('send_settings').insert({ brand_id: brandId, settings: JSON.stringify(settings) }).onConflict('brand_id').merge(['settings']);
}
