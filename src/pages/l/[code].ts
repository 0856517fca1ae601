import type { APIRoute } from 'astro';
import { webServices } from '../../server/services.ts';
import { followShortLink } from '../../server/words/short-link.ts';

/** Leads to where a short link points. Nothing in the address but its code is looked at. */
const follow: APIRoute = async ({ params, request }) => {
  const target = await followShortLink(await webServices(), params['code'] ?? '', request);
  if (target === null) return new Response('There is no such link.', { status: 404, headers: { 'content-type': 'text/plain; charset=utf-8' } });
  return new Response(null, { status: 302, headers: { location: target, 'referrer-policy': 'no-referrer', 'x-robots-tag': 'noindex' } });
};

export const GET = follow;
export const HEAD = follow;
