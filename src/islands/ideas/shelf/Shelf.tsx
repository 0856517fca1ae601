import { keepPreviousData, useInfiniteQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { listIdeas } from '../../../contract/idea-contracts.ts';
import type { AnswerOf } from '../../../contract/contract.ts';
import { roleMay } from '../../../core/access/access.ts';
import { ideaKinds, kindNames, type IdeaKind, type IdeaState } from '../../../core/ideas/idea.ts';
import { Choice } from '../../plan/PlanBar.tsx';
import { call } from '../../ui/call.ts';
import { Button } from '../../ui/Button.tsx';
import { EndlessList } from '../../ui/EndlessList.tsx';
import { inputClasses } from '../../ui/Field.tsx';
import { GuideLink } from '../../ui/GuideLink.tsx';
import type { IdeasContext } from '../ideas-context.ts';
import { IdeaCard } from './IdeaCard.tsx';
import { NoteDialog } from './NoteDialog.tsx';
import { ShelfSettings } from './ShelfSettings.tsx';

export type Idea = AnswerOf<typeof listIdeas>['items'][number];

const states: readonly (readonly [IdeaState, string])[] = [['open', 'On the shelf'], ['snoozed', 'Set aside'], ['archived', 'Archived']];
const TYPED_MS = 250;

/** All ideas, what fits best first. */
export default function Shelf({ context }: { readonly context: IdeasContext }) {
  const { brand, query, change, themes, people } = context;
  const [typed, setTyped] = useState(query.words ?? '');
  const [isWriting, setWriting] = useState(false);
  const scroller = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const timer = setTimeout(() => typed.trim() !== (query.words ?? '') && change({ words: typed.trim() === '' ? undefined : typed.trim() }), TYPED_MS);
    return () => clearTimeout(timer);
  }, [typed, query.words, change]);
  const state = states.find(([key]) => key === query.state)?.[0] ?? 'open';
  const filter = {
    state,
    ...(query.kind === undefined ? {} : { kind: query.kind as IdeaKind }),
    ...(query.theme === undefined ? {} : { theme: query.theme }),
    ...(query.assigned === undefined ? {} : { assigned: query.assigned }),
    ...(query.words === undefined ? {} : { words: query.words }),
    ...(query.used === 'yes' || query.used === 'no' ? { used: query.used as 'yes' | 'no' } : {}),
  };
  const pages = useInfiniteQuery({
    queryKey: ['ideas', brand.slug, filter],
    queryFn: ({ pageParam, signal }) => call(listIdeas, { params: { brand: brand.slug }, query: { limit: 48, ...filter, ...(pageParam === null ? {} : { after: pageParam }) }, signal }),
    initialPageParam: null as string | null,
    getNextPageParam: (last) => last.next,
    placeholderData: keepPreviousData,
  });
  const first = pages.data?.pages[0];
  const items = pages.data?.pages.flatMap((page) => page.items) ?? [];
  const mayMake = roleMay(brand.role, 'make');
  const isFiltered = Object.keys(filter).length > 1;
  const begun = query.note !== undefined || query.link !== undefined || query.text !== undefined;
  return (
    <>
      <div className="mb-3 flex flex-wrap items-center gap-1.5">
        <span className="w-52">
          <input type="search" aria-label="Search ideas" placeholder="Search ideas" value={typed} onChange={(event) => setTyped(event.target.value)} className={inputClasses} />
        </span>
        <Choice label="Where" all="On the shelf" value={state === 'open' ? undefined : state} options={states.slice(1).map(([key, name]) => [key, first ? `${name} (${first.counts[key]})` : name] as const)} onChoose={(next) => change({ state: next })} />
        <Choice label="Kind" all="All kinds" value={query.kind} options={ideaKinds.map((kind) => [kind, kindNames[kind]] as const)} onChoose={(kind) => change({ kind })} />
        <Choice label="Theme" all="All themes" value={query.theme} options={[...themes.values()].map(({ id, name }) => [id, name] as const)} onChoose={(theme) => change({ theme })} />
        <Choice label="Given to" all="Anyone’s" value={query.assigned} options={people.map(({ id, name }) => [id, name] as const)} onChoose={(assigned) => change({ assigned })} />
        <Choice label="Used" all="Used or not" value={query.used} options={[['no', 'Not used yet'], ['yes', 'Used']]} onChoose={(used) => change({ used })} />
        <span className="ml-auto flex gap-2">
          {mayMake && <ShelfSettings brand={brand.slug} />}
          {mayMake && (
            <Button look="primary" onClick={() => setWriting(true)}>
              New note
            </Button>
          )}
        </span>
      </div>
      {(isWriting || begun) && mayMake && (
        <NoteDialog
          context={context}
          begun={{ title: query.note ?? '', link: query.link ?? '', text: query.text ?? '' }}
          onClose={() => {
            setWriting(false);
            if (begun) change({ note: undefined, link: undefined, text: undefined });
          }}
        />
      )}
      <div ref={scroller} className="-mx-1 min-h-0 flex-1 overflow-auto px-1 pb-5">
        {pages.isError && <p className="text-sm text-coral-ink">{pages.error.message}</p>}
        {pages.isSuccess && items.length === 0 && <Empty isFiltered={isFiltered} state={state} onWrite={mayMake ? () => setWriting(true) : null} />}
        {items.length > 0 && (
          <EndlessList label="Ideas" items={items} keyOf={({ id }) => id} pages={pages} scroller={scroller} minColumnPx={270} gapPx={{ x: 12, y: 12 }} estimatedRowPx={230}>
            {(idea) => <IdeaCard idea={idea} context={context} />}
          </EndlessList>
        )}
      </div>
    </>
  );
}

function Empty({ isFiltered, state, onWrite }: { readonly isFiltered: boolean; readonly state: IdeaState; readonly onWrite: (() => void) | null }) {
  if (isFiltered) return <p className="py-12 text-center text-sm text-quiet">No idea has all of this. Choose another filter.</p>;
  if (state !== 'open') return <p className="py-12 text-center text-sm text-quiet">{state === 'snoozed' ? 'Nothing is set aside.' : 'Nothing is archived.'}</p>;
  return (
    <div className="mx-auto max-w-md py-12 text-center text-sm text-quiet">
      <p className="mb-1 text-base font-semibold text-ink">The shelf is empty</p>
      <p className="mb-4">Days coming up, open slots, feeds, what did well and what people wrote come here by themselves each morning. What comes to your own mind you write down, from anywhere with the key I.</p>
      <GuideLink view="ideas" className="mb-4" />
      {onWrite && (
        <Button look="primary" onClick={onWrite}>
          Write the first one
        </Button>
      )}
    </div>
  );
}
