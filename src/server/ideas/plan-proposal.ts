import { nanoid } from 'nanoid';
import type { BodyOf } from '../../contract/contract.ts';
import type { takePlan } from '../../contract/begin-contracts.ts';
import { proposePlan, type OpenSlot, type PlanCandidate, type Placing } from '../../core/ideas/propose-plan.ts';
import { wallTimeOf } from '../../core/time/wall-time.ts';
import type { Brand } from '../db/brand-repository.ts';
import { findIdea, noteIdeaUses, pageIdeas, type Idea } from '../db/idea-repository.ts';
import { findPiece } from '../db/piece-repository.ts';
import { listUnplannedPieces } from '../db/unplanned-pieces.ts';
import { ProblemError } from '../errors.ts';
import { possibleCuts } from '../pieces/check-references.ts';
import { readSources, type ForecastSources } from '../plan/brand-forecast.ts';
import { keepEntry, momentOfSpot, usualCutsOf } from '../plan/place-piece.ts';
import type { Services } from '../services.ts';
import { revivals, themeStandings } from './gather-ideas.ts';
import { makePieceOfIdea } from './make-of-idea.ts';
import { openSlotsFor } from './open-slots.ts';

const DAY_MS = 86_400_000;
const [MAX_PIECES, MAX_IDEAS] = [120, 100] as const;
const REVIVAL_DAYS = 42;
/** Ideas of these kinds say enough for a piece; of the others a placeholder stands in the plan. */
const SAY_ENOUGH: readonly Idea['kind'][] = ['saying', 'feed', 'reply', 'revival', 'note'];
const MAX_TEXT = 200;

/** A candidate with what it is. */
export interface NamedCandidate extends PlanCandidate {
  readonly pieceId: string | null;
  readonly ideaKind: Idea['kind'] | null;
}

export interface ProposedPlan {
  readonly placings: readonly (Placing & { readonly slot: OpenSlot })[];
  readonly candidates: ReadonlyMap<string, NamedCandidate>;
  readonly empty: number;
}

/** A plan for the open slots of some days, from pieces that are not planned, the shelf, and posts that did well. */
export async function proposePlanFor(services: Services, brand: Brand, { days, channelIds, without }: { readonly days: number; readonly channelIds: readonly string[]; readonly without: readonly string[] }, nowMs: number): Promise<ProposedPlan> {
  const untilMs = nowMs + days * DAY_MS;
  const today = wallTimeOf(nowMs, brand.zone).slice(0, 10);
  const [slots, sources, candidates, standings] = await Promise.all([openSlotsFor(services, brand, { channelIds, themeId: null, days }, nowMs), readSources(services, brand, nowMs, untilMs), candidatesOf(services, brand, nowMs), themeStandings(services, brand, today, nowMs)]);
  const wanted = candidates.filter(({ id }) => !without.includes(id));
  const total = Math.max(1, standings.reduce((sum, { slotsAWeek }) => sum + slotsAWeek, 0));
  const placings = proposePlan({
    slots,
    candidates: wanted,
    themes: standings.map(({ id, name, slotsAWeek, effect }) => ({ id, name, share: slotsAWeek / total, effect })),
    fixed: fixedOf(sources),
    apart: sources.plan.apart,
  });
  const slotOf = new Map(slots.map((slot) => [slot.key, slot]));
  return { placings: placings.flatMap((placing) => { const slot = slotOf.get(placing.slotKey); return slot ? [{ ...placing, slot }] : []; }), candidates: new Map(wanted.map((each) => [each.id, each])), empty: slots.length - placings.length };
}

const fixedOf = ({ fixed }: ForecastSources) => fixed.map(({ atMs, themeId, template, mediaIds }) => ({ atMs, themeId, template, mediaIds }));

/** What could go into open slots, by the ids that a plan names. */
async function candidatesOf(services: Services, brand: Brand, nowMs: number): Promise<readonly NamedCandidate[]> {
  const { db } = services;
  const graphics = [...new Set((await possibleCuts(services, brand, 'graphic')).map(({ channelId }) => channelId))];
  const [pieces, ideas, again] = await Promise.all([
    listUnplannedPieces(db, brand.id, MAX_PIECES),
    pageIdeas(db, brand.id, { state: 'open', kind: null, themeId: null, assignedTo: null, words: [], isUsed: false, after: null, limit: MAX_IDEAS }),
    revivals(services, brand, REVIVAL_DAYS, nowMs),
  ]);
  return [
    ...pieces.map((piece): NamedCandidate => ({ id: `piece ${piece.id}`, kind: 'piece', name: piece.name, themeId: piece.themeId, day: null, channelIds: piece.channelIds, template: piece.template, mediaIds: piece.mediaIds, worth: 0.8, why: ['It is made and not planned yet.'], pieceId: piece.id, ideaKind: null })),
    // A gap is what is filled here, and no candidate.
    ...ideas.filter(({ kind }) => kind !== 'gap').map((idea): NamedCandidate => ({ id: `idea ${idea.id}`, kind: 'idea', name: idea.title, themeId: idea.themeId, day: idea.day, channelIds: SAY_ENOUGH.includes(idea.kind) ? graphics : null, template: null, mediaIds: idea.mediaId === null ? [] : [idea.mediaId], worth: Math.min(1, idea.score / 2.5), why: idea.why, pieceId: null, ideaKind: idea.kind })),
    ...(await withChannels(services, brand, again)).filter(({ details }) => !ideas.some((idea) => idea.details['pieceId'] === details['pieceId'])).map((each): NamedCandidate => ({ id: `revival ${String(each.details['pieceId'])}`, kind: 'revival', name: each.title, themeId: each.themeId, day: null, channelIds: each.channelIds, template: null, mediaIds: [], worth: Math.min(1, each.didWell), why: [`It had ${Math.round(each.didWell * 100)}% more engagement than usual. ${each.source}.`], pieceId: String(each.details['pieceId']), ideaKind: null })),
  ];
}

/** Revivals with the channels that their pieces have a cut for; those whose piece is gone are left out. */
async function withChannels({ db }: Services, brand: Brand, candidates: Awaited<ReturnType<typeof revivals>>) {
  const pieces = await Promise.all(candidates.map(({ details }) => findPiece(db, brand.id, String(details['pieceId']))));
  return candidates.flatMap((candidate, index) => {
    const piece = pieces[index];
    return piece ? [{ ...candidate, channelIds: [...new Set(piece.document.cuts.map(({ channelId }) => channelId))] }] : [];
  });
}

/** What became of a plan that was taken. */
export interface TakenPlan {
  readonly drafts: number;
  readonly placeholders: number;
  readonly notes: readonly string[];
}

/** Puts candidates into their slots: pieces as drafts, ideas as drafts of pieces or as placeholders. What cannot be placed says why, and the others are. */
export async function takePlanItems(services: Services, brand: Brand, items: BodyOf<typeof takePlan>['items'], personId: string, nowMs: number): Promise<TakenPlan> {
  let [drafts, placeholders] = [0, 0];
  const notes: string[] = [];
  for (const item of items) {
    try {
      const made = await takeOne(services, brand, item, personId, nowMs);
      if (made === 'draft') drafts += 1;
      else placeholders += 1;
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      notes.push(error.sentence);
    }
  }
  return { drafts, placeholders, notes: [...new Set(notes)] };
}

async function takeOne(services: Services, brand: Brand, { slotKey, channelIds, candidateId }: BodyOf<typeof takePlan>['items'][number], personId: string, nowMs: number): Promise<'draft' | 'placeholder'> {
  const { db } = services;
  const [kind = '', id = ''] = candidateId.split(' ');
  const idea = kind === 'idea' ? await findIdea(db, brand.id, id) : null;
  if (kind === 'idea' && !idea) throw new ProblemError(404, 'not-found', 'One of the ideas is not on the shelf any more.');
  const pieceId = idea ? (SAY_ENOUGH.includes(idea.kind) ? (await makePieceOfIdea(services, brand, idea, personId, nowMs)).pieceId : null) : id;
  const { wall, dueMs, slotKey: key } = await momentOfSpot(services, brand, { kind: 'slot', slotKey }, nowMs);
  const base = { id: nanoid(12), campaignId: null, wall, dueMs, zone: brand.zone, slotKey: key ?? null };
  if (pieceId === null) {
    const entry = await keepEntry(services, brand, { ...base, pieceId: null, text: (idea?.title ?? '').slice(0, MAX_TEXT), themeId: idea?.themeId ?? null, cuts: channelIds.map((channelId) => ({ channelId, placement: '' })) }, personId);
    if (idea) await db.transaction((trx) => noteIdeaUses(trx, brand.id, idea.id, [{ kind: 'entry', subjectId: entry.id, name: wall }], personId, nowMs));
    return 'placeholder';
  }
  const piece = await findPiece(db, brand.id, pieceId);
  if (!piece) throw new ProblemError(404, 'not-found', 'One of the pieces is not there any more.');
  const cuts = await usualCutsOf(services, brand, piece, channelIds);
  if (cuts.length === 0) throw new ProblemError(422, 'no-cut', 'One of the pieces has no cut for the channels of its slot.');
  await keepEntry(services, brand, { ...base, pieceId, text: '', themeId: idea?.themeId ?? null, cuts }, personId);
  return 'draft';
}
