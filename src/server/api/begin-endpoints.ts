import { nanoid } from 'nanoid';
import * as contracts from '../../contract/begin-contracts.ts';
import { roleMay } from '../../core/access/access.ts';
import { askedFor, boilerplateOf } from '../../core/ideas/boilerplate.ts';
import { pieceName } from '../../core/piece/piece.ts';
import { deleteBoilerplate, findBoilerplate, insertBoilerplate, listBoilerplates as listAll, type StoredBoilerplate } from '../db/boilerplate-repository.ts';
import { getPiecePlan } from '../db/piece-plan-repository.ts';
import { findPiece } from '../db/piece-repository.ts';
import { listEntriesOfPiece } from '../db/plan-entry-repository.ts';
import { findPostsOfPiece } from '../db/post-repository.ts';
import { findSeriesOf } from '../db/series-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import { beginFrom } from '../ideas/begin-from-boilerplate.ts';
import { piecesFromFiles } from '../ideas/from-files.ts';
import { proposePlanFor, takePlanItems, type NamedCandidate } from '../ideas/plan-proposal.ts';
import { postQuickly } from '../ideas/quick-post.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';
import { once } from './once.ts';

const describeCandidate = ({ id, kind, name, pieceId, ideaKind }: NamedCandidate) => ({ id, kind, name, pieceId, ideaKind });

const proposePlan = defineEndpoint({
  contract: contracts.proposePlan,
  may: 'see',
  async handle({ services, brand, body, nowMs }) {
    const { placings, candidates, empty } = await proposePlanFor(services, brand, body, nowMs);
    const named = (id: string) => { const candidate = candidates.get(id); return candidate ? [describeCandidate(candidate)] : []; };
    return {
      placings: placings.flatMap(({ slot, candidateId, channelIds, why, next }) => named(candidateId).map((candidate) => ({ slotKey: slot.key, wall: `${slot.day}T${slot.time}`, atMs: slot.atMs, themeId: slot.themeId, channelIds: [...channelIds], candidate, why: [...why], next: next.flatMap(named) }))),
      empty,
    };
  },
});

const takePlan = defineEndpoint({
  contract: contracts.takePlan,
  may: 'send',
  async handle({ services, brand, body, caller, nowMs }) {
    const taken = await once(services, brand, body.request, () => takePlanItems(services, brand, body.items, caller.person.id, nowMs));
    return { ...taken, notes: [...taken.notes] };
  },
});

const fromFiles = defineEndpoint({
  contract: contracts.makeFromFiles,
  may: 'make',
  async handle({ services, brand, body, caller, role, nowMs }) {
    if (body.spread !== 'none' && !roleMay(role, 'send')) throw new ProblemError(403, 'role-too-low', 'You may make pieces and not plan them. Make them without spreading.');
    const made = await once(services, brand, body.request, () => piecesFromFiles(services, brand, body, caller.person.id, nowMs));
    return { ...made, pieceIds: [...made.pieceIds], notes: [...made.notes] };
  },
});

const describeBoilerplate = (boilerplate: StoredBoilerplate) => ({ id: boilerplate.id, name: boilerplate.name, template: boilerplate.piece.template.key, kind: boilerplate.piece.kind, themeId: boilerplate.themeId, usual: boilerplate.usual, asks: [...askedFor(boilerplate)] });

const listBoilerplates = defineEndpoint({ contract: contracts.listBoilerplates, may: 'see', handle: async ({ services, brand }) => ({ items: (await listAll(services.db, brand.id)).map(describeBoilerplate) }) });

const MAX_BOILERPLATES = 200;

const keepBoilerplate = defineEndpoint({
  contract: contracts.keepBoilerplate,
  may: 'make',
  async handle({ services, brand, body, caller, nowMs }) {
    const piece = await findPiece(services.db, brand.id, body.pieceId);
    if (!piece) throw notFound('piece');
    if ((await listAll(services.db, brand.id)).length >= MAX_BOILERPLATES) throw new ProblemError(422, 'too-many', `At most ${MAX_BOILERPLATES} boilerplates are kept. Remove one first.`);
    const { themeId } = await getPiecePlan(services.db, brand.id, piece.id);
    const boilerplate: StoredBoilerplate = { id: nanoid(12), name: body.name, ...boilerplateOf(piece.document, themeId, body.usual) };
    await insertBoilerplate(services.db, brand.id, boilerplate, caller.person.id, nowMs);
    return describeBoilerplate(boilerplate);
  },
});

const removeBoilerplate = defineEndpoint({
  contract: contracts.removeBoilerplate,
  may: 'make',
  async handle({ services, brand, params }) {
    if (!(await deleteBoilerplate(services.db, brand.id, params.boilerplate))) throw notFound('boilerplate');
    return undefined;
  },
});

const begin = defineEndpoint({
  contract: contracts.beginFromBoilerplate,
  may: 'make',
  async handle({ services, brand, params, body, caller, role, nowMs }) {
    const boilerplate = await findBoilerplate(services.db, brand.id, params.boilerplate);
    if (!boilerplate) throw notFound('boilerplate');
    if (body.plan && !roleMay(role, 'send')) throw new ProblemError(403, 'role-too-low', 'You may make pieces and not plan them. Begin it without a time.');
    return once(services, brand, body.request, () => beginFrom(services, brand, boilerplate, Object.fromEntries(body.values.map(({ name, value }) => [name, value])), body.plan, caller.person.id, nowMs));
  },
});

const quick = defineEndpoint({
  contract: contracts.quickPost,
  may: 'make',
  async handle({ services, brand, body, caller, role, nowMs }) {
    if (body.when !== 'draft' && !roleMay(role, 'send')) throw new ProblemError(403, 'role-too-low', 'You may make pieces and not send them. Keep it as a draft.');
    return once(services, brand, body.request, () => postQuickly(services, brand, body, caller.person.id, nowMs));
  },
});

const MOVABLE: readonly string[] = ['scheduled', 'in review', 'held'];

const getSeries = defineEndpoint({
  contract: contracts.getSeries,
  may: 'see',
  async handle({ services: { db }, brand, params }) {
    if (!(await findPiece(db, brand.id, params.piece))) throw notFound('piece');
    const series = await findSeriesOf(db, brand.id, params.piece);
    if (!series) return { series: null };
    const parts = await Promise.all(series.pieceIds.map(async (id) => ({ id, piece: await findPiece(db, brand.id, id), posts: (await findPostsOfPiece(db, id)).filter(({ state }) => MOVABLE.includes(state)), entries: await listEntriesOfPiece(db, brand.id, id) })));
    return {
      series: {
        id: series.id,
        name: series.name,
        pieces: parts.flatMap(({ id, piece, posts, entries }) => (piece ? [{ id, name: pieceName(piece.document), wall: posts[0]?.wall ?? entries[0]?.wall ?? null }] : [])),
        postIds: parts.flatMap(({ posts }) => posts.map(({ id }) => id)),
        entryIds: parts.flatMap(({ entries }) => entries.map(({ id }) => id)),
      },
    };
  },
});

export const beginEndpoints: readonly Endpoint[] = [proposePlan, takePlan, fromFiles, listBoilerplates, keepBoilerplate, removeBoilerplate, begin, quick, getSeries];
