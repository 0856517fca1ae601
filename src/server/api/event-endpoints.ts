import { nanoid } from 'nanoid';
import { watchChanges } from '../../contract/send-contracts.ts';
import { findCaller } from '../auth/caller.ts';
import { findBrandFor } from '../db/brand-repository.ts';
import { changesAfter } from '../db/change-repository.ts';
import { findPiece } from '../db/piece-repository.ts';
import { endPresence, listPresent, notePresence } from '../db/presence-repository.ts';
import { notFound } from '../errors.ts';
import { eventStream } from '../changes/event-stream.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';

/** A view counts as open for this long after its last sign of life, which it gives three times as often. */
const PRESENT_MS = 30_000;
/** Changes that a browser has missed are sent again up to here; beyond, it loads everything anew. */
const MAX_MISSED = 500;

const watch = defineEndpoint({
  contract: watchChanges,
  may: 'see',
  async handle({ services, brand, caller, query, request }) {
    const { db, clock, changes: feed, log } = services;
    const pieceId = query.piece;
    if (pieceId !== undefined && !(await findPiece(db, brand.id, pieceId))) throw notFound('piece');
    const missedSince = Number(request.headers.get('last-event-id') ?? Number.NaN);
    const mayGoOn = async (): Promise<boolean> => {
      const now = await findCaller(services, request.headers);
      return now?.person.id === caller.person.id && (await findBrandFor(db, brand.slug, caller.person.id)) !== null;
    };
    return eventStream(request.signal, mayGoOn, async ({ send }) => {
      const tellPresent = async (): Promise<void> => send('present', { people: await listPresent(db, pieceId ?? '', clock.machineNowMs()) });
      const stop = await feed.listen(brand.id, (changes) => {
        for (const { kind, subjectId, seq } of changes) {
          send(kind, { id: subjectId }, seq);
          if (kind === 'presence' && subjectId === pieceId) tellPresent().catch((error: unknown) => log.warn({ err: error }, 'presence could not be read'));
        }
      });
      if (Number.isSafeInteger(missedSince)) {
        const missed = await changesAfter(db, missedSince, MAX_MISSED);
        if (missed.length === MAX_MISSED) send('reload', {});
        else for (const { brandId, kind, subjectId, seq } of missed) if (brandId === brand.id) send(kind, { id: subjectId }, seq);
      }
      if (pieceId === undefined) return stop;
      const view = { brandId: brand.id, pieceId, viewId: nanoid(12), personId: caller.person.id };
      const here = (): Promise<void> => notePresence(db, { ...view, untilMs: clock.machineNowMs() + PRESENT_MS }, clock.machineNowMs());
      await here();
      await tellPresent();
      const alive = setInterval(() => here().catch((error: unknown) => log.warn({ err: error }, 'presence could not be noted')), PRESENT_MS / 3);
      return () => {
        stop();
        clearInterval(alive);
        endPresence(db, view, clock.machineNowMs()).catch((error: unknown) => log.warn({ err: error }, 'the end of a presence could not be noted'));
      };
    });
  },
});

export const eventEndpoints: readonly Endpoint[] = [watch];
