import { createHmac, randomUUID } from 'node:crypto';
import type { StandinStore } from '../store.ts';
import { AccountLife } from './life.ts';

const ANSWER_MS = 5_000;

/** The signature of a call: an HMAC of its moment and its body, as hexadecimal. */
export function signatureOf(secret: string, timestamp: string, body: string): string {
  return createHmac('sha256', secret).update(`${timestamp}.${body}`).digest('hex');
}

/** Tells every address that asked for it what has come in since the last call. A call that fails is repeated with the next. */
export async function callHooks(store: StandinStore, nowMs: number): Promise<void> {
  for (const hook of store.talk.listHooks()) {
    const items = new AccountLife(store, hook.network, hook.handle, nowMs).heard().filter(({ atMs }) => atMs > hook.toldMs).slice(0, 50);
    const last = items.at(-1);
    if (!last) continue;
    const body = JSON.stringify({ network: hook.network, handle: hook.handle, items });
    const timestamp = String(Math.floor(Date.now() / 1000));
    const response = await fetch(hook.url, { method: 'POST', headers: { 'content-type': 'application/json', 'x-hook-id': randomUUID(), 'x-hook-timestamp': timestamp, 'x-hook-signature': `sha256=${signatureOf(hook.secret, timestamp, body)}` }, body, signal: AbortSignal.timeout(ANSWER_MS) }).catch(() => null);
    if (response?.ok) store.talk.noteTold(hook.network, hook.handle, last.atMs);
  }
}
