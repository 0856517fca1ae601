import { array, boolean, mixed, number, object, string, type Schema } from 'yup';
import { brandBookSchema } from '../core/brand/brand-book.ts';
import type { Checked } from '../core/document/schema.ts';
import { ideaKinds, ideaStates, type IdeaKind, type IdeaState } from '../core/ideas/idea.ts';
import { networkSheetSchema } from '../core/network/network-sheet.ts';
import { pieceSchema } from '../core/piece/piece.ts';
import { planSchema, tones, type Tone } from '../core/plan/plan.ts';
import { sendSettingsSchema } from '../core/post/send-settings.ts';
import { templateSchema } from '../core/template/template.ts';
import { ideaSettingsSchema, ruleSettings } from './idea-contracts.ts';
import { MAX_SUBJECT_POINTS } from './media-contracts.ts';
import { cutRefSchema } from './piece-contracts.ts';
import { rotationSettings } from './piece-plan-contracts.ts';
import { day, id, kind, wall } from './plan-fields.ts';
import { learnSettingsSchema } from './results-contracts.ts';

/**
 * A package: what one installation exports and another imports. A ZIP with `confetti.json`, and a folder for each brand with one file a kind of
 * record, one record a line (JSON Lines), and the files of its media and typefaces. See docs/exchange.md.
 */

export const MANIFEST_NAME = 'confetti.json';
export const PACKAGE_VERSION = 1;
/** A line that is longer is no record of ours: no request may be longer either. */
export const MAX_RECORD_BYTES = 2 * 1024 * 1024;

/** What a package was made of: a brand, one piece, what stands in one month, the media alone, or all brands of a person. */
export const packageScopes = ['brand', 'piece', 'month', 'media', 'all'] as const;
export type PackageScope = (typeof packageScopes)[number];

const moment = () => number().integer().min(0).max(8_640_000_000_000_000);
/** An address of the web, or nothing: it becomes a link, and must be nothing else. */
const address = () => string().max(2_000).matches(/^(?:https?:\/\/\S+)?$/i, 'Not an address of the web');
const optionalId = () => string().matches(/^[\w-]{1,40}$/, 'Not an id').nullable().defined();
const hash = () => string().matches(/^[0-9a-f]{64}$/, 'Not a SHA-256').required();
/** A file inside the package, in the folder of its kind. */
const file = (folder: 'media' | 'typefaces') => string().matches(folder === 'media' ? /^media\/[\w.-]{1,160}$/ : /^typefaces\/[\w.-]{1,160}$/, 'Not a file of this package').required();
const zone = () => string().max(60).required();
const cuts = () => array(cutRefSchema.required()).max(200).required();
/** A place of a channel; empty where nobody has chosen one yet. */
const placement = () => string().max(60).defined();

export const manifestSchema = object({
  format: string<'confetti-package'>().oneOf(['confetti-package']).required(),
  version: number<1>().oneOf([PACKAGE_VERSION]).required(),
  scope: string<PackageScope>().oneOf([...packageScopes]).required(),
  madeMs: moment().required(),
  brands: array(object({ id: id(), name: string().min(1).max(80).required(), folder: string().matches(/^[a-z0-9-]{1,80}$/).required() }).noUnknown().required()).min(1).max(200).required(),
}).noUnknown();

const brandRecord = object({
  id: id(),
  slug: string().matches(/^[a-z0-9-]{1,60}$/).required(),
  name: string().trim().min(1).max(80).required(),
  zone: zone(),
  book: brandBookSchema.required(),
  plan: planSchema.required(),
  sendSettings: sendSettingsSchema.required(),
  learnSettings: learnSettingsSchema.required(),
  ideaSettings: ideaSettingsSchema.required(),
}).noUnknown();

/** A channel without its access: whoever imports it connects it again. */
const channelRecord = object({
  id: id(),
  network: string().matches(/^[a-z][a-z0-9-]*$/).max(40).required(),
  name: string().max(200).required(),
  handle: string().max(200).required(),
  kind: string().max(40).defined(),
  groupName: string().max(60).defined(),
  isPinned: boolean().required(),
  site: address().nullable().defined(),
  /** What the account has to choose from, by field. */
  offers: mixed<Readonly<Record<string, readonly string[]>>>((value): value is Readonly<Record<string, readonly string[]>> => isOffers(value)).required(),
  /** The brand had it once, and has it no longer. */
  isRemoved: boolean().required(),
}).noUnknown();

function isOffers(value: unknown): boolean {
  return typeof value === 'object' && value !== null && !Array.isArray(value) && Object.values(value).every((names) => Array.isArray(names) && names.length <= 1_000 && names.every((name) => typeof name === 'string' && name.length <= 200));
}

/** A network sheet that channels of the brand need; `isOwn`: the brand has changed it. */
const sheetRecord = object({ sheet: networkSheetSchema.required(), isOwn: boolean().required() }).noUnknown();

const templateRecord = object({ document: templateSchema.required(), isArchived: boolean().required() }).noUnknown();

const typefaceRecord = object({ hash: hash(), family: string().max(80).required(), weight: number().integer().min(1).max(1000).required(), file: file('typefaces') }).noUnknown();

/** A picture, clip or sound. `sourceHash` names the file that it was imported from; the package has the copy that is kept. */
const mediaRecord = object({
  id: id(),
  file: file('media'),
  kind: string<'picture' | 'clip' | 'sound'>().oneOf(['picture', 'clip', 'sound']).required(),
  name: string().max(200).required(),
  altText: string().max(2_000).defined(),
  tags: array(string().max(60).required()).max(100).required(),
  credit: string().max(200).defined(),
  licence: string().max(200).defined(),
  licenceUntil: day().nullable().notRequired().defined(),
  takenDay: day().nullable().notRequired().defined(),
  sourceAddress: address().nullable().defined(),
  sourceHash: hash(),
  /** Where a person put the focal point, in [0, 1]; null: the proposal is in force. */
  focal: object({ x: number().min(0).max(1).required(), y: number().min(0).max(1).required() }).noUnknown().nullable().defined(),
  /** Where a person placed the subject of a clip, moment by moment; null: nobody has. */
  subject: array(object({ atMs: moment().required(), x: number().min(0).max(1).required(), y: number().min(0).max(1).required() }).noUnknown().required()).max(MAX_SUBJECT_POINTS).nullable().defined(),
  isArchived: boolean().required(),
  createdMs: moment().required(),
}).noUnknown();

const campaignRecord = object({ id: id(), name: string().min(1).max(60).required(), fromDay: day(), untilDay: day(), aim: string().max(2_000).defined(), note: string().max(5_000).defined(), tone: string<Tone>().oneOf([...tones]).required(), letter: string().max(4).required() }).noUnknown();

const pieceRecord = object({
  id: id(),
  document: pieceSchema.required(),
  /** Hashes of the states that came before, so that another installation can tell which of two is the newer. */
  earlier: array(hash()).max(500).required(),
  isArchived: boolean().required(),
  createdMs: moment().required(),
  updatedMs: moment().required(),
  plan: object({ themeId: optionalId(), campaignId: optionalId(), subject: string().max(200).defined(), notes: string().max(10_000).defined(), labels: array(string().max(60).required()).max(60).required() }).noUnknown().required(),
}).noUnknown();

const seriesRecord = object({ id: id(), name: string().max(200).required(), pieceIds: array(id()).min(1).max(200).required() }).noUnknown();

const entryRecord = object({ id: id(), pieceId: optionalId(), text: string().max(2_000).defined(), themeId: optionalId(), campaignId: optionalId(), wall: wall().required(), zone: zone(), slotKey: string().max(120).nullable().defined(), cuts: array(object({ channelId: id(), placement: placement() }).noUnknown().required()).max(200).required() }).noUnknown();

/** A post with its deliveries. One that waits to be sent is imported as a draft at its moment: only one of two installations may send it. */
const postRecord = object({
  id: id(),
  pieceId: id(),
  pieceName: string().max(400).defined(),
  kind: kind().required(),
  state: string().max(40).required(),
  wall: wall().required(),
  zone: zone(),
  themeId: optionalId(),
  campaignId: optionalId(),
  deliveries: array(object({ channelId: id(), placement: placement(), state: string().max(40).required(), words: mixed<Readonly<Record<string, unknown>>>().required(), address: address().nullable().defined(), sentMs: moment().nullable().defined() }).noUnknown().required()).max(500).required(),
}).noUnknown();

const queueRecord = object({ id: id(), channelId: id(), pieceId: id(), placement: placement(), position: number().required() }).noUnknown();

const repeatRecord = object({ id: id(), pieceId: id(), rule: string().max(500).required(), start: wall().required(), zone: zone(), except: array(string().max(20).required()).max(5_000).required(), cuts: cuts() }).noUnknown();

const rotationRecord = object({ pieceId: id(), settings: rotationSettings.required(), isOn: boolean().required() }).noUnknown();

const boilerplateRecord = object({
  id: id(),
  name: string().min(1).max(200).required(),
  piece: pieceSchema.required(),
  themeId: optionalId(),
  usual: object({ weekday: number().integer().min(1).max(7).required(), time: string().matches(/^\d\d:\d\d$/).required() }).noUnknown().nullable().defined(),
}).noUnknown();

const figure = () => number().integer().min(0).max(1e13).nullable().defined();

/** What is public on a channel, with its latest figures and all measurements of it, as [measure, moment, value, series]. */
const publicationRecord = object({
  id: id(),
  channelId: id(),
  pieceId: optionalId(),
  /** The delivery that made it; null: it was made without Confetti. */
  deliveryId: optionalId(),
  remoteId: string().max(400).required(),
  address: address().defined(),
  publishedMs: moment().required(),
  title: string().max(2_000).defined(),
  format: string().max(40).nullable().defined(),
  themeId: optionalId(),
  campaignId: optionalId(),
  templateKey: string().max(60).nullable().defined(),
  /** What of its making is compared, and its figures at the ages at which posts are compared. */
  traits: plainFacts().required(),
  aged: plainFacts().required(),
  figures: object({ impressions: figure(), reach: figure(), reactions: figure(), comments: figure(), shares: figure(), saves: figure(), clicks: figure(), plays: figure() }).noUnknown().required(),
  measurements: array(mixed<readonly [string, number, number, number]>((value): value is readonly [string, number, number, number] => isMeasurement(value)).required()).max(100_000).required(),
}).noUnknown();

/** An object of numbers, yes and no, and nothing; or of such objects. */
function plainFacts() {
  const isFact = (value: unknown, depth: number): boolean => value === null || typeof value === 'boolean' || Number.isFinite(value) || (depth > 0 && typeof value === 'object' && !Array.isArray(value) && Object.values(value as object).length <= 100 && Object.values(value as object).every((each) => isFact(each, depth - 1)));
  return mixed<Readonly<Record<string, unknown>>>((value): value is Readonly<Record<string, unknown>> => typeof value === 'object' && value !== null && isFact(value, 2)).meta({ description: 'Facts of a post by name' });
}

function isMeasurement(value: unknown): boolean {
  return Array.isArray(value) && value.length === 4 && typeof value[0] === 'string' && value[0].length <= 60 && value.slice(1).every((each) => Number.isSafeInteger(each) && (each as number) >= 0);
}

/** Ideas that people wrote down or kept; what comes of itself comes again by itself. */
const ideaRecord = object({
  id: id(),
  kind: string<IdeaKind>().oneOf([...ideaKinds]).required(),
  key: string().max(500).required(),
  title: string().max(500).defined(),
  text: string().max(20_000).defined(),
  link: address().defined(),
  pictureUrl: address().defined(),
  mediaId: optionalId(),
  day: day().nullable().notRequired().defined(),
  themeId: optionalId(),
  source: string().max(300).defined(),
  state: string<IdeaState>().oneOf([...ideaStates]).required(),
  snoozedUntil: day().nullable().notRequired().defined(),
  createdMs: moment().required(),
}).noUnknown();

/** A feed of the web, or a channel of the brand’s own that is followed like one. */
const feedRecord = object({ id: id(), name: string().max(300).required(), address: string().max(2_000).matches(/^(?:https?:\/\/\S+|channel:[\w-]{1,40})$/i, 'Not the address of a feed').required() }).noUnknown();

/** A rule is imported switched off. */
const feedRuleRecord = object({ id: id(), feedId: id(), settings: ruleSettings.required() }).noUnknown();

const savedAnswerRecord = object({ id: id(), name: string().max(200).required(), text: string().max(10_000).required() }).noUnknown();

const shortLinkRecord = object({ code: string().matches(/^[\w-]{1,40}$/).required(), target: address().required(), label: string().max(200).defined(), createdMs: moment().required() }).noUnknown();

/** The kinds of records in the order of their import: each names only records of the kinds before it. */
export const recordSchemas = {
  brand: brandRecord,
  sheets: sheetRecord,
  channels: channelRecord,
  typefaces: typefaceRecord,
  media: mediaRecord,
  templates: templateRecord,
  campaigns: campaignRecord,
  pieces: pieceRecord,
  series: seriesRecord,
  entries: entryRecord,
  posts: postRecord,
  queue: queueRecord,
  repeats: repeatRecord,
  rotations: rotationRecord,
  boilerplates: boilerplateRecord,
  publications: publicationRecord,
  ideas: ideaRecord,
  feeds: feedRecord,
  'feed-rules': feedRuleRecord,
  'saved-answers': savedAnswerRecord,
  'short-links': shortLinkRecord,
} as const satisfies Readonly<Record<string, Schema>>;

export type RecordKind = keyof typeof recordSchemas;
export const recordKinds = Object.keys(recordSchemas) as readonly RecordKind[];
export type RecordOf<Kind extends RecordKind> = Checked<(typeof recordSchemas)[Kind]>;
export type Manifest = Checked<typeof manifestSchema>;

/** The outcome of a record: it was imported, it was here already, the file had the newer state, here is the newer one, both have changed, or it was left out. */
export const outcomes = ['new', 'here', 'updated', 'older', 'both', 'left out'] as const;
export type Outcome = (typeof outcomes)[number];
