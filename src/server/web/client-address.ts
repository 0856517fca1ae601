import type { IncomingHttpHeaders } from 'node:http';

/**
 * Where a request comes from. Of what proxies have written down, only what our own proxies did counts: `proxies` of them stand before
 * Confetti, and each has added one address at the end. Whatever stands before that, anybody can write.
 */
export function clientAddress(headers: IncomingHttpHeaders, socketAddress: string, proxies: number): string {
  if (proxies === 0) return socketAddress;
  const forwarded = String(headers['x-forwarded-for'] ?? '').split(',').map((each) => each.trim()).filter((each) => each !== '');
  return forwarded.at(-proxies) ?? socketAddress;
}
