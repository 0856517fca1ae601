import { useState } from 'react';
import type { PlanItem } from '../../core/plan/plan-items.ts';
import { Button } from '../ui/Button.tsx';
import { ConfirmButton } from '../ui/ConfirmButton.tsx';
import { Choice } from './PlanBar.tsx';
import type { PlanActions } from './use-plan-actions.ts';
import type { PlanContexts } from './use-plan.ts';

interface BulkBarProps {
  readonly items: readonly PlanItem[];
  readonly contexts: PlanContexts;
  readonly actionsOf: (brand: string) => PlanActions;
  readonly onClear: () => void;
}

/** What can be done to everything that is chosen, at once. */
export function BulkBar({ items, contexts, actionsOf, onClear }: BulkBarProps) {
  const [days, setDays] = useState(1);
  const [label, setLabel] = useState('');
  const things = new Set(items.map(({ postId, entryId, key }) => postId ?? entryId ?? key)).size;
  const words = `${things} ${things === 1 ? 'post' : 'posts'}`;
  const parts = contexts.all.map((context) => ({ context, chosen: items.filter(({ channelId }) => contexts.of(channelId) === context) })).filter(({ chosen }) => chosen.length > 0);
  /** Runs an action once for each brand. */
  const run = (act: (actions: PlanActions, chosen: readonly PlanItem[]) => Promise<void>, of: (item: PlanItem) => boolean = () => true): void =>
    void Promise.all(parts.map(({ context, chosen }) => ({ actions: actionsOf(context.brand.slug), chosen: chosen.filter(of) })).filter(({ chosen }) => chosen.length > 0).map(({ actions, chosen }) => act(actions, chosen))).then(onClear);
  // Themes and campaigns are a brand's own.
  const only = parts.length === 1 ? parts[0]?.context : undefined;
  return (
    <div role="toolbar" aria-label="Chosen posts" className="mb-2 flex flex-wrap items-center gap-2 rounded-md border border-house bg-house-soft px-3 py-1.5">
      <span className="text-sm font-semibold tabular-nums">{words} chosen</span>
      <span className="flex items-center gap-1">
        <Button size="small" onClick={() => run((actions, chosen) => actions.shift(chosen, -days))}>
          Earlier
        </Button>
        <input type="number" aria-label="By so many days" min={1} max={366} value={days} onChange={(event) => setDays(Math.min(366, Math.max(1, Number(event.target.value) || 1)))} className="h-6 w-12 rounded-md border border-line bg-panel px-1 text-center text-xs tabular-nums" />
        <span className="text-xs text-quiet">{days === 1 ? 'day' : 'days'}</span>
        <Button size="small" onClick={() => run((actions, chosen) => actions.shift(chosen, days))}>
          Later
        </Button>
      </span>
      {only && <Choice label="Set theme" all="Theme…" value={undefined} options={[['none', 'No theme'], ...(only.plan?.plan.themes ?? []).map(({ id, name }) => [id, name] as const)]} onChoose={(theme) => theme && run((actions, chosen) => actions.change(chosen, { kind: 'theme', themeId: theme === 'none' ? null : theme }, (count) => `The theme of ${count} is set.`))} />}
      {only && <Choice label="Set campaign" all="Campaign…" value={undefined} options={[['none', 'No campaign'], ...[...only.campaigns.values()].map(({ id, name }) => [id, name] as const)]} onChoose={(campaign) => campaign && run((actions, chosen) => actions.change(chosen, { kind: 'campaign', campaignId: campaign === 'none' ? null : campaign }, (count) => `The campaign of ${count} is set.`))} />}
      <form
        className="flex gap-1"
        onSubmit={(event) => {
          event.preventDefault();
          if (label.trim() !== '') run((actions, chosen) => actions.change(chosen, { kind: 'label', label: label.trim() }, (count) => `${count} labelled.`));
        }}
      >
        <input aria-label="Label" placeholder="Label" value={label} maxLength={60} onChange={(event) => setLabel(event.target.value)} className="h-6 w-24 rounded-md border border-line bg-panel px-1.5 text-xs" />
        <Button size="small" type="submit" disabled={label.trim() === ''}>
          Add
        </Button>
      </form>
      {items.some(({ hasChanged }) => hasChanged) && (
        <Button size="small" onClick={() => run((actions, chosen) => actions.change(chosen, { kind: 'refresh' }, (count) => `${count} ${count === 1 ? 'post follows its piece' : 'posts follow their pieces'} as ${count === 1 ? 'it is' : 'they are'} now.`), ({ hasChanged }) => hasChanged)}>
          Refresh those that changed
        </Button>
      )}
      {items.some(({ state }) => state === 'scheduled') && (
        <Button size="small" onClick={() => run((actions, chosen) => actions.change(chosen, { kind: 'hold' }, (count) => `${count} ${count === 1 ? 'post is' : 'posts are'} held.`), ({ state }) => state === 'scheduled')}>
          Hold
        </Button>
      )}
      {items.some(({ state }) => state === 'held') && (
        <Button size="small" onClick={() => run((actions, chosen) => actions.change(chosen, { kind: 'release' }, (count) => `${count} ${count === 1 ? 'post is' : 'posts are'} released.`), ({ state }) => state === 'held')}>
          Release
        </Button>
      )}
      <ConfirmButton label="Cancel them" title="Cancel posts" size="small" keepLabel="Keep them" confirmLabel={`Cancel ${words}`} confirmLook="stop" onConfirm={() => run((actions, chosen) => actions.change(chosen, { kind: 'cancel' }, (count) => `${count} cancelled.`))}>
        <p className="text-sm">What is chosen will not go out. Their pieces stay.</p>
      </ConfirmButton>
      <Button size="small" look="quiet" className="ml-auto" onClick={onClear}>
        Choose none
      </Button>
    </div>
  );
}
