import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Button as AriaButton, Dialog, DialogTrigger, Popover } from 'react-aria-components';
import { holdEverything, releaseEverything } from '../../contract/plan-contracts.ts';
import { roleMay } from '../../core/access/access.ts';
import type { ReleaseRule } from '../../core/plan/hold.ts';
import { formatMoment } from '../../core/time/wall-time.ts';
import { buttonClasses } from '../ui/Button.tsx';
import { call } from '../ui/call.ts';
import { ConfirmButton } from '../ui/ConfirmButton.tsx';
import { DialogActions } from '../ui/DialogActions.tsx';
import { toast } from '../ui/toast.tsx';
import type { PlanContext } from './use-plan.ts';

const rules: readonly (readonly [ReleaseRule, string])[] = [
  ['slot', 'Into the next open slot'],
  ['keep-order', 'In their order, from now on'],
  ['now', 'At once'],
  ['drop', 'Not any more: cancel them'],
];

/** Holds everything of the brand with one action, and lets go of it by a rule whose result one sees first. */
export function HoldButton({ context }: { readonly context: PlanContext }) {
  const { brand, plan } = context;
  const client = useQueryClient();
  const refresh = (): Promise<void> => client.invalidateQueries({ queryKey: ['plan', brand.slug] });
  const hold = useMutation({
    mutationFn: () => call(holdEverything, { params: { brand: brand.slug }, body: {} }),
    onSuccess: ({ held }) => {
      toast('done', `${held} ${held === 1 ? 'post is' : 'posts are'} held. Nothing goes out until you let go.`);
      return refresh();
    },
    onError: (error) => toast('problem', error.message),
  });
  if (!plan || !roleMay(brand.role, 'send')) return null;
  if (plan.heldSinceMs !== null) return <LetGo context={context} sinceMs={plan.heldSinceMs} />;
  return (
    <ConfirmButton label="Hold everything" title="Hold everything" isDisabled={hold.isPending} keepLabel="Not now" confirmLabel="Hold everything" confirmLook="primary" onConfirm={() => hold.mutate()}>
      <p className="text-sm">Nothing of {brand.name} goes out until you let go. Every post keeps its moment; what is missed meanwhile is asked about then.</p>
    </ConfirmButton>
  );
}

function LetGo({ context: { brand }, sinceMs }: { readonly context: PlanContext; readonly sinceMs: number }) {
  const client = useQueryClient();
  const [rule, setRule] = useState<ReleaseRule>('slot');
  const [isOpen, setOpen] = useState(false);
  const preview = useQuery({ queryKey: ['plan', brand.slug, 'release', rule], enabled: isOpen, queryFn: () => call(releaseEverything, { params: { brand: brand.slug }, body: { rule, keep: false } }) });
  const release = useMutation({
    mutationFn: () => call(releaseEverything, { params: { brand: brand.slug }, body: { rule, keep: true } }),
    onSuccess: ({ releases }) => {
      setOpen(false);
      toast('done', `${releases.length} ${releases.length === 1 ? 'post goes' : 'posts go'} on.`);
      return client.invalidateQueries({ queryKey: ['plan', brand.slug] });
    },
    onError: (error) => toast('problem', error.message),
  });
  const all = preview.data?.releases ?? [];
  const missed = all.filter(({ isMissed }) => isMissed);
  return (
    <DialogTrigger isOpen={isOpen} onOpenChange={setOpen}>
      <AriaButton className={`${buttonClasses('plain')} border-marigold text-marigold-ink`}>Held: let go…</AriaButton>
      <Popover placement="bottom end" className="shadow-float w-[26rem] max-w-[calc(100vw-1rem)] rounded-md border border-line bg-panel p-4">
        <Dialog aria-label="Let go" className="outline-none">
          {({ close }) => (
            <>
              <p className="text-sm font-semibold">Everything is held since {formatMoment(sinceMs, brand.zone)}.</p>
              <fieldset className="mt-2 space-y-1 text-sm">
                <legend className="mb-1">{missed.length === 0 ? 'Nothing was missed. Were something missed by then, it would go out:' : `${missed.length} ${missed.length === 1 ? 'post was' : 'posts were'} missed. ${missed.length === 1 ? 'It goes' : 'They go'} out:`}</legend>
                {rules.map(([key, words]) => (
                  <label key={key} className="flex items-center gap-2">
                    <input type="radio" name="release" checked={rule === key} onChange={() => setRule(key)} className="accent-house" />
                    {words}
                  </label>
                ))}
              </fieldset>
              <ul className="mt-3 max-h-48 space-y-1 overflow-auto text-xs">
                {missed.map(({ postId, pieceName, dueMs, atMs }) => (
                  <li key={postId}>
                    <span className="font-semibold">{pieceName}</span> <span className="text-quiet tabular-nums">{formatMoment(dueMs, brand.zone)}</span> → <span className="tabular-nums">{atMs === null ? 'cancelled' : formatMoment(atMs, brand.zone)}</span>
                  </li>
                ))}
              </ul>
              <p className="mt-2 text-xs text-quiet">{all.length - missed.length} others keep their moments.</p>
              <DialogActions keepLabel="Keep holding" onKeep={close} label="Let go" look="primary" isDisabled={release.isPending || !preview.isSuccess} onConfirm={() => release.mutate()} />
            </>
          )}
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}
