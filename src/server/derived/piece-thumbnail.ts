import { createHash } from 'node:crypto';
import sharp from 'sharp';
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

type ThumbnailServices = Pick<Services, 'db' | 'media' | 'render'>;

/** Which of a piece's cuts is shown; where nothing is named, or the piece has no such cut, the first that fits. */
export interface ShownCut {
  readonly channel?: string | undefined;
  readonly placement?: string | undefined;
}

/** A cut of a piece, small, as the piece is now; null for a piece without cuts. */
export async function pieceThumbnail(services: ThumbnailServices, brand: Brand, piece: StoredPiece, { channel, placement }: ShownCut = {}, fitPx: ThumbnailFit = 480): Promise<DerivedFile | null> {
  const made = await sourceOf(services, brand, piece, { channel, placement });
  if (!made) return null;
  return { path: services.media.derivedPathOf(made.hash, nameOf(fitPx)), job: { key: `${KIND}:${made.hash}`, kind: KIND, lane: 'picture', payload: { brandId: brand.id, pieceId: piece.id, channel, placement }, maxAttempts: 3 } };
}

/** What the thumbnail is painted from, and a name that changes when any of it does. */
async function sourceOf(services: ThumbnailServices, brand: Brand, piece: StoredPiece, shown: ShownCut): Promise<{ readonly source: CutSource; readonly hash: string } | null> {
  const { cuts } = piece.document;
  const first = cuts.find((cut) => cut.channelId === shown.channel && cut.placement === shown.placement) ?? cuts.find((cut) => cut.channelId === shown.channel) ?? cuts[0];
  const channel = (await listChannels(services.db, brand.id)).find((each) => each.id === first?.channelId);
  if (!first || !channel) return null;
  const snapshot = await makeSnapshot(services, brand, piece.document);
  const hash = createHash('sha256').update(JSON.stringify([snapshot, first])).digest('hex');
  return { source: cutSourceOf(snapshot, channel.network, first, services.media), hash };
}

export function pieceThumbnailHandler(services: ThumbnailServices): JobHandler {
  return {
    async run({ payload }) {
      const brand = await findBrandById(services.db, payload['brandId'] as string);
      const piece = brand && (await findPiece(services.db, brand.id, payload['pieceId'] as string));
      const made = brand && piece ? await sourceOf(services, brand, piece, payload) : null;
      if (!made) return { kind: 'done' };
      const [small, large] = thumbnailFits;
      const picture = await services.render.picture({ kind: 'small', source: made.source, fitPx: large });
      await services.media.keepDerived(made.hash, nameOf(small), await sharp(picture.bytes).resize(small, small, { fit: 'inside' }).webp({ quality: QUALITY }).toBuffer());
      await services.media.keepDerived(made.hash, nameOf(large), picture.bytes);
      return { kind: 'done' };
    },
  };
}
