import { html, raw } from 'hono/html';
import type { Details } from './details.ts';
import { faultKinds, type Faults } from './faults.ts';
import { DOCUMENT_MIME, VIDEO_MIME, networks, type NetworkRules } from './rules.ts';
import type { Mail } from './mailbox.ts';
import { alongOf, type Along, type Post } from './entry.ts';
import type { MediaRecord } from './store.ts';

type Markup = ReturnType<typeof html>;

/** A page in the stand-ins' own look. */
export function page(title: string, tint: string, body: Markup): Markup {
  return html`<!doctype html>
    <html lang="en">
      <head>
        <meta charset="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <title>${title}</title>
        <style>
          ${raw(`body{margin:0;font:16px/1.5 Georgia,serif;background:#eceae4;color:#222}
          header{background:${tint};color:#fff;padding:10px 24px;font:600 14px system-ui,sans-serif}
          header a{color:inherit}
          main{max-width:620px;margin:28px auto;background:#fff;padding:24px;border:1px solid #d8d5cc}
          img{display:block;max-width:100%;height:auto}
          video{display:block;max-width:100%;max-height:72vh;margin:0 auto;background:#000}
          .row video{width:150px}
          .words{white-space:pre-wrap;overflow-wrap:anywhere}
          .small{font:13px system-ui,sans-serif;color:#5c5a54}
          .row{display:flex;flex-wrap:wrap;gap:12px}.row img{width:150px}
          figure{margin:0}object{display:block;width:100%;height:520px;border:1px solid #d8d5cc}
          .carousel{display:flex;gap:8px;overflow-x:auto;scroll-snap-type:x mandatory}.carousel figure{flex:0 0 86%;scroll-snap-align:center}
          form{display:inline}button{font:13px system-ui,sans-serif;margin:2px}`)}
        </style>
      </head>
      <body>
        <header>${title} · a stand-in network</header>
        ${body}
      </body>
    </html>`;
}

/** The pictures of a post: one, a carousel to swipe through, or a document to leaf through. */
function showMedia(rules: NetworkRules, media: readonly ShownMedia[], along: Along): Markup {
  const [first] = media;
  const address = (id: string): string => `/${rules.key}/media/${id}`;
  if (first?.mime === DOCUMENT_MIME) {
    return html`<figure data-document="${String(first.pages)}">
      <object data="${address(first.id)}" type="${DOCUMENT_MIME}" aria-label="${first.altText}"></object>
      <figcaption class="small">A document of ${first.pages} pages. <a href="${address(first.id)}">Open it</a></figcaption>
    </figure>`;
  }
  if (first?.mime === VIDEO_MIME) {
    // A cover that is a moment of the video is shown by going there; one that is a picture, as its poster.
    const moment = along.coverAtMs === undefined ? '' : `#t=${(along.coverAtMs / 1000).toFixed(2)}`;
    const poster = along.coverId === undefined ? '' : raw(` poster="${address(along.coverId)}"`);
    const track = along.subtitlesId === undefined ? '' : html`<track kind="subtitles" src="${address(along.subtitlesId)}" srclang="en" label="English" default />`;
    return html`<video src="${address(first.id)}${moment}"${poster} controls playsinline preload="metadata" aria-label="${first.altText}" data-seconds="${first.seconds.toFixed(1)}">${track}</video>`;
  }
  if (media.length < 2) return first ? html`<img src="${address(first.id)}" alt="${first.altText}" />` : html``;
  return html`<section class="carousel" aria-label="Carousel of ${media.length} pictures" tabindex="0" data-carousel="${String(media.length)}">
      ${media.map((each, index) => html`<figure><img src="${address(each.id)}" alt="${each.altText}" /><figcaption class="small">${index + 1} of ${media.length}</figcaption></figure>`)}
    </section>`;
}

/** A post behind the first of a thread. */
export interface ShownPart {
  readonly text: string;
  readonly media: readonly ShownMedia[];
}

export interface ShownMedia extends MediaRecord {
  readonly altText: string;
}

export function postPage(rules: NetworkRules, post: Post, media: readonly ShownMedia[], thread: readonly ShownPart[]): Markup {
  const details = JSON.parse(post.details) as Details;
  return page(
    rules.name,
    rules.tint,
    html`<main data-post="${post.id}">
      <p class="small"><a href="/${rules.key}/${post.handle}">${post.name} (${post.handle})</a> · ${post.placement} · ${new Date(post.publishedMs).toISOString().replace('T', ' ').slice(0, 16)} UTC</p>
      ${showMedia(rules, media, alongOf(post))}
      ${post.title ? html`<h1>${post.title}</h1>` : ''}
      ${showText(rules, post.text, thread)}
      ${post.link ? html`<p class="small"><a href="${post.link}" rel="nofollow noopener">${post.link}</a></p>` : ''}
      ${showDetails(details)}
      ${post.firstComment ? html`<p class="words small" data-first-comment>${post.name}: ${post.firstComment}</p>` : ''}
    </main>`,
  );
}

/** The text of a post, or the posts of a thread one behind the other. */
function showText(rules: NetworkRules, text: string, thread: readonly ShownPart[]): Markup {
  if (thread.length === 0) return html`<p class="words">${text}</p>`;
  const picture = ({ id, altText }: ShownMedia): Markup => html`<img src="/${rules.key}/media/${id}" alt="${altText}" />`;
  return html`<ol class="thread" data-thread="${String(thread.length + 1)}"><li><p class="words">${text}</p></li>${thread.map((part) => html`<li>${part.media.map(picture)}<p class="words">${part.text}</p></li>`)}</ol>`;
}

/** What a post says beside its text, a line each. */
function showDetails({ poll, location, comments, audience, board, playlist, visibility, tags, button, categories, slug }: Details): Markup {
  const limits = audience && [audience.countries.length > 0 ? `people in ${audience.countries.join(', ')}` : '', audience.fromAge === null ? '' : `from ${audience.fromAge} years`, audience.languages.length > 0 ? `readers of ${audience.languages.join(', ')}` : ''].filter((part) => part !== '').join(', ');
  const lines: readonly (readonly [string, string | undefined])[] = [
    ['Board', board],
    ['Playlist', playlist],
    ['At', location],
    ['Seen by', limits],
    ['Visibility', visibility],
    ['Tags', tags?.join(', ')],
    ['Categories', categories && categories.length > 0 ? categories.join(', ') : undefined],
    ['Slug', slug],
    ['Button', button],
    ['Comments', comments],
  ];
  return html`${poll ? html`<section class="poll" data-poll><p><strong>${poll.question}</strong></p><ul>${poll.options.map((option) => html`<li>${option}</li>`)}</ul><p class="small">Open for ${poll.days} ${poll.days === 1 ? 'day' : 'days'}</p></section>` : ''}
    ${lines.map(([name, value]) => (value === undefined ? '' : html`<p class="small" data-detail="${name}">${name}: ${value}</p>`))}`;
}

/** A post with the kind of its first file, which says how it is shown small. */
export interface ListedPost extends Post {
  readonly mime: string;
}

export function accountPage(rules: NetworkRules, handle: string, posts: readonly ListedPost[]): Markup {
  return page(
    rules.name,
    rules.tint,
    html`<main>
      <h1>${handle}</h1>
      <p class="small">${posts.length} post${posts.length === 1 ? '' : 's'}</p>
      <div class="row">${posts.map((post) => html`<a href="/${rules.key}/p/${post.id}">${showSmall(rules, post)}</a>`)}</div>
    </main>`,
  );
}

function showSmall(rules: NetworkRules, post: ListedPost): Markup {
  const { coverId } = alongOf(post);
  const address = `/${rules.key}/media/${coverId ?? post.mediaId}`;
  return post.mime === VIDEO_MIME && coverId === undefined ? html`<video src="${address}" muted preload="metadata" aria-label="${post.altText}"></video>` : html`<img src="${address}" alt="${post.altText}" />`;
}

export function switchboardPage(faults: Faults): Markup {
  return page(
    'Switchboard',
    '#444',
    html`<main>
      <p>Make a network misbehave for its next requests, as real ones do.</p>
      ${networks.map(
        (rules) => html`<h2>${rules.name}</h2>
          <p class="small">Now: ${faults.current(rules.key)?.kind ?? 'well'}</p>
          ${['none', ...faultKinds].map(
            (kind) => html`<form method="post" action="/switchboard/faults">
              <input type="hidden" name="network" value="${rules.key}" /><input type="hidden" name="kind" value="${kind}" /><input type="hidden" name="times" value="3" />
              <button>${kind}</button>
            </form>`,
          )}`,
      )}
    </main>`,
  );
}

/** Letters that came in, the latest first. */
export function mailboxPage(mails: readonly Mail[]): Markup {
  return page('Mailbox', '#444', html`<main>${mails.length === 0 ? html`<p class="small">No letter has come in yet.</p>` : mails.map(({ to, from, subject, text, attachments }, index) => html`<article><p class="small">To ${to}, from ${from}</p><p><strong>${subject}</strong></p><p class="words">${text}</p>${attachments.map(({ name, bytes }, at) => html`<p class="small"><a href="/mailbox/${index}/${at}">${name}</a>, ${Math.ceil(bytes.length / 1024)} KB</p>`)}<hr /></article>`)}</main>`);
}
