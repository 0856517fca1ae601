import { useQuery, useQueryClient } from '@tanstack/react-query';
import { changePiecePlan, getPiecePlan } from '../../../contract/piece-plan-contracts.ts';
import { getPlan } from '../../../contract/plan-contracts.ts';
import type { AnswerOf, BodyOf } from '../../../contract/contract.ts';
import { useChanges } from '../../shell/change-events.ts';
import { call } from '../../ui/call.ts';
import { toast } from '../../ui/toast.tsx';

export type PiecePlan = AnswerOf<typeof getPiecePlan>;

const watched: ReadonlySet<string> = new Set(['plan', 'queue', 'piece', 'post', 'clock']);

/** What a piece is about, where it waits and how it comes round, with the brand's themes and campaigns. */
export function usePiecePlan(brand: string, pieceId: string) {
  const client = useQueryClient();
  const own = useQuery({ queryKey: ['plan', brand, 'piece', pieceId], queryFn: () => call(getPiecePlan, { params: { brand, piece: pieceId } }) });
  const plan = useQuery({ queryKey: ['plan', brand, 'plan'], queryFn: () => call(getPlan, { params: { brand } }) });
  const refresh = (): Promise<void> => client.invalidateQueries({ queryKey: ['plan', brand] });
  useChanges(brand, { onChange: (kind) => watched.has(kind) && void refresh() });
  const change = async (body: BodyOf<typeof changePiecePlan>): Promise<void> => {
    client.setQueryData<PiecePlan>(['plan', brand, 'piece', pieceId], (now) => now && { ...now, ...(Object.fromEntries(Object.entries(body).filter(([, value]) => value !== undefined)) as Partial<PiecePlan>) });
    try {
      await call(changePiecePlan, { params: { brand, piece: pieceId }, body });
    } catch (error) {
      toast('problem', error instanceof Error ? error.message : 'It was not kept.');
    }
    await refresh();
  };
  return { own: own.data ?? null, plan: plan.data ?? null, refresh, change };
}
