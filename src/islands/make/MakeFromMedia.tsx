import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { createPiece } from '../../contract/piece-contracts.ts';
import { listTemplates } from '../../contract/template-contracts.ts';
import type { MediaSummary } from '../media/media-address.ts';
import { call } from '../ui/call.ts';
import { Button } from '../ui/Button.tsx';
import { toast } from '../ui/toast.tsx';

interface MakeProps {
  readonly brand: string;
  /** Pictures in the order in which they were picked. */
  readonly picked: readonly MediaSummary[];
  readonly onClear: () => void;
}

const MAX_PICKED = 20;

/** What picked pictures can become: one piece with all of them, or a piece of each. */
export function MakeFromMedia({ brand, picked, onClear }: MakeProps) {
  const templates = useQuery({ queryKey: ['templates', brand], queryFn: () => call(listTemplates, { params: { brand } }), staleTime: 60_000 });
  const offered = templates.data?.items.filter(({ archived, kind, takesPictures }) => !archived && takesPictures && kind !== 'video') ?? [];
  const [chosen, setChosen] = useState<string | null>(null);
  const usual = picked.length > 1 ? offered.find(({ kind }) => kind === 'carousel') : offered.find(({ kind }) => kind === 'graphic');
  const template = offered.find(({ key }) => key === chosen) ?? usual;
  const make = useMutation({
    mutationFn: async (together: boolean) => {
      const lists = together ? [picked] : picked.map((item) => [item]);
      const made = [];
      for (const list of lists) made.push(await call(createPiece, { params: { brand }, body: { template: template?.key ?? '', media: list.map(({ id }) => id) } }));
      return made;
    },
    onSuccess: (made) => {
      const [only] = made;
      if (made.length === 1 && only) return location.assign(`/b/${brand}/make/pieces/${only.id}`);
      onClear();
      toast('done', `${made.length} pieces are made.`, { label: 'Open the pieces', run: () => location.assign(`/b/${brand}/make/pieces`) });
    },
    onError: (error) => toast('problem', error.message),
  });
  const tooMany = picked.length > MAX_PICKED;
  return (
    <div role="group" aria-label="Picked pictures" className="sticky top-0 z-10 mb-3 flex flex-wrap items-center gap-2 rounded-md border border-house bg-panel px-3 py-2 text-sm">
      <span className="mr-2 font-semibold tabular-nums">{picked.length === 1 ? '1 picture' : `${picked.length} pictures`}</span>
      <label className="flex items-center gap-1.5 text-xs text-quiet">
        Template
        <select value={template?.key ?? ''} onChange={(event) => setChosen(event.target.value)} className="h-8 rounded-md border border-line bg-panel px-2 text-sm text-ink">
          {offered.map((each) => (
            <option key={each.key} value={each.key}>
              {each.name}, {each.kind}
            </option>
          ))}
        </select>
      </label>
      <Button look="primary" disabled={!template || tooMany || make.isPending} onClick={() => make.mutate(true)}>
        {template?.kind === 'carousel' ? 'Make a carousel' : 'Make a piece'}
      </Button>
      {picked.length > 1 && template?.kind === 'graphic' && (
        <Button disabled={tooMany || make.isPending} onClick={() => make.mutate(false)}>
          Make a piece of each
        </Button>
      )}
      {tooMany && <span className="text-xs text-coral-ink">Pick {MAX_PICKED} at the most.</span>}
      <Button look="quiet" className="ml-auto" onClick={onClear}>
        Clear
      </Button>
    </div>
  );
}
