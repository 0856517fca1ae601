import { useEffect, useRef, useState } from 'react';
import { countWords } from '../../contract/contract.ts';
import type { Role } from '../../core/access/access.ts';
import { deliveryStates, type DeliveryState } from '../../core/post/delivery-state.ts';
import { EndlessList } from '../ui/EndlessList.tsx';
import { Queries } from '../ui/Queries.tsx';
import { EmptyBox } from '../ui/EmptyBox.tsx';
import { stateWord } from '../post/StateChip.tsx';
import { useNow } from '../ui/use-now.ts';
import { useBadges } from '../post/DeliveryRow.tsx';
import { groupByPost, PostGroup } from '../post/PostGroup.tsx';
import { useDeliveries } from '../post/use-deliveries.ts';

interface OutboxProps {
  readonly brand: { readonly slug: string; readonly name: string; readonly zone: string; readonly role: Role };
  readonly nowMs: number;
}

const PAGE = 48;
/** States that are always offered as filters; the others when there is something in them. */
const usual: readonly DeliveryState[] = ['scheduled', 'sending', 'sent', 'failed'];

export default function OutboxView(props: OutboxProps) {
  return (
    <Queries>
      <Outbox {...props} />
    </Queries>
  );
}

function Outbox({ brand, nowMs: serverNowMs }: OutboxProps) {
  const [state, setShown] = useState<DeliveryState | null>(null);
  // The filter stands in the address, so that others can lead here.
  useEffect(() => setShown(deliveryStates.find((each) => each === new URLSearchParams(location.search).get('state')) ?? null), []);
  const setState = (next: DeliveryState | null): void => {
    setShown(next);
    history.replaceState(null, '', next === null ? location.pathname : `?state=${encodeURIComponent(next)}`);
  };
  const nowMs = useNow(serverNowMs);
  const scroller = useRef<HTMLElement>(null);
  const badges = useBadges(brand.slug);
  const pages = useDeliveries(brand.slug, state ? { state } : {}, PAGE);
  const { items, counts } = pages;
  const all = counts ? deliveryStates.reduce((sum, each) => sum + counts[each], 0) : 0;
  return (
    <main ref={scroller} className="min-h-0 flex-1 overflow-auto px-4 py-5 md:px-6">
      <div className="mb-4 flex flex-wrap items-center gap-x-6 gap-y-2">
        <h1 className="text-xl font-semibold">Outbox</h1>
        <div role="group" aria-label="Show posts that are" className="flex flex-wrap gap-1">
          <Filter word="All" count={all} pressed={state === null} onPress={() => setState(null)} />
          {deliveryStates.filter((each) => (counts?.[each] ?? 0) > 0 || each === state || usual.includes(each)).map((each) => (
            <Filter key={each} word={stateWord(each)} count={counts?.[each] ?? 0} pressed={state === each} onPress={() => setState(each)} />
          ))}
        </div>
      </div>
      {pages.isError && <p className="text-coral-ink">{pages.error.message}</p>}
      {pages.isSuccess && items.length === 0 ? (
        <EmptyBox title={state === null ? 'Nothing is on its way yet' : `No post is ${stateWord(state).toLowerCase()}`} words="Every post stands here from the moment it is scheduled, and stays with the address it went out to, or with what stopped it." view="outbox">
          {state === null && (
            <a href={`/b/${brand.slug}/make/pieces`} className="text-house underline">
              Choose a piece to schedule
            </a>
          )}
        </EmptyBox>
      ) : (
        <EndlessList label="Posts" items={groupByPost(items)} keyOf={({ deliveries }) => deliveries[0].id} pages={pages} scroller={scroller} estimatedRowPx={160} className="border-t border-line">
          {(post) => <PostGroup brand={brand} post={post} badges={badges} nowMs={nowMs} />}
        </EndlessList>
      )}
    </main>
  );
}

function Filter({ word, count, pressed, onPress }: { readonly word: string; readonly count: number; readonly pressed: boolean; readonly onPress: () => void }) {
  return (
    <button type="button" aria-pressed={pressed} onClick={onPress} className={`rounded-md px-2 py-1 text-sm ${pressed ? 'bg-panel font-semibold text-house shadow-[inset_0_0_0_1px_var(--c-line)]' : 'text-quiet hover:text-ink'}`}>
      {word} <span className="tabular-nums">{countWords(count)}</span>
    </button>
  );
}
