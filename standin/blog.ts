import { Hono } from 'hono';

/** An article of the quay's museum, which the demo's brands read along: headings and paragraphs, a line each. */
interface Article {
  readonly slug: string;
  readonly title: string;
  readonly daysAgo: number;
  readonly summary: string;
  readonly body: readonly string[];
}

const articles: readonly Article[] = [
  {
    slug: 'the-man-lifter',
    title: 'The kite that lifted a man off the quay',
    daysAgo: 2,
    summary: 'In 1903 a net mender let himself be lifted nine metres above Gullwick Quay by six kites on one line. His drawings hang in the museum from Saturday.',
    body: [
      'In 1903 the net mender Abel Trewhitt let himself be lifted nine metres above Gullwick Quay by six kites on one line. Nobody had asked him to.',
      '## How it worked',
      'The kites flew one above the other, each a third larger than the one below. A basket hung from the line, and in it sat Trewhitt with a notebook and a hard-boiled egg.',
      'The wind has to blow at force five, no less and no more. At force six, he wrote, “the line begins to sing, and one should come down before it does”.',
      '## What is left',
      '- Eleven drawings, all of them with tea on them.',
      '- One bamboo spar, four metres long.',
      '- A bill from the harbour master for obstructing the air.',
      'The drawings hang in the museum from Saturday until the end of February. Entry is £4, and children do not pay.',
    ],
  },
  {
    slug: 'winter-hours',
    title: 'Winter hours, and a stove',
    daysAgo: 6,
    summary: 'From December the museum opens at eleven. The stove in the net room is lit from ten, so come early and warm your hands.',
    body: ['From December the museum opens at eleven and closes at four. The stove in the net room is lit from ten.', 'On Mondays nobody is here, not even the cat.', 'School classes can come at any time: ring us two days before.'],
  },
  {
    slug: 'knots',
    title: 'Five knots that every kite needs',
    daysAgo: 11,
    summary: 'Most kites are lost to one bad knot. These five hold, and can be undone with cold fingers.',
    body: ['Most kites are lost to one bad knot, not to the wind.', '1. The bowline: a loop that never slips.', '2. The lark’s head: for the bridle, moved with one hand.', '3. The figure of eight: a stop at the end of a line.', '4. The sheet bend: two lines of unlike thickness.', '5. The reef knot: for tails, and for nothing else.', 'All five can be undone with cold fingers. The sixth knot, the one that everybody makes first, cannot.'],
  },
  {
    slug: 'thank-you',
    title: 'Thank you, 2,314 visitors',
    daysAgo: 19,
    summary: 'So many people came in the summer, 400 more than the year before.',
    body: ['From May to September 2,314 people came up our stairs, 400 more than the year before.', 'Most of them came on days of rain. We are not offended.', 'The visitors’ book has two new pages of kites drawn by children.'],
  },
];

const DAY_MS = 86_400_000;
const escaped = (text: string): string => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;');

function htmlOf({ title, body }: Article): string {
  const blocks = body.map((line) => (line.startsWith('## ') ? `<h2>${escaped(line.slice(3))}</h2>` : /^(?:- |\d+\. )/u.test(line) ? `<li>${escaped(line.replace(/^(?:- |\d+\. )/u, ''))}</li>` : `<p>${escaped(line)}</p>`));
  const lists = blocks.join('').replaceAll(/(?:<li>.*?<\/li>)+/gu, (items) => `<ul>${items}</ul>`);
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escaped(title)}</title><meta property="og:site_name" content="Gullwick Quay Museum"></head><body><article><h1>${escaped(title)}</h1>${lists}</article></body></html>`;
}

/** A neighbour's blog with a feed: something to read along. */
export function sampleBlog(publicOrigin: string, nowMs: () => number): Hono {
  const blog = new Hono();
  const base = `${publicOrigin}/sites/quay-museum`;
  blog.get('/', (context) => context.html(`<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Gullwick Quay Museum</title><link rel="alternate" type="application/rss+xml" href="${base}/feed.xml"></head><body><h1>Gullwick Quay Museum</h1><ul>${articles.map(({ slug, title }) => `<li><a href="${base}/${slug}">${escaped(title)}</a></li>`).join('')}</ul></body></html>`));
  blog.get('/feed.xml', (context) => {
    const items = articles.map(({ slug, title, summary, daysAgo }) => `<item><title>${escaped(title)}</title><link>${base}/${slug}</link><guid>${base}/${slug}</guid><pubDate>${new Date(nowMs() - daysAgo * DAY_MS).toUTCString()}</pubDate><description>${escaped(summary)}</description></item>`);
    return context.body(`<?xml version="1.0" encoding="UTF-8"?><rss version="2.0"><channel><title>Gullwick Quay Museum</title><link>${base}</link><description>Nets, knots and kites</description>${items.join('')}</channel></rss>`, 200, { 'content-type': 'application/rss+xml' });
  });
  blog.get('/:slug', (context) => {
    const article = articles.find(({ slug }) => slug === context.req.param('slug'));
    return article ? context.html(htmlOf(article)) : context.notFound();
  });
  return blog;
}
