import { nanoid } from 'nanoid';
import * as contracts from '../../contract/archive-contracts.ts';
import { readPiece } from '../../core/piece/piece.ts';
import { getShippedTemplate } from '../../core/template/shipped-templates.ts';
import { pageArchive } from '../db/archive-repository.ts';
import { insertPiece } from '../db/piece-repository.ts';
import { findPublication } from '../db/publication-repository.ts';
import { readPin } from '../documents/pins.ts';
import { notFound, ProblemError } from '../errors.ts';
import { beginPiece } from '../pieces/begin-piece.ts';
import { getDeliveryOf } from '../post/change-post.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';
import { nextCursor, readCursor } from './page-cursor.ts';

const PAGE = 48;
/** A template that shows words alone. */
const WORDS_TEMPLATE = 'aside';

const listArchive = defineEndpoint({
  contract: contracts.listArchive,
  may: 'see',
  async handle({ services, brand, query }) {
    const limit = query.limit ?? PAGE;
    const channelIds = (query.channels ?? '').split(',').filter((id) => id !== '');
    const items = await pageArchive(services.db, brand.id, { words: (query.words ?? '').split(/\s+/u).filter((word) => word !== '').slice(0, 6), states: query.state ? [query.state] : [...contracts.archiveStates], kind: query.kind ?? null, channelIds: channelIds.length === 0 ? null : channelIds, before: readCursor(query.before), limit });
    return { items: items.map(({ dueMs: _, ...item }) => item), next: nextCursor(items, limit, ({ deliveryId, dueMs }) => ({ id: deliveryId, ms: dueMs })) };
  },
});

const pieceOfDelivery = defineEndpoint({
  contract: contracts.pieceOfDelivery,
  may: 'make',
  async handle({ services, brand, params, caller, nowMs }) {
    const delivery = await getDeliveryOf(services.db, brand, params.delivery);
    const { piece } = await readPin(services.db, delivery.pin);
    const document = readPiece({ ...piece, title: `${delivery.pieceName.slice(0, 100)} again` });
    const made = await insertPiece(services.db, { id: nanoid(12), brandId: brand.id, document, createdBy: caller.person.id }, nowMs);
    return { pieceId: made.id };
  },
});

const pieceOfOutsidePost = defineEndpoint({
  contract: contracts.pieceOfOutsidePost,
  may: 'make',
  async handle({ services, brand, params, caller, nowMs }) {
    const publication = await findPublication(services.db, brand.id, params.publication);
    if (!publication) throw notFound('post');
    if (publication.deliveryId !== null) throw new ProblemError(409, 'made-here', 'This post was made here: duplicate its piece instead.');
    const begun = await beginPiece(services, brand, getShippedTemplate(WORDS_TEMPLATE), []);
    const [first, ...others] = begun.frames;
    const headline = { kind: 'text' as const, text: publication.title.split(/(?<=[.!?])\s/u)[0]?.slice(0, 160) ?? '' };
    const document = readPiece({ ...begun, frames: [{ ...first, slots: { ...first.slots, headline } }, ...others], words: { ...begun.words, shared: { ...begun.words.shared, caption: publication.title } } });
    const made = await insertPiece(services.db, { id: nanoid(12), brandId: brand.id, document, createdBy: caller.person.id }, nowMs);
    return { pieceId: made.id };
  },
});

export const archiveEndpoints: readonly Endpoint[] = [listArchive, pieceOfDelivery, pieceOfOutsidePost];
