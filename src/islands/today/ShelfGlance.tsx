import { useQuery } from '@tanstack/react-query';
import { listIdeas } from '../../contract/idea-contracts.ts';
import { kindNames } from '../../core/ideas/idea.ts';
import { call } from '../ui/call.ts';

const SHOWN = 3;

/** What lies on the shelf and fits best today; nothing while the shelf is empty. */
export function ShelfGlance({ brand }: { readonly brand: string }) {
  const { data } = useQuery({ queryKey: ['ideas', brand, 'glance'], queryFn: () => call(listIdeas, { params: { brand }, query: { state: 'open', used: 'no', limit: SHOWN } }), staleTime: 60_000 });
  if (!data || data.items.length === 0) return null;
  return (
    <>
      <h2 className="mt-6 text-base font-semibold">On the shelf</h2>
      <ul className="mt-1 text-sm">
        {data.items.map(({ id, kind, title }) => (
          <li key={id} className="flex items-baseline gap-2 py-0.5">
            <span className="shrink-0 text-xs text-quiet">{kindNames[kind]}</span>
            <span dir="auto" className="min-w-0 truncate">
              {title}
            </span>
          </li>
        ))}
      </ul>
      <a href={`/b/${brand}/make/ideas`} className="mt-1 inline-block text-sm font-medium text-house underline">
        {data.counts.open > SHOWN ? `All ${data.counts.open} ideas` : 'Open the ideas'}
      </a>
    </>
  );
}
