import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState, type RefObject } from 'react';
import { getConversation, moderate, retryAnswer } from '../../../contract/reply-contracts.ts';
import type { AnswerOf } from '../../../contract/contract.ts';
import type { Role } from '../../../core/access/access.ts';
import { formatMoment } from '../../../core/time/wall-time.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { Choice } from '../../plan/PlanBar.tsx';
import { addressOf, call } from '../../ui/call.ts';
import { Button } from '../../ui/Button.tsx';
import { ConfirmButton } from '../../ui/ConfirmButton.tsx';
import { PictureWithFallback } from '../../ui/PictureWithFallback.tsx';
import { getDeliveryPicture } from '../../../contract/send-contracts.ts';
import { toast } from '../../ui/toast.tsx';
import { countOf } from '../figure-words.ts';
import type { Facets } from '../results/results-context.ts';
import { AnswerBox } from './AnswerBox.tsx';
import { MakeOfIt } from './MakeOfIt.tsx';
import { focusConversations } from './focus-conversations.ts';
import { kindNames } from './replies-query.ts';
import type { Event, Replies } from './use-replies.ts';

interface PaneProps {
  readonly id: string;
  readonly brand: { readonly slug: string; readonly zone: string; readonly role: Role };
  readonly person: { readonly id: string; readonly name: string };
  readonly people: Facets['people'];
  readonly channels: Facets['channels'];
  readonly nowMs: number;
  readonly mayAnswer: boolean;
  readonly answerBox: RefObject<HTMLTextAreaElement | null>;
  readonly wantsAnswer: RefObject<boolean>;
  readonly replies: Replies;
  readonly onAct: (event: Event) => void;
  readonly onOpen: (id: string) => void;
}

type Answer = AnswerOf<typeof getConversation>;
type Utterance = Answer['utterances'][number];

/** One conversation: who it is, what was said, the post it belongs to, and the answer. */
export function ConversationPane(props: PaneProps) {
  const { id, brand, mayAnswer, channels, people, replies, onAct, onOpen } = props;
  const conversation = useQuery({ queryKey: ['conversation', brand.slug, id], queryFn: () => call(getConversation, { params: { brand: brand.slug, conversation: id } }) });
  const [draft, setDraft] = useState('');
  const { data } = conversation;
  if (conversation.isError) return <p className="text-sm text-coral-ink">{conversation.error.message}</p>;
  if (!data) return <p className="text-sm text-quiet">Loading…</p>;
  const { author, state, kind, channelId, assignedTo } = data.conversation;
  const channel = channels.find((each) => each.id === channelId);
  // The box goes with the answered conversation: the keyboard goes on in the list.
  const goOn = (): void => {
    onAct('close');
    focusConversations();
  };
  return (
    <section aria-label={`Conversation with ${author.name}`} className="grid min-h-0 grid-cols-[minmax(0,1fr)_14rem] gap-5 max-xl:grid-cols-1 max-xl:overflow-auto">
      <div className="flex min-h-0 flex-col rounded-md border border-line bg-panel max-xl:min-h-96">
        <div className="flex flex-wrap items-center gap-2 border-b border-line px-4 py-2.5">
          <div className="mr-auto min-w-0">
            <h2 className="truncate text-base font-semibold">{author.name}</h2>
            <p className="flex items-center gap-1.5 text-xs text-quiet">
              {channel?.badge && <ChannelBadge badge={channel.badge} size={13} />}
              {kindNames[kind]} on {channel?.networkName} · {author.handle}
            </p>
          </div>
          {mayAnswer && (
            <>
              <Choice label="Assigned to" all="Nobody’s" value={assignedTo ?? undefined} options={people.map((each) => [each.id, each.name] as const)} onChoose={(personId) => replies.assign.mutate({ ids: [id], personId: personId ?? null })} />
              {state === 'closed' && <Button onClick={() => onAct('reopen')}>Open again</Button>}
              {state === 'apart' && <Button onClick={() => onAct('bring-back')}>Bring back</Button>}
              {(state === 'unread' || state === 'open') && <Button onClick={() => onAct('set-apart')}>Set apart</Button>}
              {state !== 'closed' && <Button onClick={() => onAct('close')}>Close</Button>}
            </>
          )}
        </div>
        <ol aria-label="What was said" className="min-h-0 flex-1 overflow-auto px-4 py-3">
          {data.utterances.map((utterance) => (
            <Said key={utterance.id} utterance={utterance} data={data} brand={brand} mayAnswer={mayAnswer} />
          ))}
        </ol>
        {mayAnswer && state !== 'apart' && <AnswerBox data={data} brand={brand} box={props.answerBox} wanted={props.wantsAnswer} draft={draft} onDraft={setDraft} onSent={(closed) => closed && goOn()} />}
      </div>
      <Beside data={data} brand={brand} onOpen={onOpen}>
        {mayAnswer && <MakeOfIt data={data} brand={brand} onAsk={(text) => setDraft(text)} />}
      </Beside>
    </section>
  );
}

function Said({ utterance, data, brand, mayAnswer }: { readonly utterance: Utterance; readonly data: Answer; readonly brand: PaneProps['brand']; readonly mayAnswer: boolean }) {
  const client = useQueryClient();
  const { id, kind, author, text, atMs, state, problem, fate } = utterance;
  const params = { brand: brand.slug, conversation: data.conversation.id };
  const refresh = (): Promise<void> => client.invalidateQueries({ queryKey: ['conversation', brand.slug] });
  const onError = (error: Error): void => toast('problem', error.message);
  const change = useMutation({ mutationFn: (next: 'hidden' | 'removed' | null) => call(moderate, { params: { ...params, utterance: id }, body: { fate: next } }), onSuccess: refresh, onError });
  const retry = useMutation({ mutationFn: () => call(retryAnswer, { params: { ...params, answer: id }, body: {} }), onSuccess: refresh, onError });
  const mayModerate = mayAnswer && kind === 'in' && data.conversation.kind === 'comment' && data.talk !== null && fate !== 'removed';
  return (
    <li className={`mb-2.5 rounded-md border px-3 py-2 text-sm ${kind === 'in' ? 'mr-10 border-line bg-wall' : kind === 'out' ? 'ml-10 border-house-soft bg-house-soft' : 'border-dashed border-edge bg-panel'}`}>
      <p className="mb-0.5 flex flex-wrap items-baseline gap-x-2 text-xs text-quiet">
        <span className="font-semibold text-ink">{author}</span>
        {kind === 'note' && <span>note among colleagues</span>}
        <time suppressHydrationWarning>{formatMoment(atMs, brand.zone).replace(/ \d{4}, /, ', ').replace(/ [^ ]+$/, '')}</time>
        {state === 'waiting' && <span>sending…</span>}
        {kind === 'out' && state === 'sent' && <span className="text-mint-ink">sent</span>}
        {fate === 'hidden' && <span className="text-marigold-ink">hidden there</span>}
        {fate === 'removed' && <span className="text-coral-ink">removed there</span>}
      </p>
      <p dir="auto" className={`whitespace-pre-wrap [overflow-wrap:anywhere] ${fate === null ? '' : 'text-quiet'}`}>
        {text}
      </p>
      {state === 'failed' && (
        <p className="mt-1 flex flex-wrap items-center gap-2 text-coral-ink">
          Not sent: {problem}
          <Button size="small" disabled={retry.isPending} onClick={() => retry.mutate()}>
            Retry
          </Button>
        </p>
      )}
      {mayModerate && data.talk && (data.talk.hide || data.talk.remove) && (
        <p className="mt-1 flex gap-1">
          {data.talk.hide && (
            <Button size="small" look="quiet" disabled={change.isPending} onClick={() => change.mutate(fate === 'hidden' ? null : 'hidden')}>
              {fate === 'hidden' ? 'Show there again' : 'Hide there'}
            </Button>
          )}
          {data.talk.remove && (
            <ConfirmButton label="Remove there" title="Remove the comment" size="small" keepLabel="Keep" confirmLabel="Remove" confirmLook="stop" onConfirm={() => change.mutate('removed')}>
              Remove this comment from its network? That cannot be undone there; it stays in this list.
            </ConfirmButton>
          )}
        </p>
      )}
    </li>
  );
}

/** The post, who it is, and what passed before. */
function Beside({ data, brand, onOpen, children }: { readonly data: Answer; readonly brand: PaneProps['brand']; readonly onOpen: (id: string) => void; readonly children: React.ReactNode }) {
  const { conversation, post, others } = data;
  return (
    <aside aria-label="About it" className="min-h-0 overflow-auto text-sm">
      {post && (
        <div className="mb-4">
          <h3 className="mb-1 text-xs font-semibold text-quiet">Below the post</h3>
          <a href={`/b/${brand.slug}/learn/results?show=posts&span=365&post=${post.id}`} className="group block">
            <PictureWithFallback src={post.deliveryId === null ? null : addressOf(getDeliveryPicture, { brand: brand.slug, delivery: post.deliveryId })} alt="" className="mb-1 h-32 w-full rounded-md border border-line object-contain max-xl:w-40" />
            <span className="font-semibold group-hover:underline">{post.title}</span>
            <span className="block text-xs text-quiet" suppressHydrationWarning>
              {formatMoment(post.publishedMs, brand.zone)}
            </span>
          </a>
        </div>
      )}
      <h3 className="mb-1 text-xs font-semibold text-quiet">Who it is</h3>
      <p>
        {conversation.author.name} <span className="text-quiet">{conversation.author.handle}</span>
      </p>
      <p className="mb-3 text-xs text-quiet">{countOf(conversation.author.followers)} followers there</p>
      {children}
      <h3 className="mt-4 mb-1 text-xs font-semibold text-quiet">Before</h3>
      {others.length === 0 ? (
        <p className="text-quiet">Writes for the first time.</p>
      ) : (
        <ul>
          {others.map((other) => (
            <li key={other.id}>
              <button type="button" onClick={() => onOpen(other.id)} className="line-clamp-2 w-full py-1 text-left text-quiet hover:text-ink hover:underline">
                {other.snippet}
              </button>
            </li>
          ))}
        </ul>
      )}
    </aside>
  );
}
