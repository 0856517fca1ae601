import type { APIRoute } from 'astro';
import { calendarOf } from '../../server/plan/calendar-feed.ts';
import { webServices } from '../../server/services.ts';

/** The plan of a brand for calendar programs; whoever has the secret address may read it. */
export const GET: APIRoute = async ({ params, url }) => {
  const services = await webServices();
  const calendar = await calendarOf(services, (params['file'] ?? '').replace(/\.ics$/u, ''), services.settings.origin ?? url.origin);
  if (calendar === null) return new Response('There is no such calendar.', { status: 404, headers: { 'content-type': 'text/plain; charset=utf-8' } });
  return new Response(calendar, { headers: { 'content-type': 'text/calendar; charset=utf-8', 'cache-control': 'private, max-age=300', 'x-robots-tag': 'noindex' } });
};
