import { join } from 'node:path';
import type { APIRoute } from 'astro';
import { fileResponse } from '../../server/api/file-response.ts';
import { exists } from '../../server/media/derivatives.ts';
import { webServices } from '../../server/services.ts';

export const prerender = false;

/** Pictures of emoji as flat outlines, for the painting worker. */
export const GET: APIRoute = async ({ params, request }) => {
  const file = params['file'] ?? '';
  const { settings } = await webServices();
  const path = join(settings.emojiFolder, file);
  // The name is checked whole before it is used as one: nothing else in the folder, and nothing outside it, can be named.
  if (!/^[0-9a-f]{1,6}(?:-[0-9a-f]{1,6}){0,12}\.json$/.test(file) || !(await exists(path))) return new Response(null, { status: 404 });
  return fileResponse(request, path, 'application/json', 'for-good');
};
