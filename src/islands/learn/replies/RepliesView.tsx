import { useQuery } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState, type FormEvent, type KeyboardEvent } from 'react';
import { getFacets } from '../../../contract/results-contracts.ts';
import { roleMay, type Role } from '../../../core/access/access.ts';
import { ChannelFilter } from '../../plan/ChannelFilter.tsx';
import { Choice } from '../../plan/PlanBar.tsx';
import { call } from '../../ui/call.ts';
import { Button } from '../../ui/Button.tsx';
import { inputClasses } from '../../ui/Field.tsx';
import { UntilReady } from '../../ui/UntilReady.tsx';
import { Queries } from '../../ui/Queries.tsx';
import { toast } from '../../ui/toast.tsx';
import { useNow } from '../../ui/use-now.ts';
import { SettingsButton } from '../results/SettingsButton.tsx';
import { AnswerTimes } from './AnswerTimes.tsx';
import { ConversationPane } from './ConversationPane.tsx';
import { RepliesList } from './RepliesList.tsx';
import { kindNames, readRepliesQuery, stateChoices, writeRepliesQuery, type RepliesQuery } from './replies-query.ts';
import { useReplies, type Event } from './use-replies.ts';

interface RepliesProps {
  readonly brand: { readonly slug: string; readonly name: string; readonly zone: string; readonly role: Role };
  readonly person: { readonly id: string; readonly name: string };
  readonly nowMs: number;
}

const ages = [
  ['4', 'Older than 4 h'],
  ['24', 'Older than a day'],
  ['72', 'Older than 3 days'],
] as const;
const done: Readonly<Record<Event, string>> = { read: 'Marked as read', close: 'Closed', reopen: 'Opened again', 'set-apart': 'Set apart', 'bring-back': 'Brought back' };
/** What undoes an event, by the state it came from. */
const undone: Readonly<Partial<Record<Event, Event>>> = { close: 'reopen', 'set-apart': 'bring-back' };

export default function RepliesView(props: RepliesProps) {
  return (
    <Queries>
      <Replies {...props} />
    </Queries>
  );
}

/** What people wrote, on all channels: a list to work down, and the conversation beside it. */
function Replies({ brand, person, nowMs: serverNowMs }: RepliesProps) {
  const nowMs = useNow(serverNowMs);
  const [query, setQuery] = useState<RepliesQuery>({});
  useEffect(() => setQuery(readRepliesQuery(location.search)), []);
  const change = useCallback((next: Partial<RepliesQuery>): void => {
    setQuery((now) => {
      const changed = { ...now, ...next };
      history.replaceState(null, '', writeRepliesQuery(changed));
      return changed;
    });
  }, []);
  const replies = useReplies(brand.slug, query);
  const { items, move, assign, label, counts } = replies;
  const facets = useQuery({ queryKey: ['results-facets', brand.slug], staleTime: 60_000, queryFn: () => call(getFacets, { params: { brand: brand.slug } }) });
  const channels = facets.data?.channels ?? [];
  const sheets = new Map(channels.flatMap(({ network, networkName, badge }) => (badge ? [[network, { name: networkName, badge }] as const] : [])));
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const mayAnswer = roleMay(brand.role, 'answer');
  const at = items.findIndex(({ id }) => id === query.c);
  const answerBox = useRef<HTMLTextAreaElement>(null);
  // Whoever asks for the answer before the conversation is there gets it when it is.
  const wantsAnswer = useRef(false);
  const goToAnswer = (): void => {
    wantsAnswer.current = answerBox.current === null;
    answerBox.current?.focus();
  };
  const open = useCallback((id: string | undefined): void => change({ c: id }), [change]);

  // What is looked at is read; the first stands open by itself.
  const active = items[at];
  useEffect(() => {
    if (query.c === undefined && items[0]) open(items[0].id);
  }, [query.c, items, open]);
  const readId = active?.state === 'unread' ? active.id : null;
  const { mutate: markMoved } = move;
  useEffect(() => {
    if (readId === null || !mayAnswer) return undefined;
    const timer = setTimeout(() => markMoved({ ids: [readId], event: 'read' }), 900);
    return () => clearTimeout(timer);
  }, [readId, mayAnswer, markMoved]);

  const targets = (): readonly string[] => (chosen.size > 0 ? [...chosen] : query.c === undefined ? [] : [query.c]);
  const act = (event: Event, ids = targets()): void => {
    if (ids.length === 0 || !mayAnswer) return;
    // The next one stands open at once: a list is worked down.
    const next = items.slice(Math.max(0, at)).find(({ id }) => !ids.includes(id)) ?? items.findLast(({ id }) => !ids.includes(id));
    move.mutate(
      { ids, event },
      {
        onSuccess: ({ moved }) => {
          setChosen(new Set());
          if (event !== 'read' && ids.includes(query.c ?? '')) open(next?.id);
          const back = undone[event];
          if (moved.length > 0 && event !== 'read') toast('done', `${done[event]}: ${moved.length}`, back ? { label: 'Undo', run: () => move.mutate({ ids: moved.map(({ id }) => id), event: back }) } : undefined);
        },
      },
    );
  };
  const keys = (event: KeyboardEvent): void => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const step = (by: number): void => {
      const next = items[Math.min(items.length - 1, Math.max(0, at + by))];
      if (next) open(next.id);
    };
    const acts: Readonly<Record<string, () => void>> = {
      ArrowDown: () => step(1),
      ArrowUp: () => step(-1),
      Home: () => step(-items.length),
      End: () => step(items.length),
      ' ': () => query.c !== undefined && setChosen((now) => toggled(now, query.c ?? '')),
      Enter: goToAnswer,
      a: goToAnswer,
      c: () => act('close'),
      o: () => act('reopen'),
      s: () => act('set-apart'),
      b: () => act('bring-back'),
      m: () => mayAnswer && targets().length > 0 && assign.mutate({ ids: targets(), personId: person.id }),
    };
    const found = acts[event.key.length === 1 ? event.key.toLowerCase() : event.key];
    if (!found) return;
    event.preventDefault();
    found();
  };
  return (
    <main className="flex min-h-0 flex-1 flex-col px-6 pt-4 max-md:px-4">
      <div className="mb-3 flex flex-wrap items-center gap-x-3 gap-y-2">
        <h1 className="text-xl font-semibold">Replies</h1>
        <div role="group" aria-label="Status" className="flex gap-0.5 rounded-md bg-sunk p-0.5">
          {stateChoices.map(([key, name]) => {
            const count = counts === null ? null : key === 'to-do' ? counts.unread + counts.open : counts[key];
            const isOn = (query.state ?? 'to-do') === key;
            return (
              <button key={key} type="button" aria-pressed={isOn} onClick={() => change({ state: key === 'to-do' ? undefined : key, c: undefined })} className={`rounded-[5px] px-2.5 py-1 text-sm ${isOn ? 'bg-panel font-semibold' : 'text-quiet hover:text-ink'}`}>
                {name} {count !== null && key !== 'closed' && <span className="text-quiet tabular-nums">{count}</span>}
              </button>
            );
          })}
        </div>
        <UntilReady>
          <div role="search" aria-label="Replies" className="flex flex-wrap items-center gap-1.5">
            <ChannelFilter context={{ channels, sheets }} chosen={query.channels} onChoose={(next) => change({ channels: next, c: undefined })} />
            <Choice label="Kind" all="All kinds" value={query.kind} options={Object.entries(kindNames).map(([key, name]) => [key, `${name}s`] as const)} onChoose={(kind) => change({ kind, c: undefined })} />
            <Choice label="Assigned to" all="Anyone’s" value={query.assigned} options={[[person.id, 'Mine'], ['nobody', 'Nobody’s'], ...(facets.data?.people ?? []).filter(({ id }) => id !== person.id).map(({ id, name }) => [id, name] as const)]} onChoose={(assigned) => change({ assigned, c: undefined })} />
            {replies.labels.length > 0 && <Choice label="Label" all="All labels" value={query.label} options={replies.labels.map((each) => [each, each] as const)} onChoose={(next) => change({ label: next, c: undefined })} />}
            <Choice label="Age" all="Any age" value={query.older} options={ages} onChoose={(older) => change({ older, c: undefined })} />
            <SearchField value={query.words ?? ''} onChange={(words) => change({ words: words === '' ? undefined : words, c: undefined })} />
          </div>
        </UntilReady>
        <span className="ml-auto flex gap-2">
          <AnswerTimes brand={brand} channels={channels} />
          <SettingsButton brand={brand} />
        </span>
      </div>
      {chosen.size > 0 && mayAnswer && <ChosenBar count={chosen.size} people={facets.data?.people ?? []} onAct={act} onAssign={(personId) => assign.mutate({ ids: [...chosen], personId })} onLabel={(text) => label.mutate({ ids: [...chosen], label: text, on: true })} onClear={() => setChosen(new Set())} />}
      <div className="grid min-h-0 flex-1 grid-cols-[22rem_minmax(0,1fr)] gap-5 max-lg:grid-cols-[17rem_minmax(0,1fr)] max-md:block max-md:overflow-auto">
        <RepliesList replies={replies} activeId={query.c} chosen={chosen} channels={channels} people={facets.data?.people ?? []} nowMs={nowMs} zone={brand.zone} onOpen={open} onToggle={(id) => setChosen((now) => toggled(now, id))} onKeyDown={keys} state={query.state ?? 'to-do'} />
        {query.c !== undefined && <ConversationPane key={query.c} id={query.c} brand={brand} person={person} people={facets.data?.people ?? []} channels={channels} nowMs={nowMs} mayAnswer={mayAnswer} answerBox={answerBox} wantsAnswer={wantsAnswer} replies={replies} onAct={(event) => act(event, [query.c ?? ''])} onOpen={open} />}
      </div>
    </main>
  );
}

export function toggled(set: ReadonlySet<string>, id: string): ReadonlySet<string> {
  const next = new Set(set);
  if (!next.delete(id)) next.add(id);
  return next;
}

/** Words to look for; asked for when typing pauses. */
function SearchField({ value, onChange }: { readonly value: string; readonly onChange: (words: string) => void }) {
  const [typed, setTyped] = useState(value);
  useEffect(() => setTyped(value), [value]);
  useEffect(() => {
    if (typed === value) return undefined;
    const timer = setTimeout(() => onChange(typed), 250);
    return () => clearTimeout(timer);
  }, [typed, value, onChange]);
  return (
    <span className="w-36">
      <input type="search" aria-label="Search in replies" placeholder="Search" value={typed} onChange={(event) => setTyped(event.target.value)} className={`${inputClasses} h-8`} />
    </span>
  );
}

function ChosenBar({ count, people, onAct, onAssign, onLabel, onClear }: { readonly count: number; readonly people: readonly { readonly id: string; readonly name: string }[]; readonly onAct: (event: Event) => void; readonly onAssign: (personId: string | null) => void; readonly onLabel: (label: string) => void; readonly onClear: () => void }) {
  const [label, setLabel] = useState('');
  return (
    <div role="toolbar" aria-label="With the chosen ones" className="mb-2 flex flex-wrap items-center gap-2 rounded-md border border-house bg-house-soft px-3 py-1.5 text-sm">
      <span className="font-semibold tabular-nums">{count} chosen</span>
      <Button size="small" onClick={() => onAct('read')}>
        Mark as read
      </Button>
      <Button size="small" onClick={() => onAct('close')}>
        Close
      </Button>
      <Choice label="Assign to" all="Assign to…" value={undefined} options={[...people.map(({ id, name }) => [id, name] as const), ['nobody', 'Nobody']]} onChoose={(id) => id !== undefined && onAssign(id === 'nobody' ? null : id)} />
      <form
        className="flex gap-1"
        onSubmit={(event: FormEvent) => {
          event.preventDefault();
          if (label.trim() !== '') onLabel(label.trim());
          setLabel('');
        }}
      >
        <input aria-label="Label" placeholder="Label" maxLength={40} value={label} onChange={(event) => setLabel(event.target.value)} className="h-6 w-28 rounded-md border border-line bg-panel px-1.5 text-xs" />
      </form>
      <Button size="small" look="quiet" className="ml-auto" onClick={onClear}>
        Choose none
      </Button>
    </div>
  );
}
