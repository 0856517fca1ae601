import { createRequire } from 'node:module';
import type { APIRoute } from 'astro';
import { fileResponse } from '../../../server/api/file-response.ts';

export const prerender = false;

/** What the emoji picker asks for under its data address, as the package has it. */
const lists: ReadonlySet<string> = new Set(['data', 'messages']);
const packages = createRequire(import.meta.url);

/** The emoji picker's own copy of its data: nothing is fetched from elsewhere. */
export const GET: APIRoute = async ({ params, request }) => {
  const list = params['list'] ?? '';
  if (!lists.has(list)) return new Response(null, { status: 404 });
  return fileResponse(request, packages.resolve(`emojibase-data/en/${list}.json`), 'application/json', 'ask-again');
};
