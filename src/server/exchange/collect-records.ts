import { measureKeys } from '../../core/results/measures.ts';
import type { RecordKind } from '../../contract/package-format.ts';
import { shippedSheets } from '../../core/network/shipped-sheets.ts';
import { slugOf } from '../../core/words/slug.ts';
import { listBoilerplates } from '../db/boilerplate-repository.ts';
import { listChannelsEver, listOwnSheets, listSheetsOf, type Brand } from '../db/brand-repository.ts';
import { listCampaigns } from '../db/campaign-repository.ts';
import { listSavedAnswers } from '../db/conversation-repository.ts';
import { listAllMeasurements, listDeliveryRows, listIdeas, listPieceRows, listPublications, listSeries, listStates, listTypefaces, pageIds, type Chosen, type PagedTable } from '../db/exchange-repository.ts';
import { listFeeds, listRules } from '../db/feed-repository.ts';
import { readIdeaSettings } from '../db/idea-repository.ts';
import { readLearnSettings } from '../db/learn-settings-repository.ts';
import { findMediaByIds, type MediaItem } from '../db/media-repository.ts';
import { listPiecePlans, noPiecePlan } from '../db/piece-plan-repository.ts';
import { listPlanEntries } from '../db/plan-entry-repository.ts';
import { getPlan } from '../db/plan-repository.ts';
import { listPosts } from '../db/post-repository.ts';
import { listQueue } from '../db/queue-repository.ts';
import { listRepeats } from '../db/repeat-repository.ts';
import { listRotations } from '../db/rotation-repository.ts';
import { getSendSettings } from '../db/send-settings-repository.ts';
import { listLinks } from '../db/short-link-repository.ts';
import { findOwnTemplate, listTemplates } from '../db/template-repository.ts';
import type { Services } from '../services.ts';
import type { Selection } from './selection.ts';

/** States that a piece went through, of which another installation may have one. */
const MAX_STATES = 500;
const MAX_LINKS = 10_000;

type Collected = Readonly<Record<RecordKind, () => AsyncIterable<object>>>;

const fileEndings: Readonly<Record<string, string>> = { 'image/jpeg': 'jpg', 'image/png': 'png', 'image/webp': 'webp', 'video/mp4': 'mp4', 'audio/mp4': 'm4a' };

/** Where the file of an item lies in a package: its name, so that people find it, and its id, so that no two are one. */
export function mediaFileName({ id, name, mime, recording }: Pick<MediaItem, 'id' | 'name' | 'mime' | 'recording'>): string {
  const bare = slugOf(name.replace(/\.[a-z0-9]{2,5}$/iu, '')).slice(0, 80) || 'media';
  return `media/${bare}-${id}.${fileEndings[recording?.mime ?? mime] ?? 'bin'}`;
}

export const typefaceFileName = (hash: string): string => `typefaces/${hash}.ttf`;

/** The records of a brand, kind by kind, each read when it is asked for and page by page. */
export function collectRecords({ db }: Pick<Services, 'db'>, brand: Brand, { pieceIds, mediaIds, range }: Selection): Collected {
  const { id: brandId } = brand;
  async function* paged(table: PagedTable, chosen: Chosen, read: (ids: readonly string[]) => Promise<readonly object[]>): AsyncGenerator<object> {
    for await (const ids of pageIds(db, table, brandId, chosen)) yield* await read(ids);
  }
  const list = (read: () => Promise<readonly object[]>) => async function* (): AsyncGenerator<object> {
    yield* await read();
  };
  // A month takes what stands in it; a piece, all that is planned of it.
  const planned = range ? { range } : { pieceIds };
  return {
    brand: list(async () => [{ id: brandId, slug: brand.slug, name: brand.name, zone: brand.zone, book: brand.book, plan: (await getPlan(db, brandId)).plan, sendSettings: await getSendSettings(db, brandId), learnSettings: await readLearnSettings(db, brandId), ideaSettings: await readIdeaSettings(db, brandId) }]),
    sheets: list(async () => {
      const own = await listOwnSheets(db, brandId);
      const used = await listSheetsOf(db, brandId);
      const all = [...used, ...[...own.values()].filter(({ key }) => !used.some((sheet) => sheet.key === key))];
      return all.filter(({ key }) => own.has(key) || !shippedSheets.some((sheet) => sheet.key === key)).map((sheet) => ({ sheet, isOwn: own.has(sheet.key) }));
    }),
    channels: list(async () => (await listChannelsEver(db, brandId)).map(({ id, network, name, handle, kind, groupName, isPinned, site, offers, removedMs }) => ({ id, network, name, handle, kind, groupName, isPinned, site, offers, isRemoved: removedMs !== null }))),
    typefaces: list(async () => (await listTypefaces(db, brandId)).map((typeface) => ({ ...typeface, file: typefaceFileName(typeface.hash) }))),
    media: () => paged('media', { ids: mediaIds }, async (ids) => (await findMediaByIds(db, brandId, ids)).map(mediaRecord)),
    templates: list(async () => {
      const own = (await listTemplates(db, brandId)).filter(({ isOwn }) => isOwn);
      const found = await Promise.all(own.map(({ key }) => findOwnTemplate(db, brandId, key)));
      return found.flatMap((template) => (template ? [{ document: template.document, isArchived: template.archived }] : []));
    }),
    campaigns: list(() => listCampaigns(db, brandId)),
    pieces: () => paged('pieces', { ids: pieceIds }, async (ids) => {
      const plans = await listPiecePlans(db, brandId, ids);
      return Promise.all((await listPieceRows(db, ids)).map(async ({ id, hash, body, shelf, createdMs, updatedMs }) => ({ id, document: JSON.parse(body), earlier: (await listStates(db, id, MAX_STATES)).filter((each) => each !== hash), isArchived: shelf === 'archived', createdMs, updatedMs, plan: { ...(plans.get(id) ?? noPiecePlan) } })));
    }),
    series: list(async () => (await listSeries(db, brandId)).filter(({ pieceIds: parts }) => parts.length > 0 && (pieceIds === null || parts.every((id) => pieceIds.includes(id))))),
    entries: () => paged('plan_entries', planned, async (ids) => (await listPlanEntries(db, brandId, { ids })).map(({ id, pieceId, text, themeId, campaignId, wall, zone, slotKey, cuts }) => ({ id, pieceId, text, themeId, campaignId, wall, zone, slotKey, cuts }))),
    posts: () => paged('posts', planned, async (ids) => {
      const deliveries = await listDeliveryRows(db, ids);
      return (await listPosts(db, brandId, ids)).map(({ id, pieceId, pieceName, kind, state, wall, zone, themeId, campaignId }) => ({ id, pieceId, pieceName, kind, state, wall, zone, themeId, campaignId, deliveries: deliveries.filter(({ postId }) => postId === id).map(({ channelId, placement, state: each, words, address, sentMs }) => ({ channelId, placement, state: each, words: JSON.parse(words) as unknown, address, sentMs })) }));
    }),
    queue: list(async () => (await listQueue(db, brandId)).map(({ id, channelId, pieceId, placement }, position) => ({ id, channelId, pieceId, placement, position }))),
    repeats: list(async () => (await listRepeats(db, brandId)).map(({ id, pieceId, rule, start, zone, except, cuts }) => ({ id, pieceId, rule, start, zone, except: [...except], cuts }))),
    rotations: list(async () => (await listRotations(db, brandId)).map(({ pieceId, settings, isOn }) => ({ pieceId, settings, isOn }))),
    boilerplates: list(async () => (await listBoilerplates(db, brandId)).map(({ id, name, piece, themeId, usual }) => ({ id, name, piece, themeId, usual }))),
    publications: () => paged('publications', { range }, async (ids) => {
      const measured = await listAllMeasurements(db, ids);
      return (await listPublications(db, ids)).map((publication) => {
        const { id, channelId, pieceId, deliveryId, remoteId, address, publishedMs, title, format, themeId, campaignId, templateKey, traits, aged } = publication;
        const figures = Object.fromEntries(measureKeys.map((key) => [key, publication[key] === null ? null : Number(publication[key])]));
        return { id, channelId, pieceId, deliveryId, remoteId, address, publishedMs: Number(publishedMs), title, format, themeId, campaignId, templateKey, traits: { ...traits }, aged: { ...aged }, figures, measurements: measured.get(id) ?? [] };
      });
    }),
    ideas: () => paged('ideas', {}, async (ids) => (await listIdeas(db, ids)).filter(({ kind, createdBy }) => kind === 'note' || createdBy !== null).map(({ id, kind, key, title, text, link, pictureUrl, mediaId, day, themeId, source, state, snoozedUntil, createdMs }) => ({ id, kind, key, title, text, link, pictureUrl, mediaId, day, themeId, source, state, snoozedUntil, createdMs }))),
    feeds: list(async () => (await listFeeds(db, brandId)).map(({ id, name, address }) => ({ id, name, address }))),
    'feed-rules': list(async () => (await listRules(db, { brandId })).map(({ id, feedId, settings }) => ({ id, feedId, settings }))),
    'saved-answers': list(async () => (await listSavedAnswers(db, brandId)).map(({ id, name, text }) => ({ id, name, text }))),
    'short-links': list(async () => (await listLinks(db, brandId, MAX_LINKS)).map(({ code, target, label, createdMs }) => ({ code, target, label, createdMs }))),
  };
}

function mediaRecord(item: MediaItem): object {
  const { id, name, altText, tags, terms, takenDay, sourceAddress, sourceHash, ownFocal, archivedMs, createdMs, recording } = item;
  return { id, file: mediaFileName(item), kind: recording?.kind ?? 'picture', name, altText, tags: [...tags], credit: terms.credit, licence: terms.licence, licenceUntil: terms.licenceUntil, takenDay, sourceAddress, sourceHash, focal: ownFocal, subject: recording?.subject ?? null, isArchived: archivedMs !== null, createdMs };
}
