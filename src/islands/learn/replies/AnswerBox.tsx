import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useEffect, useRef, useState, type RefObject } from 'react';
import { Button as AriaButton, Dialog, DialogTrigger, Popover } from 'react-aria-components';
import { answerConversation, keepSavedAnswer, listSavedAnswers, noteOnConversation, proposeAnswers, writeOnConversation, type getConversation } from '../../../contract/reply-contracts.ts';
import { getBrand } from '../../../contract/brand-contracts.ts';
import type { AnswerOf } from '../../../contract/contract.ts';
import { fillFacts } from '../../../core/brand/facts.ts';
import { countCharacters } from '../../../core/words/count-characters.ts';
import { ApiProblem, call } from '../../ui/call.ts';
import { Button, buttonClasses } from '../../ui/Button.tsx';
import { inputClasses } from '../../ui/Field.tsx';
import { toast } from '../../ui/toast.tsx';
import { focusConversations } from './focus-conversations.ts';

interface BoxProps {
  readonly data: AnswerOf<typeof getConversation>;
  readonly brand: { readonly slug: string };
  readonly box: RefObject<HTMLTextAreaElement | null>;
  /** It was asked for before it was there. */
  readonly wanted: RefObject<boolean>;
  readonly draft: string;
  readonly onDraft: (text: string) => void;
  readonly onSent: (closed: boolean) => void;
}

/** While a person writes, colleagues are told this often. */
const TELL_EVERY_MS = 4_000;

/** The answer within the network's limits, or a note among colleagues. */
export function AnswerBox({ data, brand, box, wanted, draft, onDraft, onSent }: BoxProps) {
  const client = useQueryClient();
  const { talk, linkAs, utterances, conversation, writing } = data;
  const [isNote, setNote] = useState(talk === null);
  const [clash, setClash] = useState<string | null>(null);
  // One key an answer: a second press, or a request that is sent again, answers once.
  const key = useRef(nanoid(16));
  const told = useRef(0);
  const params = { brand: brand.slug, conversation: conversation.id };
  const refresh = async (): Promise<void> => {
    await Promise.all([client.invalidateQueries({ queryKey: ['conversation', brand.slug] }), client.invalidateQueries({ queryKey: ['replies', brand.slug] })]);
  };
  const send = useMutation({
    mutationFn: ({ close, again }: { readonly close: boolean; readonly again: boolean }) => call(answerConversation, { params, body: { text: draft.trim(), key: key.current, seen: utterances.at(-1)?.id ?? null, close, again } }),
    onSuccess: async (_, { close }) => {
      key.current = nanoid(16);
      onDraft('');
      setClash(null);
      toast('done', close ? 'Answered and closed' : 'Answered');
      await refresh();
      onSent(close);
    },
    onError: (error) => {
      if (error instanceof ApiProblem && error.code === 'answered-meanwhile') setClash(error.message);
      else toast('problem', error.message);
    },
  });
  const note = useMutation({
    mutationFn: () => call(noteOnConversation, { params, body: { text: draft.trim() } }),
    onSuccess: async () => {
      onDraft('');
      await refresh();
    },
    onError: (error) => toast('problem', error.message),
  });
  // Another answer is another key; the same text, sent again after a lost answer, is not.
  useEffect(() => {
    key.current = nanoid(16);
  }, [draft]);
  useEffect(() => {
    if (!wanted.current) return;
    wanted.current = false;
    box.current?.focus();
  }, [box, wanted]);
  const [turn, setTurn] = useState<number | null>(null);
  const propose = useMutation({
    mutationFn: (next: number) => call(proposeAnswers, { params, query: { turn: next } }),
    onSuccess: (_, next) => setTurn(next),
    onError: (error) => toast('problem', error.message),
  });
  const tell = (): void => {
    const now = Date.now();
    if (isNote || now - told.current < TELL_EVERY_MS) return;
    told.current = now;
    void call(writeOnConversation, { params, body: {} }).catch(() => undefined);
  };
  const left = talk === null ? 0 : talk.maxAnswer - countCharacters(draft, talk.counting === 'weighted' ? { kind: 'weighted', linkAs: linkAs ?? 1 } : { kind: talk.counting });
  const isBusy = send.isPending || note.isPending;
  const cannot = draft.trim() === '' || isBusy || (!isNote && left < 0);
  return (
    <div className="border-t border-line px-4 py-3">
      {writing.length > 0 && (
        <p role="status" className="mb-1.5 text-sm font-semibold text-marigold-ink">
          ▲ {writing.join(' and ')} {writing.length === 1 ? 'is' : 'are'} writing an answer now.
        </p>
      )}
      {clash !== null && (
        <div role="alert" className="mb-2 rounded-md border border-marigold bg-marigold-soft px-3 py-2 text-sm">
          <p>{clash}</p>
          <p className="mt-1.5 flex gap-2">
            <Button size="small" onClick={() => setClash(null)}>
              Keep it as a draft
            </Button>
            <Button size="small" onClick={() => send.mutate({ close: false, again: true })}>
              Send mine as well
            </Button>
          </p>
        </div>
      )}
      <div className="mb-1.5 flex items-center gap-1">
        {([false, true] as const).map((note_) => (
          <button key={String(note_)} type="button" disabled={!note_ && talk === null} aria-pressed={isNote === note_} onClick={() => setNote(note_)} className={`rounded-md px-2 py-0.5 text-sm disabled:opacity-50 ${isNote === note_ ? 'bg-sunk font-semibold' : 'text-quiet hover:text-ink'}`}>
            {note_ ? 'Note' : 'Answer'}
          </button>
        ))}
        {!isNote && (
          <span className="ml-auto flex flex-wrap justify-end gap-1.5">
            <Button size="small" disabled={propose.isPending} onClick={() => propose.mutate((turn ?? -1) + 1)}>
              {turn === null ? 'Propose' : 'Other proposals'}
            </Button>
            <SavedAnswers brand={brand.slug} draft={draft} onTake={(text) => onDraft(draft.trim() === '' ? text : `${draft.trimEnd()} ${text}`)} />
          </span>
        )}
      </div>
      {!isNote && turn !== null && propose.data && (
        <ul aria-label="Proposals of the writing desk" className="mb-2 grid gap-1">
          {propose.data.answers.map(({ text, used }) => (
            <li key={text}>
              <button type="button" onClick={() => onDraft(text)} className="w-full rounded-md border border-line px-2.5 py-1.5 text-left text-sm hover:border-edge hover:bg-sunk">
                {text} <span className="text-xs text-quiet">from {used}</span>
              </button>
            </li>
          ))}
          {propose.data.answers.length === 0 && <li className="text-sm text-quiet">The writing desk does not know the language of this message.</li>}
        </ul>
      )}
      <textarea
        ref={box}
        aria-label={isNote ? 'Note among colleagues' : `Answer to ${conversation.author.name}`}
        placeholder={isNote ? 'Only colleagues see this' : 'Write an answer'}
        rows={3}
        value={draft}
        onChange={(event) => {
          onDraft(event.target.value);
          tell();
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && (event.ctrlKey || event.metaKey) && !cannot) {
            event.preventDefault();
            if (isNote) note.mutate();
            else send.mutate({ close: true, again: false });
          }
          // Back to the list, which has its own keys.
          if (event.key === 'Escape') focusConversations();
        }}
        className={`${inputClasses} h-auto w-full py-2 ${isNote ? 'border-dashed' : ''}`}
      />
      <div className="mt-2 flex items-center justify-end gap-2">
        {!isNote && (
          <span className={`mr-auto text-xs tabular-nums ${left < 0 ? 'font-semibold text-coral-ink' : 'text-quiet'}`} role="status">
            {left < 0 ? `${-left} over` : `${left} left`}
          </span>
        )}
        {isNote ? (
          <Button look="primary" disabled={cannot} onClick={() => note.mutate()}>
            Add the note
          </Button>
        ) : (
          <>
            <Button disabled={cannot} onClick={() => send.mutate({ close: false, again: false })}>
              Answer
            </Button>
            <Button look="primary" disabled={cannot} onClick={() => send.mutate({ close: true, again: false })}>
              Answer and close
            </Button>
          </>
        )}
      </div>
    </div>
  );
}

/** Answers that come again, with the brand's facts filled in; found by typing. */
function SavedAnswers({ brand, draft, onTake }: { readonly brand: string; readonly draft: string; readonly onTake: (text: string) => void }) {
  const client = useQueryClient();
  const [search, setSearch] = useState('');
  const saved = useQuery({ queryKey: ['saved-answers', brand], queryFn: () => call(listSavedAnswers, { params: { brand } }) });
  const book = useQuery({ queryKey: ['brand', brand], queryFn: () => call(getBrand, { params: { brand } }) });
  const keep = useMutation({
    mutationFn: (name: string) => call(keepSavedAnswer, { params: { brand }, body: { id: nanoid(12), name, text: draft.trim() } }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['saved-answers', brand] }),
    onError: (error) => toast('problem', error.message),
  });
  const words = search.toLowerCase().trim();
  const found = (saved.data?.answers ?? []).filter(({ name, text }) => `${name} ${text}`.toLowerCase().includes(words));
  return (
    <DialogTrigger>
      <AriaButton className={buttonClasses('plain', 'small')}>Saved answers</AriaButton>
      <Popover placement="top end" className="shadow-float rounded-md border border-line bg-panel p-3">
        <Dialog aria-label="Saved answers" className="w-80 outline-none">
          {({ close }) => (
            <>
              <input type="search" aria-label="Search saved answers" placeholder="Search, or name what you wrote to save it" value={search} onChange={(event) => setSearch(event.target.value)} className={`${inputClasses} mb-2`} />
              <ul className="max-h-64 overflow-auto">
                {found.map(({ id, name, text }) => {
                  const filled = fillFacts(text, book.data?.book.facts ?? []).text;
                  return (
                    <li key={id}>
                      <button
                        type="button"
                        onClick={() => {
                          onTake(filled);
                          close();
                        }}
                        className="w-full rounded-md px-2 py-1 text-left text-sm hover:bg-sunk"
                      >
                        <span className="font-semibold">{name}</span>
                        <span className="line-clamp-2 text-quiet">{filled}</span>
                      </button>
                    </li>
                  );
                })}
              </ul>
              {found.length === 0 && <p className="px-2 py-1 text-sm text-quiet">None with these words.</p>}
              {draft.trim() !== '' && words !== '' && (
                <Button size="small" disabled={keep.isPending} onClick={() => keep.mutate(search.trim())}>
                  Save what I wrote as “{search.trim()}”
                </Button>
              )}
            </>
          )}
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}
