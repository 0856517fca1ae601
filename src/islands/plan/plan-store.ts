import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { changePlan } from '../../contract/plan-contracts.ts';
import type { BodyOf } from '../../contract/contract.ts';
import type { Plan } from '../../core/plan/plan.ts';
import { DocumentStore, type DocumentSaver } from '../editor/document-store.ts';
import { useDocument } from '../editor/use-document.ts';
import { ApiProblem, call } from '../ui/call.ts';
import { toast } from '../ui/toast.tsx';
import type { PlanAnswer } from './use-plan.ts';

/** Saves the plan whole; where somebody else was faster their plan comes back, and the store merges both. */
function saverOf(brand: string, onSaved: () => void): DocumentSaver<Plan> {
  return {
    async save(revision, _patches, plan) {
      try {
        const saved = await call(changePlan, { params: { brand }, body: { revision, plan } as BodyOf<typeof changePlan> });
        onSaved();
        return { document: saved.plan, revision: saved.revision };
      } catch (error) {
        const current = error instanceof ApiProblem ? (error.details['current'] as { readonly plan: Plan; readonly revision: number } | undefined) : undefined;
        if (!(error instanceof ApiProblem) || !current) throw error;
        throw new ApiProblem(error.status, error.code, error.message, { ...error.details, current: { document: current.plan, revision: current.revision } });
      }
    },
  };
}

/** The plan under edit. It is changed as a what-if: nothing of it holds until a person keeps it. */
export function usePlanEdit(brand: string, stored: PlanAnswer) {
  const client = useQueryClient();
  const [store] = useState(
    () =>
      new DocumentStore<Plan>(
        { document: stored.plan, revision: stored.revision },
        saverOf(brand, () => {
          toast('done', 'The rota is kept. The plan follows it from now on; posts that are scheduled stay.');
          void client.invalidateQueries({ queryKey: ['plan', brand] });
        }),
        'by-hand',
      ),
  );
  const state = useDocument(store);
  const plan = state.history.document;
  return { store, state, plan, isChanged: store.hasUnsaved(), change: (recipe: (plan: Plan) => Plan): void => store.replace(recipe(store.getState().history.document)) };
}

export type PlanEdit = ReturnType<typeof usePlanEdit>;
