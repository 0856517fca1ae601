import { createWriteStream } from 'node:fs';
import { readFile, rm } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import { createHash } from 'node:crypto';
import { MAX_RECORDING_BYTES } from '../../contract/media-contracts.ts';
import type { Outcome, RecordKind, RecordOf } from '../../contract/package-format.ts';
import { accountKindOf } from '../../core/network/account-kind.ts';
import { shippedSheets } from '../../core/network/shipped-sheets.ts';
import { pieceName, readPiece, type Piece } from '../../core/piece/piece.ts';
import type { RotationSettings } from '../../core/plan/rotation.ts';
import { engagementOf, rateOf, type Figures } from '../../core/results/measures.ts';
import { readTemplate } from '../../core/template/template.ts';
import { shippedTemplates } from '../../core/template/shipped-templates.ts';
import { resolveWallTime } from '../../core/time/wall-time.ts';
import { insertBoilerplate } from '../db/boilerplate-repository.ts';
import { ensureNetworkSheet, findBrandById, insertChannel, listOwnSheets, removeOwnSheet, saveOwnSheet, type Brand } from '../db/brand-repository.ts';
import { keepCampaign } from '../db/campaign-repository.ts';
import { keepSavedAnswer } from '../db/conversation-repository.ts';
import { datePiece, dropRow, endAccess, findPieceState, keepMeasurements, keepRow, listStates, whoHas, type KeptTable } from '../db/exchange-repository.ts';
import { keepRule } from '../db/feed-repository.ts';
import { insertIdea } from '../db/idea-repository.ts';
import { deleteMedia, findMediaBySource, insertMediaOnce, updateMedia } from '../db/media-repository.ts';
import { savePiecePlan } from '../db/piece-plan-repository.ts';
import { insertPiece, savePiece } from '../db/piece-repository.ts';
import { insertPlanEntry } from '../db/plan-entry-repository.ts';
import { addToQueue } from '../db/queue-repository.ts';
import { insertRepeat } from '../db/repeat-repository.ts';
import { keepRotation } from '../db/rotation-repository.ts';
import { insertSeries } from '../db/series-repository.ts';
import { archiveTemplate, dropTemplate, findOwnTemplate, insertTemplate } from '../db/template-repository.ts';
import { dropTypeface, hasTypefaces, keepTypeface } from '../db/typeface-repository.ts';
import { documentHash } from '../db/document-repository.ts';
import { ProblemError } from '../errors.ts';
import { readMedia } from '../imports/keep-media.ts';
import { requireBrandRoom } from '../media/brand-room.ts';
import { checkReferences, cutsEver } from '../pieces/check-references.ts';
import { MAX_TYPEFACE_BYTES } from '../readers/reading-limits.ts';
import { note, type ImportContext } from './import-context.ts';

/** Null: other records already stand for it. */
type Keep<Kind extends RecordKind> = (context: ImportContext, record: RecordOf<Kind>) => Promise<Outcome | null>;

/** Posts that have yet to go out. */
const waiting: readonly string[] = ['scheduled', 'in review', 'held', 'by hand', 'sending', 'failed', 'partly out'];
const FEED_LATER_MS = 3_600_000;

/** Keeps a row under the id that it has elsewhere, if nothing stands there. */
async function once({ services: { db }, brandId, undo }: ImportContext, table: KeptTable, id: string, keep: () => Promise<unknown>): Promise<Outcome> {
  const owner = await whoHas(db, table, brandId, id);
  if (owner !== 'nobody') return owner === 'here' ? 'here' : 'left out';
  if ((await keep()) === false) return 'here';
  undo.push(() => dropRow(db, table, id));
  return 'new';
}

const has = async ({ services: { db }, brandId }: ImportContext, table: KeptTable, id: string | null): Promise<boolean> => id === null || (await whoHas(db, table, brandId, id)) === 'here';

async function allHere(context: ImportContext, table: KeptTable, ids: readonly (string | null)[]): Promise<boolean> {
  for (const id of ids) if (!(await has(context, table, id))) return false;
  return true;
}

async function brandOf({ services: { db }, brandId }: ImportContext): Promise<Brand> {
  const brand = await findBrandById(db, brandId);
  if (!brand) throw new ProblemError(409, 'brand-gone', 'The brand was removed during the import. Import the package again.');
  return brand;
}

/** What sends by itself comes with a new brand alone, which arrives on hold: the brand that it comes from may still send it. */
async function onlyWithNewBrand({ isNewBrand, report }: ImportContext, keep: () => Promise<Outcome>): Promise<Outcome> {
  if (isNewBrand) return keep();
  note(report, 'What sends by itself (queue, repeats, rotations) was left out: where it comes from it may still go out. Set it up here if it should.');
  return 'left out';
}

/** A piece whose pictures are named as this brand names them, with cuts that this brand can make. */
async function fitted(context: ImportContext, given: unknown): Promise<Piece> {
  const { sameMedia } = context;
  const renamed = sameMedia.size === 0 ? given : JSON.parse(JSON.stringify(given), (_, value: unknown) => (typeof value === 'string' ? (sameMedia.get(value) ?? value) : value));
  const piece = readPiece(renamed);
  const possible = new Set((await cutsEver(context.services, await brandOf(context), piece.kind)).map(({ channelId, placement }) => `${channelId} ${placement}`));
  const channels = new Set([...possible].map((cut) => cut.split(' ')[0]));
  return { ...piece, cuts: piece.cuts.filter(({ channelId, placement }) => possible.has(`${channelId} ${placement}`)), words: { ...piece.words, own: Object.fromEntries(Object.entries(piece.words.own).filter(([channelId]) => channels.has(channelId))) } };
}

async function keepPiece(context: ImportContext, record: RecordOf<'pieces'>): Promise<Outcome> {
  const { services, brandId, personId, nowMs, machineNowMs, undo, report } = context;
  const { db } = services;
  const brand = await brandOf(context);
  const here = await findPieceState(db, record.id);
  if (here && here.brandId !== brandId) return 'left out';
  const document = await fitted(context, record.document);
  try {
    await checkReferences(services, brand, document);
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error;
    note(report, `“${pieceName(document)}” was left out. ${error.sentence}`);
    return 'left out';
  }
  if (!here) {
    await insertPiece(db, { id: record.id, brandId, document, createdBy: personId }, record.updatedMs);
    undo.push(() => dropRow(db, 'pieces', record.id));
    await datePiece(db, record.id, record);
    await savePiecePlan(db, brandId, record.id, { ...record.plan, labels: [...record.plan.labels] }, machineNowMs);
    return 'new';
  }
  const hash = documentHash(document);
  if (hash === here.hash) return 'here';
  if (record.earlier.includes(here.hash)) {
    const saved = await savePiece(db, { id: record.id, brandId, revision: here.revision }, document, personId, nowMs);
    return saved ? 'updated' : 'both';
  }
  if ((await listStates(db, record.id, Number.MAX_SAFE_INTEGER)).includes(hash)) return 'older';
  note(report, `“${pieceName(document)}” has changed here and there: it stays as it is here.`);
  return 'both';
}

async function keepMediaItem(context: ImportContext, record: RecordOf<'media'>): Promise<Outcome> {
  const { services, brandId, personId, opened, folder, signal, sameMedia, undo, nowMs, machineNowMs } = context;
  const owner = await whoHas(services.db, 'media', brandId, record.id);
  if (owner !== 'nobody') return owner === 'here' ? 'here' : 'left out';
  const known = await findMediaBySource(services.db, brandId, record.sourceHash);
  if (known) {
    sameMedia.set(record.id, known.id);
    return 'here';
  }
  const name = `${folder}/${record.file}`;
  await requireBrandRoom(services, brandId, personId, opened.zip.sizeOf(name));
  return withFile(context, name, MAX_RECORDING_BYTES, async (path) => {
    const reading = await readMedia(services.media, path, record.name, { signal });
    const item = await insertMediaOnce(services.db, {
      id: record.id,
      brandId,
      name: record.name,
      ...reading,
      recording: reading.recording && record.subject && reading.recording.kind === 'clip' ? { ...reading.recording, subject: record.subject } : reading.recording,
      takenDay: record.takenDay ?? null,
      sourceHash: record.sourceHash,
      ownFocal: record.focal ?? null,
      altText: record.altText,
      terms: { credit: record.credit, licence: record.licence, licenceUntil: record.licenceUntil ?? null },
      tags: record.tags,
      sourceAddress: record.sourceAddress,
      archivedMs: null,
      revision: 1,
      createdMs: record.createdMs,
    });
    undo.push(() => deleteMedia(services.db, brandId, item.id));
    if (record.isArchived) await updateMedia(services.db, brandId, item.id, item.revision, { archivedMs: nowMs }, machineNowMs);
    return 'new';
  });
}

/** Unpacks a file for a while. */
async function withFile({ services: { media }, opened, signal }: ImportContext, name: string, mostBytes: number, use: (path: string) => Promise<Outcome>): Promise<Outcome> {
  const path = await media.temporaryPath();
  try {
    await pipeline(await opened.zip.open(name, mostBytes), createWriteStream(path), { signal });
    return await use(path);
  } finally {
    await rm(path, { force: true });
  }
}

async function keepTypefaceFile(context: ImportContext, record: RecordOf<'typefaces'>): Promise<Outcome> {
  const { services, brandId, folder, nowMs, undo } = context;
  if (await hasTypefaces(services.db, brandId, [record.hash])) return 'here';
  return withFile(context, `${folder}/${record.file}`, MAX_TYPEFACE_BYTES, async (path) => {
    const typeface = await services.readers.read({ kind: 'typeface', bytes: await readFile(path), name: record.family });
    const hash = createHash('sha256').update(typeface.bytes).digest('hex');
    if (hash !== record.hash) throw new ProblemError(422, 'damaged-package', `The typeface ${record.family} in the package is another file than it says.`);
    await services.media.keep(typeface.bytes);
    await keepTypeface(services.db, brandId, { hash, family: typeface.family, weight: typeface.weight }, nowMs);
    undo.push(() => dropTypeface(services.db, brandId, hash));
    return 'new';
  });
}

async function keepSheet({ services: { db }, brandId, undo }: ImportContext, { sheet, isOwn }: RecordOf<'sheets'>): Promise<Outcome> {
  // A sheet that ships is the same for all brands of an installation; a brand’s own changes are its own.
  if (!isOwn) return shippedSheets.some(({ key }) => key === sheet.key) ? 'here' : 'left out';
  if ((await listOwnSheets(db, brandId)).has(sheet.key)) return 'here';
  await saveOwnSheet(db, brandId, sheet as Parameters<typeof saveOwnSheet>[2]);
  undo.push(() => removeOwnSheet(db, brandId, sheet.key));
  return 'new';
}

async function keepChannel(context: ImportContext, record: RecordOf<'channels'>): Promise<Outcome> {
  const { services, brandId, nowMs, report } = context;
  const { db, sealer } = services;
  const sheet = shippedSheets.find(({ key }) => key === record.network);
  if (!sheet) {
    note(report, `The channel ${record.name} was left out: nothing is known here of its network.`);
    return 'left out';
  }
  await ensureNetworkSheet(db, sheet);
  const count = await db('channels').where({ brand_id: brandId }).count<{ count: number }[]>({ count: '*' }).first();
  return once(context, 'channels', record.id, async () => {
    await insertChannel(db, { id: record.id, brandId, network: record.network, name: record.name, handle: record.handle, kind: accountKindOf(sheet, record.kind)?.key ?? '', site: record.site, origin: '', token: sealer.seal(''), offers: record.offers }, Number(count?.count ?? 0));
    await endAccess(db, record.id, record, nowMs);
  });
}

/** A moment of the plan; a wall time that a clock change swallowed comes when the clock goes on. */
function momentOf(wall: string, zone: string): number {
  try {
    const found = resolveWallTime(wall, zone);
    return found.kind === 'exact' ? found.atMs : found.kind === 'repeated' ? found.earlierMs : found.resumesAtMs;
  } catch (error) {
    throw new ProblemError(422, 'damaged-package', error instanceof Error ? error.message : 'A time in the package is no time.');
  }
}

type PlannedRecord = Omit<RecordOf<'entries'>, 'cuts'> & { readonly cuts: readonly { readonly channelId: string; readonly placement: string }[] };

async function keepEntry(context: ImportContext, { id, pieceId, text, themeId, campaignId, wall, zone, slotKey, cuts }: PlannedRecord): Promise<Outcome> {
  const { services: { db }, brandId, personId, machineNowMs } = context;
  if (!(await has(context, 'pieces', pieceId)) || !(await allHere(context, 'channels', cuts.map(({ channelId }) => channelId)))) return 'left out';
  // What was a post where it comes from may be one here, still or again.
  if (await db('posts').where({ id }).first('id')) return 'here';
  const campaign = (await has(context, 'campaigns', campaignId)) ? campaignId : null;
  const dueMs = momentOf(wall, zone);
  return once(context, 'plan_entries', id, () => db.transaction((trx) => insertPlanEntry(trx, brandId, { id, pieceId, text, themeId, campaignId: campaign, wall, zone, dueMs, slotKey, cuts }, personId, machineNowMs)));
}

/** Posts that were sent are imported as publications. */
async function keepPost(context: ImportContext, record: RecordOf<'posts'>): Promise<Outcome | null> {
  const { report } = context;
  if (!waiting.includes(record.state)) return null;
  const cuts = record.deliveries.filter(({ state }) => state !== 'sent' && state !== 'cancelled' && state !== 'removed').map(({ channelId, placement }) => ({ channelId, placement }));
  if (cuts.length === 0) return null;
  const outcome = await keepEntry(context, { id: record.id, pieceId: record.pieceId, text: '', themeId: record.themeId, campaignId: record.campaignId, wall: record.wall, zone: record.zone, slotKey: null, cuts });
  if (outcome === 'new') note(report, 'Posts that wait to be sent were imported as drafts at their moments, so that nothing is sent twice. Schedule them here if this Confetti should send them.');
  return outcome;
}

async function keepPublication(context: ImportContext, record: RecordOf<'publications'>): Promise<Outcome> {
  const { services: { db }, brandId } = context;
  if (!(await has(context, 'channels', record.channelId))) return 'left out';
  const { figures, measurements } = record;
  const known = Object.fromEntries(Object.entries(figures).filter(([, value]) => value !== null && value !== undefined)) as Figures;
  const row = { id: record.id, brand_id: brandId, channel_id: record.channelId, piece_id: record.pieceId, delivery_id: record.deliveryId, remote_id: record.remoteId, address: record.address, published_ms: record.publishedMs, title: record.title, format: record.format, theme_id: record.themeId, campaign_id: record.campaignId, template_key: record.templateKey, traits: JSON.stringify(record.traits), aged: JSON.stringify(record.aged), ...figures, engagement: engagementOf(known), rate_reach: rateOf(known, 'reach')?.rate ?? null, rate_impressions: rateOf(known, 'impressions')?.rate ?? null };
  const outcome = await once(context, 'publications', record.id, () => keepRow(db, 'publications', row));
  if (outcome === 'new') await keepMeasurements(db, record.id, measurements as readonly (readonly [string, number, number, number])[]);
  return outcome;
}

/** Imports a record of each kind. The brand itself is imported before all of them. */
export const keepers: { readonly [Kind in Exclude<RecordKind, 'brand'>]: Keep<Kind> } = {
  sheets: keepSheet,
  channels: keepChannel,
  typefaces: keepTypefaceFile,
  media: keepMediaItem,
  templates: async ({ services: { db }, brandId, nowMs, undo }, { document, isArchived }) => {
    const template = readTemplateOr422(document);
    if (shippedTemplates.some(({ key }) => key === template.key)) return 'left out';
    if (await insertTemplate(db, brandId, template, nowMs)) {
      undo.push(() => dropTemplate(db, brandId, template.key));
      if (isArchived) await archiveTemplate(db, brandId, template.key, nowMs);
      return 'new';
    }
    return documentHash((await findOwnTemplate(db, brandId, template.key))?.document ?? null) === documentHash(template) ? 'here' : 'both';
  },
  campaigns: (context, record) => once(context, 'campaigns', record.id, () => keepCampaign(context.services.db, context.brandId, record, context.machineNowMs)),
  pieces: keepPiece,
  series: async (context, record) => {
    if (!(await allHere(context, 'pieces', record.pieceIds))) return 'left out';
    const taken = await context.services.db('series_pieces').whereIn('piece_id', [...record.pieceIds]).first('piece_id');
    return taken ? 'here' : once(context, 'series', record.id, () => insertSeries(context.services.db, context.brandId, record, context.nowMs));
  },
  entries: keepEntry,
  posts: keepPost,
  queue: (context, { id, channelId, pieceId, placement }) => onlyWithNewBrand(context, async () => {
    const { services: { db }, brandId, personId, machineNowMs } = context;
    if (!(await has(context, 'pieces', pieceId)) || !(await has(context, 'channels', channelId))) return 'left out';
    return once(context, 'queue_entries', id, async () => (await addToQueue(db, brandId, pieceId, [{ id, channelId, placement }], personId, machineNowMs)).length > 0);
  }),
  repeats: (context, record) => onlyWithNewBrand(context, async () => {
    if (!(await has(context, 'pieces', record.pieceId)) || !(await allHere(context, 'channels', record.cuts.map(({ channelId }) => channelId)))) return 'left out';
    return once(context, 'repeats', record.id, () => insertRepeat(context.services.db, { ...record, brandId: context.brandId, createdBy: context.personId }, context.machineNowMs));
  }),
  rotations: (context, { pieceId, settings, isOn }) => onlyWithNewBrand(context, async () => {
    if (!(await has(context, 'pieces', pieceId))) return 'left out';
    await keepRotation(context.services.db, context.brandId, pieceId, { settings: settings as RotationSettings, isOn }, context.personId, context.machineNowMs);
    return 'new';
  }),
  boilerplates: (context, { piece, ...record }) => once(context, 'boilerplates', record.id, async () => insertBoilerplate(context.services.db, context.brandId, { ...record, usual: record.usual ?? null, piece: await fitted(context, piece) }, context.personId, context.nowMs)),
  publications: keepPublication,
  ideas: async (context, record) => {
    const { services: { db }, brandId, machineNowMs, personId, sameMedia } = context;
    const named = record.mediaId === null ? null : (sameMedia.get(record.mediaId) ?? record.mediaId);
    const mediaId = (await has(context, 'media', named)) ? named : null;
    const outcome = await once(context, 'ideas', record.id, () => insertIdea(db, brandId, { ...record, mediaId, day: record.day ?? null, why: [], score: 0, details: {}, createdBy: personId }, machineNowMs));
    if (outcome === 'new' && record.state !== 'open') await db('ideas').where({ id: record.id }).update({ state: record.state, snoozed_until: record.snoozedUntil ?? null });
    return outcome;
  },
  feeds: (context, { id, name, address }) => once(context, 'feeds', id, () => keepRow(context.services.db, 'feeds', { id, brand_id: context.brandId, name, address, next_poll_ms: context.machineNowMs + FEED_LATER_MS, created_by: context.personId })),
  'feed-rules': async (context, { id, feedId, settings }) => {
    if (!(await has(context, 'feeds', feedId)) || !(await allHere(context, 'channels', settings.channelIds))) return 'left out';
    note(context.report, 'Rules of feeds were imported switched off. Switch them on in Make, Ideas, Feeds if this Confetti should follow them.');
    return once(context, 'feed_rules', id, () => keepRule(context.services.db, { id, brandId: context.brandId, feedId, settings, isOn: false, createdBy: context.personId }, context.machineNowMs));
  },
  'saved-answers': (context, record) => once(context, 'saved_answers', record.id, () => keepSavedAnswer(context.services.db, context.brandId, record)),
  'short-links': (context, { code, target, label, createdMs }) => once(context, 'short_links', code, () => keepRow(context.services.db, 'short_links', { code, brand_id: context.brandId, target, label, created_by: context.personId, created_ms: createdMs })),
};

function readTemplateOr422(given: unknown) {
  try {
    return readTemplate(given);
  } catch (error) {
    throw new ProblemError(422, 'damaged-package', error instanceof Error ? error.message : 'A template of the package cannot be read.');
  }
}
