import type { PictureFacts } from '../../core/crop/picture-facts.ts';
import type { Picture } from '../../core/crop/crop-window.ts';
import { wholeRecording, type Recording } from '../../core/video/recording.ts';
import { noteChange } from './change-repository.ts';
import type { Db } from './connection.ts';
import { keepWords, searchWords, whereWordsBegin, type WordList } from './search-words.ts';

export interface MediaItem {
  readonly id: string;
  readonly brandId: string;
  readonly name: string;
  readonly mime: string;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly bytes: number;
  readonly sourceHash: string;
  readonly storedHash: string;
  readonly facts: PictureFacts;
  /** What a clip or sound is beside the picture that stands for it; null for a picture. */
  readonly recording: StoredRecording | null;
  /** Where a person moved the focal point; null leaves the proposal in force. */
  readonly ownFocal: { readonly x: number; readonly y: number } | null;
  readonly altText: string;
  readonly terms: MediaTerms;
  readonly tags: readonly string[];
  /** The day that it was taken, as its file said; null: it did not. */
  readonly takenDay: string | null;
  /** The address it was fetched from; null for a file that was handed in. */
  readonly sourceAddress: string | null;
  /** When it was archived; null while it is in use. */
  readonly archivedMs: number | null;
  readonly revision: number;
  readonly createdMs: number;
}

/** A clip or sound and its working copy. */
export interface StoredRecording extends Recording {
  readonly storedHash: string;
  readonly mime: string;
  readonly bytes: number;
}

/** Who made a picture, and what its licence allows until when (the last day, `YYYY-MM-DD`). */
export interface MediaTerms {
  readonly credit: string;
  readonly licence: string;
  readonly licenceUntil: string | null;
}

export const noTerms: MediaTerms = { credit: '', licence: '', licenceUntil: null };

/** An item without the grids that layout needs: what lists show. */
export interface MediaSummary extends Omit<MediaItem, 'brandId' | 'sourceHash' | 'storedHash' | 'facts' | 'recording' | 'ownFocal' | 'takenDay'> {
  readonly focal: { readonly x: number; readonly y: number };
  readonly focalBy: 'proposal' | 'person';
  readonly recording: Pick<Recording, 'kind' | 'durationMs' | 'hasSound'> | null;
}

interface MediaRow {
  id: string;
  brand_id: string;
  name: string;
  mime: string;
  width_px: number;
  height_px: number;
  bytes: number;
  source_hash: string;
  stored_hash: string;
  facts: string;
  kind: MediaKind;
  duration_ms: number | null;
  has_sound: boolean | number | null;
  proposed_x: number;
  proposed_y: number;
  recording: string | null;
  focal_x: number | null;
  focal_y: number | null;
  alt_text: string;
  credit: string;
  licence: string;
  licence_until: string | null;
  tags: string;
  taken_day: string | null;
  source_address: string | null;
  archived_ms: number | null;
  revision: number;
  created_ms: number;
}

function toItem(row: MediaRow): MediaItem {
  return {
    id: row.id,
    brandId: row.brand_id,
    name: row.name,
    mime: row.mime,
    widthPx: row.width_px,
    heightPx: row.height_px,
    bytes: row.bytes,
    sourceHash: row.source_hash,
    storedHash: row.stored_hash,
    facts: JSON.parse(row.facts),
    recording: row.recording === null ? null : wholeRecording(JSON.parse(row.recording) as StoredRecording),
    ownFocal: row.focal_x !== null && row.focal_y !== null ? { x: row.focal_x, y: row.focal_y } : null,
    altText: row.alt_text,
    terms: { credit: row.credit, licence: row.licence, licenceUntil: row.licence_until },
    tags: JSON.parse(row.tags),
    takenDay: row.taken_day,
    sourceAddress: row.source_address,
    archivedMs: row.archived_ms,
    revision: row.revision,
    createdMs: row.created_ms,
  };
}

/** What a picture, a clip and a sound are called in lists. */
export type MediaKind = 'picture' | 'clip' | 'sound';

const SUMMARY_COLUMNS = ['id', 'name', 'mime', 'width_px', 'height_px', 'bytes', 'kind', 'duration_ms', 'has_sound', 'proposed_x', 'proposed_y', 'focal_x', 'focal_y', 'alt_text', 'credit', 'licence', 'licence_until', 'tags', 'source_address', 'archived_ms', 'revision', 'created_ms'];

function toSummary(row: MediaRow): MediaSummary {
  const own = row.focal_x !== null && row.focal_y !== null ? { x: row.focal_x, y: row.focal_y } : null;
  return {
    id: row.id,
    name: row.name,
    mime: row.mime,
    widthPx: row.width_px,
    heightPx: row.height_px,
    bytes: row.bytes,
    focal: own ?? { x: row.proposed_x, y: row.proposed_y },
    focalBy: own ? 'person' : 'proposal',
    recording: row.kind === 'picture' ? null : { kind: row.kind, durationMs: row.duration_ms ?? 0, hasSound: Boolean(row.has_sound) },
    altText: row.alt_text,
    terms: { credit: row.credit, licence: row.licence, licenceUntil: row.licence_until },
    tags: JSON.parse(row.tags) as string[],
    sourceAddress: row.source_address,
    archivedMs: row.archived_ms,
    revision: row.revision,
    createdMs: row.created_ms,
  };
}

/** What lists say of a file, beside what the file is. */
function listedRow({ facts, recording }: Pick<MediaItem, 'facts' | 'recording'>) {
  return { kind: recording?.kind ?? 'picture', duration_ms: recording?.durationMs ?? null, has_sound: recording?.hasSound ?? null, proposed_x: facts.focal.x, proposed_y: facts.focal.y };
}

/** What layout has to know of a stored picture. */
export function toPicture(item: MediaItem): Picture {
  return { id: item.id, widthPx: item.widthPx, heightPx: item.heightPx, facts: item.facts, focal: item.ownFocal ?? item.facts.focal, focalBy: item.ownFocal ? 'person' : 'proposal' };
}

function keptBytes({ bytes, recording }: Pick<MediaItem, 'bytes' | 'recording'>): number {
  return bytes + (recording?.bytes ?? 0);
}

/** What all items of a brand take on the disk, in bytes. */
export async function sumKeptBytes(db: Db, brandId: string): Promise<number> {
  const row = await db('media').where({ brand_id: brandId }).sum<{ sum: number | string | null }[]>({ sum: 'kept_bytes' }).first();
  return Number(row?.sum ?? 0);
}

/** Inserts an item, or answers the one the brand already has of the same source bytes. */
export async function insertMediaOnce(db: Db, item: MediaItem): Promise<MediaItem> {
  return db.transaction(async (trx) => {
    const inserted: { id: string }[] = await trx('media')
      .insert({
        id: item.id,
        brand_id: item.brandId,
        name: item.name,
        mime: item.mime,
        width_px: item.widthPx,
        height_px: item.heightPx,
        bytes: item.bytes,
        kept_bytes: keptBytes(item),
        source_hash: item.sourceHash,
        stored_hash: item.storedHash,
        facts: JSON.stringify(item.facts),
        recording: item.recording === null ? null : JSON.stringify(item.recording),
        ...listedRow(item),
        focal_x: item.ownFocal?.x ?? null,
        focal_y: item.ownFocal?.y ?? null,
        alt_text: item.altText,
        ...termsRow(item.terms),
        tags: JSON.stringify(item.tags),
        taken_day: item.takenDay,
        source_address: item.sourceAddress,
        created_ms: item.createdMs,
      })
      .onConflict(['brand_id', 'source_hash'])
      .ignore()
      .returning('id');
    const row = await trx<MediaRow>('media').where({ brand_id: item.brandId, source_hash: item.sourceHash }).first();
    if (!row) throw new Error(`Picture '${item.id}' was not kept`);
    if (inserted.length > 0) {
      await writeSearch(trx, item);
      await noteChange(trx, { brandId: item.brandId, kind: 'media', subjectId: item.id }, item.createdMs);
    }
    return toItem(row);
  });
}

export async function findMediaBySource(db: Db, brandId: string, sourceHash: string): Promise<MediaItem | null> {
  const row = await db<MediaRow>('media').where({ brand_id: brandId, source_hash: sourceHash }).first();
  return row ? toItem(row) : null;
}

export async function findMedia(db: Db, brandId: string, id: string): Promise<MediaItem | null> {
  const row = await db<MediaRow>('media').where({ brand_id: brandId, id }).first();
  return row ? toItem(row) : null;
}

export async function findMediaByIds(db: Db, brandId: string, ids: readonly string[]): Promise<readonly MediaItem[]> {
  return (await db<MediaRow>('media').where({ brand_id: brandId }).whereIn('id', [...ids])).map(toItem);
}

export interface MediaFilter {
  readonly before: { readonly ms: number; readonly id: string } | null;
  readonly limit: number;
  /** Words that all have to be in the name, alt text, tags or credit. */
  readonly words: readonly string[];
  readonly tag: string | null;
  readonly archived: boolean;
  /** `seen`: what has something to see, pictures and clips; `sound`: sounds alone; null: all. */
  readonly kind: 'seen' | 'sound' | null;
}

/** A page of a brand's media, newest first. Words are found by their beginnings. */
export async function pageMedia(db: Db, brandId: string, filter: MediaFilter): Promise<readonly MediaSummary[]> {
  const query = db('media').where({ 'media.brand_id': brandId }).select(SUMMARY_COLUMNS).orderBy([{ column: 'created_ms', order: 'desc' }, { column: 'id', order: 'desc' }]).limit(filter.limit);
  if (filter.archived) query.whereNotNull('archived_ms');
  else query.whereNull('archived_ms');
  if (filter.kind === 'sound') query.where('kind', 'sound');
  if (filter.kind === 'seen') query.whereIn('kind', ['picture', 'clip']);
  if (filter.tag !== null) query.whereExists(db('media_tags').select(db.raw('1')).whereRaw('?? = ??', ['media_tags.media_id', 'media.id']).where('tag', filter.tag));
  await whereWordsBegin(db, query, mediaWords, brandId, filter.words.flatMap(searchWords));
  if (filter.before) query.whereRaw('(created_ms, id) < (?, ?)', [filter.before.ms, filter.before.id]);
  return ((await query) as MediaRow[]).map(toSummary);
}

/** Writes down what an item is found by: its words and its tags. */
async function writeSearch(trx: Db, item: Pick<MediaItem, 'id' | 'brandId' | 'name' | 'altText' | 'tags' | 'terms'>): Promise<void> {
  const words = new Set([item.name, item.altText, ...item.tags, item.terms.credit].flatMap(searchWords));
  await keepWords(trx, mediaWords, item, words, MAX_WORDS);
  const before: string[] = await trx('media_tags').where({ media_id: item.id }).pluck('tag');
  const now = new Set(item.tags);
  for (const tag of before.filter((each) => !now.has(each))) await countTag(trx, item, tag, -1);
  for (const tag of [...now].filter((each) => !before.includes(each))) await countTag(trx, item, tag, 1);
}

/** Words of one item that it is found by. */
const MAX_WORDS = 300;
/** Media that share the words of one name. */
const MAX_NAMED = 30;
const mediaWords: WordList = { table: 'media_words', idColumn: 'media_id', itemColumn: 'media.id' };

async function countTag(trx: Db, { id, brandId }: Pick<MediaItem, 'id' | 'brandId'>, tag: string, by: 1 | -1): Promise<void> {
  if (by > 0) await trx('media_tags').insert({ media_id: id, brand_id: brandId, tag });
  else await trx('media_tags').where({ media_id: id, tag }).delete();
  await trx('brand_tags').insert({ brand_id: brandId, tag, uses: 1 }).onConflict(['brand_id', 'tag']).merge({ uses: trx.raw('?? + ?', ['brand_tags.uses', by]) });
  if (by < 0) await trx('brand_tags').where({ brand_id: brandId, tag }).where('uses', '<=', 0).delete();
}

const MAX_TAGS_LISTED = 60;

/** The tags of a brand's media with how many items have each, the most used first. */
/** Pictures and clips of a brand by their names, in small letters, with and without the ending. Names that nothing has are missing. */
export async function findMediaNamed(db: Db, brandId: string, names: readonly string[]): Promise<ReadonlyMap<string, string>> {
  const found = new Map<string, string>();
  const bare = (name: string): string => name.toLowerCase().replace(/\.[a-z0-9]{2,5}$/u, '');
  for (const name of names) {
    const query = db('media').where({ brand_id: brandId, archived_ms: null }).whereNot('kind', 'sound').orderBy('created_ms', 'desc').limit(MAX_NAMED).select('media.id', 'media.name');
    await whereWordsBegin(db, query, mediaWords, brandId, searchWords(bare(name)));
    const rows: { id: string; name: string }[] = await query;
    const exact = rows.find((row) => row.name.toLowerCase() === name.toLowerCase()) ?? rows.find((row) => bare(row.name) === bare(name));
    if (!exact) continue;
    found.set(name.toLowerCase(), exact.id);
    found.set(bare(name), exact.id);
  }
  return found;
}

/** In how many pieces each picture, clip or sound is shown; those in none are missing. */
export async function countUsesOfMedia(db: Db, ids: readonly string[]): Promise<ReadonlyMap<string, number>> {
  const rows: { media_id: string; uses: number | string }[] = await db('piece_media').whereIn('media_id', [...ids]).groupBy('media_id').select('media_id').count({ uses: '*' });
  return new Map(rows.map(({ media_id, uses }) => [media_id, Number(uses)]));
}

export async function listTags(db: Db, brandId: string): Promise<readonly { readonly tag: string; readonly count: number }[]> {
  const rows: { tag: string; uses: number }[] = await db('brand_tags').where({ brand_id: brandId }).orderBy([{ column: 'uses', order: 'desc' }, { column: 'tag' }]).limit(MAX_TAGS_LISTED).select('tag', 'uses');
  return rows.map(({ tag, uses }) => ({ tag, count: uses }));
}

/** The latest items that have something to see, with all that layout needs. */
export async function latestMedia(db: Db, brandId: string, limit: number): Promise<readonly MediaItem[]> {
  return (await db<MediaRow>('media').where({ brand_id: brandId }).whereNull('archived_ms').whereIn('kind', ['picture', 'clip']).orderBy([{ column: 'created_ms', order: 'desc' }, { column: 'id', order: 'desc' }]).limit(limit)).map(toItem);
}

/** Deletes a picture's row; its bytes stay, as posts may hold them. */
export async function deleteMedia(db: Db, brandId: string, id: string): Promise<void> {
  await db.transaction(async (trx) => {
    const tags: string[] = await trx('media_tags').where({ media_id: id, brand_id: brandId }).pluck('tag');
    for (const tag of tags) await countTag(trx, { id, brandId }, tag, -1);
    await trx('media').where({ brand_id: brandId, id }).delete();
  });
}

/** What of an item a person may change. */
export interface MediaChange {
  readonly focal?: { readonly x: number; readonly y: number } | null;
  readonly name?: string;
  readonly recording?: StoredRecording;
  readonly altText?: string;
  readonly terms?: MediaTerms;
  readonly tags?: readonly string[];
  readonly archivedMs?: number | null;
  /** Another file in its place: what it shows and where its bytes lie. */
  readonly file?: Pick<MediaItem, 'mime' | 'widthPx' | 'heightPx' | 'bytes' | 'sourceHash' | 'storedHash' | 'facts' | 'recording'>;
}

/** Changes an item if it is still at `revision`; null when it is not. */
export async function updateMedia(db: Db, brandId: string, id: string, revision: number, change: MediaChange, machineNowMs: number): Promise<MediaItem | null> {
  return db.transaction(async (trx) => {
    const fields = {
      ...(change.focal === undefined ? {} : { focal_x: change.focal?.x ?? null, focal_y: change.focal?.y ?? null }),
      ...(change.name === undefined ? {} : { name: change.name }),
      ...(change.altText === undefined ? {} : { alt_text: change.altText }),
      ...(change.terms === undefined ? {} : termsRow(change.terms)),
      ...(change.tags === undefined ? {} : { tags: JSON.stringify(change.tags) }),
      ...(change.archivedMs === undefined ? {} : { archived_ms: change.archivedMs }),
      ...(change.recording === undefined ? {} : { recording: JSON.stringify(change.recording) }),
      ...(change.file === undefined ? {} : fileRow(change.file)),
    };
    const [row]: MediaRow[] = await trx('media').where({ brand_id: brandId, id, revision }).update({ ...fields, revision: revision + 1 }).returning('*');
    if (!row) return null;
    const item = toItem(row);
    await writeSearch(trx, item);
    await noteChange(trx, { brandId, kind: 'media', subjectId: id }, machineNowMs);
    return item;
  });
}

function termsRow(terms: MediaTerms) {
  return { credit: terms.credit, licence: terms.licence, licence_until: terms.licenceUntil };
}

function fileRow(file: NonNullable<MediaChange['file']>) {
  // A new picture has its own focal proposal; where a person had looked belongs to the old one.
  const own = { focal_x: null, focal_y: null };
  return { ...own, mime: file.mime, width_px: file.widthPx, height_px: file.heightPx, bytes: file.bytes, kept_bytes: keptBytes(file), source_hash: file.sourceHash, stored_hash: file.storedHash, facts: JSON.stringify(file.facts), recording: file.recording === null ? null : JSON.stringify(file.recording), ...listedRow(file) };
}


/** Media whose licence ends in some days, both included, with the scheduled posts that show them after that. */
export async function findEndingLicences(db: Db, brandId: string, fromDay: string, untilDay: string): Promise<readonly { readonly id: string; readonly name: string; readonly lastDay: string; readonly posts: number }[]> {
  const rows: { id: string; name: string; licence_until: string; posts: number | string }[] = await db('media')
    .join('post_media', 'post_media.media_id', 'media.id')
    .join('posts', 'posts.id', 'post_media.post_id')
    .where({ 'media.brand_id': brandId, 'posts.state': 'scheduled' })
    .whereNotNull('media.licence_until')
    .where('media.licence_until', '>=', fromDay)
    .where('media.licence_until', '<=', untilDay)
    // A wall time begins with its day, so the two compare as texts.
    .whereRaw('?? > ??', ['posts.wall', 'media.licence_until'])
    .groupBy('media.id', 'media.name', 'media.licence_until')
    .orderBy('media.licence_until')
    .limit(50)
    .select('media.id', 'media.name', 'media.licence_until')
    .countDistinct({ posts: 'posts.id' });
  return rows.map((row) => ({ id: row.id, name: row.name, lastDay: row.licence_until, posts: Number(row.posts) }));
}
