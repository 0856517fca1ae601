import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useState } from 'react';
import type { AnswerOf } from '../../../contract/contract.ts';
import { addRemark, endReviewLink, getReview, judgePost, makeReviewLink, resolveRemark, reviewAgain } from '../../../contract/review-contracts.ts';
import { getDeliveryPicture } from '../../../contract/send-contracts.ts';
import { roleMay } from '../../../core/access/access.ts';
import type { RemarkPlace } from '../../../core/post/remark-place.ts';
import { formatMoment } from '../../../core/time/wall-time.ts';
import { ChangesSince } from '../../review/ChangesSince.tsx';
import { CutPictures } from '../../review/CutPictures.tsx';
import { Remarks } from '../../review/Remarks.tsx';
import { videoIn, type RemarkActions } from '../../review/review-types.ts';
import { handOffFile } from '../../../contract/outbox-contracts.ts';
import { Verdict } from '../../review/Verdict.tsx';
import { WordsTable } from '../../review/WordsTable.tsx';
import { useChanges } from '../../shell/change-events.ts';
import { addressOf, call } from '../../ui/call.ts';
import { Button } from '../../ui/Button.tsx';
import { Field, inputClasses } from '../../ui/Field.tsx';
import { ModalFrame } from '../../ui/ModalFrame.tsx';
import { SelectField } from '../../ui/SelectField.tsx';
import { toast } from '../../ui/toast.tsx';
import type { SignOffBrand } from './SignOffView.tsx';

type Review = AnswerOf<typeof getReview>;

/** Shows one post exactly as it would go out, with its remarks, its verdicts and the buttons to judge it. */
export function ReviewPane({ brand, postId }: { readonly brand: SignOffBrand; readonly postId: string }) {
  const client = useQueryClient();
  const params = { brand: brand.slug, post: postId };
  const [pending, setPending] = useState<RemarkPlace | null>(null);
  const found = useQuery({ queryKey: ['review', brand.slug, postId], queryFn: () => call(getReview, { params }) });
  const refresh = useCallback(() => client.invalidateQueries({ queryKey: ['review', brand.slug, postId] }), [client, brand.slug, postId]);
  useChanges(brand.slug, { onChange: (kind, id) => void ((kind === 'review' || kind === 'post') && id === postId ? refresh() : undefined) });
  const pictureOf = useCallback((delivery: string, slide: number) => addressOf(getDeliveryPicture, { brand: brand.slug, delivery }, slide === 0 ? {} : { slide }), [brand.slug]);
  const videoOf = useCallback(async (delivery: string) => videoIn(await fetch(addressOf(handOffFile, { brand: brand.slug, delivery, index: '0' }))), [brand.slug]);
  if (!found.data) return <div className="p-6 text-sm text-quiet">{found.error?.message ?? 'Looking at the post…'}</div>;
  const review = found.data;
  const actions: RemarkActions | null = roleMay(brand.role, 'remark')
    ? {
        add: async (remark) => {
          await call(addRemark, { params, body: remark as never });
          return refresh();
        },
        resolve: async (id, isResolved) => {
          await call(resolveRemark, { params: { ...params, remark: id }, body: { isResolved } });
          return refresh();
        },
      }
    : null;
  return (
    <div className="grid min-h-0 grid-cols-[minmax(0,1fr)_18rem] max-xl:block max-xl:overflow-auto">
      <div className="overflow-auto px-5 py-4">
        <div className="mb-4 flex flex-wrap items-start gap-3">
          <div className="min-w-0 flex-1 max-sm:basis-full">
            <h2 className="text-xl font-semibold">{review.pieceName}</h2>
            <p className="text-sm text-quiet">{headWords(review, brand.zone)}</p>
          </div>
          {review.mayApprove && <Verdict seen={review.seen} onStale={() => void refresh()} onJudge={async (verdict) => told(await call(judgePost, { params, body: verdict }), review, () => void refresh())} />}
        </div>
        {review.whyNot !== null && review.state === 'in review' && <p className="mb-3 text-sm text-quiet">{review.whyNot}</p>}
        {review.sentBackBy !== null && review.state === 'in review' && <SentBack review={review} brand={brand} onDone={() => void refresh()} />}
        <ChangesSince changes={review.changes} />
        <CutPictures review={review} pictureOf={pictureOf} videoOf={videoOf} onPlace={actions ? setPending : null} pending={pending} />
        <div className="mt-5">
          <WordsTable review={review} onPlace={actions ? setPending : null} />
        </div>
      </div>
      <aside className="overflow-auto border-l border-line bg-panel px-4 py-4 max-xl:border-t max-xl:border-l-0">
        <Remarks review={review} actions={actions} pending={pending} onPending={setPending} />
        <History review={review} zone={brand.zone} />
        {roleMay(brand.role, 'send') && review.state === 'in review' && <Links review={review} brand={brand} onDone={() => void refresh()} />}
      </aside>
    </div>
  );
}

function told({ isApproved, approvedBy, sentBackBy }: AnswerOf<typeof judgePost>, review: Review, refresh: () => void): void {
  if (sentBackBy !== null) toast('done', `“${review.pieceName}” went back to ${review.makerName}.`);
  else toast('done', isApproved ? `“${review.pieceName}” is approved and goes out at its time.` : `Your approval counts: ${approvedBy.length} of ${review.needed}.`);
  refresh();
}

function headWords({ state, dueMs, needed, approvedBy, makerName }: Review, zone: string): string {
  const moment = formatMoment(dueMs, zone);
  if (state !== 'in review') return state === 'scheduled' ? `Approved. It goes out on ${moment}.` : `This post is ${state}.`;
  return `Exactly this goes out on ${moment}, made by ${makerName}. ${approvedBy.length} of ${needed} approved. A change after approval asks again.`;
}

/** What the one who made it does about a post that was sent back. */
function SentBack({ review, brand, onDone }: { readonly review: Review; readonly brand: SignOffBrand; readonly onDone: () => void }) {
  const last = review.history.findLast(({ verdict, isValid }) => verdict === 'changes' && isValid);
  const again = useMutation({
    mutationFn: () => call(reviewAgain, { params: { brand: brand.slug, post: review.postId }, body: {} }),
    onSuccess: () => {
      toast('done', 'The post now matches its piece. Reviewers are asked again.');
      onDone();
    },
  });
  return (
    <section aria-label="Changes requested" className="mb-5 rounded-md border border-coral bg-panel px-4 py-3 text-sm">
      <p className="font-semibold">{review.sentBackBy} asks for changes</p>
      {last && last.note !== '' && <p className="mt-1 break-words whitespace-pre-wrap">{last.note}</p>}
      {roleMay(brand.role, 'make') && (
        <div className="mt-2 flex flex-wrap items-center gap-2">
          <a href={`/b/${brand.slug}/make/pieces/${review.pieceId}`} className="font-medium text-house underline">
            Change the piece
          </a>
          <Button size="small" disabled={!review.pieceChanged || again.isPending} onClick={() => again.mutate()}>
            Ask again with the piece as it is now
          </Button>
          {!review.pieceChanged && <span className="text-xs text-quiet">The piece has not changed since.</span>}
        </div>
      )}
      {again.error && (
        <p role="alert" className="mt-1 text-coral-ink">
          {again.error.message}
        </p>
      )}
    </section>
  );
}

function History({ review, zone }: { readonly review: Review; readonly zone: string }) {
  if (review.history.length === 0) return null;
  return (
    <section aria-labelledby="history" className="mt-6">
      <h2 id="history" className="text-base font-semibold">
        History
      </h2>
      <ul className="mt-1 space-y-1 text-sm">
        {review.history.map(({ name, verdict, isValid, atMs }) => (
          <li key={`${name}${atMs}`} className="text-quiet">
            <span className={isValid ? 'text-ink' : 'line-through'}>
              {name} {verdict === 'approve' ? 'approved' : 'asked for changes'}
            </span>
            , <span className="tabular-nums">{formatMoment(atMs, zone)}</span>
            {!isValid && ', changed since'}
          </li>
        ))}
      </ul>
    </section>
  );
}

const lengths = [
  ['24', 'One day'],
  ['72', 'Three days'],
  ['168', 'One week'],
] as const;

/** Links for people without an account. The secret is shown once. */
function Links({ review, brand, onDone }: { readonly review: Review; readonly brand: SignOffBrand; readonly onDone: () => void }) {
  const params = { brand: brand.slug, post: review.postId };
  const [isMaking, setMaking] = useState(false);
  const end = useMutation({ mutationFn: (link: string) => call(endReviewLink, { params: { ...params, link } }), onSuccess: onDone, onError: (error) => toast('problem', error.message) });
  return (
    <section aria-labelledby="links" className="mt-6">
      <h2 id="links" className="text-base font-semibold">
        People outside
      </h2>
      <ul className="my-1 text-sm">
        {review.links.map(({ id, name, endsMs }) => (
          <li key={id} className="flex items-baseline gap-2 py-0.5">
            <span className="min-w-0 flex-1 text-quiet">
              Link for {name} ends {formatMoment(endsMs, brand.zone)}
            </span>
            <button type="button" className="text-xs text-coral-ink underline" onClick={() => end.mutate(id)}>
              End it
            </button>
          </li>
        ))}
      </ul>
      <Button onClick={() => setMaking(true)}>Link for someone outside…</Button>
      {isMaking && (
        <LinkDialog
          params={params}
          onClose={() => {
            setMaking(false);
            onDone();
          }}
        />
      )}
    </section>
  );
}

function LinkDialog({ params, onClose }: { readonly params: { readonly brand: string; readonly post: string }; readonly onClose: () => void }) {
  const [name, setName] = useState('');
  const [hours, setHours] = useState('72');
  const make = useMutation({ mutationFn: () => call(makeReviewLink, { params, body: { name, hours: Number(hours) } }) });
  const address = make.data ? `${location.origin}${make.data.path}` : null;
  const copy = (): void => void navigator.clipboard.writeText(address ?? '').then(() => toast('done', 'The link is copied.'), () => toast('problem', 'The browser did not copy it. Select the link and copy it yourself.'));
  return (
    <ModalFrame title="Link for someone outside" onClose={onClose}>
      {address === null ? (
        <form
          className="space-y-3"
          onSubmit={(event) => {
            event.preventDefault();
            make.mutate();
          }}
        >
          <p className="text-sm text-quiet">Whoever has the link sees this post alone, may remark on it, and approve it or send it back. No account is needed.</p>
          <Field label="Who is it for?" hint="The name stands beside what they say.">
            {({ id, describedBy }) => <input id={id} aria-describedby={describedBy} value={name} maxLength={60} onChange={(event) => setName(event.target.value)} className={inputClasses} />}
          </Field>
          <SelectField label="It lasts" value={hours} options={lengths} onChange={setHours} />
          {make.error && (
            <p role="alert" className="text-sm text-coral-ink">
              {make.error.message}
            </p>
          )}
          <div className="flex justify-end gap-2">
            <Button onClick={onClose}>Cancel</Button>
            <Button type="submit" look="primary" disabled={name.trim().length < 2 || make.isPending}>
              Make the link
            </Button>
          </div>
        </form>
      ) : (
        <div className="space-y-3">
          <p className="text-sm">Copy it now: it is not shown again.</p>
          <input aria-label="The link" readOnly value={address} onFocus={(event) => event.target.select()} className={inputClasses} />
          <div className="flex justify-end gap-2">
            <Button onClick={onClose}>Close</Button>
            <Button look="primary" onClick={copy}>
              Copy the link
            </Button>
          </div>
        </div>
      )}
    </ModalFrame>
  );
}
