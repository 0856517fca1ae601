import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useMemo, useRef, useState } from 'react';
import { keepProposals, propose, proposeAgain, proposeSeries } from '../../../contract/propose-contracts.ts';
import { roleMay } from '../../../core/access/access.ts';
import { call } from '../../ui/call.ts';
import { Button } from '../../ui/Button.tsx';
import { toast } from '../../ui/toast.tsx';
import { GuideLink } from '../../ui/GuideLink.tsx';
import { useDraftWall, type Draft } from '../use-draft-wall.ts';
import type { IdeasContext } from '../ideas-context.ts';
import { ProposalCard, type ProposalItem } from './ProposalCard.tsx';
import { SourceForm, type Wish } from './SourceForm.tsx';

const PAINTED = { heightPx: 190, most: 3 } as const;

/** Whole pieces out of a topic, an article, a document or subtitles: side by side, to keep, to change or to drop. */
export default function Propose({ context }: { readonly context: IdeasContext }) {
  const { brand, data } = context;
  const [wish, setWish] = useState<Wish | null>(null);
  const [items, setItems] = useState<readonly ProposalItem[]>([]);
  const [note, setNote] = useState('');
  const [title, setTitle] = useState('');
  const request = useRef(nanoid(16));
  const params = { brand: brand.slug };
  const onError = (error: Error): void => toast('problem', error.message);
  const show = (given: Wish, found: readonly ProposalItem[], said: string, named: string): void => {
    setWish(given);
    setItems(found);
    setNote(said);
    setTitle(named);
    request.current = nanoid(16);
  };
  const ask = useMutation({
    mutationFn: async (given: Wish) => {
      const body = { source: given.source, topic: given.topic, kinds: [...given.kinds], themeId: given.themeId };
      if (given.days === null) {
        const answer = await call(propose, { params, body: { ...body, count: given.count } });
        show(given, answer.proposals.map((proposal): ProposalItem => ({ id: nanoid(8), proposal, does: null, slot: null })), answer.note, answer.title);
      } else {
        const answer = await call(proposeSeries, { params, body: { ...body, days: given.days, channelIds: [...given.channelIds] } });
        show(given, answer.parts.map((part): ProposalItem => ({ id: nanoid(8), proposal: part.proposal, does: part.does, slot: part.slot })), answer.note, answer.title);
      }
    },
    onError,
  });
  const again = useMutation({
    mutationFn: async ({ item, variant }: { readonly item: ProposalItem; readonly variant: ProposalItem['proposal']['variant'] }) => {
      if (!wish) return null;
      const taken = items.filter(({ id }) => id !== item.id).flatMap(({ proposal }) => mediaOf(proposal));
      const { proposal } = await call(proposeAgain, { params, body: { source: wish.source, topic: wish.topic, kinds: [...wish.kinds], themeId: wish.themeId, key: item.proposal.key, variant, takenMedia: [...new Set(taken)] } });
      return { id: item.id, proposal };
    },
    onSuccess: (answer) => {
      if (!answer) return;
      const { id, proposal } = answer;
      if (!proposal) return toast('problem', 'Nothing else can be made of it that way without losing something.');
      setItems((now) => now.map((each) => (each.id === id ? { ...each, proposal } : each)));
      request.current = nanoid(16);
    },
    onError,
  });
  const keep = useMutation({
    mutationFn: (chosen: readonly ProposalItem[]) => {
      const isSeries = wish?.days !== null && chosen.length > 1;
      const mayPlan = roleMay(brand.role, 'send');
      return call(keepProposals, { params, body: { request: request.current, items: chosen.map(({ proposal, slot }) => ({ proposal, name: '', slotKey: mayPlan ? (slot?.key ?? null) : null })), channelIds: [...(wish?.channelIds ?? [])], ideaId: null, series: isSeries ? title.slice(0, 120) || 'A series' : null } });
    },
    onSuccess: ({ pieceIds, planned, notes }, chosen) => {
      for (const each of notes) toast('problem', each);
      const [first] = pieceIds;
      toast('done', `${pieceIds.length} ${pieceIds.length === 1 ? 'piece' : 'pieces'} made${planned > 0 ? `, ${planned} in the plan as drafts` : ''}`, first === undefined ? undefined : { label: pieceIds.length === 1 ? 'Open it' : 'Open the first', run: () => location.assign(`/b/${brand.slug}/make/pieces/${first}`) });
      setItems((now) => now.filter((each) => !chosen.includes(each)));
      request.current = nanoid(16);
    },
    onError,
  });
  const drafts = useMemo(() => items.map(({ id, proposal }): Draft => ({ key: id, template: proposal.template, frames: proposal.frames })), [items]);
  const { wall, cutsOf } = useDraftWall(data, drafts, PAINTED);
  return (
    <div className="grid min-h-0 flex-1 grid-cols-[20rem_minmax(0,1fr)] gap-6 max-lg:grid-cols-1 max-lg:overflow-auto">
      <div className="min-h-0 overflow-auto pb-5 max-lg:overflow-visible">
        <SourceForm context={context} isBusy={ask.isPending} onAsk={(given) => ask.mutate(given)} />
      </div>
      <section aria-label="Proposals" className="min-h-0 overflow-auto pb-5 max-lg:overflow-visible">
        {items.length > 0 && (
          <div className="mb-3 flex flex-wrap items-center gap-3">
            <h2 className="text-base font-semibold">
              {items.length} {items.length === 1 ? 'proposal' : 'proposals'}
              {title !== '' && <span className="font-normal text-quiet"> from “{title}”</span>}
            </h2>
            <Button look="primary" disabled={keep.isPending} onClick={() => keep.mutate(items)}>
              Keep {items.length === 1 ? 'it' : `all ${items.length}`}
            </Button>
          </div>
        )}
        {note !== '' && <p className="mb-3 rounded-md border border-marigold bg-marigold-soft px-3 py-2 text-sm">{note}</p>}
        {ask.isPending && <p className="text-sm text-quiet">Reading and proposing…</p>}
        {items.length === 0 && !ask.isPending && note === '' && <Empty />}
        <ul className="grid gap-3">
          {items.map((item) => (
            <li key={item.id}>
              <ProposalCard item={item} context={context} wall={wall} cuts={cutsOf(item.id)} isBusy={again.isPending || keep.isPending} onAgain={(variant) => again.mutate({ item, variant })} onKeep={() => keep.mutate([item])} onDrop={() => setItems((now) => now.filter(({ id }) => id !== item.id))} />
            </li>
          ))}
        </ul>
      </section>
    </div>
  );
}

function mediaOf({ frames }: ProposalItem['proposal']): readonly string[] {
  return frames.flatMap(({ slots }) => Object.values(slots).flatMap((value) => (value.kind === 'picture' ? [value.mediaId] : [])));
}

function Empty() {
  return (
    <div className="mx-auto max-w-lg py-14 text-center text-sm text-quiet">
      <p className="mb-1 text-base font-semibold text-ink">Whole pieces, out of what you have</p>
      <p>Paste an article, drop a document or subtitles, or give an address. A list becomes a carousel, a figure a number that matters, somebody’s words a quote. Nothing is made up: each text says which sentence it comes from.</p>
      <GuideLink view="ideas" className="mt-2" />
    </div>
  );
}
