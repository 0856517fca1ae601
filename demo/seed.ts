import { gullwickIdeas, lanternfallIdeas, seedIdeas } from './ideas.ts';
import { readFile, writeFile } from 'node:fs/promises';
import { createHash } from 'node:crypto';
import { join } from 'node:path';
import { DateTime } from 'luxon';
import { nanoid } from 'nanoid';
import type { Role } from '../src/core/access/access.ts';
import type { BrandBook } from '../src/core/brand/brand-book.ts';
import type { Cover } from '../src/core/piece/cover.ts';
import { readSubtitles } from '../src/core/video/subtitles.ts';
import { cutKey, readPiece, type CutRef, type Frame, type SlotValue } from '../src/core/piece/piece.ts';
import { hashSecret, hashPassword, newSecret } from '../src/server/auth/secrets.ts';
import { addClockOffsetMs } from '../src/server/db/clock-repository.ts';
import { findBrandFor, insertBrand, listChannels, type Brand } from '../src/server/db/brand-repository.ts';
import type { MediaItem } from '../src/server/db/media-repository.ts';
import { insertMembership, insertPerson } from '../src/server/db/people-repository.ts';
import { insertAccessToken } from '../src/server/db/token-repository.ts';
import { insertPiece, type StoredPiece } from '../src/server/db/piece-repository.ts';
import { keepAccounts, openStandinAccounts } from '../src/server/brand/standin-accounts.ts';
import { keepMedia } from '../src/server/imports/keep-media.ts';
import { possibleCuts } from '../src/server/pieces/check-references.ts';
import { schedule } from '../src/server/post/schedule.ts';
import { keepFilesPrivate } from '../src/server/secrets/keep-files-private.ts';
import { closeServices, openServices, type Services } from '../src/server/services.ts';
import { readSettings } from '../src/server/settings.ts';
import { gullwickBook } from './brands/gullwick.ts';
import { lanternfallBook } from './brands/lanternfall.ts';
import { readDemoMedia } from './media-cache.ts';
import { gullwickVideos, type DemoVideo } from './videos.ts';
import { gullwickCarousels, lanternfallCarousels, type DemoCarousel, type DemoSlide } from './carousels.ts';
import { allPieces, gullwickPlan, lanternfallPlan, seedPlan, type DemoPlan } from './plan.ts';
import { beginLife, playPast, seedLinks, setNetworksClock, type DemoLearn } from './learn.ts';
import { nextReportMs } from '../src/core/results/report-schedule.ts';
import { reportParts } from '../src/core/results/report.ts';
import { keepReport } from '../src/server/db/report-repository.ts';
import { seedSend, type DemoSend } from './send.ts';
import { gullwickPieces, lanternfallPieces, type DemoPiece } from './pieces.ts';

const PASSWORD = 'sand-in-both-shoes';
/** How long the token that the demo prints lasts. */
const TOKEN_MS = 365 * 86_400_000;
/** The one placement of each surface that the demo's posts take. */
const SENT_PLACEMENTS: ReadonlySet<string> = new Set(['feed-portrait', 'story', 'post-wide', 'page-wide', 'update-wide', 'card', 'update', 'article']);
/** Placements that take one picture. */
const SINGLE_PLACEMENTS: ReadonlySet<string> = new Set(['update', 'story']);
/** Where the demo's videos go: in five shapes. */
const VIDEO_PLACEMENTS: ReadonlySet<string> = new Set(['feed-portrait', 'clip', 'film', 'card']);
/** Where the demo's carousels go: with ten, four and five slides, and as a document. */
const CAROUSEL_PLACEMENTS: ReadonlySet<string> = new Set(['feed-portrait', 'post-square', 'page-portrait', 'document', 'card']);
const MEDIA_FOLDER = join('demo', 'media');

/** What the demo's accounts have to choose from. */
const demoOffers = { tackboard: { board: ['Kites to build', 'Colour', 'Shop'] }, longhall: { playlist: ['In the loft', 'How to build', 'Big Blow'] } };

interface DemoBrand {
  readonly slug: string;
  readonly name: string;
  readonly zone: string;
  readonly handle: string;
  readonly networks: readonly string[];
  readonly site: string;
  readonly book: BrandBook;
  readonly pieces: readonly DemoPiece[];
  readonly carousels: readonly DemoCarousel[];
  readonly videos: readonly DemoVideo[];
  readonly photos: readonly string[];
  readonly plan: DemoPlan;
  readonly send: DemoSend;
  readonly learn: DemoLearn;
}

const photosOf = (pieces: readonly DemoPiece[]): readonly string[] => pieces.flatMap((piece) => [piece.photo, piece.second].flatMap((photo) => photo ?? []));

const photosOfCarousels = (carousels: readonly DemoCarousel[]): readonly string[] => carousels.flatMap(({ slides }) => slides.flatMap((slide) => [slide.photo, slide.panorama].flatMap((photo) => photo ?? [])));

const filesOfVideos = (videos: readonly DemoVideo[]): readonly string[] => [...new Set(videos.flatMap(({ shots, music, voice }) => [...shots.map(({ recording }) => recording), music, voice].flatMap((file) => file ?? [])))];

const gullwickSend: DemoSend = {
  maker: 'Caspian Muir',
  reviews: [
    { piece: 'Build your own kite in an afternoon', networks: ['petalry', 'quipline', 'hearthside', 'kerbside'], inDays: 4, at: '18:00', remark: { by: 'Tove Lindqvist', text: 'Can the day stand larger? People look for it first.', x: 0.24, y: 0.2 } },
    { piece: '312', networks: ['quipline', 'guildrow'], inDays: 6, at: '09:00' },
    { piece: 'The rainbow delta, sewn by hand', networks: ['petalry', 'tackboard'], inDays: 8, at: '12:00', sentBack: { by: 'Ottoline Brack', note: 'Twenty-four of them by now: please count again.' } },
  ],
};
const gullwickLearn: DemoLearn = {
  answerer: 'Wren Adeyemi-Holt',
  answers: [
    ['Booking', 'There is room. Book a bench at {site} and bring nothing but your hands.'],
    ['Opening hours', 'We are in the loft from ten until the light goes, Tuesday to Sunday. {workshop}.'],
    ['Thanks', 'Thank you! That goes straight up on the loft wall.'],
    ['Something broke', 'That should not happen. Write us your order number and a new part is in the post today.'],
  ],
  others: [['petalry', '@quaymuseum', 'Gullwick Quay Museum'], ['quipline', '@bigblow', 'The Big Blow']],
  links: [['/sites/gullwick', 'hearthside', 5], ['/sites/gullwick/kits', 'tackboard', 3], ['/sites/gullwick/spring-fair', 'guildrow', 1]],
  changes: [{ network: 'guildrow', metric: 'saves', kind: 'stops', daysAgo: 19 }, { network: 'hearthside', metric: 'impressions', kind: 'anew', daysAgo: 24 }],
};
const lanternfallLearn: DemoLearn = { answerer: 'Hemi Parata-Quill', answers: [['Opening', 'From dusk until the last bowl is gone, Fridays.'], ['Thanks', 'Kia ora, see you under the lanterns.']], others: [], links: [], changes: [] };
const lanternfallSend: DemoSend = {
  maker: 'Wren Adeyemi-Holt',
  reviews: [],
  byHand: { network: 'hearthside', handle: '@hemi.parata', name: 'Hemi Parata-Quill', piece: 'Sixty lanterns, one tide table' },
};

const gullwick: DemoBrand = {
  slug: 'gullwick',
  name: 'Gullwick Kite Works',
  zone: 'Europe/London',
  handle: '@gullwickkites',
  networks: ['petalry', 'quipline', 'hearthside', 'guildrow', 'tackboard', 'kerbside', 'whirlo', 'longhall', 'openweb'],
  site: 'https://gullwickkites.example',
  book: gullwickBook,
  pieces: gullwickPieces,
  carousels: gullwickCarousels,
  videos: gullwickVideos,
  photos: ['cutout-line-reel.png', 'cutout-sled-kite.png', 'delta-backlit.jpg', 'kite-kits.jpg', 'long-shadow.jpg', 'line-reel-close-up.jpg', 'windsocks.jpg', 'workbench-flat-lay.jpg', ...filesOfVideos(gullwickVideos), ...photosOfCarousels(gullwickCarousels), ...photosOf(gullwickPieces)],
  plan: gullwickPlan,
  send: gullwickSend,
  learn: gullwickLearn,
};
const lanternfall: DemoBrand = {
  slug: 'lanternfall',
  name: 'Lanternfall Night Market',
  zone: 'Pacific/Auckland',
  handle: '@lanternfall',
  networks: ['petalry', 'quipline', 'hearthside', 'tackboard'],
  site: 'https://lanternfall.example',
  book: lanternfallBook,
  pieces: lanternfallPieces,
  carousels: lanternfallCarousels,
  videos: [],
  photos: [...photosOf(lanternfallPieces), ...photosOfCarousels(lanternfallCarousels)],
  plan: lanternfallPlan,
  send: lanternfallSend,
  learn: lanternfallLearn,
};

const people: readonly { readonly name: string; readonly email: string; readonly roles: Readonly<Record<string, Role>> }[] = [
  { name: 'Ottoline Brack', email: 'ottoline@gullwickkites.example', roles: { gullwick: 'owner' } },
  { name: 'Wren Adeyemi-Holt', email: 'wren@gullwickkites.example', roles: { gullwick: 'designer', lanternfall: 'designer' } },
  { name: 'Caspian Muir', email: 'caspian@gullwickkites.example', roles: { gullwick: 'writer' } },
  { name: 'Tove Lindqvist', email: 'tove@gullwickkites.example', roles: { gullwick: 'reviewer' } },
  { name: 'Hemi Parata-Quill', email: 'hemi@lanternfall.example', roles: { lanternfall: 'owner' } },
];

/** The product's clock starts at the start of the next working day in Gullwick. */
async function startClock(services: Services): Promise<void> {
  const now = DateTime.fromMillis(services.clock.machineNowMs(), { zone: gullwick.zone });
  let start = now.set({ hour: 8, minute: 30, second: 0, millisecond: 0 });
  while (start <= now || start.weekday > 5) start = start.plus({ days: 1 });
  await addClockOffsetMs(services.db, Math.round(start.toMillis() - now.toMillis()));
}

async function seedBrand(services: Services, brand: DemoBrand): Promise<string> {
  const id = nanoid(12);
  await insertBrand(services.db, { id, slug: brand.slug, name: brand.name, zone: brand.zone, book: brand.book });
  await keepAccounts(services.db, await openStandinAccounts(services, { brandId: id, brandName: brand.name, handle: brand.handle, networks: brand.networks, offers: demoOffers }));
  return id;
}

async function seedMedia(services: Services, brandId: string, file: string, createdMs: number): Promise<MediaItem> {
  const path = join(MEDIA_FOLDER, file);
  const manifest = JSON.parse(await readFile(join(MEDIA_FOLDER, 'manifest.json'), 'utf8')) as { file: string; title: string; alt: string; credit?: string; license?: string; tags?: string[] }[];
  const entry = manifest.find((each) => each.file === file);
  const hash = createHash('sha256').update(await readFile(path)).digest('hex');
  const terms = { credit: entry?.credit ?? '', licence: entry?.license ?? '', licenceUntil: null };
  return keepMedia(services, { id: brandId }, { path, hash, reading: await readDemoMedia(services.media, path, hash, file), name: file, altText: entry?.alt ?? '', terms, tags: entry?.tags?.slice(0, 4) ?? [] }, createdMs);
}

function pictureSlot(slot: string, item: MediaItem | undefined): Record<string, SlotValue> {
  return item ? { [slot]: { kind: 'picture', mediaId: item.id } } : {};
}

async function seedPiece(services: Services, { brand, site }: { readonly brand: Brand; readonly site: string }, demo: DemoPiece, media: ReadonlyMap<string, MediaItem>, makerId: string, nowMs: number): Promise<void> {
  const cuts = await possibleCuts(services, brand, 'graphic');
  const item = demo.photo ? media.get(demo.photo) : undefined;
  const texts = Object.entries(demo.texts).map(([slot, text]): [string, SlotValue] => [slot, { kind: 'text', text }]);
  const channels = await listChannels(services.db, brand.id);
  const own = Object.fromEntries(Object.entries(demo.own).map(([network, caption]) => [channels.find((each) => each.network === network)?.id ?? '', { caption }]));
  const document = readPiece({
    version: 1,
    kind: 'graphic',
    title: '',
    template: { key: demo.template },
    frames: [{ id: nanoid(8), slots: { ...pictureSlot('photo', item), ...pictureSlot('second', demo.second ? media.get(demo.second) : undefined), ...Object.fromEntries(texts) } }],
    cuts,
    adjustments: {},
    ...(demo.variants ? { variants: demo.variants.map((text) => ({ id: nanoid(8), text })) } : {}),
    words: {
      shared: {
        caption: demo.caption,
        altText: item?.altText ?? `${demo.texts['headline'] ?? ''} ${demo.texts['line'] ?? ''}`.trim(),
        title: demo.texts['headline'] ?? demo.texts['quote'] ?? '',
        link: site,
      },
      own,
    },
  });
  const piece = await insertPiece(services.db, { id: nanoid(12), brandId: brand.id, document, createdBy: makerId }, nowMs);
  await sendOut(services, brand, piece, demo.out, (cut) => SENT_PLACEMENTS.has(cut.placement), makerId, nowMs);
}

/** A slide with its picture's alt text, or its own words as one. */
function slideFrame({ slide, photo, panorama, texts }: DemoSlide, media: ReadonlyMap<string, MediaItem>): Frame {
  const item = media.get(photo ?? panorama ?? '');
  const words = Object.values(texts).map((text) => (/[.!?]$/.test(text) ? text : `${text}.`)).join(' ');
  const filled = Object.entries(texts).map(([slot, text]): [string, SlotValue] => [slot, { kind: 'text', text }]);
  return {
    id: nanoid(8),
    ...(slide === undefined ? {} : { slide }),
    altText: item ? `${item.altText} ${words}` : words,
    slots: { ...pictureSlot('photo', photo === undefined ? undefined : item), ...pictureSlot('panorama', panorama === undefined ? undefined : item), ...Object.fromEntries(filled) },
  };
}

async function seedCarousel(services: Services, { brand, site }: { readonly brand: Brand; readonly site: string }, demo: DemoCarousel, media: ReadonlyMap<string, MediaItem>, makerId: string, nowMs: number): Promise<void> {
  const cuts = await possibleCuts(services, brand, 'carousel');
  const channels = await listChannels(services.db, brand.id);
  const own = Object.fromEntries(Object.entries(demo.own).map(([network, caption]) => [channels.find((each) => each.network === network)?.id ?? '', { caption }]));
  const document = readPiece({
    version: 1,
    kind: 'carousel',
    title: '',
    template: { key: demo.template },
    frames: demo.slides.map((slide) => slideFrame(slide, media)),
    cuts,
    // A place for one picture gets all slides gathered in it.
    adjustments: Object.fromEntries(cuts.filter(({ placement }) => SINGLE_PLACEMENTS.has(placement)).map((cut) => [cutKey(cut), { gathered: true }])),
    words: { shared: { caption: demo.caption, altText: '', title: demo.slides[0].texts['headline'] ?? '', link: site }, own },
  });
  const piece = await insertPiece(services.db, { id: nanoid(12), brandId: brand.id, document, createdBy: makerId }, nowMs);
  await sendOut(services, brand, piece, demo.out, (cut) => CAROUSEL_PLACEMENTS.has(cut.placement), makerId, nowMs);
}

async function seedVideo(services: Services, { brand, site }: { readonly brand: Brand; readonly site: string }, demo: DemoVideo, media: ReadonlyMap<string, MediaItem>, makerId: string, nowMs: number): Promise<void> {
  const idOf = (file: string | undefined): string | undefined => (file === undefined ? undefined : media.get(file)?.id);
  const [music, voice] = [idOf(demo.music), idOf(demo.voice)];
  const frames = demo.shots.map(({ slide, recording, texts, shot }): Frame => ({
    id: nanoid(8),
    ...(slide === undefined ? {} : { slide }),
    ...(shot ? { shot } : {}),
    slots: { ...pictureSlot('film', recording === undefined ? undefined : media.get(recording)), ...Object.fromEntries(Object.entries(texts).map(([slot, text]): [string, SlotValue] => [slot, { kind: 'text', text }])) },
  }));
  const said = Object.values(demo.shots[0].texts).join('. ');
  const document = readPiece({
    version: 1,
    kind: 'video',
    title: '',
    template: { key: demo.template },
    frames,
    track: { ...(music ? { music } : {}), ...(demo.musicVolume === undefined ? {} : { musicVolume: demo.musicVolume }), ...(voice ? { voice } : {}), ...(demo.subtitles ? { subtitles: readSubtitles(demo.subtitles) } : {}), ...(demo.subtitleFile ? { subtitleFile: true } : {}) },
    cover: coverOfDemo(demo.cover, frames, idOf),
    cuts: await possibleCuts(services, brand, 'video'),
    adjustments: {},
    words: { shared: { caption: demo.caption, altText: `A short video. ${said}.`, title: demo.shots[0].texts['headline'] ?? demo.shots[0].texts['quote'] ?? '', link: site }, own: {} },
  });
  const piece = await insertPiece(services.db, { id: nanoid(12), brandId: brand.id, document, createdBy: makerId }, nowMs);
  await sendOut(services, brand, piece, process.env['CONFETTI_DEMO_VIDEOS'] === 'drafts' ? { kind: 'draft' } : demo.out, (cut) => VIDEO_PLACEMENTS.has(cut.placement), makerId, nowMs);
}

function coverOfDemo(cover: DemoVideo['cover'], frames: readonly Frame[], idOf: (file: string) => string | undefined): Cover {
  if ('atMs' in cover) return { kind: 'frame', atMs: cover.atMs };
  if ('picture' in cover) return { kind: 'picture', mediaId: idOf(cover.picture) ?? '' };
  return { kind: 'shot', frameId: frames[cover.shot]?.id ?? '' };
}

/** Schedules the cuts of a piece that go out, at the demo's moment for it. */
async function sendOut(services: Services, brand: Brand, piece: StoredPiece, out: DemoPiece['out'], isOut: (cut: CutRef) => boolean, makerId: string, nowMs: number): Promise<void> {
  if (out.kind === 'draft') return;
  const when =
    out.kind === 'now' ? { kind: 'now' as const } : { kind: 'at' as const, wall: `${DateTime.fromMillis(nowMs, { zone: brand.zone }).plus({ days: out.inDays }).toFormat('yyyy-MM-dd')}T${out.time}` };
  await schedule(services, brand, piece, { revision: piece.revision, cuts: piece.document.cuts.filter(isOut).map((cut) => ({ ...cut })), when }, { personId: makerId, maySend: true }, nowMs);
}

async function seed(services: Services): Promise<void> {
  await startClock(services);
  const brandIds = new Map<string, string>();
  for (const brand of [gullwick, lanternfall]) brandIds.set(brand.slug, await seedBrand(services, brand));
  const passwordHash = await hashPassword(PASSWORD);
  const ids = new Map<string, string>();
  for (const person of people) {
    const id = nanoid(12);
    ids.set(person.name, id);
    await insertPerson(services.db, { id, email: person.email, name: person.name, passwordHash }, services.clock.machineNowMs());
    for (const [slug, role] of Object.entries(person.roles)) await insertMembership(services.db, id, brandIds.get(slug) ?? '', role);
  }
  const wren = ids.get('Wren Adeyemi-Holt') ?? '';
  for (const demo of [gullwick, lanternfall]) {
    const access = await findBrandFor(services.db, demo.slug, wren);
    if (!access) throw new Error(`The brand ${demo.slug} was not kept`);
    const nowMs = await services.clock.nowMs();
    const media = new Map<string, MediaItem>();
    // Two at a time: a clip takes a processor for a while.
    const queue = [...new Set(demo.photos)].map((file, index) => ({ file, createdMs: nowMs - (demo.photos.length - index) * 3_600_000 }));
    const work = async (): Promise<void> => {
      for (let next = queue.shift(); next; next = queue.shift()) media.set(next.file, await seedMedia(services, access.brand.id, next.file, next.createdMs));
    };
    await Promise.all([work(), work()]);
    for (const [index, carousel] of demo.carousels.entries()) await seedCarousel(services, { brand: access.brand, site: demo.site }, carousel, media, wren, nowMs - demo.carousels.length + index);
    for (const [index, video] of demo.videos.entries()) await seedVideo(services, { brand: access.brand, site: demo.site }, video, media, wren, nowMs - demo.carousels.length - demo.videos.length + index);
    for (const [index, piece] of demo.pieces.entries()) await seedPiece(services, { brand: access.brand, site: demo.site }, piece, media, wren, nowMs + index);
    await beginLife(services, access.brand, demo.learn, nowMs);
    await seedPlan(services, access.brand, demo.plan, wren, nowMs);
    await seedSend(services, access.brand, demo.send, await allPieces(services, access.brand), new Map([...ids].map(([name, id]) => [name, { id, name }])), nowMs);
    await playPast(services, access.brand, demo.learn, { id: ids.get(demo.learn.answerer) ?? wren, name: demo.learn.answerer }, nowMs);
    if (demo.slug === 'gullwick') await keepReport(services.db, access.brand.id, nanoid(12), { name: 'The month in figures', days: 28, paper: 'a4', parts: [...reportParts], channels: [], themeId: null, schedule: { every: 'month', day: 1, time: '09:00', to: ['ottoline@gullwickkites.example'] } }, nextReportMs({ every: 'month', day: 1, time: '09:00' }, nowMs, access.brand.zone));
    await seedIdeas(services, access.brand, demo.slug === 'gullwick' ? gullwickIdeas : lanternfallIdeas, { id: wren, name: 'Wren Adeyemi-Holt' }, nowMs);
    await seedLinks(services, access.brand, demo.learn, { id: ids.get(demo.learn.answerer) ?? wren, name: demo.learn.answerer }, nowMs);
  }
  await setNetworksClock(services);
  const secret = newSecret('cft');
  await insertAccessToken(services.db, { id: nanoid(12), name: 'Demo scripts', scope: 'send', createdMs: services.clock.machineNowMs(), expiresMs: services.clock.machineNowMs() + TOKEN_MS, lastUsedMs: null, personId: wren, secretHash: hashSecret(secret) });
  // Written last: a seed that broke off is seen by its absence.
  await writeFile(
    join(services.settings.dataFolder, 'demo.json'),
    JSON.stringify({ people: people.map((person) => person.name), password: PASSWORD, token: { person: 'Wren Adeyemi-Holt', secret } }),
    { mode: 0o600 },
  );
}

keepFilesPrivate();
const settings = readSettings(process.env);
if (!settings.standinOrigin) throw new Error('CONFETTI_STANDIN must say where the stand-in networks are');
const services = await openServices(settings, 2);
try {
  await seed(services);
} finally {
  await closeServices(services);
}
