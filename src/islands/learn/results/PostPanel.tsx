import { useMutation, useQuery } from '@tanstack/react-query';
import X from 'lucide-react/icons/x';
import { lazy, Suspense } from 'react';
import { pieceOfOutsidePost } from '../../../contract/archive-contracts.ts';
import { getResult } from '../../../contract/results-contracts.ts';
import type { AnswerOf } from '../../../contract/contract.ts';
import { roleMay } from '../../../core/access/access.ts';
import { families } from '../../../core/results/features.ts';
import { formatMoment } from '../../../core/time/wall-time.ts';
import { call } from '../../ui/call.ts';
import { Button, buttonClasses } from '../../ui/Button.tsx';
import { toast } from '../../ui/toast.tsx';
import { iconButtonClasses } from '../../ui/icon-button';
import { PictureWithFallback } from '../../ui/PictureWithFallback.tsx';
import { countOf, signed } from '../figure-words.ts';
import { ChartFrame } from '../Figure.tsx';
import { pictureOf, placeWords } from './PostCard.tsx';
import type { ResultsContext } from './results-context.ts';

const CurveChart = lazy(() => import('./CurveChart.tsx'));

type Answer = AnswerOf<typeof getResult>;

/** One post: as it went out, its curve beside what is usual, what was different about it, and where people stopped. */
export function PostPanel({ id, context, onClose }: { readonly id: string; readonly context: ResultsContext; readonly onClose: () => void }) {
  const { brand } = context;
  const result = useQuery({ queryKey: ['results', brand.slug, 'post', id], queryFn: () => call(getResult, { params: { brand: brand.slug, publication: id } }) });
  const { data } = result;
  return (
    <aside aria-label="The chosen post" className="max-h-[calc(100dvh-8rem)] min-w-0 overflow-auto rounded-md border border-line bg-panel p-4 max-xl:max-h-none">
      <div className="flex items-start gap-3">
        {data && <PictureWithFallback src={pictureOf(brand.slug, data.post)} alt="" className="size-16 shrink-0 rounded-md object-contain" />}
        <div className="min-w-0 flex-1">
          <h2 className="text-base leading-snug font-semibold">{data?.post.title ?? 'Loading…'}</h2>
          {data && (
            <p className="text-xs text-quiet" suppressHydrationWarning>
              {placeWords(data.post, context).replace(/ · [^·]*$/, '')} · {formatMoment(data.post.publishedMs, brand.zone)}
            </p>
          )}
        </div>
        <button type="button" aria-label="Close" onClick={onClose} className={iconButtonClasses}>
          <X aria-hidden className="size-4" />
        </button>
      </div>
      {result.isError && <p className="mt-3 text-sm text-coral-ink">{result.error.message}</p>}
      {data && <Parts data={data} context={context} />}
    </aside>
  );
}

function Parts({ data, context }: { readonly data: Answer; readonly context: ResultsContext }) {
  const { brand } = context;
  const { post } = data;
  return (
    <div className="mt-4 grid gap-5">
      <Suspense fallback={<div className="h-40" />}>
        <CurveChart data={data} />
      </Suspense>
      <section aria-label="What was different">
        <h3 className="border-b border-line pb-1 text-sm font-semibold">What was different</h3>
        {post.deliveryId === null && <p className="mt-2 text-sm text-quiet">This post was made without Confetti: too little is known of it to compare it.</p>}
        {post.deliveryId !== null && data.nearest === 0 && <p className="mt-2 text-sm text-quiet">There are no earlier posts of this channel to compare it with.</p>}
        {post.deliveryId !== null && data.nearest > 0 && data.differences.length === 0 && <p className="mt-2 text-sm text-quiet">Nothing: it is like the {data.nearest} earlier posts that are nearest to it.</p>}
        <ul>
          {data.differences.map(({ family, name, earlier, effect }) => (
            <li key={family} className="border-b border-line py-2 text-sm">
              <span className="flex justify-between gap-3">
                <span className="font-semibold first-letter:uppercase">{name}</span>
                {effect && <span className="shrink-0 text-xs text-quiet tabular-nums">n {effect.count}</span>}
              </span>
              <span className="block text-quiet">
                {earlier.length > 0 && `${families[family]}: most of its ${data.nearest} nearest earlier posts were ${earlier.slice(0, 2).join(' or ')}. `}
                {effectSentence(effect)}
              </span>
            </li>
          ))}
        </ul>
      </section>
      {data.slides.length > 1 && <Steps title="People who came to each slide" head="Slide" steps={data.slides.map(({ slide, people }) => [String(slide), people] as const)} />}
      {data.watched.length > 0 && <Steps title="People who watched so far" head="Watched" steps={data.watched.map(({ percent, people }) => [`${percent}%`, people] as const)} />}
      {data.kinds.length > 0 && (
        <p className="text-sm">
          <span className="font-semibold">Reactions</span> <span className="text-quiet">{data.kinds.map(({ kind, count }) => `${kind} ${countOf(count)}`).join(' · ')}</span>
        </p>
      )}
      {data.countedAnew.length > 0 && <p className="text-sm text-marigold-ink">The network counts {data.countedAnew.join(', ')} in another way since a while: earlier figures stand apart.</p>}
      {data.comments.length > 0 && (
        <section aria-label="Comments">
          <h3 className="border-b border-line pb-1 text-sm font-semibold">Comments</h3>
          <ul>
            {data.comments.slice(0, 6).map(({ id, author, text }) => (
              <li key={id} className="border-b border-line py-1.5 text-sm">
                <a href={`/b/${brand.slug}/learn/replies?c=${id}`} className="font-medium hover:underline">
                  {author}
                </a>{' '}
                <span className="text-quiet [overflow-wrap:anywhere]">{text}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      <div className="flex flex-wrap gap-2">
        {post.pieceId !== null && (
          <a href={`/b/${brand.slug}/make/pieces/${post.pieceId}?sheet=times`} className={buttonClasses('primary')}>
            Plan it again
          </a>
        )}
        {post.deliveryId === null && <OutsideButton id={post.id} brand={brand} />}
        <a href={post.address} target="_blank" rel="noreferrer" className={buttonClasses('plain')}>
          Open where it is
        </a>
      </div>
    </div>
  );
}

/** A post that was made without Confetti can become a piece. */
function OutsideButton({ id, brand }: { readonly id: string; readonly brand: ResultsContext['brand'] }) {
  const make = useMutation({
    mutationFn: () => call(pieceOfOutsidePost, { params: { brand: brand.slug, publication: id }, body: {} }),
    onSuccess: ({ pieceId }) => location.assign(`/b/${brand.slug}/make/pieces/${pieceId}`),
    onError: (error) => toast('problem', error.message),
  });
  if (!roleMay(brand.role, 'make')) return null;
  return (
    <Button look="primary" disabled={make.isPending} onClick={() => make.mutate()}>
      Make a piece of it
    </Button>
  );
}

/** What posts of a kind had, as a sentence that claims no cause. */
export function effectSentence(effect: Answer['differences'][number]['effect']): string {
  if (effect === null) return 'There are not enough such posts to say anything.';
  const interval = `${signed(effect.low)} to ${signed(effect.high)}`;
  switch (effect.says) {
    case 'more':
    case 'less':
      return `Posts ${effect.name} had ${signed(effect.effect)} engagement (${interval}).`;
    case 'no-difference':
      return 'No difference one could see.';
    case 'not-enough':
      return `Not enough to say (${interval}).`;
  }
}

/** How many people are still there, step by step. */
function Steps({ title, head, steps }: { readonly title: string; readonly head: string; readonly steps: readonly (readonly [string, number])[] }) {
  const most = Math.max(1, ...steps.map(([, people]) => people));
  return (
    <ChartFrame title={title} head={[head, 'People']} rows={steps.map(([name, people]) => [name, countOf(people)])}>
      <div className="flex h-20 items-end gap-1">
        {steps.map(([name, people]) => (
          <span key={name} className="flex h-full min-w-0 flex-1 flex-col items-center justify-end text-[11px] text-quiet tabular-nums">
            <span className="block w-full rounded-t-sm bg-house opacity-60" style={{ height: `${(people / most) * 75}%` }} />
            {name}
          </span>
        ))}
      </div>
    </ChartFrame>
  );
}
