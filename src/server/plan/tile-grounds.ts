import { converter } from 'culori';
import { LRUCache } from 'lru-cache';
import sharp from 'sharp';
import type { Ground } from '../../core/plan/shuffle.ts';
import type { Brand } from '../db/brand-repository.ts';
import { getDelivery } from '../db/delivery-repository.ts';
import { findPiece } from '../db/piece-repository.ts';
import { deliveryPicture } from '../derived/delivery-picture.ts';
import { pieceThumbnail, type ShownCut } from '../derived/piece-thumbnail.ts';
import { exists } from '../media/derivatives.ts';
import type { Services } from '../services.ts';

const toOklab = converter('oklab');
const MAX_KEPT = 5_000;
const FULL = 255;

/** Derived files are named by what they are made of: the same name is the same picture. */
const known = new LRUCache<string, Ground>({ max: MAX_KEPT });

/** As `groundOf`, of a cut of a piece as it is now. */
export async function groundOfPiece(services: Pick<Services, 'db' | 'media' | 'render'>, brand: Brand, pieceId: string, cut: ShownCut): Promise<Ground | null> {
  const piece = await findPiece(services.db, brand.id, pieceId);
  const picture = piece && (await pieceThumbnail(services, brand, piece, cut));
  return picture ? groundOf(picture.path) : null;
}

/** As `groundOf`, of what a delivery sends or has sent. */
export async function groundOfDelivery(services: Pick<Services, 'db' | 'media'>, deliveryId: string): Promise<Ground | null> {
  return groundOf(deliveryPicture(services, await getDelivery(services.db, deliveryId)).path);
}

/** The colour that most of a small picture has; null where the picture has not been made yet. */
async function groundOf(path: string): Promise<Ground | null> {
  const kept = known.get(path);
  if (kept) return kept;
  if (!(await exists(path))) return null;
  const { dominant } = await sharp(path).stats();
  const { l, a, b } = toOklab({ mode: 'rgb', r: dominant.r / FULL, g: dominant.g / FULL, b: dominant.b / FULL });
  const ground = { l, a, b };
  known.set(path, ground);
  return ground;
}
