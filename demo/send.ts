import { nanoid } from 'nanoid';
import { DateTime } from 'luxon';
import { keepAccounts, openStandinAccounts } from '../src/server/brand/standin-accounts.ts';
import { noteAct } from '../src/server/db/act-repository.ts';
import { listChannels, type Brand } from '../src/server/db/brand-repository.ts';
import { listDeliveriesOf } from '../src/server/db/delivery-repository.ts';
import { findPost } from '../src/server/db/post-repository.ts';
import { insertRemark } from '../src/server/db/review-repository.ts';
import { savePiece, type StoredPiece } from '../src/server/db/piece-repository.ts';
import { usualCutsOf } from '../src/server/plan/place-piece.ts';
import { contentName, contentOf, giveVerdict } from '../src/server/post/review.ts';
import { schedule } from '../src/server/post/schedule.ts';
import type { Services } from '../src/server/services.ts';

/** Somebody of the demo. */
export interface DemoPerson {
  readonly id: string;
  readonly name: string;
}

/** A post that a writer asks approval for, with the remarks and verdicts it has so far. */
export interface DemoReview {
  /** How the piece's name begins. */
  readonly piece: string;
  readonly networks: readonly string[];
  /** Days from now, and the time on the brand's clock. */
  readonly inDays: number;
  readonly at: string;
  readonly remark?: { readonly by: string; readonly text: string; readonly x: number; readonly y: number };
  readonly sentBack?: { readonly by: string; readonly note: string };
}

export interface DemoSend {
  readonly maker: string;
  readonly reviews: readonly DemoReview[];
  /** A personal account, which a person posts to by hand, with a piece that is due there. */
  readonly byHand?: { readonly network: string; readonly handle: string; readonly name: string; readonly piece: string };
}

const DAY_MS = 86_400_000;

/** How the demo's brands send: posts that wait for approval, and one that a person places by hand. */
export async function seedSend(services: Services, brand: Brand, demo: DemoSend, pieces: readonly { readonly name: string; readonly piece: StoredPiece }[], people: ReadonlyMap<string, DemoPerson>, nowMs: number): Promise<void> {
  const personOf = (name: string): DemoPerson => people.get(name) ?? { id: '', name };
  const pieceOf = (name: string): StoredPiece | undefined => pieces.find((each) => each.name.startsWith(name))?.piece ?? pieces.find(({ piece }) => JSON.stringify(piece.document.frames[0].slots).includes(name))?.piece;
  const maker = personOf(demo.maker);
  for (const review of demo.reviews) await seedReview(services, brand, review, pieceOf(review.piece), maker, personOf, nowMs);
  if (demo.byHand) await seedByHand(services, brand, demo.byHand, pieceOf(demo.byHand.piece), maker, nowMs);
}

async function seedReview(services: Services, brand: Brand, review: DemoReview, piece: StoredPiece | undefined, maker: DemoPerson, personOf: (name: string) => DemoPerson, nowMs: number): Promise<void> {
  if (!piece) return;
  const { db, clock } = services;
  const channels = (await listChannels(db, brand.id)).filter(({ network }) => review.networks.includes(network));
  const cuts = await usualCutsOf(services, brand, piece, channels.map(({ id }) => id));
  const day = DateTime.fromMillis(nowMs, { zone: brand.zone }).plus({ days: review.inDays }).toISODate() ?? '';
  const made = await schedule(services, brand, piece, { revision: piece.revision, cuts: cuts.map((cut) => ({ ...cut, when: undefined })), when: { kind: 'at', wall: `${day}T${review.at}` }, again: true }, { personId: maker.id, maySend: false }, nowMs);
  const postId = made[0]?.postId ?? '';
  const post = await findPost(db, brand.id, postId);
  if (!post) return;
  await noteAct(db, { brandId: brand.id, atMs: nowMs - DAY_MS, personId: maker.id, name: maker.name, kind: 'post', subjectId: postId, sentence: `Asked for approval of “${post.pieceName}”` });
  const deliveries = await listDeliveriesOf(db, postId);
  if (review.remark) {
    const { by, text, x, y } = review.remark;
    const { id, name } = personOf(by);
    await insertRemark(db, brand.id, { id: nanoid(12), postId, answerTo: null, personId: id, name, text, place: { kind: 'spot', deliveryId: deliveries[0]?.id ?? '', slide: 0, x, y, atMs: undefined, field: undefined }, resolvedMs: null, atMs: nowMs - DAY_MS / 2 }, clock.machineNowMs());
  }
  if (review.sentBack) await giveVerdict(services, brand, postId, { personId: personOf(review.sentBack.by).id, name: personOf(review.sentBack.by).name }, { verdict: 'changes', note: review.sentBack.note, seen: contentName(contentOf(post, deliveries)) }, nowMs - DAY_MS / 3);
}

async function seedByHand(services: Services, brand: Brand, { network, handle, name }: NonNullable<DemoSend['byHand']>, piece: StoredPiece | undefined, maker: DemoPerson, nowMs: number): Promise<void> {
  if (!piece) return;
  const { db } = services;
  const [opened] = await openStandinAccounts(services, { brandId: brand.id, brandName: name, handle, networks: [network], kind: 'personal' });
  if (!opened) return;
  await keepAccounts(db, [opened]);
  const cut = { channelId: opened.id, placement: opened.sheet.accounts?.find(({ key }) => key === 'personal')?.placements?.[0] ?? '' };
  const withCut = await savePiece(db, piece, { ...piece.document, cuts: [...piece.document.cuts, cut] }, maker.id, nowMs);
  if (!withCut) return;
  await schedule(services, brand, withCut, { revision: withCut.revision, cuts: [{ ...cut, when: undefined }], when: { kind: 'now' }, again: true }, { personId: maker.id, maySend: true }, nowMs);
}
