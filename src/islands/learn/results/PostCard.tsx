import { getDeliveryPicture } from '../../../contract/send-contracts.ts';
import { formatClock } from '../../../core/time/wall-time.ts';
import { addressOf } from '../../ui/call.ts';
import { PictureWithFallback } from '../../ui/PictureWithFallback.tsx';
import { rateOf } from '../figure-words.ts';
import { channelOf, formatWords, type PostRow, type ResultsContext } from './results-context.ts';

export function pictureOf(brand: string, { deliveryId }: Pick<PostRow, 'deliveryId'>): string | null {
  return deliveryId === null ? null : addressOf(getDeliveryPicture, { brand, delivery: deliveryId });
}

/** Where and when a post went out, in few words. */
export function placeWords(post: PostRow, { facets, brand }: Pick<ResultsContext, 'facets' | 'brand'>): string {
  const channel = channelOf(facets, post.channelId);
  const format = formatWords[post.format ?? ''] ?? '';
  return [channel?.networkName ?? '', post.slides > 1 ? `${format} ${post.slides}` : format, formatClock(post.publishedMs, brand.zone)].filter((each) => each !== '').join(' · ');
}

/** A post as its picture, with its rate. */
export function PostCard({ post, context }: { readonly post: PostRow; readonly context: ResultsContext }) {
  const { brand, change } = context;
  return (
    <button type="button" onClick={() => change({ show: 'posts', post: post.id })} className="group min-w-0 text-left">
      <PictureWithFallback src={pictureOf(brand.slug, post)} alt="" className="mb-1.5 aspect-square w-full rounded-md border border-line object-contain" />
      <span className="flex items-baseline justify-between gap-2">
        <span className="min-w-0 truncate text-sm font-semibold group-hover:underline">{post.title}</span>
        <span className="text-sm font-semibold tabular-nums">{rateOf(post.rate)}</span>
      </span>
      <span className="block truncate text-xs text-quiet" suppressHydrationWarning>
        {placeWords(post, context)}
      </span>
    </button>
  );
}
