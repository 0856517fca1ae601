import { useMutation } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import type { RemarkPlace } from '../../core/post/remark-place.ts';
import { formatMoment } from '../../core/time/wall-time.ts';
import { Button } from '../ui/Button.tsx';
import { inputClasses } from '../ui/Field.tsx';
import { toast } from '../ui/toast.tsx';
import { numbered, type RemarkActions, type ReviewCut, type ShownRemark, type ShownReview } from './review-types.ts';

interface RemarksProps {
  readonly review: ShownReview;
  readonly actions: RemarkActions | null;
  /** Where the next remark goes; null: the post as a whole. */
  readonly pending: RemarkPlace | null;
  readonly onPending: (place: RemarkPlace | null) => void;
}

/** What was remarked on a post, with answers; and the field for the next remark. */
export function Remarks({ review, actions, pending, onPending }: RemarksProps) {
  const all = numbered(review.remarks);
  return (
    <section aria-labelledby="remarks">
      <h2 id="remarks" className="text-base font-semibold">
        Remarks
      </h2>
      {all.length === 0 && <p className="mt-1 text-sm text-quiet">{actions ? 'None yet. Press a spot of a cut, or Remark beside a text, to say something about it.' : 'None yet.'}</p>}
      <ul className="mt-2 divide-y divide-line">
        {all.map(({ remark, number }) => (
          <OneRemark key={remark.id} remark={remark} number={number} review={review} actions={actions} />
        ))}
      </ul>
      {actions && <NewRemark actions={actions} cuts={review.cuts} pending={pending} onPending={onPending} />}
    </section>
  );
}

function placeWords(place: RemarkPlace | null, cuts: readonly ReviewCut[]): string {
  if (place === null) return 'The post as a whole';
  const cut = cuts.find(({ deliveryId }) => deliveryId === place.deliveryId);
  const where = cut ? `${cut.channelName}, ${cut.placementName}` : 'A cut that is gone';
  switch (place.kind) {
    case 'spot':
      return (place.slide ?? 0) > 0 ? `${where}, slide ${(place.slide ?? 0) + 1}` : where;
    case 'moment':
      return `${where}, at ${((place.atMs ?? 0) / 1000).toFixed(1)} s`;
    case 'field':
      return `${where}: ${cut?.fields.find(({ key }) => key === place.field)?.label ?? place.field ?? ''}`;
  }
}

function OneRemark({ remark, number, review, actions }: { readonly remark: ShownRemark; readonly number: number; readonly review: ShownReview; readonly actions: RemarkActions | null }) {
  const [isAnswering, setAnswering] = useState(false);
  const answers = review.remarks.filter(({ answerTo }) => answerTo === remark.id);
  const resolve = useMutation({ mutationFn: () => actions?.resolve?.(remark.id, !remark.isResolved) ?? Promise.resolve(), onError: (error) => toast('problem', error.message) });
  return (
    <li data-remark={remark.id} className={`flex gap-2.5 py-3 ${remark.isResolved ? 'opacity-70' : ''}`}>
      <span aria-hidden className={`grid size-5 shrink-0 place-items-center rounded-full rounded-bl-none text-xs font-bold ${remark.isResolved ? 'border border-edge text-quiet' : 'bg-house text-house-ink'}`}>
        {number}
      </span>
      <div className="min-w-0 flex-1 text-sm">
        <p>
          <span className="font-semibold">{remark.name}</span> <span className="text-xs text-quiet tabular-nums">{formatMoment(remark.atMs, review.zone)}</span>
        </p>
        <p className="text-xs text-quiet">{placeWords(remark.place, review.cuts)}</p>
        <p className="mt-0.5 break-words whitespace-pre-wrap">{remark.text}</p>
        {answers.map((answer) => (
          <p key={answer.id} className="mt-1.5 border-l-2 border-line pl-2 break-words whitespace-pre-wrap">
            <span className="font-semibold">{answer.name}</span> {answer.text}
          </p>
        ))}
        {actions && !isAnswering && (
          <div className="mt-1.5 flex gap-1.5">
            <Button size="small" onClick={() => setAnswering(true)}>
              Answer
            </Button>
            {actions.resolve && (
              <Button size="small" disabled={resolve.isPending} onClick={() => resolve.mutate()}>
                {remark.isResolved ? 'Open again' : 'Resolve'}
              </Button>
            )}
          </div>
        )}
        {actions && isAnswering && <RemarkField label="Answer" submit="Answer" onSend={(text) => actions.add({ text, place: null, answerTo: remark.id })} onClose={() => setAnswering(false)} />}
      </div>
    </li>
  );
}

function NewRemark({ actions, cuts, pending, onPending }: { readonly actions: RemarkActions; readonly cuts: readonly ReviewCut[] } & Pick<RemarksProps, 'pending' | 'onPending'>) {
  return (
    <div className="mt-3 border-t border-line pt-3">
      <p className="mb-1 flex flex-wrap items-baseline gap-2 text-xs text-quiet">
        {placeWords(pending, cuts)}
        {pending && (
          <button type="button" className="text-house underline" onClick={() => onPending(null)}>
            Say it of the whole post
          </button>
        )}
      </p>
      <RemarkField key={JSON.stringify(pending)} label="New remark" submit="Add remark" isFocused={pending !== null} onSend={(text) => actions.add({ text, place: pending, answerTo: null })} onClose={() => onPending(null)} />
    </div>
  );
}

interface RemarkFieldProps {
  readonly label: string;
  readonly submit: string;
  readonly isFocused?: boolean;
  readonly onSend: (text: string) => Promise<unknown>;
  readonly onClose: () => void;
}

function RemarkField({ label, submit, isFocused = true, onSend, onClose }: RemarkFieldProps) {
  const [text, setText] = useState('');
  const field = useRef<HTMLTextAreaElement>(null);
  useEffect(() => {
    if (isFocused) field.current?.focus();
  }, [isFocused]);
  const send = useMutation({
    mutationFn: () => onSend(text.trim()),
    onSuccess: () => {
      setText('');
      onClose();
    },
  });
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        send.mutate();
      }}
    >
      <textarea ref={field} aria-label={label} rows={2} value={text} maxLength={2_000} onChange={(event) => setText(event.target.value)} className={`${inputClasses} text-sm`} />
      {send.error && (
        <p role="alert" className="mt-1 text-xs text-coral-ink">
          {send.error.message} Your words are still here.
        </p>
      )}
      <div className="mt-1.5 flex justify-end gap-1.5">
        <Button type="submit" size="small" disabled={text.trim() === '' || send.isPending}>
          {submit}
        </Button>
      </div>
    </form>
  );
}
