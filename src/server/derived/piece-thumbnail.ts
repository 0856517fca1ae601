import { createHash } from 'node:crypto';
import sharp from 'sharp';
import { shippedSheets } from '../../core/network/shipped-sheets.ts';
import type { CutRef } from '../../core/piece/piece.ts';
import { thumbnailFits, type ThumbnailFit } from '../../contract/piece-contracts.ts';
import type { Brand } from '../db/brand-repository.ts';
import { findBrandById, listChannels } from '../db/brand-repository.ts';
import { findPiece, type StoredPiece } from '../db/piece-repository.ts';
import type { JobHandler } from '../jobs/job-handler.ts';
import { makeSnapshot } from '../pieces/make-snapshot.ts';
import { cutSourceOf } from '../render/cut-source.ts';
import type { CutSource } from '../render/render-cut.ts';
import type { Services } from '../services.ts';
import type { DerivedFile } from './derived-file.ts';

const KIND = 'piece-thumbnail';
const QUALITY = 82;
const nameOf = (fitPx: ThumbnailFit): string => `thumbnail-${fitPx}.webp`;

/** How a piece is shown that has no cut yet, as in a brand without channels. */
const USUAL_NETWORK = 'petalry';
const square: CutRef = { channelId: '', placement: 'feed-square' };

type ThumbnailServices = Pick<Services, 'db' | 'media' | 'render'>;

/** Which of a piece's cuts is shown; where nothing is named, or the piece has no such cut, the first that fits. */
export interface ShownCut {
  readonly channel?: string | undefined;
  readonly placement?: string | undefined;
}

/** A cut of a piece, small, as the piece is now; a piece without cuts is shown as a square. */
export async function pieceThumbnail(services: ThumbnailServices, brand: Brand, piece: StoredPiece, { channel, placement }: ShownCut = {}, fitPx: ThumbnailFit = 480): Promise<DerivedFile> {
  const made = await sourceOf(services, brand, piece, { channel, placement });
  return { path: services.media.derivedPathOf(made.hash, nameOf(fitPx)), job: { key: `${KIND}:${made.hash}`, kind: KIND, lane: 'picture', payload: { brandId: brand.id, pieceId: piece.id, channel, placement }, maxAttempts: 3 } };
}

/** What the thumbnail is painted from, and a name that changes when any of it does. */
async function sourceOf(services: ThumbnailServices, brand: Brand, piece: StoredPiece, shown: ShownCut): Promise<{ readonly source: CutSource; readonly hash: string }> {
  const { cuts } = piece.document;
  const first = cuts.find((cut) => cut.channelId === shown.channel && cut.placement === shown.placement) ?? cuts.find((cut) => cut.channelId === shown.channel) ?? cuts[0];
  const channel = (await listChannels(services.db, brand.id)).find((each) => each.id === first?.channelId);
  const snapshot = await makeSnapshot(services, brand, piece.document);
  const nameFor = (ref: CutRef): string => createHash('sha256').update(JSON.stringify([snapshot, ref])).digest('hex');
  if (first && channel) return { source: cutSourceOf(snapshot, channel.network, first, services.media), hash: nameFor(first) };
  return { source: cutSourceOf({ ...snapshot, sheets: shippedSheets }, USUAL_NETWORK, square, services.media), hash: nameFor(square) };
}

export function pieceThumbnailHandler(services: ThumbnailServices): JobHandler {
  return {
    async run({ payload }) {
      const brand = await findBrandById(services.db, payload['brandId'] as string);
      const piece = brand && (await findPiece(services.db, brand.id, payload['pieceId'] as string));
      if (!brand || !piece) return { kind: 'done' };
      const made = await sourceOf(services, brand, piece, payload);
      const [small, large] = thumbnailFits;
      const picture = await services.render.picture({ kind: 'small', source: made.source, fitPx: large });
      await services.media.keepDerived(made.hash, nameOf(small), await sharp(picture.bytes).resize(small, small, { fit: 'inside' }).webp({ quality: QUALITY }).toBuffer());
      await services.media.keepDerived(made.hash, nameOf(large), picture.bytes);
      return { kind: 'done' };
    },
  };
}
