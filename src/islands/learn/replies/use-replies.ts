import { useInfiniteQuery, useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { assignConversations, labelConversations, listConversations, moveConversations } from '../../../contract/reply-contracts.ts';
import type { AnswerOf } from '../../../contract/contract.ts';
import { useChanges } from '../../shell/change-events.ts';
import { call } from '../../ui/call.ts';
import { toast } from '../../ui/toast.tsx';
import { filtersOf, type RepliesQuery } from './replies-query.ts';

export type Summary = AnswerOf<typeof listConversations>['items'][number];
export type Event = 'read' | 'close' | 'reopen' | 'set-apart' | 'bring-back';

const GATHER_MS = 300;

/** The conversations of a query, kept up to date, and what can be done with several at once. */
export function useReplies(brand: string, query: RepliesQuery) {
  const client = useQueryClient();
  const { c: _, ...listed } = query;
  const filters = filtersOf(listed);
  const pages = useInfiniteQuery({
    queryKey: ['replies', brand, filters],
    initialPageParam: null as string | null,
    queryFn: ({ pageParam }) => call(listConversations, { params: { brand }, query: { ...filters, ...(pageParam === null ? {} : { after: pageParam }) } }),
    getNextPageParam: ({ next }) => next,
  });
  const refresh = async (): Promise<void> => {
    await Promise.all([client.invalidateQueries({ queryKey: ['replies', brand] }), client.invalidateQueries({ queryKey: ['conversation', brand] })]);
  };
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  useEffect(() => () => void (timer.current && clearTimeout(timer.current)), []);
  useChanges(brand, {
    onChange: (kind) => {
      if (kind !== 'conversation' && kind !== 'clock') return;
      timer.current ??= setTimeout(() => {
        timer.current = null;
        void refresh();
      }, GATHER_MS);
    },
  });
  const onError = (error: Error): void => toast('problem', error.message);
  const move = useMutation({ mutationFn: (input: { readonly ids: readonly string[]; readonly event: Event }) => call(moveConversations, { params: { brand }, body: { ids: [...input.ids], event: input.event } }), onSuccess: refresh, onError });
  const assign = useMutation({ mutationFn: (input: { readonly ids: readonly string[]; readonly personId: string | null }) => call(assignConversations, { params: { brand }, body: { ids: [...input.ids], personId: input.personId } }), onSuccess: refresh, onError });
  const label = useMutation({ mutationFn: (input: { readonly ids: readonly string[]; readonly label: string; readonly on: boolean }) => call(labelConversations, { params: { brand }, body: { ids: [...input.ids], label: input.label, on: input.on } }), onSuccess: refresh, onError });
  const first = pages.data?.pages[0];
  return { pages, items: pages.data?.pages.flatMap((page) => page.items) ?? [], counts: first?.counts ?? null, labels: first?.labels ?? [], answerWithinHours: first?.answerWithinHours ?? 24, move, assign, label, refresh };
}

export type Replies = ReturnType<typeof useReplies>;
