import { useMutation, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useMemo, useRef, useState } from 'react';
import type { AnswerOf } from '../../../contract/contract.ts';
import { proposePlan, takePlan } from '../../../contract/begin-contracts.ts';
import { cellKey, type PlanItem } from '../../../core/plan/plan-items.ts';
import { call } from '../../ui/call.ts';
import { toast } from '../../ui/toast.tsx';

type Placing = AnswerOf<typeof proposePlan>['placings'][number];
export type PlanCandidate = Placing['candidate'];

/** One open slot with what is chosen for it. */
export interface ChosenPlacing extends Placing {
  readonly chosen: PlanCandidate;
  /** What is next best, without what stands elsewhere already. */
  readonly others: readonly PlanCandidate[];
  readonly isTaken: boolean;
}

/** A plan for the open slots, before anything of it is kept: what a person swaps, leaves out and takes. */
export interface PlanProposal {
  readonly placings: readonly ChosenPlacing[];
  readonly empty: number;
  readonly isBusy: boolean;
  readonly days: number;
  readonly propose: (days: number) => void;
  readonly swap: (slotKey: string, candidateId: string) => void;
  readonly toggle: (slotKey: string) => void;
  /** Leaves a candidate out everywhere, and asks for what fits instead. */
  readonly drop: (candidateId: string) => void;
  readonly take: () => void;
  readonly close: () => void;
}

const USUAL_DAYS = 28;

/** The proposal of the lanes; `isOpen` false until somebody asks for one. */
export function usePlanProposal(brand: string, channelIds: readonly string[]): { readonly isOpen: boolean; readonly proposal: PlanProposal } {
  const client = useQueryClient();
  const [isOpen, setOpen] = useState(false);
  const [days, setDays] = useState(USUAL_DAYS);
  const [without, setWithout] = useState<readonly string[]>([]);
  const [swapped, setSwapped] = useState<ReadonlyMap<string, string>>(new Map());
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  // One key a proposal: a second press keeps it once.
  const request = useRef(nanoid(16));
  const onError = (error: Error): void => toast('problem', error.message);
  const ask = useMutation({
    mutationFn: (wish: { readonly days: number; readonly without: readonly string[] }) => call(proposePlan, { params: { brand }, body: { days: wish.days, without: [...wish.without], channelIds: [...channelIds] } }),
    onSuccess: () => {
      request.current = nanoid(16);
      setSwapped(new Map());
    },
    onError,
  });
  const placings = useMemo(() => chosenOf(ask.data?.placings ?? [], swapped, left), [ask.data, swapped, left]);
  const keep = useMutation({
    mutationFn: () => call(takePlan, { params: { brand }, body: { request: request.current, items: placings.filter(({ isTaken }) => isTaken).map(({ slotKey, channelIds: channels, chosen }) => ({ slotKey, channelIds: channels, candidateId: chosen.id })) } }),
    onSuccess: async ({ drafts, placeholders, notes }) => {
      toast('done', `${drafts} ${drafts === 1 ? 'draft' : 'drafts'} and ${placeholders} ${placeholders === 1 ? 'placeholder' : 'placeholders'} stand in the plan.`);
      for (const note of notes) toast('problem', note);
      setOpen(false);
      await Promise.all([client.invalidateQueries({ queryKey: ['plan', brand] }), client.invalidateQueries({ queryKey: ['ideas', brand] })]);
    },
    onError,
  });
  const propose = (next: number): void => {
    setDays(next);
    setOpen(true);
    ask.mutate({ days: next, without });
  };
  return {
    isOpen,
    proposal: {
      placings,
      empty: ask.data?.empty ?? 0,
      isBusy: ask.isPending || keep.isPending,
      days,
      propose,
      swap: (slotKey, candidateId) => setSwapped((now) => new Map(now).set(slotKey, candidateId)),
      toggle: (slotKey) =>
        setLeft((now) => {
          const next = new Set(now);
          if (!next.delete(slotKey)) next.add(slotKey);
          return next;
        }),
      drop: (candidateId) => {
        const next = [...without, candidateId];
        setWithout(next);
        ask.mutate({ days, without: next });
      },
      take: () => keep.mutate(),
      close: () => {
        setOpen(false);
        setWithout([]);
        setLeft(new Set());
      },
    },
  };
}

function chosenOf(placings: readonly Placing[], swapped: ReadonlyMap<string, string>, left: ReadonlySet<string>): readonly ChosenPlacing[] {
  const chosen = placings.map((placing) => [placing.candidate, ...placing.next].find(({ id }) => id === swapped.get(placing.slotKey)) ?? placing.candidate);
  const standing = new Set(chosen.map(({ id }) => id));
  return placings.map((placing, index) => {
    const one = chosen[index] ?? placing.candidate;
    return { ...placing, chosen: one, others: [placing.candidate, ...placing.next].filter(({ id }) => !standing.has(id)), isTaken: !left.has(placing.slotKey) };
  });
}

/** The cells of the lanes with what is proposed in their open slots. */
export function withProposed(cells: ReadonlyMap<string, readonly PlanItem[]>, placings: readonly ChosenPlacing[]): ReadonlyMap<string, readonly PlanItem[]> {
  if (placings.length === 0) return cells;
  const shown = new Map(cells);
  for (const { slotKey, wall, channelIds, chosen, isTaken } of placings) {
    if (!isTaken) continue;
    for (const channelId of channelIds) {
      const key = cellKey(channelId, wall.slice(0, 10));
      const items = shown.get(key);
      if (items) shown.set(key, items.map((item) => (item.state === 'open' && item.slotKey === slotKey ? { ...item, state: 'proposed', name: chosen.name, pieceId: chosen.pieceId } : item)));
    }
  }
  return shown;
}
