import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { AnswerOf, BodyOf } from '../../../../contract/contract.ts';
import { askDesk, getWritingService, showWritingRequest } from '../../../../contract/word-contracts.ts';
import { deskAsks, type DeskAsk } from '../../../../core/words/desk-asks.ts';
import { countField } from '../../../../core/wording/compose.ts';
import { countGraphemes } from '../../../../core/words/count-characters.ts';
import { Button } from '../../../ui/Button.tsx';
import { call } from '../../../ui/call.ts';
import { inputClasses } from '../../../ui/Field.tsx';
import type { ViewProps } from '../../view-props.ts';
import type { SheetChannel, SheetColumn, SheetRow } from '../sheet/sheet-rows.ts';
import { keepVariant } from '../keep-variant.ts';
import { Marked } from './Marked.tsx';

interface DeskProps extends ViewProps {
  readonly row: SheetRow;
  readonly column: SheetColumn;
  readonly channel: SheetChannel | null;
  readonly cellText: string;
  readonly mayWrite: boolean;
  readonly onText: (text: string) => void;
}

type Version = AnswerOf<typeof askDesk>['versions'][number];

const askNames: Readonly<Record<DeskAsk, string>> = { draft: 'A new text', shorter: 'Shorter', longer: 'Longer', opening: 'Another opening', question: 'As a question', list: 'As a list', calmer: 'Calmer', brighter: 'Brighter', formal: 'More formal', plainer: 'Plainer' };
const articleKinds = [
  { key: 'none', name: 'No article' },
  { key: 'text', name: 'Pasted text' },
  { key: 'address', name: 'A web address' },
] as const;

/** The writing desk: drafts and rewrites from what the piece, the brand and an article say, each version with what it used. */
export default function DeskPanel({ brand, brandData, pieceId, row, column, cellText, mayWrite, store, onText }: DeskProps) {
  const [ask, setAsk] = useState<DeskAsk>('draft');
  const [topic, setTopic] = useState('');
  const [article, setArticle] = useState<BodyOf<typeof askDesk>['article']>({ kind: 'none', value: '' });
  const [words, setWords] = useState('');
  const [count, setCount] = useState(3);
  const [hashtags, setHashtags] = useState(false);
  const [emoji, setEmoji] = useState(false);
  const [turn, setTurn] = useState(0);
  const [asksService, setAsksService] = useState(false);
  const service = useQuery({ queryKey: ['writing-service', brand.slug], queryFn: () => call(getWritingService, { params: { brand: brand.slug } }), staleTime: 300_000 });
  const hasService = service.data?.service?.isOn ?? false;
  const bodyOf = (next: number): BodyOf<typeof askDesk> => ({
    ask,
    text: ask === 'draft' ? '' : cellText,
    channel: row.channel?.channel.id ?? null,
    topic,
    article,
    words: words === '' ? null : Math.max(5, Math.min(2_000, Number(words) || 5)),
    versions: count,
    hashtags,
    emoji,
    turn: next,
    service: hasService && asksService,
  });
  const asked = useMutation({ mutationFn: (next: number) => call(askDesk, { params: { brand: brand.slug, piece: pieceId }, body: bodyOf(next) }) });
  const request = useMutation({ mutationFn: () => call(showWritingRequest, { params: { brand: brand.slug, piece: pieceId }, body: bodyOf(turn) }) });
  const again = (): void => {
    setTurn(turn + 1);
    asked.mutate(turn + 1);
  };
  const needsText = ask !== 'draft' && cellText.trim() === '';
  if (!mayWrite) return <p className="rounded-md bg-sunk px-3 py-2 text-sm text-quiet">Choose a cell with a text, such as a caption: the desk writes into it.</p>;
  return (
    <section aria-label="Writing desk" className="space-y-2.5 text-sm">
      <div className="flex flex-wrap gap-1" role="group" aria-label="What the desk does">
        {deskAsks.map((key) => (
          <button key={key} type="button" aria-pressed={ask === key} onClick={() => setAsk(key)} className={`rounded-md border px-2 py-0.5 text-xs ${ask === key ? 'border-house bg-house-soft font-semibold text-house' : 'border-line hover:border-edge'}`}>
            {askNames[key]}
          </button>
        ))}
      </div>
      {(ask === 'draft' || ask === 'longer' || ask === 'opening' || ask === 'question') && (
        <label className="block">
          <span className="sr-only">Topic</span>
          <input value={topic} maxLength={300} placeholder="Topic in a few words (may stay empty)" onChange={(event) => setTopic(event.target.value)} className={inputClasses} />
        </label>
      )}
      {(ask === 'draft' || ask === 'longer') && (
        <div className="space-y-1">
          <label className="flex items-center gap-2 text-xs text-quiet">
            From
            <select value={article.kind} onChange={(event) => setArticle({ kind: articleKinds.find(({ key }) => key === event.target.value)?.key ?? 'none', value: '' })} className="h-7 rounded-md border border-line bg-panel px-2 text-ink">
              {articleKinds.map(({ key, name }) => (
                <option key={key} value={key}>
                  {name}
                </option>
              ))}
            </select>
          </label>
          {article.kind === 'text' && <textarea aria-label="Text of the article" rows={4} value={article.value} onChange={(event) => setArticle({ ...article, value: event.target.value })} className={inputClasses} />}
          {article.kind === 'address' && <input type="url" aria-label="Address of the article" placeholder={brandData.book.voice.link || 'https://'} value={article.value} onChange={(event) => setArticle({ ...article, value: event.target.value })} className={inputClasses} />}
        </div>
      )}
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1 text-xs">
        <label className="flex items-center gap-1">
          About
          <input type="number" min={5} max={2000} aria-label="About so many words" value={words} placeholder="–" onChange={(event) => setWords(event.target.value)} className="h-6 w-14 rounded-md border border-line bg-panel px-1" />
          words
        </label>
        <label className="flex items-center gap-1">
          <select aria-label="Versions" value={count} onChange={(event) => setCount(Number(event.target.value))} className="h-6 rounded-md border border-line bg-panel px-1">
            {[1, 2, 3, 4, 5].map((number) => (
              <option key={number}>{number}</option>
            ))}
          </select>
          {count === 1 ? 'version' : 'versions'}
        </label>
        <label className="flex items-center gap-1">
          <input type="checkbox" checked={hashtags} onChange={(event) => setHashtags(event.target.checked)} />
          Hashtags
        </label>
        <label className="flex items-center gap-1">
          <input type="checkbox" checked={emoji} disabled={brandData.book.voice.emoji === 'none'} onChange={(event) => setEmoji(event.target.checked)} />
          Emoji
        </label>
      </div>
      {hasService && (
        <div className="text-xs">
          <label className="flex items-center gap-1">
            <input type="checkbox" checked={asksService} onChange={(event) => setAsksService(event.target.checked)} />
            Ask the writing service at {new URL(service.data?.service?.address ?? 'https://x').host}
          </label>
          {asksService && (
            <button type="button" className="text-house underline" onClick={() => request.mutate()}>
              Show what is sent
            </button>
          )}
          {asksService && request.data && <pre className="mt-1 max-h-40 overflow-auto rounded-md bg-sunk p-2 whitespace-pre-wrap">{request.data.body}</pre>}
        </div>
      )}
      <div className="flex items-center gap-2">
        <Button look="primary" size="small" disabled={asked.isPending || needsText} onClick={() => asked.mutate(turn)}>
          {ask === 'draft' ? 'Draft' : 'Rewrite'}
        </Button>
        {asked.data && (
          <Button size="small" disabled={asked.isPending} onClick={again}>
            Another
          </Button>
        )}
        {asked.isPending && <span className="text-xs text-quiet">Writing…</span>}
        {needsText && <span className="text-xs text-quiet">This cell has no text yet.</span>}
      </div>
      {asked.error && <p className="text-xs text-coral-ink">{asked.error.message}</p>}
      {asked.data?.note && <p className="text-xs text-quiet">{asked.data.note}</p>}
      <ol aria-label="Versions" className="space-y-2">
        {asked.data?.versions.map((version) => (
          <VersionCard key={version.text} version={version} row={row} field={column.field} onTake={() => onText(version.text)} onKeep={column.field === 'caption' ? () => keepVariant(store, version.text) : null} />
        ))}
      </ol>
    </section>
  );
}

interface VersionProps {
  readonly version: Version;
  readonly row: SheetRow;
  readonly field: SheetColumn['field'];
  readonly onTake: () => void;
  /** Keeps it beside the text in use; null where no variants are kept. */
  readonly onKeep: (() => void) | null;
}

/** One version with its length, what it used and left out; what no source holds is marked, and asks for a second look. */
function VersionCard({ version, row, field, onTake, onKeep }: VersionProps) {
  const [isLooked, setLooked] = useState(false);
  const rule = row.channel?.sheet.words.fields.find(({ key }) => key === field);
  const count = rule && row.channel ? countField(version.text, rule, row.channel.sheet) : null;
  const isMarked = version.marked.length > 0;
  return (
    <li className="rounded-md border border-line px-2.5 py-2" data-version>
      <p className="break-words whitespace-pre-wrap">
        <Marked text={version.text} spans={version.marked.map(({ text }) => text)} />
      </p>
      <p className="mt-1 text-xs text-quiet">
        {count ? `${count.used}${count.max === null ? '' : ` of ${count.max}`}` : `${countGraphemes(version.text)} characters`}
        {count && count.over > 0 ? <span className="font-semibold text-coral-ink"> · {count.over} over</span> : null}
        {version.used.length > 0 ? ` · from ${version.used.join('; ')}` : ''}
      </p>
      {version.leftOut.length > 0 && (
        <details className="text-xs text-quiet">
          <summary>Left out</summary>
          <ul className="list-disc pl-4">
            {version.leftOut.map((text) => (
              <li key={text}>{text}</li>
            ))}
          </ul>
        </details>
      )}
      {isMarked && (
        <label className="mt-1 flex items-start gap-1.5 text-xs text-marigold-ink">
          <input type="checkbox" className="mt-0.5" checked={isLooked} onChange={(event) => setLooked(event.target.checked)} />
          <span>No source says {version.marked.map(({ text }) => `“${text}”`).join(', ')}. I have checked it.</span>
        </label>
      )}
      <div className="mt-1.5 flex gap-1.5">
        <Button size="small" disabled={isMarked && !isLooked} onClick={onTake}>
          Use
        </Button>
        {onKeep && (
          <Button size="small" look="quiet" disabled={isMarked && !isLooked} onClick={onKeep}>
            Keep as a variant
          </Button>
        )}
      </div>
    </li>
  );
}
