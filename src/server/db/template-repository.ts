import { takesPictures } from '../../core/piece/draft-slides.ts';
import { shippedTemplates } from '../../core/template/shipped-templates.ts';
import { wantsOf, type PictureWant } from '../../core/template/suits-brand.ts';
import type { Template, TemplateFamily } from '../../core/template/template.ts';
import type { Db } from './connection.ts';

/** A template that a brand has made or changed. */
export interface OwnTemplate {
  readonly document: Template;
  readonly revision: number;
  readonly archived: boolean;
}

/** What lists say of a template. */
export interface TemplateSummary extends Pick<Template, 'key' | 'name' | 'purpose' | 'kind'> {
  /** Null for the brand's own. */
  readonly family: TemplateFamily | null;
  readonly isOwn: boolean;
  /** Whether pictures alone can begin a piece in it. */
  readonly takesPictures: boolean;
  readonly archived: boolean;
  /** What it cannot do without; nothing is known of the brand's own. */
  readonly wants: readonly PictureWant[];
  /** Its usual scheme; null for the brand's own. */
  readonly scheme: string | null;
}

interface TemplateRow {
  brand_id: string;
  key: string;
  updated_ms: number;
  document: string;
  revision: number;
  archived_ms: number | null;
}

const toOwn = (row: TemplateRow): OwnTemplate => ({ document: JSON.parse(row.document), revision: row.revision, archived: row.archived_ms !== null });

/** The columns of a document that lists show beside it. */
const listed = (template: Template) => ({ name: template.name, purpose: template.purpose, kind: template.kind, takes_pictures: takesPictures(template) });

/** The templates of a brand's own, last changed first, and those that ship; pieces may still use those that are archived. */
export async function listTemplates(db: Db, brandId: string): Promise<readonly TemplateSummary[]> {
  const rows: (ReturnType<typeof listed> & Pick<TemplateRow, 'key' | 'archived_ms'>)[] = await db('templates').where({ brand_id: brandId }).orderBy([{ column: 'updated_ms', order: 'desc' }, { column: 'key' }]).select('key', 'name', 'purpose', 'kind', 'takes_pictures', 'archived_ms');
  const own = rows.map(({ archived_ms, takes_pictures, ...row }) => ({ ...row, family: null, isOwn: true, takesPictures: Boolean(takes_pictures), archived: archived_ms !== null, wants: [], scheme: null }));
  return [...own, ...shippedTemplates.map((template) => ({ key: template.key, name: template.name, purpose: template.purpose, family: template.family ?? null, kind: template.kind, isOwn: false, takesPictures: takesPictures(template), archived: false, wants: wantsOf(template), scheme: template.scheme }))];
}

export async function findOwnTemplate(db: Db, brandId: string, key: string): Promise<OwnTemplate | null> {
  const row = await db<TemplateRow>('templates').where({ brand_id: brandId, key }).first();
  return row ? toOwn(row) : null;
}

/** A template that a piece of the brand may have: its own, or a shipped one. */
export async function findTemplate(db: Db, brandId: string, key: string): Promise<Template | null> {
  return shippedTemplates.find((each) => each.key === key) ?? (await findOwnTemplate(db, brandId, key))?.document ?? null;
}

/** @throws RangeError when the brand has no such template */
export async function getTemplate(db: Db, brandId: string, key: string): Promise<Template> {
  const template = await findTemplate(db, brandId, key);
  if (!template) throw new RangeError(`There is no template '${key}'`);
  return template;
}

/** False when the brand has one of this key already. */
export async function insertTemplate(db: Db, brandId: string, document: Template, nowMs: number): Promise<boolean> {
  const rows = await db('templates').insert({ brand_id: brandId, key: document.key, document: JSON.stringify(document), ...listed(document), updated_ms: nowMs }).onConflict(['brand_id', 'key']).ignore().returning('key');
  return rows.length > 0;
}

/** Saves a template if it is still at `revision`; null when somebody saved in between. */
export async function saveTemplate(db: Db, brandId: string, revision: number, document: Template, nowMs: number): Promise<OwnTemplate | null> {
  const [row] = await db<TemplateRow>('templates')
    .where({ brand_id: brandId, key: document.key, revision })
    .update({ document: JSON.stringify(document), ...listed(document), revision: revision + 1, updated_ms: nowMs })
    .returning('*');
  return row ? toOwn(row) : null;
}

/** Archives a template, or restores it. */
export async function archiveTemplate(db: Db, brandId: string, key: string, archivedMs: number | null): Promise<void> {
  await db('templates').where({ brand_id: brandId, key }).update({ archived_ms: archivedMs });
}

/** Removes a template that no piece uses. */
export async function dropTemplate(db: Db, brandId: string, key: string): Promise<void> {
  await db('templates').where({ brand_id: brandId, key }).delete();
}
