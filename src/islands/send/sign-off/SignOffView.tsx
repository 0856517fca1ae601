import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import type { AnswerOf } from '../../../contract/contract.ts';
import { listReviews } from '../../../contract/review-contracts.ts';
import { getDeliveryPicture } from '../../../contract/send-contracts.ts';
import { roleMay, type Role } from '../../../core/access/access.ts';
import { formatMoment } from '../../../core/time/wall-time.ts';
import { useChanges } from '../../shell/change-events.ts';
import { addressOf, call } from '../../ui/call.ts';
import { Button } from '../../ui/Button.tsx';
import { PictureWithFallback } from '../../ui/PictureWithFallback.tsx';
import { Queries } from '../../ui/Queries.tsx';
import { GuideLink } from '../../ui/GuideLink.tsx';
import { ReviewPane } from './ReviewPane.tsx';
import { SettingsDialog } from './SettingsDialog.tsx';

export interface SignOffBrand {
  readonly slug: string;
  readonly name: string;
  readonly zone: string;
  readonly role: Role;
}

type Summary = AnswerOf<typeof listReviews>['mine'][number];

export default function SignOffView(props: { readonly brand: SignOffBrand; readonly nowMs: number }) {
  return (
    <Queries>
      <SignOff {...props} />
    </Queries>
  );
}

const postInAddress = (): string | null => new URLSearchParams(location.search).get('post');

function SignOff({ brand }: { readonly brand: SignOffBrand }) {
  const client = useQueryClient();
  const [chosen, setChosen] = useState<string | null>(null);
  const [isSetting, setSetting] = useState(false);
  useEffect(() => setChosen(postInAddress()), []);
  const found = useQuery({ queryKey: ['reviews', brand.slug], queryFn: () => call(listReviews, { params: { brand: brand.slug } }) });
  useChanges(brand.slug, { onChange: (kind) => void (kind === 'review' || kind === 'post' ? client.invalidateQueries({ queryKey: ['reviews', brand.slug] }) : undefined) });
  const { mine = [], others = [] } = found.data ?? {};
  const all = [...mine, ...others];
  const current = chosen ?? all[0]?.postId ?? null;
  const choose = (postId: string): void => {
    setChosen(postId);
    history.replaceState(null, '', `?post=${postId}`);
  };
  return (
    <main className="grid min-h-0 flex-1 grid-cols-[17.5rem_minmax(0,1fr)] max-md:block max-md:overflow-auto">
      <aside className="overflow-auto border-r border-line bg-panel max-md:border-r-0 max-md:border-b">
        <h1 className="sr-only">Sign-off</h1>
        <SummaryList title="Waiting for you" brand={brand} items={mine} current={current} onChoose={choose} />
        <SummaryList title="Waiting for others" brand={brand} items={others} current={current} onChoose={choose} />
        {roleMay(brand.role, 'brand') && (
          <div className="p-4">
            <Button onClick={() => setSetting(true)}>Who approves…</Button>
          </div>
        )}
      </aside>
      {found.isError && <p className="p-6 text-coral-ink">{found.error.message}</p>}
      {found.isSuccess && current === null && (
        <div className="grid place-items-center p-6 text-center">
          <div className="max-w-sm">
            <p className="font-heading text-lg font-semibold">Nothing waits for approval</p>
            <p className="mt-1 text-sm text-quiet">Posts stand here when the brand or a theme asks for approval, or when a writer asks for it. They go out once they are approved.</p>
            <GuideLink view="sign-off" className="mt-2" />
          </div>
        </div>
      )}
      {current !== null && <ReviewPane key={current} brand={brand} postId={current} />}
      {isSetting && <SettingsDialog brand={brand} onClose={() => setSetting(false)} />}
    </main>
  );
}

interface SummaryListProps {
  readonly title: string;
  readonly brand: SignOffBrand;
  readonly items: readonly Summary[];
  readonly current: string | null;
  readonly onChoose: (postId: string) => void;
}

function SummaryList({ title, brand, items, current, onChoose }: SummaryListProps) {
  return (
    <section aria-label={title}>
      <h2 className="border-b border-line px-4 pt-4 pb-2 text-base font-semibold">
        {title} <span className="text-sm font-normal text-quiet tabular-nums">{items.length}</span>
      </h2>
      {items.length === 0 && <p className="px-4 py-2 text-sm text-quiet">Nothing</p>}
      <ul>
        {items.map((item) => (
          <li key={item.postId}>
            <button type="button" data-review={item.postId} aria-current={item.postId === current ? 'true' : undefined} onClick={() => onChoose(item.postId)} className={`flex w-full items-start gap-3 border-b border-line py-2.5 pr-4 pl-4 text-left ${item.postId === current ? 'bg-sunk shadow-[inset_3px_0_0_var(--c-house)]' : 'hover:bg-sunk'}`}>
              <PictureWithFallback src={addressOf(getDeliveryPicture, { brand: brand.slug, delivery: item.deliveryId })} alt="" className="size-14 shrink-0 rounded-md object-cover" />
              <span className="min-w-0 flex-1">
                <span className="block text-sm font-semibold">{item.pieceName}</span>
                <span className="block text-xs text-quiet">
                  {item.makerName}, {item.channels} {item.channels === 1 ? 'channel' : 'channels'}, <span className="tabular-nums">{formatMoment(item.dueMs, brand.zone)}</span>
                </span>
                <span className="block text-xs text-quiet">{standingWords(item)}</span>
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function standingWords({ needed, approvedBy, sentBackBy, hasChanged }: Summary): string {
  if (sentBackBy !== null) return `Sent back by ${sentBackBy}`;
  if (approvedBy.length > 0) return `${approvedBy.length} of ${needed} approved (${approvedBy.join(', ')})`;
  return hasChanged ? 'Changed after approval' : needed === 1 ? 'One person approves' : `${needed} people approve`;
}
