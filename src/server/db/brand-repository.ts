import type { Role } from '../../core/access/access.ts';
import type { BrandBook } from '../../core/brand/brand-book.ts';
import { readBrandBook, upgradeBrandBook } from '../../core/brand/read-brand-book.ts';
import type { ChannelOffers } from '../../core/network/channel-offers.ts';
import { emptyPlan } from '../../core/plan/plan.ts';
import { networkSheetSchema, type NetworkSheet } from '../../core/network/network-sheet.ts';
import type { Db } from './connection.ts';
import { nextPosition } from './position.ts';

export interface Brand {
  readonly id: string;
  readonly slug: string;
  readonly name: string;
  readonly zone: string;
  readonly book: BrandBook;
  readonly revision: number;
}

/** A brand's account on a network. `origin` and `token` stay on the server; the token is sealed. */
export interface Channel {
  readonly id: string;
  readonly brandId: string;
  readonly network: string;
  readonly name: string;
  readonly handle: string;
  readonly origin: string;
  readonly token: string;
  /** What the account has to choose from, as the network said it last. */
  readonly offers: ChannelOffers;
}

function toBrand(row: { id: string; slug: string; name: string; zone: string; book: string; revision: number }): Brand {
  return { id: row.id, slug: row.slug, name: row.name, zone: row.zone, revision: row.revision, book: upgradeBrandBook(JSON.parse(row.book)) };
}

function toChannel(row: { id: string; brand_id: string; network_key: string; name: string; handle: string; origin: string; token: string; offers: string }): Channel {
  return { id: row.id, brandId: row.brand_id, network: row.network_key, name: row.name, handle: row.handle, origin: row.origin, token: row.token, offers: JSON.parse(row.offers) as ChannelOffers };
}

export async function insertBrand(db: Db, brand: Omit<Brand, 'revision'>): Promise<void> {
  readBrandBook(brand.book);
  await db('brands').insert({ id: brand.id, slug: brand.slug, name: brand.name, zone: brand.zone, book: JSON.stringify(brand.book), position: await nextPosition(db, 'brands') });
  await db('plans').insert({ brand_id: brand.id, plan: JSON.stringify(emptyPlan) });
}

/** A brand with the role that a person has in it; null when the person has none, as if the brand did not exist. */
export async function findBrandFor(db: Db, slug: string, personId: string): Promise<{ readonly brand: Brand; readonly role: Role } | null> {
  const row = await db('brands')
    .join('memberships', 'memberships.brand_id', 'brands.id')
    .where({ slug, person_id: personId })
    .first('brands.*', 'memberships.role');
  return row ? { brand: toBrand(row), role: row.role } : null;
}

export async function findBrandById(db: Db, id: string): Promise<Brand | null> {
  const row = await db('brands').where({ id }).first();
  return row ? toBrand(row) : null;
}

export async function findBrandBySlug(db: Db, slug: string): Promise<Brand | null> {
  const row = await db('brands').where({ slug }).first();
  return row ? toBrand(row) : null;
}

/** Saves a book if the brand is still at `revision`; null when somebody saved in between. */
export async function saveBook(db: Db, brandId: string, revision: number, book: BrandBook): Promise<Brand | null> {
  const [row] = await db('brands').where({ id: brandId, revision }).update({ book: JSON.stringify(book), revision: revision + 1 }).returning('*');
  return row ? toBrand(row) : null;
}

export async function renameBrand(db: Db, brandId: string, { name, zone }: Pick<Brand, 'name' | 'zone'>): Promise<void> {
  await db('brands').where({ id: brandId }).update({ name, zone });
}

export async function insertChannel(db: Db, channel: Channel, position: number): Promise<void> {
  await db('channels').insert({
    id: channel.id,
    brand_id: channel.brandId,
    network_key: channel.network,
    name: channel.name,
    handle: channel.handle,
    origin: channel.origin,
    token: channel.token,
    offers: JSON.stringify(channel.offers),
    position,
  });
}

export async function listChannels(db: Db, brandId: string): Promise<readonly Channel[]> {
  return (await db('channels').where({ brand_id: brandId }).orderBy('position')).map(toChannel);
}

export async function getChannel(db: Db, id: string): Promise<Channel> {
  const row = await db('channels').where({ id }).first();
  if (!row) throw new RangeError(`There is no channel '${id}'`);
  return toChannel(row);
}

/** The sealed tokens of all channels. */
export async function listTokens(db: Db): Promise<readonly Pick<Channel, 'id' | 'token'>[]> {
  return db('channels').select('id', 'token');
}

export async function replaceToken(db: Db, id: string, token: string): Promise<void> {
  await db('channels').where({ id }).update({ token });
}

export async function saveOffers(db: Db, id: string, offers: ChannelOffers): Promise<void> {
  await db('channels').where({ id }).update({ offers: JSON.stringify(offers) });
}

export async function saveNetworkSheet(db: Db, sheet: NetworkSheet): Promise<void> {
  const checked = networkSheetSchema.validateSync(sheet, { strict: true });
  await db('network_sheets').insert({ key: checked.key, sheet: JSON.stringify(checked) }).onConflict('key').merge();
}

/** Sheets of the networks that a brand has channels on. */
export async function listSheetsOf(db: Db, brandId: string): Promise<readonly NetworkSheet[]> {
  const rows = await db('network_sheets').whereIn('key', db('channels').select('network_key').where({ brand_id: brandId })).orderBy('key');
  return rows.map((row) => JSON.parse(row.sheet));
}

/** A slug that no brand has: the wanted one, or with a number behind it. */
export async function freeSlug(db: Db, wanted: string): Promise<string> {
  const taken = new Set((await db('brands').where('slug', 'like', `${wanted}%`).select('slug')).map((row: { slug: string }) => row.slug));
  for (let count = 1; ; count += 1) {
    const slug = count === 1 ? wanted : `${wanted}-${count}`;
    if (!taken.has(slug)) return slug;
  }
}
