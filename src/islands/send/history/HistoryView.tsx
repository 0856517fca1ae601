import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { ActKindName } from '../../../contract/outbox-contracts.ts';
import { exportActs, listActs } from '../../../contract/outbox-contracts.ts';
import { listMembers } from '../../../contract/brand-contracts.ts';
import { roleMay, type Role } from '../../../core/access/access.ts';
import { formatMoment } from '../../../core/time/wall-time.ts';
import { addressOf, call } from '../../ui/call.ts';
import { Button, buttonClasses } from '../../ui/Button.tsx';
import { Queries } from '../../ui/Queries.tsx';
import { GuideLink } from '../../ui/GuideLink.tsx';
import { SelectField } from '../../ui/SelectField.tsx';

interface HistoryProps {
  readonly brand: { readonly slug: string; readonly zone: string; readonly role: Role };
}

const kinds: readonly (readonly [ActKindName, string])[] = [
  ['post', 'Posts'],
  ['channel', 'Channels'],
  ['network', 'Network sheets'],
  ['people', 'People'],
  ['settings', 'Settings'],
];

export default function HistoryView(props: HistoryProps) {
  return (
    <Queries>
      <History {...props} />
    </Queries>
  );
}

/** Who did what, and when. */
function History({ brand }: HistoryProps) {
  const [kind, setKind] = useState('');
  const [person, setPerson] = useState('');
  const params = { brand: brand.slug };
  const filter = { ...(kind === '' ? {} : { kind: kind as ActKindName }), ...(person === '' ? {} : { person }) };
  const mayLook = roleMay(brand.role, 'brand');
  const people = useQuery({ queryKey: ['people', brand.slug], enabled: mayLook, queryFn: () => call(listMembers, { params }) });
  const pages = useInfiniteQuery({
    queryKey: ['acts', brand.slug, kind, person],
    enabled: mayLook,
    initialPageParam: null as number | null,
    queryFn: ({ pageParam }) => call(listActs, { params, query: { ...filter, ...(pageParam === null ? {} : { before: pageParam }) } }),
    getNextPageParam: ({ next }) => next,
  });
  const items = pages.data?.pages.flatMap((page) => page.items) ?? [];
  const days = [...new Set(items.map(({ atMs }) => dayOf(atMs, brand.zone)))];
  return (
    <main className="min-h-0 flex-1 overflow-auto px-4 py-5 md:px-6">
      <div className="max-w-4xl">
        <div className="mb-4 flex flex-wrap items-end gap-4">
          <h1 className="mr-auto text-xl font-semibold">History</h1>
          <div className="w-40">
            <SelectField label="About" none="Everything" value={kind} options={kinds} onChange={setKind} />
          </div>
          <div className="w-48">
            <SelectField label="By" none="Everybody" value={person} options={(people.data?.people ?? []).map(({ id, name }) => [id, name] as const)} onChange={setPerson} />
          </div>
          {mayLook && (
            <a href={addressOf(exportActs, params, filter)} className={buttonClasses('plain')} download>
              Export as CSV
            </a>
          )}
        </div>
        {!mayLook && <p className="text-sm text-quiet">Owners and designers of this brand see who did what.</p>}
        {pages.isError && <p className="text-coral-ink">{pages.error.message}</p>}
        {pages.isSuccess && items.length === 0 && <p className="text-sm text-quiet">Nothing yet. What people do with posts, channels, network sheets and each other stands here. <GuideLink view="history" /></p>}
        {days.map((day) => (
          <section key={day} aria-label={day}>
            <h2 className="mt-4 border-b border-line pb-1 text-sm font-semibold">{day}</h2>
            <ul>
              {items
                .filter(({ atMs }) => dayOf(atMs, brand.zone) === day)
                .map(({ seq, atMs, name, kind: about, subjectId, sentence }) => (
                  <li key={seq} className="flex gap-4 border-b border-line py-1.5 text-sm max-sm:flex-wrap max-sm:gap-x-3">
                    <span className="w-12 shrink-0 text-quiet tabular-nums">{formatMoment(atMs, brand.zone).match(/\d\d:\d\d/)?.[0] ?? ''}</span>
                    <span className="w-44 shrink-0 truncate font-medium">{name}</span>
                    <span className="min-w-0 flex-1 break-words">{about === 'post' ? <a href={`/b/${brand.slug}/send/sign-off?post=${subjectId}`} className="hover:underline">{sentence}</a> : sentence}</span>
                  </li>
                ))}
            </ul>
          </section>
        ))}
        {pages.hasNextPage && (
          <div className="mt-4">
            <Button disabled={pages.isFetchingNextPage} onClick={() => void pages.fetchNextPage()}>
              Show earlier
            </Button>
          </div>
        )}
      </div>
    </main>
  );
}

const dayOf = (atMs: number, zone: string): string => formatMoment(atMs, zone).replace(/,? \d\d:\d\d.*$/, '');
