import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, useState } from 'react';
import { checkLink, getLinks } from '../../../contract/link-contracts.ts';
import type { AnswerOf } from '../../../contract/contract.ts';
import { createShortLink } from '../../../contract/word-contracts.ts';
import { getFacets } from '../../../contract/results-contracts.ts';
import { roleMay, type Role } from '../../../core/access/access.ts';
import { addDays } from '../../../core/time/day.ts';
import { shortDay, wallTimeOf } from '../../../core/time/wall-time.ts';
import { Choice } from '../../plan/PlanBar.tsx';
import { call } from '../../ui/call.ts';
import { Button, buttonClasses } from '../../ui/Button.tsx';
import { inputClasses } from '../../ui/Field.tsx';
import { UntilReady } from '../../ui/UntilReady.tsx';
import { Queries } from '../../ui/Queries.tsx';
import { GuideLink } from '../../ui/GuideLink.tsx';
import { toast } from '../../ui/toast.tsx';
import { countOf } from '../figure-words.ts';
import { QrDialog } from './QrDialog.tsx';

const ClicksChart = lazy(() => import('./ClicksChart.tsx'));

interface LinksProps {
  readonly brand: { readonly slug: string; readonly name: string; readonly zone: string; readonly role: Role };
  readonly nowMs: number;
}

type Answer = AnswerOf<typeof getLinks>;
type Link = Answer['links'][number];

const spans = [
  ['7', 'Last 7 days'],
  ['91', 'Last 13 weeks'],
  ['365', 'Last year'],
] as const;
const USUAL_SPAN = 28;

export default function LinksView(props: LinksProps) {
  return (
    <Queries>
      <Links {...props} />
    </Queries>
  );
}

/** Short links with their clicks; nothing is kept that says who clicked. */
function Links({ brand, nowMs }: LinksProps) {
  const client = useQueryClient();
  const [span, setSpan] = useState<string | undefined>(undefined);
  const [code, setCode] = useState<string | undefined>(undefined);
  const [qr, setQr] = useState<Link | null>(null);
  const [isThere, setThere] = useState(false);
  useEffect(() => setThere(true), []);
  const today = wallTimeOf(nowMs, brand.zone).slice(0, 10);
  const from = addDays(today, 1 - Number(span ?? USUAL_SPAN));
  const params = { brand: brand.slug };
  const links = useQuery({ queryKey: ['links', brand.slug, from, today, code], placeholderData: keepPreviousData, queryFn: () => call(getLinks, { params, query: { from, until: today, ...(code === undefined ? {} : { code }) } }) });
  const facets = useQuery({ queryKey: ['results-facets', brand.slug], staleTime: 60_000, queryFn: () => call(getFacets, { params }) });
  const check = useMutation({
    mutationFn: (link: Link) => call(checkLink, { params: { ...params, code: link.code }, body: {} }),
    onSuccess: ({ problem }) => {
      toast(problem === null ? 'done' : 'problem', problem === null ? 'It leads somewhere.' : `It leads nowhere: ${problem}`);
      return client.invalidateQueries({ queryKey: ['links', brand.slug] });
    },
    onError: (error) => toast('problem', error.message),
  });
  const { data } = links;
  const mayMake = roleMay(brand.role, 'make');
  const labelOf = (label: string): string => facets.data?.channels.find(({ id }) => id === label)?.name ?? label;
  const shown = data?.links.find((link) => link.code === code);
  return (
    <main className="min-h-0 flex-1 overflow-auto px-6 py-4 max-md:px-4">
      <div className="mb-4 flex flex-wrap items-center gap-3">
        <h1 className="text-xl font-semibold">Links</h1>
        <Choice label="Period" all="Last 4 weeks" value={span} options={spans} onChoose={setSpan} />
        {shown && (
          <span className="flex items-center gap-2 text-sm">
            <span className="font-semibold">{shown.address.replace(/^https?:\/\//, '')}</span>
            <Button size="small" onClick={() => setCode(undefined)}>
              All links
            </Button>
          </span>
        )}
        {mayMake && (
          <span className="ml-auto max-sm:w-full">
            <UntilReady>
              <NewLink brand={brand.slug} />
            </UntilReady>
          </span>
        )}
      </div>
      {links.isError && <p className="text-sm text-coral-ink">{links.error.message}</p>}
      {data && data.links.length === 0 && <p className="max-w-xl text-sm text-quiet">There are no short links yet. Paste an address above to make one, or let a piece shorten its link in its Words: each channel gets one of its own, so that clicks tell where they came from. <GuideLink view="links" /></p>}
      {data && data.links.length > 0 && (
        <div className="grid gap-7">
          <div className="grid grid-cols-[minmax(0,1.6fr)_minmax(0,1fr)_minmax(0,0.8fr)] gap-8 max-xl:grid-cols-2 max-lg:grid-cols-1">
            {isThere && (
              <Suspense fallback={<div className="h-56" />}>
                <ClicksChart from={from} until={today} days={data.days} />
              </Suspense>
            )}
            <Sums title="Sources" empty="not said" sums={data.sources} />
            <Sums title="Countries" empty="not known" sums={data.countries} />
          </div>
          <LinkTable links={data.links} labelOf={labelOf} nowMs={nowMs} zone={brand.zone} mayMake={mayMake} onShow={setCode} onQr={setQr} onCheck={(link) => check.mutate(link)} />
          <p className="max-w-3xl text-xs text-quiet">A click is a request of a person: bots, previews and prefetching stand apart. By day, source and country; nothing is kept that says who clicked.</p>
        </div>
      )}
      {qr && <QrDialog link={qr} brand={brand.slug} onClose={() => setQr(null)} />}
    </main>
  );
}

function NewLink({ brand }: { readonly brand: string }) {
  const client = useQueryClient();
  const [target, setTarget] = useState('');
  const make = useMutation({
    mutationFn: () => call(createShortLink, { params: { brand }, body: { target: target.trim(), label: '' } }),
    onSuccess: async ({ address }) => {
      setTarget('');
      toast('done', `The short link is ${address}`);
      await client.invalidateQueries({ queryKey: ['links', brand] });
    },
    onError: (error) => toast('problem', error.message),
  });
  return (
    <form
      className="flex flex-wrap gap-1.5"
      onSubmit={(event) => {
        event.preventDefault();
        make.mutate();
      }}
    >
      <input aria-label="Address to shorten" placeholder="https://… to shorten" value={target} onChange={(event) => setTarget(event.target.value)} className={`${inputClasses} h-8 min-w-64 max-sm:min-w-0 max-sm:flex-1`} />
      <button type="submit" disabled={target.trim() === '' || make.isPending} className={buttonClasses('primary')}>
        Shorten
      </button>
    </form>
  );
}

function Sums({ title, empty, sums }: { readonly title: string; readonly empty: string; readonly sums: Answer['sources'] }) {
  const people = sums.filter((each) => each.people > 0).slice(0, 8);
  const most = Math.max(1, ...people.map((each) => each.people));
  return (
    <section aria-label={title}>
      <h2 className="mb-1 text-sm font-semibold">{title}</h2>
      {people.length === 0 && <p className="text-sm text-quiet">No clicks of people yet.</p>}
      <ul className="text-sm">
        {people.map(({ key, people: count }) => (
          <li key={key} className="relative flex justify-between gap-2 py-0.5">
            <span className="absolute inset-y-0.5 left-0 rounded-sm bg-house-soft" style={{ width: `${(count / most) * 75}%` }} />
            <span className="relative truncate pl-1">{key === '' ? empty : key}</span>
            <span className="relative text-quiet tabular-nums">{countOf(count)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

interface TableProps {
  readonly links: readonly Link[];
  readonly labelOf: (label: string) => string;
  readonly nowMs: number;
  readonly zone: string;
  readonly mayMake: boolean;
  readonly onShow: (code: string) => void;
  readonly onQr: (link: Link) => void;
  readonly onCheck: (link: Link) => void;
}

function LinkTable({ links, labelOf, nowMs, zone, mayMake, onShow, onQr, onCheck }: TableProps) {
  return (
    <div className="overflow-x-auto">
      <table className="w-full min-w-[54rem] border-collapse text-sm">
        <caption className="sr-only">Short links</caption>
        <thead>
          <tr className="text-xs">
            {['Short link', 'Leads to', 'For', 'Clicks', 'Bots', 'Looked at', ''].map((head, index) => (
              <th key={head} scope="col" className={`border-b border-line py-1.5 pr-4 font-semibold ${index === 3 || index === 4 ? 'text-right' : 'text-left'}`}>
                {head === '' ? <span className="sr-only">Actions</span> : head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {links.map((link) => (
            <tr key={link.code} className="border-b border-line">
              <th scope="row" className="py-2 pr-4 text-left font-medium">
                <button type="button" onClick={() => onShow(link.code)} className="hover:underline">
                  /l/{link.code}
                </button>
              </th>
              <td className="max-w-80 truncate pr-4">
                <a href={link.target} target="_blank" rel="noreferrer" className="text-quiet hover:text-ink hover:underline">
                  {link.target.replace(/^https?:\/\//, '')}
                </a>
              </td>
              <td className="max-w-48 truncate pr-4 text-quiet">{labelOf(link.label)}</td>
              <td className="pr-4 text-right font-semibold tabular-nums">{countOf(link.people)}</td>
              <td className="pr-4 text-right text-quiet tabular-nums">{countOf(link.bots)}</td>
              <td className="max-w-60 pr-4 text-xs">
                {link.problem !== null ? (
                  <span className="text-coral-ink">◆ leads nowhere: {link.problem}</span>
                ) : (
                  <span className="text-quiet" suppressHydrationWarning>
                    {link.checkedMs === null ? 'not yet' : `fine, ${shortDay(link.checkedMs, nowMs, zone)}`}
                  </span>
                )}
              </td>
              <td className="py-1.5 whitespace-nowrap">
                <span className="flex justify-end gap-1">
                  <Button size="small" onClick={() => void navigator.clipboard.writeText(link.address).then(() => toast('done', 'Copied'), () => toast('problem', 'The browser does not let it be copied. Select and copy it by hand.'))}>
                    Copy
                  </Button>
                  <Button size="small" onClick={() => onQr(link)}>
                    QR code
                  </Button>
                  {mayMake && (
                    <Button size="small" look="quiet" onClick={() => onCheck(link)}>
                      Check
                    </Button>
                  )}
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
