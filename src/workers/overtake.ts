import type { PaintRequest } from './wall-protocol.ts';

/** The newer of two requests, of which only it is painted: it sends again what the older one was to send again. */
export function overtake(older: Pick<PaintRequest, 'again'>, newer: PaintRequest): PaintRequest {
  const again = older.again === 'all' || newer.again === 'all' ? 'all' : [...new Set([...older.again, ...newer.again])];
  return { ...newer, again };
}
