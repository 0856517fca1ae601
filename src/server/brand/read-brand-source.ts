import type { BrandMark } from '../../core/brand/brand-book.ts';
import { ProblemError } from '../errors.ts';
import { guardedFetch } from '../outside/guarded-fetch.ts';
import type { BrandSource } from '../readers/brand-source.ts';
import type { Services } from '../services.ts';

const MAX_PAGE_BYTES = 4 * 1024 * 1024;
const MAX_STYLESHEETS = 8;
/** Of all style sheets together; what comes later says little new. */
const MAX_STYLES_CHARACTERS = 2 * 1024 * 1024;

/**
 * A brand as a public web page shows it: the page, its style sheets and its icon are fetched through the guard.
 * @throws ProblemError when the page cannot be had; what hangs on it and cannot be had is noted instead
 */
export async function readWebPage(address: string, { settings, readers }: Pick<Services, 'settings' | 'readers'>): Promise<BrandSource> {
  const fetchText = async (each: string, accept: string): Promise<{ text: string; address: string; mime: string }> => {
    const fetched = await guardedFetch(each, { mostBytes: MAX_PAGE_BYTES, trustedHosts: settings.trustedHosts, accept });
    return { text: fetched.bytes.toString('utf8'), address: fetched.address, mime: fetched.mime };
  };
  const page = await fetchText(address, 'text/html');
  if (!page.mime.includes('html') && !/<(!doctype html|html|body)/i.test(page.text)) throw new ProblemError(422, 'no-page', `What lies at ${new URL(page.address).hostname} is no web page.`);
  const parts = await readers.read({ kind: 'page', html: page.text });
  const notes: string[] = [];
  const sheets: string[] = [];
  for (const href of parts.stylesheets.slice(0, MAX_STYLESHEETS)) {
    if (!URL.canParse(href, page.address)) continue;
    try {
      const room = MAX_STYLES_CHARACTERS - sheets.reduce((sum, each) => sum + each.length, 0);
      sheets.push((await fetchText(new URL(href, page.address).href, 'text/css')).text.slice(0, room));
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      notes.push(`A style sheet could not be fetched: ${error.sentence}`);
    }
  }
  const marks: BrandMark[] = [];
  for (const href of parts.icons.slice(0, 2)) {
    if (!URL.canParse(href, page.address)) continue;
    try {
      marks.push(...(await readers.read({ kind: 'icon', svg: (await fetchText(new URL(href, page.address).href, 'image/svg+xml')).text })));
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      notes.push(`The icon could not be fetched: ${error.sentence}`);
    }
  }
  return { ...(await readers.read({ kind: 'look', parts, sheets })), site: new URL(page.address).host, marks: marks.slice(0, 2), notes };
}
