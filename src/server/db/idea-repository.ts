import type { Knex } from 'knex';
import type { Candidate, IdeaKind, IdeaSettings, IdeaState } from '../../core/ideas/idea.ts';
import { usualIdeaSettings } from '../../core/ideas/idea.ts';
import { noteChange } from './change-repository.ts';
import type { Db } from './connection.ts';
import { keepWords, searchWords, whereWordsBegin, type WordList } from './search-words.ts';

/** An idea on the shelf. */
export interface Idea extends Omit<Candidate, 'didWell'> {
  readonly id: string;
  readonly brandId: string;
  readonly why: readonly string[];
  readonly score: number;
  readonly state: IdeaState;
  readonly snoozedUntil: string | null;
  readonly assignedTo: string | null;
  /** Null: it came of itself. */
  readonly createdBy: string | null;
  readonly createdMs: number;
}

/** What was made of an idea. */
export interface IdeaUse {
  readonly kind: 'piece' | 'entry' | 'theme';
  readonly subjectId: string;
  readonly name: string;
  readonly atMs: number;
}

export type NewIdea = Omit<Idea, 'brandId' | 'state' | 'snoozedUntil' | 'assignedTo'>;

export interface IdeaRow {
  id: string;
  brand_id: string;
  kind: IdeaKind;
  idea_key: string;
  title: string;
  text: string;
  link: string;
  picture_url: string;
  media_id: string | null;
  day: string | null;
  theme_id: string | null;
  source: string;
  why: string;
  details: string;
  score: number;
  state: IdeaState;
  snoozed_until: string | null;
  assigned_to: string | null;
  created_by: string | null;
  created_ms: number | string;
}

const ideaWords: WordList = { table: 'idea_words', idColumn: 'idea_id', itemColumn: 'ideas.id' };
const MAX_WORDS = 200;

export const toIdea = (row: IdeaRow): Idea => ({
  id: row.id,
  brandId: row.brand_id,
  kind: row.kind,
  key: row.idea_key,
  title: row.title,
  text: row.text,
  link: row.link,
  pictureUrl: row.picture_url,
  mediaId: row.media_id,
  day: row.day,
  themeId: row.theme_id,
  source: row.source,
  why: JSON.parse(row.why) as string[],
  details: JSON.parse(row.details) as Record<string, unknown>,
  score: Number(row.score),
  state: row.state,
  snoozedUntil: row.snoozed_until,
  assignedTo: row.assigned_to,
  createdBy: row.created_by,
  createdMs: Number(row.created_ms),
});

/** Puts an idea on the shelf; false when one of its key has been there before. */
export async function insertIdea(trx: Db, brandId: string, idea: NewIdea, machineNowMs: number): Promise<boolean> {
  const rows: unknown[] = await trx('ideas')
    .insert({ id: idea.id, brand_id: brandId, kind: idea.kind, idea_key: idea.key, title: idea.title, text: idea.text, link: idea.link, picture_url: idea.pictureUrl, media_id: idea.mediaId, day: idea.day, theme_id: idea.themeId, source: idea.source, why: JSON.stringify(idea.why), details: JSON.stringify(idea.details), score: idea.score, state: 'open', created_by: idea.createdBy, created_ms: idea.createdMs })
    .onConflict(['brand_id', 'idea_key'])
    .ignore()
    .returning('id');
  if (rows.length === 0) return false;
  await writeWords(trx, brandId, idea);
  await noteChange(trx, { brandId, kind: 'idea', subjectId: idea.id }, machineNowMs);
  return true;
}

async function writeWords(trx: Db, brandId: string, { id, title, text, source }: Pick<Idea, 'id' | 'title' | 'text' | 'source'>): Promise<void> {
  await keepWords(trx, ideaWords, { id, brandId }, new Set([title, text, source].flatMap(searchWords)), MAX_WORDS);
}

export async function findIdea(db: Db, brandId: string, id: string): Promise<Idea | null> {
  const row: IdeaRow | undefined = await db('ideas').where({ brand_id: brandId, id }).first();
  return row ? toIdea(row) : null;
}

export interface IdeaFilter {
  readonly state: IdeaState;
  readonly kind: IdeaKind | null;
  readonly themeId: string | null;
  readonly assignedTo: string | null;
  readonly words: readonly string[];
  /** Whether something was made of it already; null: no matter. */
  readonly isUsed: boolean | null;
  readonly after: { readonly value: number; readonly id: string } | null;
  readonly limit: number;
}

/** A page of ideas, what fits best first. */
export async function pageIdeas(db: Db, brandId: string, filter: IdeaFilter): Promise<readonly Idea[]> {
  const query = db('ideas').where({ 'ideas.brand_id': brandId, state: filter.state }).orderBy([{ column: 'score', order: 'desc' }, { column: 'ideas.id', order: 'desc' }]).limit(filter.limit).select('ideas.*');
  leaveOutFilled(db, query);
  if (filter.kind !== null) query.where({ kind: filter.kind });
  if (filter.themeId !== null) query.where({ theme_id: filter.themeId });
  if (filter.assignedTo !== null) query.where({ assigned_to: filter.assignedTo });
  const uses = () => db('idea_uses').select(db.raw('1')).whereRaw('?? = ??', ['idea_uses.idea_id', 'ideas.id']);
  if (filter.isUsed === true) query.whereExists(uses());
  if (filter.isUsed === false) query.whereNotExists(uses());
  await whereWordsBegin(db, query, ideaWords, brandId, filter.words);
  if (filter.after) query.whereRaw('(??, ??) < (?, ?)', ['score', 'ideas.id', filter.after.value, filter.after.id]);
  return ((await query) as IdeaRow[]).map(toIdea);
}

/** Leaves out open slots of the rota that somebody has filled meanwhile; when one is free again, its idea is there again. */
function leaveOutFilled(db: Db, query: Knex.QueryBuilder): void {
  query.whereNotExists(db('slot_fills').select(db.raw('1')).whereRaw('?? = ??', ['slot_fills.brand_id', 'ideas.brand_id']).whereRaw("?? = 'gap ' || ??", ['ideas.idea_key', 'slot_fills.slot_key']));
}

/** How many ideas of each kind are in a state, for the filters. */
export async function countIdeas(db: Db, brandId: string): Promise<{ readonly states: Readonly<Record<string, number>>; readonly kinds: Readonly<Record<string, number>> }> {
  const rows: { state: string; kind: string; count: number | string }[] = await db('ideas').where({ brand_id: brandId }).modify((query) => leaveOutFilled(db, query)).groupBy('state', 'kind').select('state', 'kind').count({ count: '*' });
  const sum = (of: (row: (typeof rows)[number]) => string | null): Record<string, number> => rows.reduce<Record<string, number>>((sums, row) => { const key = of(row); return key === null ? sums : { ...sums, [key]: (sums[key] ?? 0) + Number(row.count) }; }, {});
  return { states: sum(({ state }) => state), kinds: sum(({ state, kind }) => (state === 'open' ? kind : null)) };
}

/** Ideas that came of themselves since a moment. */
export async function countCame(db: Db, brandId: string, sinceMs: number): Promise<number> {
  const row = await db('ideas').where({ brand_id: brandId }).whereNull('created_by').where('created_ms', '>=', sinceMs).count({ count: '*' }).first();
  return Number(row?.['count'] ?? 0);
}

/** Which of some keys have been on the shelf before. */
export async function knownKeys(db: Db, brandId: string, keys: readonly string[]): Promise<ReadonlySet<string>> {
  const found: string[] = [];
  for (let from = 0; from < keys.length; from += 500) found.push(...(await db('ideas').where({ brand_id: brandId }).whereIn('idea_key', keys.slice(from, from + 500)).pluck('idea_key')));
  return new Set(found);
}

export type IdeaChange = Partial<Pick<Idea, 'title' | 'text' | 'link' | 'day' | 'themeId' | 'assignedTo' | 'mediaId' | 'state' | 'snoozedUntil' | 'score' | 'why'>>;

/** Changes an idea that is in one of the states named; false when it is not, or is gone. */
export async function changeIdea(trx: Db, brandId: string, id: string, from: readonly IdeaState[], change: IdeaChange, machineNowMs: number): Promise<boolean> {
  const columns = { title: change.title, text: change.text, link: change.link, day: change.day, theme_id: change.themeId, assigned_to: change.assignedTo, media_id: change.mediaId, state: change.state, snoozed_until: change.snoozedUntil, score: change.score, why: change.why === undefined ? undefined : JSON.stringify(change.why) };
  const changed = await trx('ideas').where({ brand_id: brandId, id }).whereIn('state', [...from]).update(Object.fromEntries(Object.entries(columns).filter(([, value]) => value !== undefined)));
  if (changed === 0) return false;
  if (change.title !== undefined || change.text !== undefined) {
    const idea = await findIdea(trx, brandId, id);
    if (idea) await writeWords(trx, brandId, idea);
  }
  await noteChange(trx, { brandId, kind: 'idea', subjectId: id }, machineNowMs);
  return true;
}

/** Takes what was set aside until a day back on the shelf, and what is for a day that has passed off it. */
export async function turnTheDay(db: Db, brandId: string, today: string): Promise<void> {
  await db('ideas').where({ brand_id: brandId, state: 'snoozed' }).where('snoozed_until', '<=', today).update({ state: 'open', snoozed_until: null });
  await db('ideas').where({ brand_id: brandId, state: 'open' }).whereNull('created_by').whereNotNull('day').where('day', '<', today).update({ state: 'archived' });
}

export async function noteIdeaUses(trx: Db, brandId: string, ideaId: string, uses: readonly Omit<IdeaUse, 'atMs'>[], personId: string, nowMs: number): Promise<void> {
  if (uses.length === 0 || !(await trx('ideas').where({ brand_id: brandId, id: ideaId }).first('id'))) return;
  await trx('idea_uses').insert(uses.map(({ kind, subjectId, name }) => ({ idea_id: ideaId, kind, subject_id: subjectId, name, at_ms: nowMs, person_id: personId }))).onConflict(['idea_id', 'kind', 'subject_id']).ignore();
  await noteChange(trx, { brandId, kind: 'idea', subjectId: ideaId }, nowMs);
}

/** What was made of some ideas, the latest first, by their ids. */
export async function listIdeaUses(db: Db, ideaIds: readonly string[]): Promise<ReadonlyMap<string, readonly IdeaUse[]>> {
  const rows: { idea_id: string; kind: IdeaUse['kind']; subject_id: string; name: string; at_ms: number | string }[] = await db('idea_uses').whereIn('idea_id', [...ideaIds]).orderBy('at_ms', 'desc');
  const uses = new Map<string, IdeaUse[]>();
  for (const row of rows) uses.set(row.idea_id, [...(uses.get(row.idea_id) ?? []), { kind: row.kind, subjectId: row.subject_id, name: row.name, atMs: Number(row.at_ms) }]);
  return uses;
}

export async function readIdeaSettings(db: Db, brandId: string): Promise<IdeaSettings> {
  const row: { settings: string } | undefined = await db('idea_settings').where({ brand_id: brandId }).first('settings');
  return row ? { ...usualIdeaSettings, ...(JSON.parse(row.settings) as Partial<IdeaSettings>) } : usualIdeaSettings;
}

export async function keepIdeaSettings(db: Db, brandId: string, settings: IdeaSettings): Promise<void> {
  await db('idea_settings').insert({ brand_id: brandId, settings: JSON.stringify(settings), next_ms: 0 }).onConflict('brand_id').merge({ settings: JSON.stringify(settings), next_ms: 0 });
}

/** Brands whose shelf is due to be looked after, by the product’s clock. */
export async function listBrandsDue(db: Db, nowMs: number, limit: number): Promise<readonly string[]> {
  return db('brands').leftJoin('idea_settings', 'idea_settings.brand_id', 'brands.id').where((query) => query.whereNull('next_ms').orWhere('next_ms', '<=', nowMs)).orderBy('brands.id').limit(limit).pluck('brands.id');
}

export async function noteGathered(db: Db, brandId: string, nextMs: number): Promise<void> {
  await db('idea_settings').insert({ brand_id: brandId, settings: '{}', next_ms: nextMs }).onConflict('brand_id').merge({ next_ms: nextMs });
}
