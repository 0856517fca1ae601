import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useState } from 'react';
import { judgeOutside, pictureOutside, readOutsideReview, remarkOutside, videoOutside } from '../../contract/review-contracts.ts';
import type { RemarkPlace } from '../../core/post/remark-place.ts';
import { formatMoment } from '../../core/time/wall-time.ts';
import { call } from '../ui/call.ts';
import { Queries } from '../ui/Queries.tsx';
import { toast } from '../ui/toast.tsx';
import { ChangesSince } from './ChangesSince.tsx';
import { CutPictures } from './CutPictures.tsx';
import { Remarks } from './Remarks.tsx';
import { videoIn, type RemarkActions } from './review-types.ts';
import { Verdict } from './Verdict.tsx';
import { WordsTable } from './WordsTable.tsx';

export default function OutsideReview() {
  return (
    <Queries>
      <Review />
    </Queries>
  );
}

/** A post for somebody without an account: by a link that ends, on a phone too. */
function Review() {
  const client = useQueryClient();
  const [secret, setSecret] = useState<string | null>(null);
  const [pending, setPending] = useState<RemarkPlace | null>(null);
  // The secret stands in the fragment, which no server sees.
  useEffect(() => setSecret(location.hash.slice(1)), []);
  const found = useQuery({ queryKey: ['outside-review', secret], enabled: secret !== null, retry: false, queryFn: () => call(readOutsideReview, { body: { secret: secret ?? '' } }) });
  const refresh = (): Promise<void> => client.invalidateQueries({ queryKey: ['outside-review', secret] });
  const pictureOf = useCallback(
    async (deliveryId: string, slide: number): Promise<string> => {
      const response = await fetch(pictureOutside.path, { method: pictureOutside.method, headers: { 'content-type': 'application/json' }, body: JSON.stringify({ secret, deliveryId, slide }) });
      if (!response.ok) throw new Error('The picture is not there yet.');
      return URL.createObjectURL(await response.blob());
    },
    [secret],
  );
  const videoOf = useCallback(async (deliveryId: string) => videoIn(await fetch(videoOutside.path, { method: videoOutside.method, headers: { 'content-type': 'application/json' }, body: JSON.stringify({ secret, deliveryId }) })), [secret]);
  if (found.isError) {
    return (
      <main className="grid min-h-0 flex-1 place-items-center p-6 text-center">
        <div className="max-w-sm">
          <h1 className="text-lg font-semibold">There is nothing to see here</h1>
          <p className="mt-1 text-sm text-quiet">{found.error.message}</p>
        </div>
      </main>
    );
  }
  if (!found.data || secret === null) return <main className="p-6 text-sm text-quiet">Looking at the post…</main>;
  const review = found.data;
  const isOpen = review.state === 'in review';
  const actions: RemarkActions | null = isOpen
    ? {
        add: async (remark) => {
          await call(remarkOutside, { body: { secret, ...remark } as never });
          return refresh();
        },
        resolve: null,
      }
    : null;
  const hasSpoken = review.history.some(({ name, isValid }) => isValid && name === `${review.name} (outside)`);
  return (
    <main className="min-h-0 flex-1 overflow-auto">
      <div className="mx-auto max-w-5xl px-4 py-5">
        <p className="text-sm text-quiet">
          {review.brandName} asks you, {review.name}, to look at this post.
        </p>
        <div className="mt-1 mb-4 flex flex-wrap items-start gap-3">
          <div className="min-w-0 flex-1 max-sm:basis-full">
            <h1 className="text-xl font-semibold">{review.pieceName}</h1>
            <p className="text-sm text-quiet">
              {isOpen ? `Exactly this goes out on ${formatMoment(review.dueMs, review.zone)}.` : 'It does not wait for approval any more.'} This link ends {formatMoment(review.endsMs, review.zone)}.
            </p>
          </div>
          {isOpen && !hasSpoken && (
            <Verdict
              seen={review.seen}
              onStale={() => void refresh()}
              onJudge={async (verdict) => {
                await call(judgeOutside, { body: { secret, ...verdict } });
                toast('done', 'Thank you. Your answer is kept.');
                await refresh();
              }}
            />
          )}
          {hasSpoken && <p className="text-sm font-medium text-mint-ink">You have answered. Thank you.</p>}
        </div>
        <ChangesSince changes={review.changes} />
        <CutPictures review={review} pictureOf={pictureOf} videoOf={videoOf} onPlace={actions ? setPending : null} pending={pending} />
        <div className="my-5">
          <WordsTable review={review} onPlace={actions ? setPending : null} />
        </div>
        <Remarks review={review} actions={actions} pending={pending} onPending={setPending} />
      </div>
    </main>
  );
}
