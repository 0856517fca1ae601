import { createHash, randomBytes } from 'node:crypto';
import type { Frame } from '../../src/core/piece/piece.ts';
import { writeThread } from '../../src/core/words/thread.ts';
import { accessOf } from '../../src/server/connect/connect-channel.ts';
import { readGrant } from '../../src/server/connect/oauth.ts';
import { findBrandFor, listChannels, type Brand } from '../../src/server/db/brand-repository.ts';
import { findPiece, type StoredPiece } from '../../src/server/db/piece-repository.ts';
import { schedule } from '../../src/server/post/schedule.ts';
import type { Services } from '../../src/server/services.ts';

const PIECES = 8;

export async function brandOf({ db }: Services): Promise<Brand> {
  const wren = await db('people').where({ email: 'wren@gullwickkites.example' }).first('id');
  const found = await findBrandFor(db, 'gullwick', wren.id);
  if (!found) throw new Error('The demo’s brand is not there');
  return found.brand;
}

/** Gives every channel an access that ends and can be renewed, as connecting does. */
export async function grantAccesses(services: Services, brand: Brand, standinOrigin: string): Promise<void> {
  for (const channel of await listChannels(services.db, brand.id)) {
    const verifier = randomBytes(32).toString('base64url');
    const asked = { response_type: 'code', client_id: 'http://127.0.0.1/', redirect_uri: 'http://127.0.0.1/back', state: 'faults', code_challenge: createHash('sha256').update(verifier).digest('base64url'), code_challenge_method: 'S256' };
    const answered = await fetch(`${standinOrigin}/${channel.network}/consent`, { method: 'POST', redirect: 'manual', body: new URLSearchParams({ ...asked, answer: 'allow', handle: channel.handle }) });
    const code = new URL(answered.headers.get('location') ?? '').searchParams.get('code') ?? '';
    const granted = (await (await fetch(`${standinOrigin}/${channel.network}/token`, { method: 'POST', body: new URLSearchParams({ grant_type: 'authorization_code', code, client_id: asked.client_id, redirect_uri: asked.redirect_uri, code_verifier: verifier }) })).json()) as { accounts?: readonly unknown[] };
    const access = accessOf(services.sealer, readGrant(granted.accounts?.[0] ?? granted, channel.name), await services.clock.nowMs());
    await services.db('channels').where({ id: channel.id }).update({ token: access.token, refresh_token: access.refreshToken, token_ends_ms: access.tokenEndsMs, access_ends_ms: access.accessEndsMs });
  }
}

/** Networks whose posts go out as threads, or with a first comment. */
const THREADED = 'quipline';
const COMMENTED: readonly string[] = ['petalry', 'guildrow'];

export interface MadeDelivery {
  readonly id: string;
  readonly network: string;
  readonly text: string;
  /** What has to stand behind the post when it is sent. */
  readonly parts: readonly string[];
  readonly comment: string;
}

/** One delivery in so many is a video: to the two networks that take nothing else. */
const FILM_EVERY = 25;
const FILM_PLACES: readonly (readonly [network: string, placement: string])[] = [['whirlo', 'clip'], ['longhall', 'short']];
const SHOT_MS = 1_600;

/** Schedules pieces again and again, and gives every delivery a text that tells it from all others; videos come between the graphics. */
export async function makeDeliveries(services: Services, brand: Brand, wanted: number): Promise<readonly MadeDelivery[]> {
  const films = Math.floor(wanted / FILM_EVERY);
  const made = await makeGraphics(services, brand, wanted - films);
  const madeFilms = await scheduleAgain(services, brand, [await shortFilm(services, brand)], films, 'Delivery of a film');
  return made.flatMap((each, index) => [each, ...madeFilms.slice(Math.ceil((index * films) / made.length), Math.ceil(((index + 1) * films) / made.length))]);
}

/** At least so many deliveries of graphics, to the seven networks that take them. */
export async function makeGraphics(services: Services, brand: Brand, wanted: number): Promise<readonly MadeDelivery[]> {
  const ids: string[] = await services.db('pieces').where({ brand_id: brand.id, kind: 'graphic' }).orderBy('id').limit(PIECES).pluck('id');
  const pieces = (await Promise.all(ids.map((id) => findPiece(services.db, brand.id, id)))).flatMap((piece): StoredPiece[] => (piece ? [piece] : []));
  return scheduleAgain(services, brand, pieces, wanted, 'Delivery');
}

/** A video of the demo, cut down to two short shots without a sound, for the networks that take nothing else. */
async function shortFilm({ db }: Services, brand: Brand): Promise<StoredPiece> {
  const id: string | undefined = (await db('pieces').where({ brand_id: brand.id, kind: 'video' }).orderBy('id').first('id'))?.id;
  const piece = id === undefined ? null : await findPiece(db, brand.id, id);
  if (!piece) throw new Error('The demo has no video');
  const channels = await listChannels(db, brand.id);
  const { document } = piece;
  const cuts = document.cuts.filter(({ channelId, placement }) => FILM_PLACES.some(([network, place]) => place === placement && channels.some((channel) => channel.id === channelId && channel.network === network)));
  if (cuts.length === 0) throw new Error('The demo’s video goes to no network of videos');
  const short = (frame: Frame): Frame => ({ ...frame, shot: { lengthMs: SHOT_MS } });
  const [first] = document.frames;
  return { ...piece, document: { ...document, frames: [short(first), short(document.frames.at(-1) ?? first)], track: undefined, cover: undefined, cuts } };
}

async function scheduleAgain(services: Services, brand: Brand, pieces: readonly StoredPiece[], wanted: number, name: string): Promise<readonly MadeDelivery[]> {
  const { db } = services;
  const wren = await db('people').where({ email: 'wren@gullwickkites.example' }).first('id');
  const made: MadeDelivery[] = [];
  // Networks take so many a day; the days are far apart until everything is moved to now.
  for (let day = 0; made.length < wanted; day += 1) {
    for (const piece of pieces) {
      if (made.length >= wanted) break;
      const wall = new Date(Date.UTC(2040, 0, 1 + day)).toISOString().slice(0, 10);
      const deliveries = await schedule(services, brand, piece, { revision: piece.revision, cuts: piece.document.cuts.map((cut) => ({ ...cut, when: undefined })), when: { kind: 'at', wall: `${wall}T09:30` }, again: true }, { personId: wren.id, maySend: true }, await services.clock.nowMs());
      for (const delivery of deliveries) {
        const text = `${name} ${made.length}`;
        const parts = delivery.network === THREADED ? [`${text}, part two`, `${text}, part three`] : [];
        const comment = COMMENTED.includes(delivery.network) ? `${text}, first comment` : '';
        const { thread: _, firstComment: __, ...words } = delivery.words;
        const follows = { ...(parts.length > 0 ? { thread: writeThread({ parts: [text, ...parts], pictureEach: false }) } : {}), ...(comment === '' ? {} : { firstComment: comment }) };
        await db('deliveries').where({ id: delivery.id }).update({ words: JSON.stringify({ ...words, caption: text, ...follows }) });
        made.push({ id: delivery.id, network: delivery.network, text, parts, comment });
      }
    }
  }
  return made;
}

/** Makes the deliveries due one after the other, from now on. */
export async function spread(services: Services, made: readonly MadeDelivery[], everyMs: number): Promise<void> {
  const nowMs = await services.clock.nowMs();
  await services.db.transaction(async (trx) => {
    for (const [index, { id }] of made.entries()) {
      const dueMs = nowMs + index * everyMs;
      await trx('deliveries').where({ id }).update({ due_ms: dueMs });
      await trx('jobs').where({ key: `delivery:${id}` }).update({ due_ms: dueMs });
    }
  });
}
