import type { Settings } from '../settings.ts';

const LOOPBACK = new Set(['127.0.0.1', 'localhost', '[::1]']);

/**
 * Whether a request was meant for this Confetti. The demo lets anybody in who can reach it, so a page elsewhere must not reach it under a
 * name of its own; with an address of its own, Confetti answers to that alone.
 */
export function isOwnHost(host: string | undefined, settings: Pick<Settings, 'origin' | 'demo'>): boolean {
  if (settings.origin === null && !settings.demo) return true;
  if (host === undefined || !URL.canParse(`http://${host}`)) return false;
  const { hostname, host: whole } = new URL(`http://${host}`);
  return LOOPBACK.has(hostname) || (settings.origin !== null && new URL(settings.origin).host === whole);
}
