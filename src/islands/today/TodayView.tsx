import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import type { AnswerOf } from '../../contract/contract.ts';
import { getPieceThumbnail } from '../../contract/piece-contracts.ts';
import { actOnDelivery, getDeliveryPicture, refreshPost } from '../../contract/send-contracts.ts';
import { getToday, type NeedGroup } from '../../contract/today-contracts.ts';
import { roleMay, type Role } from '../../core/access/access.ts';
import { wallTimeOf } from '../../core/time/wall-time.ts';
import { dayWords } from '../plan/lanes/LaneHead.tsx';
import { useChanges } from '../shell/change-events.ts';
import { addressOf, call } from '../ui/call.ts';
import { Button, buttonClasses } from '../ui/Button.tsx';
import { EmptyBox } from '../ui/EmptyBox.tsx';
import { PictureWithFallback } from '../ui/PictureWithFallback.tsx';
import { PieceThumbnail } from '../ui/PieceThumbnail.tsx';
import { Queries } from '../ui/Queries.tsx';
import { toast } from '../ui/toast.tsx';
import { useNow } from '../ui/use-now.ts';
import { weekdayNames } from '../ui/weekdays.ts';
import { ShelfGlance } from './ShelfGlance.tsx';

interface TodayProps {
  readonly brand: { readonly slug: string; readonly name: string; readonly zone: string; readonly role: Role };
  readonly nowMs: number;
}

type Answer = AnswerOf<typeof getToday>;
type Need = Answer['needs'][number];

const groups: readonly { readonly key: NeedGroup; readonly title: string; readonly path: string; readonly fill: string }[] = [
  { key: 'stopped', title: 'Stopped', path: 'M8 1L15 8L8 15L1 8Z', fill: 'var(--c-coral)' },
  { key: 'waiting', title: 'Waiting for you', path: 'M8 1.5L15 14.5H1Z', fill: 'var(--c-marigold)' },
  { key: 'soon', title: 'Soon', path: 'M8 2.5a5.5 5.5 0 1 1 0 11a5.5 5.5 0 0 1 0-11Z', fill: 'var(--c-sky)' },
];
const GATHER_MS = 400;
const watched: ReadonlySet<string> = new Set(['plan', 'entry', 'queue', 'post', 'delivery', 'clock', 'piece', 'channel', 'review', 'conversation']);

export default function TodayView(props: TodayProps) {
  return (
    <Queries>
      <Today {...props} />
    </Queries>
  );
}

function Today({ brand, nowMs: serverNowMs }: TodayProps) {
  const client = useQueryClient();
  const nowMs = useNow(serverNowMs);
  const today = useQuery({ queryKey: ['today', brand.slug], queryFn: () => call(getToday, { params: { brand: brand.slug } }) });
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  useEffect(() => () => void (timer.current && clearTimeout(timer.current)), []);
  useChanges(brand.slug, {
    onChange: (kind) => {
      if (!watched.has(kind)) return;
      timer.current ??= setTimeout(() => {
        timer.current = null;
        void client.invalidateQueries({ queryKey: ['today', brand.slug] });
      }, GATHER_MS);
    },
  });
  const { data } = today;
  return (
    <main className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_22rem] overflow-auto max-lg:block">
      <div className="px-7 py-6 max-md:px-4">
        <h1 className="text-xl font-semibold" suppressHydrationWarning>
          {greeting(nowMs, brand.zone)}
        </h1>
        <p className="mt-1 text-sm text-quiet">{data ? summary(data, brand.zone) : 'Looking at what needs you…'}</p>
        {today.isError && <p className="mt-3 text-sm text-coral-ink">{today.error.message}</p>}
        {data && data.needs.length === 0 && (
          <div className="mt-8 max-w-3xl">
            <EmptyBox title="Nothing needs you" words="Failed posts, drafts that are due, changed pieces and lanes that run dry stand here." view="today" />
          </div>
        )}
        {groups.map((group) => {
          const needs = data?.needs.filter((need) => need.group === group.key) ?? [];
          if (needs.length === 0) return null;
          return (
            <section key={group.key} aria-labelledby={`needs-${group.key}`} className="mt-6 max-w-4xl">
              <h2 id={`needs-${group.key}`} className="border-b border-line pb-1.5 text-base font-semibold">
                {group.title}
              </h2>
              <ul>
                {needs.map((need) => (
                  <NeedLine key={need.key} need={need} brand={brand} sign={group} />
                ))}
              </ul>
            </section>
          );
        })}
        {(data?.more ?? 0) > 0 && <p className="mt-3 text-sm text-quiet">And {data?.more} more: the first ones come first.</p>}
      </div>
      {data && <Aside answer={data} brand={brand} nowMs={nowMs} />}
    </main>
  );
}

function NeedLine({ need, brand, sign }: { readonly need: Need; readonly brand: TodayProps['brand']; readonly sign: (typeof groups)[number] }) {
  const picture = need.deliveryId !== null ? addressOf(getDeliveryPicture, { brand: brand.slug, delivery: need.deliveryId }) : need.pieceId !== null ? addressOf(getPieceThumbnail, { brand: brand.slug, piece: need.pieceId }) : null;
  return (
    <li data-need={need.kind} className="flex items-center gap-4 border-b border-line py-2.5 max-md:flex-wrap max-md:gap-x-3">
      <svg viewBox="0 0 16 16" width="13" height="13" aria-hidden className="shrink-0">
        <path d={sign.path} fill={sign.fill} />
      </svg>
      {picture === null ? <span className="w-14 shrink-0 max-md:hidden" /> : <PictureWithFallback src={picture} alt="" className="h-11 w-14 shrink-0 rounded-md object-contain" />}
      <div className="min-w-0 flex-1">
        <p className="text-sm font-semibold">{need.title}</p>
        <p className="text-sm text-quiet">{need.sentence}</p>
      </div>
      <div className="flex shrink-0 gap-1.5 max-md:basis-full max-md:pl-7">
        <NeedActions need={need} brand={brand} />
      </div>
    </li>
  );
}

/** What each kind of line lets one do, where it stands. */
function NeedActions({ need, brand }: { readonly need: Need; readonly brand: TodayProps['brand'] }) {
  const client = useQueryClient();
  const maySend = roleMay(brand.role, 'send');
  const refresh = (): Promise<void> => client.invalidateQueries({ queryKey: ['today', brand.slug] });
  const act = useMutation({
    mutationFn: async (): Promise<string> => {
      if (need.kind === 'changed') {
        await call(refreshPost, { params: { brand: brand.slug, post: need.postId ?? '' } });
        return 'The post follows the piece as it is now.';
      }
      await call(actOnDelivery, { params: { brand: brand.slug, delivery: need.deliveryId ?? '', action: need.kind === 'missed' ? 'release' : 'retry' } });
      return need.kind === 'missed' ? 'It goes out now.' : 'It is tried again.';
    },
    onSuccess: (words) => {
      toast('done', words);
      return refresh();
    },
    onError: (error) => toast('problem', error.message),
  });
  const base = `/b/${brand.slug}`;
  const link = (path: string, words: string, look: 'primary' | 'plain' = 'plain') => (
    <a href={`${base}${path}`} className={buttonClasses(look)}>
      {words}
    </a>
  );
  switch (need.kind) {
    case 'failed':
      return (
        <>
          {maySend && (
            <Button look="primary" disabled={act.isPending} onClick={() => act.mutate()}>
              Retry
            </Button>
          )}
          {link(`/make/pieces/${need.pieceId ?? ''}`, 'Open')}
        </>
      );
    case 'stuck':
      return link('/send/outbox', 'See the outbox', 'primary');
    case 'held':
      return link('/plan/lanes', 'Let go…', 'primary');
    case 'overdue-draft':
      return need.pieceId === null ? link(`/plan/lanes`, 'See lane') : link(`/make/pieces/${need.pieceId}`, 'Open the piece', 'primary');
    case 'preflight':
      return link(`/make/pieces/${need.pieceId ?? ''}`, 'Mend it', 'primary');
    case 'changed':
      return (
        <>
          {link(`/plan/lanes?state=changed`, 'Compare')}
          {maySend && (
            <Button disabled={act.isPending} onClick={() => act.mutate()}>
              Refresh
            </Button>
          )}
        </>
      );
    case 'dry':
      return link(`/plan/lanes?channels=${need.channelIds.join(',')}`, need.channelIds.length === 1 ? 'Fill the lane' : 'Fill the lanes');
    case 'access':
      return link('/send/channels', 'Open Channels', need.group === 'stopped' ? 'primary' : 'plain');
    case 'missed':
      return (
        <>
          {maySend && (
            <Button look="primary" disabled={act.isPending} onClick={() => act.mutate()}>
              Send it now
            </Button>
          )}
          {link('/send/outbox?state=held', 'Open')}
        </>
      );
    case 'hand-off':
      return link(`/send/by-hand#${need.deliveryId ?? ''}`, 'Place it', 'primary');
    case 'sign-off':
      return link(`/send/sign-off?post=${need.postId ?? ''}`, 'Review', 'primary');
    case 'sent-back':
      return link(`/send/sign-off?post=${need.postId ?? ''}`, 'See what', 'primary');
    case 'boost':
      return link('/send/by-hand', 'Open');
    case 'reply':
      return link(`/learn/replies${need.key === 'replies' ? '' : `?c=${need.key}`}`, 'Answer', 'primary');
    case 'link':
      return link('/learn/links', 'Open Links');
    case 'licence':
      return link('/make/media', 'Choose another');
  }
}

function Aside({ answer, brand, nowMs }: { readonly answer: Answer; readonly brand: TodayProps['brand']; readonly nowMs: number }) {
  const today = wallTimeOf(nowMs, brand.zone).slice(0, 10);
  const days = [...new Set(answer.next.map(({ day }) => day))];
  return (
    <aside className="border-l border-line bg-panel px-6 py-6 max-lg:border-t max-lg:border-l-0 max-md:px-4">
      <h2 className="text-base font-semibold">Next out</h2>
      {answer.next.length === 0 && <p className="mt-1 text-sm text-quiet">Nothing is scheduled. <a href={`/b/${brand.slug}/plan/lanes`} className="font-medium text-house underline">Open the lanes</a></p>}
      {days.map((day) => (
        <section key={day} aria-label={day}>
          <h3 className="mt-3 mb-1 text-sm text-quiet">{day === today ? 'Today' : dayWords(day, true)}</h3>
          <ul>
            {answer.next.filter((each) => each.day === day).map((each) => (
              <li key={each.postId} className="flex items-center gap-3 py-1.5">
                <PieceThumbnail brand={brand.slug} piece={each.pieceId} className="size-11 shrink-0 rounded-md object-cover" />
                <span className="w-11 shrink-0 text-sm tabular-nums">{wallTimeOf(each.dueMs, brand.zone).slice(11)}</span>
                <span className="min-w-0">
                  <a href={`/b/${brand.slug}/make/pieces/${each.pieceId}`} className="line-clamp-1 text-sm font-semibold hover:underline">
                    {each.pieceName}
                  </a>
                  <span className="block text-xs text-quiet">
                    {each.channels} {each.channels === 1 ? 'channel' : 'channels'}
                    {each.kind === 'graphic' ? '' : `, ${each.kind}`}
                  </span>
                </span>
              </li>
            ))}
          </ul>
        </section>
      ))}
      {answer.days.length > 0 && (
        <>
          <h2 className="mt-6 text-base font-semibold">Days coming</h2>
          <ul className="mt-1 text-sm text-quiet">
            {answer.days.map(({ day, name }) => (
              <li key={`${day}${name}`}>
                <span className="tabular-nums">{dayWords(day, true)}</span> {name}
              </li>
            ))}
          </ul>
        </>
      )}
      <ShelfGlance brand={brand.slug} />
    </aside>
  );
}

function greeting(nowMs: number, zone: string): string {
  const wall = wallTimeOf(nowMs, zone);
  const weekday = (new Date(`${wall.slice(0, 10)}T00:00Z`).getUTCDay() + 6) % 7;
  const hour = Number(wall.slice(11, 13));
  return `${weekdayNames[weekday] ?? ''} ${hour < 5 ? 'night' : hour < 12 ? 'morning' : hour < 18 ? 'afternoon' : 'evening'}`;
}

const counts = ['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine', 'Ten', 'Eleven', 'Twelve'] as const;
const inWords = (count: number): string => counts[count] ?? String(count);

function summary({ needs, more, outToday, next }: Answer, zone: string): string {
  const count = needs.length + more;
  const first = next[0];
  const need = count === 0 ? 'Nothing needs you.' : `${inWords(count)} ${count === 1 ? 'thing needs' : 'things need'} you.`;
  const out = outToday === 0 ? 'No post goes out today any more.' : `${inWords(outToday)} ${outToday === 1 ? 'post goes' : 'posts go'} out today by ${outToday === 1 ? 'itself' : 'themselves'}${first ? `; the next one at ${wallTimeOf(first.dueMs, zone).slice(11)}` : ''}.`;
  return `${need} ${out}`;
}
