import type { Role } from '../../core/access/access.ts';
import type { BrandBook } from '../../core/brand/brand-book.ts';
import { readBrandBook, upgradeBrandBook } from '../../core/brand/read-brand-book.ts';
import type { ChannelOffers } from '../../core/network/channel-offers.ts';
import { emptyPlan } from '../../core/plan/plan.ts';
import { networkSheetSchema, type NetworkSheet } from '../../core/network/network-sheet.ts';
import type { Db } from './connection.ts';
import { nextPosition } from './position.ts';
import { fromRow } from './row.ts';

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
  /** What kind of account it is, by the key that its network sheet has for it; empty: the usual one. */
  readonly kind: string;
  /** `paused`: a person lets nothing out. `ended`: the network takes its access no longer. */
  readonly state: 'connected' | 'paused' | 'ended';
  /** Address of a site of one's own; null where the network knows accounts by handles. */
  readonly site: string | null;
  /** Sealed; renews the token. Null where the token does not end. */
  readonly refreshToken: string | null;
  /** By the product's clock: when the token has to be renewed, and when no renewal helps any more. */
  readonly tokenEndsMs: number | null;
  readonly accessEndsMs: number | null;
  readonly isPinned: boolean;
  readonly groupName: string;
  /** Since when the brand has it no longer; what went out there keeps its name. */
  readonly removedMs: number | null;
}

/** What a new channel says of itself; the rest is as usual. */
export type NewChannel = Pick<Channel, 'id' | 'brandId' | 'network' | 'name' | 'handle' | 'origin' | 'token' | 'offers'> & Partial<Channel>;

function toBrand(row: { id: string; slug: string; name: string; zone: string; book: string; revision: number }): Brand {
  return { id: row.id, slug: row.slug, name: row.name, zone: row.zone, revision: row.revision, book: upgradeBrandBook(JSON.parse(row.book)) };
}

function toChannel(row: object): Channel {
  const { networkKey, offers, isPinned, ...channel } = fromRow<Omit<Channel, 'network' | 'offers'> & { readonly networkKey: string; readonly offers: string }>(row);
  return { ...channel, network: networkKey, isPinned: Boolean(isPinned), offers: JSON.parse(offers) as ChannelOffers };
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

export async function insertChannel(db: Db, channel: NewChannel, position: number): Promise<void> {
  await db('channels').insert({
    id: channel.id,
    brand_id: channel.brandId,
    network_key: channel.network,
    name: channel.name,
    handle: channel.handle,
    origin: channel.origin,
    token: channel.token,
    offers: JSON.stringify(channel.offers),
    kind: channel.kind ?? '',
    site: channel.site ?? null,
    refresh_token: channel.refreshToken ?? null,
    token_ends_ms: channel.tokenEndsMs ?? null,
    access_ends_ms: channel.accessEndsMs ?? null,
    position,
  });
}

/** The channels that a brand has, in their order. */
export async function listChannels(db: Db, brandId: string): Promise<readonly Channel[]> {
  return (await db('channels').where({ brand_id: brandId }).whereNull('removed_ms').orderBy('position')).map(toChannel);
}

/** Those that it had as well: what went out there still says where. */
export async function listChannelsEver(db: Db, brandId: string): Promise<readonly Channel[]> {
  return (await db('channels').where({ brand_id: brandId }).orderBy('position')).map(toChannel);
}

/** A channel as people see it. */
export type ChannelSummary = Pick<Channel, 'id' | 'name' | 'handle' | 'network' | 'kind' | 'state' | 'offers'>;

/** Summaries of the channels that a brand has, in their order: a brand of hundreds is read with each piece that is opened. */
export async function listChannelSummaries(db: Db, brandId: string): Promise<readonly ChannelSummary[]> {
  const rows: (Omit<ChannelSummary, 'offers'> & { readonly offers: string })[] = await db('channels').where({ brand_id: brandId }).whereNull('removed_ms').orderBy('position').select('id', 'name', 'handle', { network: 'network_key' }, 'kind', 'state', 'offers');
  return rows.map(({ id, name, handle, network, kind, state, offers }) => ({ id, name, handle, network, kind, state, offers: JSON.parse(offers) as ChannelOffers }));
}

/** What lists call a channel. */
export type ChannelName = Pick<Channel, 'name' | 'network'>;

/** The names of some channels of a brand by their ids, also of those that it no longer has. */
export async function findChannelNames(db: Db, brandId: string, ids: readonly string[]): Promise<ReadonlyMap<string, ChannelName>> {
  const rows: { id: string; name: string; network_key: string }[] = await db('channels').where({ brand_id: brandId }).whereIn('id', [...ids]).select('id', 'name', 'network_key');
  return new Map(rows.map(({ id, name, network_key }) => [id, { name, network: network_key }]));
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

/** Keeps the sheet of a network that nobody has a channel on yet. */
export async function ensureNetworkSheet(db: Db, sheet: NetworkSheet): Promise<void> {
  await db('network_sheets').insert({ key: sheet.key, sheet: JSON.stringify(networkSheetSchema.validateSync(sheet, { strict: true })) }).onConflict('key').ignore();
}

export async function saveNetworkSheet(db: Db, sheet: NetworkSheet): Promise<void> {
  const checked = networkSheetSchema.validateSync(sheet, { strict: true });
  await db('network_sheets').insert({ key: checked.key, sheet: JSON.stringify(checked) }).onConflict('key').merge();
}

/** Sheets of the networks that a brand has channels on, as the brand has changed them. */
export async function listSheetsOf(db: Db, brandId: string): Promise<readonly NetworkSheet[]> {
  const rows: { key: string; sheet: string }[] = await db('network_sheets').whereIn('key', db('channels').select('network_key').where({ brand_id: brandId })).orderBy('key');
  const own: { key: string; sheet: string }[] = await db('brand_sheets').where({ brand_id: brandId }).select('key', 'sheet');
  const changed = new Map(own.map(({ key, sheet }) => [key, sheet]));
  return rows.map(({ key, sheet }) => JSON.parse(changed.get(key) ?? sheet) as NetworkSheet);
}

/** The sheets that a brand has changed or added, by their keys. */
export async function listOwnSheets(db: Db, brandId: string): Promise<ReadonlyMap<string, NetworkSheet>> {
  const rows: { key: string; sheet: string }[] = await db('brand_sheets').where({ brand_id: brandId }).select('key', 'sheet');
  return new Map(rows.map(({ key, sheet }) => [key, JSON.parse(sheet) as NetworkSheet]));
}

export async function saveOwnSheet(trx: Db, brandId: string, sheet: NetworkSheet): Promise<void> {
  await trx('brand_sheets').insert({ brand_id: brandId, key: sheet.key, sheet: JSON.stringify(sheet) }).onConflict(['brand_id', 'key']).merge(['sheet']);
}

/** Goes back to the sheet that ships; false when the brand has not changed it. */
export async function removeOwnSheet(trx: Db, brandId: string, key: string): Promise<boolean> {
  return (await trx('brand_sheets').where({ brand_id: brandId, key }).delete()) > 0;
}

/** A slug that no brand has: the wanted one, or with a number behind it. */
export async function freeSlug(db: Db, wanted: string): Promise<string> {
  const taken = new Set((await db('brands').where('slug', 'like', `${wanted}%`).select('slug')).map((row: { slug: string }) => row.slug));
  for (let count = 1; ; count += 1) {
    const slug = count === 1 ? wanted : `${wanted}-${count}`;
    if (!taken.has(slug)) return slug;
  }
}
