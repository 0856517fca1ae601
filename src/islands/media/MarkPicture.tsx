import { markName, type BrandMark } from '../../core/brand/brand-book.ts';
import { mediaAddress, type MediaItem } from './media-address.ts';

/** A mark as it is drawn. */
export function MarkPicture({ mark, brand, pictures }: { readonly mark: BrandMark; readonly brand: string; readonly pictures: readonly MediaItem[] }) {
  if (mark.kind === 'picture') {
    const item = pictures.find((picture) => picture.id === mark.mediaId);
    return item ? <img src={mediaAddress(brand, item, 240)} alt={markName(mark)} className="h-11 max-w-16 object-contain" /> : null;
  }
  return (
    <svg viewBox={`0 0 ${mark.viewBox.width} ${mark.viewBox.height}`} className="h-11 max-w-16" role="img" aria-label={markName(mark)}>
      {mark.paths.map((path, index) => (
        <path key={`${index}${path.d.slice(0, 40)}`} d={path.d} fill={path.fill} fillRule={path.evenOdd ? 'evenodd' : 'nonzero'} />
      ))}
    </svg>
  );
}
