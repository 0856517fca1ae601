import { detailRefusal, type DetailRules, type Details, type Offers } from './details.ts';
import type { Entry } from './entry.ts';

/** What a stand-in network takes at one place, as the network itself sees it. */
export interface PlaceRule {
  readonly widthPx: number;
  readonly heightPx: number;
  /** How far, as a share, the shape may be off. */
  readonly shapeTolerance: number;
  /** Pictures that one post may have here. */
  readonly mostPictures: number;
  /** Pages of a document that goes here instead of pictures; null where none does. */
  readonly document: { readonly least: number; readonly most: number } | null;
  /** Seconds that a video may have here; null where none goes. */
  readonly video: VideoRule | null;
}

/** Seconds that a video may have, what may stand for it, and whether subtitles may come as a file. */
export interface VideoRule {
  readonly least: number;
  readonly most: number;
  readonly cover?: 'frame' | 'any';
  readonly subtitles?: true;
}

/** A stand-in network's own rules. They are kept apart from the sheets that Confetti has of them. */
export interface NetworkRules {
  readonly key: string;
  readonly name: string;
  readonly tint: string;
  /** How posts come in: as drafts that are published, under a key, or by the Micropub protocol. */
  readonly manner: 'draft-then-publish' | 'idempotency-key' | 'micropub';
  readonly places: Readonly<Record<string, PlaceRule>>;
  readonly maxImageBytes: number;
  /** Largest document; 0 where none is taken. */
  readonly maxDocumentBytes: number;
  /** Largest video; 0 where none is taken. */
  readonly maxVideoBytes: number;
  readonly mimes: readonly string[];
  /** The length of a text as this network counts it, and its limit. */
  readonly maxText: number;
  readonly countText: (text: string) => number;
  readonly maxHashtags: number | null;
  readonly maxAltText: number;
  /** Fields beside the text: their longest length, and whether a post may come without. */
  readonly extra: Readonly<Partial<Record<'title' | 'link' | 'firstComment', { readonly max: number; readonly required: boolean }>>>;
  /** How long a video is processed before it is public; missing: not at all. */
  readonly processingMs?: number;
  /** What programs may do to a post that is out. */
  readonly afterwards: readonly ('text' | 'remove')[];
  /** What else a post may say here; what is not named is refused. */
  readonly details: DetailRules;
}

const graphemes = new Intl.Segmenter('und', { granularity: 'grapheme' });
const characters = (text: string): number => [...graphemes.segment(text)].length;

/** Links count 23; emoji and ideographs, with their punctuation, count two. */
function weighted(text: string): number {
  const link = /https?:\/\/[^\s<>"]*[^\s<>".,;:!?)\]}'’”]/giu;
  const links = text.match(link)?.length ?? 0;
  const wide = /\p{Regional_Indicator}|\u20e3|\ufe0f|(?![©®‼⁉™ℹ\u2194-\u21aa])\p{Extended_Pictographic}|[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}\p{Script=Bopomofo}\u3000-\u303f\u30fb\u30fc\uff01-\uff60\uffe0-\uffe6]/u;
  return [...graphemes.segment(text.replace(link, ''))].reduce((sum, { segment }) => sum + (wide.test(segment) ? 2 : 1), links * 23);
}

const place = (widthPx: number, heightPx: number, mostPictures = 1): PlaceRule => ({ widthPx, heightPx, shapeTolerance: 0.01, mostPictures, document: null, video: null });
/** The same place, taking videos of so many seconds as well. */
const andVideo = (rule: PlaceRule, least: number, most: number, along: Pick<VideoRule, 'cover' | 'subtitles'> = {}): PlaceRule => ({ ...rule, video: { least, most, ...along } });
const anyCover = { cover: 'any' } as const;
const frameCover = { cover: 'frame' } as const;
const withSubtitles = { subtitles: true } as const;
const PICTURES = ['image/jpeg', 'image/png', 'image/webp'] as const;
export const DOCUMENT_MIME = 'application/pdf';
export const VIDEO_MIME = 'video/mp4';
export const SUBTITLES_MIME = 'text/vtt';
const MEBIBYTE = 1024 * 1024;

const square = (mostPictures: number) => place(1080, 1080, mostPictures);
const portrait = (mostPictures: number) => place(1080, 1350, mostPictures);
const TALL = place(1080, 1920);
/** No pictures go here. */
const ONLY_VIDEO_TALL = place(1080, 1920, 0);
const optional = (max: number) => ({ max, required: false });
const required = (max: number) => ({ max, required: true });

export const networks: readonly NetworkRules[] = [
  {
    key: 'petalry',
    name: 'Petalry',
    tint: '#7a4b8c',
    manner: 'draft-then-publish',
    places: { 'feed-square': andVideo(square(10), 3, 90, anyCover), 'feed-portrait': andVideo(portrait(10), 3, 90, anyCover), story: andVideo(TALL, 1, 60), vertical: andVideo(ONLY_VIDEO_TALL, 3, 90, anyCover) },
    maxImageBytes: 8 * MEBIBYTE,
    maxDocumentBytes: 0,
    maxVideoBytes: 250 * MEBIBYTE,
    mimes: PICTURES,
    maxText: 2200,
    countText: characters,
    maxHashtags: 30,
    maxAltText: 1000,
    extra: { firstComment: optional(2200) },
    afterwards: ['text', 'remove'],
    details: { location: 100, comments: true },
  },
  {
    key: 'quipline',
    name: 'Quipline',
    tint: '#2f6b5b',
    manner: 'idempotency-key',
    places: { 'post-wide': andVideo(place(1600, 900, 4), 1, 140), 'post-square': andVideo(square(4), 1, 140) },
    maxImageBytes: 5 * MEBIBYTE,
    maxDocumentBytes: 0,
    maxVideoBytes: 250 * MEBIBYTE,
    mimes: PICTURES,
    maxText: 280,
    countText: weighted,
    maxHashtags: null,
    maxAltText: 1000,
    extra: {},
    afterwards: ['remove'],
    details: { poll: { least: 2, most: 4, mostCharacters: 25, mostDays: 7 }, thread: 25 },
  },
  {
    key: 'hearthside',
    name: 'Hearthside',
    tint: '#8a5a2b',
    manner: 'draft-then-publish',
    places: { 'page-wide': andVideo(place(1200, 630, 10), 1, 14_400, { ...anyCover, ...withSubtitles }), 'page-square': andVideo(square(10), 1, 14_400, { ...anyCover, ...withSubtitles }), 'page-portrait': andVideo(portrait(10), 1, 14_400, { ...anyCover, ...withSubtitles }), story: andVideo(TALL, 1, 60) },
    maxImageBytes: 8 * MEBIBYTE,
    maxDocumentBytes: 0,
    maxVideoBytes: 250 * MEBIBYTE,
    mimes: PICTURES,
    maxText: 63_206,
    countText: characters,
    maxHashtags: null,
    maxAltText: 1000,
    extra: { firstComment: optional(8000) },
    afterwards: ['text', 'remove'],
    details: { location: 100, audience: true },
  },
  {
    key: 'guildrow',
    name: 'Guildrow',
    tint: '#3d4f6b',
    manner: 'idempotency-key',
    places: { 'update-wide': andVideo(place(1200, 627, 9), 3, 600, { ...anyCover, ...withSubtitles }), 'update-square': andVideo(square(9), 3, 600, { ...anyCover, ...withSubtitles }), 'update-portrait': andVideo(portrait(9), 3, 600, { ...anyCover, ...withSubtitles }), document: { ...portrait(0), document: { least: 2, most: 300 } } },
    maxImageBytes: 8 * MEBIBYTE,
    maxDocumentBytes: 100 * MEBIBYTE,
    maxVideoBytes: 250 * MEBIBYTE,
    mimes: PICTURES,
    maxText: 3000,
    countText: characters,
    maxHashtags: null,
    maxAltText: 300,
    extra: { title: optional(100), firstComment: optional(1250) },
    afterwards: ['text', 'remove'],
    details: { poll: { least: 2, most: 4, mostCharacters: 30, mostDays: 14 } },
  },
  {
    key: 'tackboard',
    name: 'Tackboard',
    tint: '#8c3b3b',
    manner: 'draft-then-publish',
    places: { card: andVideo(place(1000, 1500, 5), 4, 900, anyCover) },
    maxImageBytes: 20 * MEBIBYTE,
    maxDocumentBytes: 0,
    maxVideoBytes: 250 * MEBIBYTE,
    mimes: PICTURES,
    maxText: 500,
    countText: characters,
    maxHashtags: null,
    maxAltText: 500,
    extra: { title: required(100), link: required(2000) },
    afterwards: ['text', 'remove'],
    details: { board: 'required' },
  },
  {
    key: 'kerbside',
    name: 'Kerbside',
    tint: '#4a6b2f',
    manner: 'idempotency-key',
    places: { update: place(1200, 900) },
    maxImageBytes: 8 * MEBIBYTE,
    maxDocumentBytes: 0,
    maxVideoBytes: 0,
    mimes: PICTURES,
    maxText: 1500,
    countText: characters,
    maxHashtags: null,
    maxAltText: 1000,
    extra: { link: optional(2000) },
    afterwards: ['text', 'remove'],
    details: { button: ['learn-more', 'book', 'order', 'call', 'sign-up', 'offer'] },
  },
  {
    key: 'whirlo',
    name: 'Whirlo',
    tint: '#2f5f8a',
    manner: 'idempotency-key',
    places: { clip: andVideo(ONLY_VIDEO_TALL, 3, 180, frameCover) },
    maxImageBytes: 8 * MEBIBYTE,
    maxDocumentBytes: 0,
    maxVideoBytes: 250 * MEBIBYTE,
    mimes: PICTURES,
    maxText: 2200,
    countText: characters,
    maxHashtags: null,
    maxAltText: 1000,
    extra: {},
    afterwards: ['remove'],
    processingMs: 1_500,
    details: { comments: true },
  },
  {
    key: 'longhall',
    name: 'Longhall',
    tint: '#6b3d2f',
    manner: 'draft-then-publish',
    places: { film: andVideo(place(1920, 1080, 0), 1, 43_200, { ...anyCover, ...withSubtitles }), short: andVideo(ONLY_VIDEO_TALL, 1, 60, { ...frameCover, ...withSubtitles }) },
    maxImageBytes: 2 * MEBIBYTE,
    maxDocumentBytes: 0,
    maxVideoBytes: 250 * MEBIBYTE,
    mimes: PICTURES,
    maxText: 5000,
    countText: characters,
    maxHashtags: 15,
    maxAltText: 1000,
    extra: { title: required(100), firstComment: optional(10_000) },
    afterwards: ['text', 'remove'],
    processingMs: 1_500,
    details: { tags: 500, visibility: ['public', 'unlisted', 'private'], playlist: true, audience: true },
  },
  {
    key: 'openweb',
    name: 'Own site',
    tint: '#4b4b4b',
    manner: 'micropub',
    places: { article: andVideo(place(1600, 900, 20), 1, 3_600) },
    maxImageBytes: 8 * MEBIBYTE,
    maxDocumentBytes: 0,
    maxVideoBytes: 250 * MEBIBYTE,
    mimes: PICTURES,
    maxText: Number.POSITIVE_INFINITY,
    countText: characters,
    maxHashtags: null,
    maxAltText: Number.POSITIVE_INFINITY,
    extra: { title: optional(200) },
    afterwards: ['text', 'remove'],
    details: {},
  },
];

/** What is known of an uploaded file, from its bytes. */
export interface SeenMedia {
  readonly mime: string;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly pages: number;
  /** Seconds of a video; nothing else lasts. */
  readonly seconds: number;
}

/** Why a post is refused, or null when it is taken. */
export function refusalOf(rules: NetworkRules, post: Pick<Entry, 'placement' | 'text' | 'altText' | 'title' | 'link'>, media: readonly SeenMedia[], details: Details = {}, offers: Offers = {}): string | null {
  const rule = rules.places[post.placement];
  if (!rule) return `${rules.name} has no place called '${post.placement}'.`;
  const refused = mediaRefusal(rule, media);
  if (refused !== null) return refused;
  if (rule.document && post.title === '') return 'A document needs a title.';
  const length = rules.countText(post.text);
  if (length > rules.maxText) return `The text has ${length} characters; the most is ${rules.maxText}.`;
  const hashtags = post.text.match(/(?<![\p{L}\p{N}_&])#(?=[\p{L}\p{N}_]*[\p{L}_])[\p{L}\p{M}\p{N}_]+/gu)?.length ?? 0;
  if (rules.maxHashtags !== null && hashtags > rules.maxHashtags) return `The text has ${hashtags} hashtags; the most is ${rules.maxHashtags}.`;
  if (characters(post.altText) > rules.maxAltText) return `The alt text is longer than ${rules.maxAltText} characters.`;
  for (const field of ['title', 'link'] as const) {
    const wants = rules.extra[field];
    if (wants?.required && post[field] === '') return `A post needs a ${field}.`;
    if (post[field].length > (wants?.max ?? Number.POSITIVE_INFINITY)) return `The ${field} is longer than ${wants?.max} characters.`;
  }
  if (post.link !== '' && !/^https?:\/\/\S+$/.test(post.link)) return 'The link is no web address.';
  return detailRefusal(rules, details, offers, post.link);
}

/** Why what goes along with a video is refused: covers and subtitles, with their bytes seen, and the moment of a cover. */
export function alongRefusal(rules: NetworkRules, placement: string, video: SeenMedia | undefined, { cover, coverAtMs, subtitles }: { readonly cover: SeenMedia | null; readonly coverAtMs: number | null; readonly subtitles: SeenMedia | null }): string | null {
  const rule = rules.places[placement]?.video;
  if (cover && rule?.cover !== 'any') return rule?.cover === 'frame' ? 'The cover here is a moment of the video.' : 'This place takes no cover.';
  if (cover && !cover.mime.startsWith('image/')) return 'A cover is a picture.';
  if (coverAtMs !== null && rule?.cover === undefined) return 'This place takes no cover.';
  if (coverAtMs !== null && (coverAtMs < 0 || coverAtMs > (video?.seconds ?? 0) * 1000)) return 'The moment of the cover lies outside the video.';
  if (subtitles && !rule?.subtitles) return 'This place takes no subtitle files.';
  if (subtitles && subtitles.mime !== SUBTITLES_MIME) return 'Subtitles come as WebVTT.';
  return null;
}

function mediaRefusal(rule: PlaceRule, media: readonly SeenMedia[]): string | null {
  const documents = media.filter(({ mime }) => mime === DOCUMENT_MIME).length;
  if (rule.document) {
    const [first] = media;
    if (media.length !== 1 || documents !== 1 || !first) return 'This place takes one document.';
    if (first.pages < rule.document.least || first.pages > rule.document.most) return `The document has ${first.pages} pages; this place takes ${rule.document.least} to ${rule.document.most}.`;
  } else if (media.some(({ mime }) => mime === VIDEO_MIME)) {
    const refused = videoRefusal(rule, media);
    if (refused !== null) return refused;
  } else if (documents > 0) return 'This place takes pictures, no documents.';
  else if (media.length > rule.mostPictures) return `The post has ${media.length} pictures; the most is ${rule.mostPictures}.`;
  const wanted = rule.widthPx / rule.heightPx;
  for (const { widthPx, heightPx } of media) {
    if (Math.abs(widthPx / heightPx / wanted - 1) > rule.shapeTolerance) return `The picture is ${widthPx} × ${heightPx}; this place takes ${rule.widthPx}:${rule.heightPx}.`;
    if (widthPx < rule.widthPx / 2) return `The picture is only ${widthPx} pixels wide.`;
  }
  return null;
}

function videoRefusal({ video }: PlaceRule, media: readonly SeenMedia[]): string | null {
  const [first] = media;
  if (!video) return 'This place takes no videos.';
  if (media.length !== 1 || !first) return 'A post has one video, and nothing beside it.';
  if (first.seconds < video.least || first.seconds > video.most) return `The video lasts ${first.seconds.toFixed(1)} seconds; this place takes ${video.least} to ${video.most}.`;
  return null;
}
