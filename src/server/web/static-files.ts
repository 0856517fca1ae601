import { readdirSync } from 'node:fs';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { join, sep } from 'node:path';
import send from 'send';

/** Built files whose name holds a hash of what is in them. */
const HASHED = '/_astro/';
const HASHED_MAX_AGE_MS = 365 * 24 * 60 * 60 * 1000;

/**
 * The files of the build that browsers get as they are. Their names are read once: no other request touches the disk for them.
 * @returns whether a request asks for such a file, and is answered
 */
export function openStaticFiles(folder: string): (request: IncomingMessage, response: ServerResponse) => boolean {
  const files = new Set(readdirSync(folder, { recursive: true, withFileTypes: true }).filter((each) => each.isFile()).map((each) => join(each.parentPath, each.name).slice(folder.length).split(sep).join('/')));
  return (request, response) => {
    if (request.method !== 'GET' && request.method !== 'HEAD') return false;
    const path = decodeURIComponent((request.url ?? '').split('?', 1)[0] ?? '');
    if (!files.has(path)) return false;
    const isHashed = path.startsWith(HASHED);
    send(request, encodeURI(path), { root: folder, index: false, immutable: isHashed, maxAge: isHashed ? HASHED_MAX_AGE_MS : 0 })
      .on('error', (error: { readonly status?: number }) => {
        response.writeHead(error.status ?? 500);
        response.end();
      })
      .pipe(response);
    return true;
  };
}
