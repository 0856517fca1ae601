import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { addIdea } from '../../../contract/idea-contracts.ts';
import { labelConversations, type getConversation } from '../../../contract/reply-contracts.ts';
import { changePiece, createPiece } from '../../../contract/piece-contracts.ts';
import type { AnswerOf } from '../../../contract/contract.ts';
import { call } from '../../ui/call.ts';
import { Button, buttonClasses } from '../../ui/Button.tsx';
import { toast } from '../../ui/toast.tsx';

/** The template for somebody's words. */
const QUOTE_TEMPLATE = 'aside';
const ASKED = 'asked to quote';

/** What somebody wrote can become a fact, or a piece with their name; for that they are asked first. */
export function MakeOfIt({ data, brand, onAsk }: { readonly data: AnswerOf<typeof getConversation>; readonly brand: { readonly slug: string }; readonly onAsk: (text: string) => void }) {
  const { conversation, utterances } = data;
  const words = utterances.find(({ kind }) => kind === 'in')?.text ?? '';
  const isAsked = conversation.labels.includes(ASKED);
  const params = { brand: brand.slug };
  const ask = useMutation({
    mutationFn: () => call(labelConversations, { params, body: { ids: [conversation.id], label: ASKED, on: true } }),
    onSuccess: () => onAsk('May we show what you wrote, with your name, on our page?'),
    onError: (error) => toast('problem', error.message),
  });
  const make = useMutation({
    mutationFn: async () => {
      const piece = await call(createPiece, { params, body: { template: QUOTE_TEMPLATE, media: [] } });
      const text = (value: string) => ({ kind: 'text' as const, text: value });
      await call(changePiece, { params: { ...params, piece: piece.id }, body: { revision: piece.revision, patches: [{ op: 'add', path: '/frames/0/slots/headline', value: text(words) }, { op: 'add', path: '/frames/0/slots/line', value: text(conversation.author.name) }] } });
      return piece.id;
    },
    onSuccess: (id) => location.assign(`/b/${brand.slug}/make/pieces/${id}`),
    onError: (error) => toast('problem', error.message),
  });
  // One key a conversation: a second press puts one idea on the shelf.
  const [ideaKey] = useState(() => nanoid(16));
  const idea = useMutation({
    mutationFn: () => call(addIdea, { params, body: { request: ideaKey, title: words.slice(0, 120), text: words, link: '', mediaId: null, day: null, themeId: null, conversationId: conversation.id } }),
    onSuccess: () => toast('done', 'On the shelf', { label: 'Open the shelf', run: () => location.assign(`/b/${brand.slug}/make/ideas?kind=reply`) }),
    onError: (error) => toast('problem', error.message),
  });
  if (words === '') return null;
  const isShort = words.length <= 280;
  return (
    <div>
      <h3 className="mb-1 text-xs font-semibold text-quiet">Make of it</h3>
      <Button size="small" className="mb-1.5" disabled={idea.isPending} onClick={() => idea.mutate()}>
        Keep as an idea
      </Button>{' '}
      <a href={`/b/${brand.slug}/brand/facts?add=${encodeURIComponent(words.slice(0, 300))}`} className={`${buttonClasses('plain', 'small')} mb-1.5`}>
        Add as a fact
      </a>
      {isShort && isAsked && (
        <>
          <p className="mb-1 text-xs text-quiet">You have asked whether you may show it. Make the piece once they agree.</p>
          <Button size="small" disabled={make.isPending} onClick={() => make.mutate()}>
            Make a quote piece
          </Button>
        </>
      )}
      {isShort && !isAsked && (
        <Button size="small" disabled={ask.isPending} onClick={() => ask.mutate()}>
          Ask to quote it
        </Button>
      )}
    </div>
  );
}
