import { useQueryClient } from '@tanstack/react-query';
import { lazy, Suspense, useCallback, useEffect, useState } from 'react';
import { Tab, TabList, TabPanel, Tabs } from 'react-aria-components';
import { wallTimeOf } from '../../core/time/wall-time.ts';
import { useChanges } from '../shell/change-events.ts';
import { Queries } from '../ui/Queries.tsx';
import { readIdeasQuery, writeIdeasQuery, type IdeasQuery } from './ideas-query.ts';
import { useBrandOfIdeas, type IdeasBrand, type IdeasContext } from './ideas-context.ts';

const Shelf = lazy(() => import('./shelf/Shelf.tsx'));
const Propose = lazy(() => import('./propose/Propose.tsx'));
const Table = lazy(() => import('./table/Tables.tsx'));
const Files = lazy(() => import('./files/ManyFiles.tsx'));
const Feeds = lazy(() => import('./feeds/Feeds.tsx'));

const parts = [
  ['shelf', 'Shelf'],
  ['text', 'From a text'],
  ['table', 'From a table'],
  ['files', 'From files'],
  ['feeds', 'Feeds'],
] as const;

/** Where a week's plan comes from: the shelf of ideas, and whole pieces out of texts, tables, files and feeds. */
export default function IdeasView(props: { readonly brand: IdeasBrand; readonly nowMs: number }) {
  return (
    <Queries>
      <Ideas {...props} />
    </Queries>
  );
}

function Ideas({ brand, nowMs }: { readonly brand: IdeasBrand; readonly nowMs: number }) {
  const client = useQueryClient();
  const [query, setQuery] = useState<IdeasQuery>({});
  // The parts are fetched when they are shown, which only a browser does.
  const [isThere, setThere] = useState(false);
  useEffect(() => {
    const read = (): void => setQuery(readIdeasQuery(location.search));
    read();
    setThere(true);
    addEventListener('popstate', read);
    return () => removeEventListener('popstate', read);
  }, []);
  const change = useCallback((next: Partial<IdeasQuery>): void => {
    setQuery((now) => {
      const changed = { ...now, ...next };
      // Another part is a step that one can go back from; a filter is not.
      history['show' in next || 'table' in next ? 'pushState' : 'replaceState'](null, '', writeIdeasQuery(changed));
      return changed;
    });
  }, []);
  useChanges(brand.slug, {
    onChange: (kind) => {
      if (kind === 'idea') void client.invalidateQueries({ queryKey: ['ideas', brand.slug] });
      if (kind === 'feed') void client.invalidateQueries({ queryKey: ['feeds', brand.slug] });
      if (kind === 'table') void client.invalidateQueries({ queryKey: ['post-tables', brand.slug] });
    },
  });
  const context: IdeasContext = { brand, today: wallTimeOf(nowMs, brand.zone).slice(0, 10), query, change, ...useBrandOfIdeas(brand.slug) };
  const show = parts.find(([key]) => key === query.show)?.[0] ?? 'shelf';
  return (
    <main className="flex min-h-0 flex-1 flex-col px-6 pt-4 max-md:px-4">
      <Tabs selectedKey={show} onSelectionChange={(key) => change({ show: key === 'shelf' ? undefined : String(key), table: undefined })} className="flex min-h-0 flex-1 flex-col">
        <div className="mb-4 flex flex-wrap items-center gap-x-4 gap-y-2">
          <h1 className="text-xl font-semibold">Ideas</h1>
          <TabList aria-label="Ways to begin" className="flex flex-wrap gap-0.5 rounded-md bg-sunk p-0.5">
            {parts.map(([key, name]) => (
              <Tab key={key} id={key} className="cursor-pointer rounded-[5px] px-2.5 py-1 text-sm text-quiet outline-none data-[focus-visible]:ring-2 data-[focus-visible]:ring-house data-[selected]:bg-panel data-[selected]:font-semibold data-[selected]:text-ink">
                {name}
              </Tab>
            ))}
          </TabList>
        </div>
        {parts.map(([key]) => (
          <TabPanel key={key} id={key} className="flex min-h-0 flex-1 flex-col outline-none">
            {isThere && (
              <Suspense fallback={<p className="text-sm text-quiet">Loading…</p>}>
                {key === 'shelf' && <Shelf context={context} />}
                {key === 'text' && <Propose context={context} />}
                {key === 'table' && <Table context={context} />}
                {key === 'files' && <Files context={context} />}
                {key === 'feeds' && <Feeds context={context} />}
              </Suspense>
            )}
          </TabPanel>
        ))}
      </Tabs>
    </main>
  );
}
