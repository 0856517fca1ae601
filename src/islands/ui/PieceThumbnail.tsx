import { getPieceThumbnail } from '../../contract/piece-contracts.ts';
import { addressOf } from './call.ts';
import { PictureWithFallback } from './PictureWithFallback.tsx';

/** Rows that scroll away and come back do not ask for their pictures anew; the next page load does. */
const visit = Date.now();

/** A piece's picture for a row or a tile; lists of hundreds load the smaller copy. */
export function PieceThumbnail({ brand, piece, className }: { readonly brand: string; readonly piece: string; readonly className: string }) {
  return <PictureWithFallback src={addressOf(getPieceThumbnail, { brand, piece }, { fit: 240, visit })} alt="" className={className} />;
}
