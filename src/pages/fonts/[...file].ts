import { join } from 'node:path';
import type { APIRoute } from 'astro';
import { fontShelf } from '../../core/text/font-shelf.ts';
import { fileResponse } from '../../server/api/file-response.ts';
import { webServices } from '../../server/services.ts';

export const prerender = false;

/** Typefaces of the shelf, for the painting worker. Only files that the shelf names are served. */
export const GET: APIRoute = async ({ params, request }) => {
  const font = fontShelf.find((each) => each.file === params['file']);
  if (!font) return new Response(null, { status: 404 });
  const { settings } = await webServices();
  return fileResponse(request, join(settings.fontsFolder, font.file), 'font/ttf', 'for-good');
};
