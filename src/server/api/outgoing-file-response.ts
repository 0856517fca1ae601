import { readFile } from 'node:fs/promises';
import type { Delivery } from '../db/delivery-repository.ts';
import { makeFiles, planFiles } from '../dispatch/outgoing-files.ts';
import { madeByWorker } from '../dispatch/render-ahead.ts';
import { readPin } from '../documents/pins.ts';
import { notFound } from '../errors.ts';
import type { Services } from '../services.ts';
import { attachment } from './attachment.ts';

/**
 * A file of a delivery exactly as it goes out. Videos are made by a worker, which takes a while.
 * @throws ProblemError 404 when the delivery has no such file, 503 while a video is being made
 */
export async function outgoingFileResponse(services: Services, delivery: Delivery, index: number, signal: AbortSignal): Promise<Response> {
  const plan = planFiles(services, await readPin(services.db, delivery.pin), delivery);
  if (index >= plan.count) throw notFound('file');
  if (plan.video) await madeByWorker(services, delivery, signal);
  const file = (await makeFiles(services, plan, delivery, signal))[index];
  if (!file) throw notFound('file');
  const bytes = file.kind === 'bytes' ? file.bytes : await readFile(file.path);
  const extension = (file.mime.split('/')[1] ?? 'bin').replace('jpeg', 'jpg');
  const name = `${delivery.pieceName} ${delivery.placementName}${plan.count > 1 ? ` ${index + 1}` : ''}.${extension}`;
  return new Response(bytes as Uint8Array<ArrayBuffer>, { headers: { 'content-type': file.mime, 'content-disposition': attachment(name), 'cache-control': 'no-store', 'x-content-type-options': 'nosniff' } });
}
