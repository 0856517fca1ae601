import { useInfiniteQuery, useQueryClient, type InfiniteData } from '@tanstack/react-query';
import { useCallback, useEffect, useRef } from 'react';
import type { AnswerOf } from '../../contract/contract.ts';
import { listDeliveries } from '../../contract/send-contracts.ts';
import type { DeliveryState } from '../../core/post/delivery-state.ts';
import { useChanges } from '../shell/change-events.ts';
import { call } from '../ui/call.ts';

type Page = AnswerOf<typeof listDeliveries>;
export type Delivery = Page['items'][number];
type Pages = InfiniteData<Page, string | null>;

export interface DeliveryFilter {
  readonly state?: DeliveryState | undefined;
  readonly piece?: string | undefined;
}

/** Changes that arrive within this time are asked for together. */
const GATHER_MS = 150;
/** With more than this many at once the list is loaded anew. */
const MAX_GATHERED = 40;

/** Deliveries in pages, kept fresh: what changes is asked for by its id, and the list is loaded anew only for what is not in it yet. */
export function useDeliveries(brand: string, filter: DeliveryFilter, limit: number) {
  const client = useQueryClient();
  const queryKey = ['deliveries', brand, filter.state ?? null, filter.piece ?? null];
  const query = useInfiniteQuery({
    queryKey,
    queryFn: ({ pageParam, signal }) => call(listDeliveries, { params: { brand }, query: { limit, ...filter, ...(pageParam === null ? {} : { before: pageParam }) }, signal }),
    initialPageParam: null as string | null,
    getNextPageParam: (last) => last.next,
    placeholderData: (previous) => previous,
  });
  const gathered = useRef(new Set<string>());
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const isAsking = useRef(false);
  const reloads = useRef(0);
  useEffect(() => () => void (timer.current && clearTimeout(timer.current)), []);
  const keyText = JSON.stringify(queryKey);

  const reload = useCallback((): void => {
    reloads.current += 1;
    const key = JSON.parse(keyText) as unknown[];
    // One page is enough to see what is new; older ones are a press away.
    client.setQueryData<Pages>(key, (now) => now && { pages: now.pages.slice(0, 1), pageParams: now.pageParams.slice(0, 1) });
    void client.invalidateQueries({ queryKey: key });
  }, [client, keyText]);

  const askFor = useCallback(async (): Promise<void> => {
    timer.current = null;
    const key = JSON.parse(keyText) as [string, string, DeliveryState | null, string | null];
    // An answer that is under way may be older than the change, and would be shown over it.
    if (isAsking.current || client.isFetching({ queryKey: key, exact: true }) > 0) {
      timer.current = setTimeout(() => void askForRef.current(), GATHER_MS);
      return;
    }
    const ids = [...gathered.current];
    gathered.current.clear();
    const known = new Set(client.getQueryData<Pages>(key)?.pages.flatMap(({ items }) => items.map(({ id }) => id)));
    if (ids.length > MAX_GATHERED || ids.some((id) => !known.has(id))) return reload();
    const reloadsBefore = reloads.current;
    isAsking.current = true;
    const fresh = await call(listDeliveries, { params: { brand }, query: { ids: ids.join(','), limit: ids.length, ...(key[3] === null ? {} : { piece: key[3] }) } }).finally(() => {
      isAsking.current = false;
    });
    // A list that was loaded meanwhile is newer.
    if (reloads.current !== reloadsBefore) return;
    const byId = new Map(fresh.items.map((item) => [item.id, item]));
    // What is no longer in the state that the list is of leaves it.
    const belongs = (item: Delivery): boolean => key[2] === null || item.state === key[2];
    client.setQueryData<Pages>(key, (now) => now && { ...now, pages: now.pages.map((page) => ({ ...page, counts: fresh.counts, items: page.items.map((item) => byId.get(item.id) ?? item).filter(belongs) })) });
  }, [brand, client, keyText, reload]);
  const askForRef = useRef(askFor);
  useEffect(() => {
    askForRef.current = () => askFor().catch(reload);
  });

  useChanges(brand, {
    onReload: reload,
    onChange: (kind, id) => {
      if (kind === 'clock') return reload();
      if (kind !== 'delivery') return;
      gathered.current.add(id);
      timer.current ??= setTimeout(() => void askForRef.current(), GATHER_MS);
    },
  });
  return { ...query, items: query.data?.pages.flatMap((page) => page.items) ?? [], counts: query.data?.pages[0]?.counts ?? null };
}
