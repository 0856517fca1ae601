import { Readability } from '@mozilla/readability';
import { parseHTML } from 'linkedom';
import { ProblemError } from '../errors.ts';

/** What a page says of itself to those who link to it. */
export interface LinkPage {
  readonly title: string;
  readonly description: string;
  readonly site: string;
  /** Whole address of the picture that the page names; null for none. */
  readonly picture: string | null;
}

/** The text of an article without what stands around it, a paragraph a line. */
export interface Article {
  readonly title: string;
  readonly text: string;
}

const MAX_TEXT = 60_000;

/** Title, description, site and picture of a page, from its Open Graph properties, else from its plain elements. */
export function readLinkPage(html: string, address: string): LinkPage {
  const { document } = parseHTML(html);
  const meta = (...names: readonly string[]): string => {
    for (const name of names) {
      const found = document.querySelector(`meta[property="${name}"], meta[name="${name}"]`)?.getAttribute('content')?.trim();
      if (found) return found;
    }
    return '';
  };
  const picture = meta('og:image:secure_url', 'og:image');
  return {
    title: (meta('og:title') || document.querySelector('title')?.textContent || document.querySelector('h1')?.textContent || '').replace(/\s+/gu, ' ').trim().slice(0, 300),
    description: meta('og:description', 'description').replace(/\s+/gu, ' ').slice(0, 600),
    site: (meta('og:site_name') || new URL(address).hostname).slice(0, 120),
    picture: picture !== '' && URL.canParse(picture, address) ? new URL(picture, address).href : null,
  };
}

/** @throws ProblemError 422 when a page has no article */
export function readArticle(html: string, address: string): Article {
  const { document } = parseHTML(html);
  const article = new Readability(document as unknown as Document, { charThreshold: 120 }).parse();
  const content = article?.content ? parseHTML(`<body>${article.content}</body>`).document : null;
  const lines = [...(content?.querySelectorAll('p, li, h1, h2, h3, h4, blockquote') ?? [])].map((element) => (element.textContent ?? '').replace(/\s+/gu, ' ').trim());
  const text = [...new Set(lines.filter((line) => line !== ''))].join('\n').slice(0, MAX_TEXT);
  if (text === '') throw new ProblemError(422, 'no-article', `There is no article at ${new URL(address).hostname}. Paste its text instead.`);
  return { title: (article?.title ?? '').trim(), text };
}
