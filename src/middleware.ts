import { createHash } from 'node:crypto';
import loadDirective from 'astro/runtime/client/load.prebuilt.js';
import islandScript from 'astro/runtime/server/astro-island.prebuilt.js';
import { defineMiddleware } from 'astro:middleware';
import { findCaller, readCookie } from './server/auth/caller.ts';
import { brandOfPath, pageMe } from './server/page-context.ts';
import { webServices } from './server/services.ts';

/** Pages that can be seen without a session. */
const OPEN_PAGES: ReadonlySet<string> = new Set(['/sign-in', '/join', '/new-password', '/review']);

const sourceHash = (script: string): string => `'sha256-${createHash('sha256').update(script).digest('base64')}'`;

/** Scripts come from our own files; the two inline ones that start islands are named by their hashes. */
const CONTENT_SECURITY_POLICY = [
  "default-src 'self'",
  `script-src 'self' 'wasm-unsafe-eval' ${sourceHash(loadDirective)} ${sourceHash(islandScript)}`,
  "style-src 'self' 'unsafe-inline'",
  "img-src 'self' blob: data:",
  "worker-src 'self'",
  "object-src 'none'",
  "base-uri 'none'",
  "form-action 'self'",
  "frame-ancestors 'none'",
].join('; ');

const securityHeaders: Readonly<Record<string, string>> = {
  'content-security-policy': CONTENT_SECURITY_POLICY,
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'same-origin',
  'cross-origin-opener-policy': 'same-origin',
  'permissions-policy': 'camera=(), microphone=(), geolocation=()',
};

function readTheme(headers: Headers): App.Locals['theme'] {
  const theme = readCookie(headers, 'confetti_theme');
  return theme === 'light' || theme === 'dark' ? theme : 'system';
}

/** Every page needs a session, and a brand's page needs its people; endpoints below /api check for themselves, as tokens count there too. */
export const onRequest = defineMiddleware(async (context, next) => {
  const { pathname, search } = context.url;
  const isApi = pathname.startsWith('/api/');
  const isAsset = /^\/(fonts|emoji)\//.test(pathname);
  // Short links and calendars answer whoever has their address, signed in or not.
  const isShortLink = pathname.startsWith('/l/') || pathname.startsWith('/calendar/');
  const caller = isApi || isShortLink ? null : await findCaller(await webServices(), context.request.headers);
  if (!isApi && !isShortLink && !caller && !OPEN_PAGES.has(pathname)) {
    return isAsset ? new Response(null, { status: 401 }) : context.redirect(`/sign-in?next=${encodeURIComponent(pathname + search)}`);
  }
  const me = caller && !isAsset ? await pageMe(caller) : null;
  const brand = me && brandOfPath(me, pathname);
  if (pathname.startsWith('/b/') && !brand) return context.redirect('/');
  Object.assign(context.locals, { me, brand, theme: readTheme(context.request.headers) } satisfies App.Locals);
  const response = await next();
  // A page holds what a person may see now, and the time: neither is right when it comes from a cache.
  if (!isApi && !isAsset) response.headers.set('cache-control', 'private, no-store');
  for (const [name, value] of Object.entries(securityHeaders)) {
    // A dev server injects scripts of its own; a download has a stricter policy already.
    if (name === 'content-security-policy' && (import.meta.env.DEV || response.headers.has(name))) continue;
    response.headers.set(name, value);
  }
  return response;
});
