import Plus from 'lucide-react/icons/plus';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { proposeHashtags, tagSorts } from '../../../contract/word-contracts.ts';
import { findHashtags } from '../../../core/words/count-characters.ts';
import { readHashtags } from '../../../core/words/read-hashtags.ts';
import { shortNumber } from '../../../core/words/short-number.ts';
import { tagInText } from '../../../core/words/tag-text.ts';
import { networkVoiceOf } from '../../../core/brand/brand-book.ts';
import { firstWords } from '../../../core/piece/piece.ts';
import { SHARED, writeCell } from '../../../core/wording/edit.ts';
import { cellOf, whyNot } from '../../../core/wording/row.ts';
import { Button } from '../../ui/Button.tsx';
import { call } from '../../ui/call.ts';
import { ChoiceRow } from '../../ui/ChoiceRow.tsx';
import type { ViewProps } from '../view-props.ts';
import { rowInputOf, type SheetChannel, type SheetColumn, type SheetRow } from './sheet/sheet-rows.ts';

interface TagsPanelProps extends ViewProps {
  readonly row: SheetRow;
  readonly column: SheetColumn;
  readonly channel: SheetChannel | null;
  readonly cellText: string;
  readonly onText: (text: string) => void;
}

const sortNames: Readonly<Record<(typeof tagSorts)[number], string>> = { both: 'Fit and reach', fit: 'Fit', reach: 'Reach' };
const DOTS = 5;
/** A proposal that fits this well has all dots. */
const BEST_FIT = 0.75;
const MAX_LISTED = 14;

/** Hashtags for the chosen row: the brand's sets, and proposals with how well they fit and how far they reach. */
export default function TagsPanel({ brand, brandData, piece, store, row, channel, readOnly }: TagsPanelProps) {
  const { book } = brandData;
  const [sort, setSort] = useState<(typeof tagSorts)[number]>('both');
  const [place, setPlace] = useState<string | null>(null);
  const captionOf = (): string => (row.channel ? cellOf(rowInputOf(row.channel, piece, book), 'caption').text : piece.words.shared.caption);
  const fieldText = row.channel ? cellOf(rowInputOf(row.channel, piece, book), 'hashtags').text : (piece.words.shared.hashtags ?? '');
  const reason = row.channel ? whyNot(rowInputOf(row.channel, piece, book), 'hashtags') : null;
  const present = [...new Set([...findHashtags(captionOf()), ...readHashtags(fieldText)])];
  const text = useDeferredValue(`${firstWords(piece)}\n${captionOf()}`);
  const presentKey = useDeferredValue(present.join(' '));
  const channelId = channel?.channel.id ?? null;
  const found = useQuery({
    queryKey: ['hashtags', brand.slug, channelId, text, presentKey, sort, place],
    queryFn: () => call(proposeHashtags, { params: { brand: brand.slug }, body: { text, present: presentKey === '' ? [] : presentKey.split(' '), channel: channelId, sort, place } }),
    placeholderData: keepPreviousData,
    staleTime: 60_000,
  });
  const add = (tags: readonly string[]): void => {
    const there = new Set(present.map((tag) => tag.toLowerCase()));
    const added = tags.filter((tag) => !there.has(tag.toLowerCase()));
    if (added.length === 0) return;
    store.change(`tags-${row.id}`, (draft) => writeCell(draft, { row: row.id, field: 'hashtags' }, [...readHashtags(fieldText), ...added].join(' ')));
  };
  const inText = (tag: string): void => {
    const text = tagInText(captionOf(), tag);
    if (text !== null) store.change(`tags-${row.id}`, (draft) => writeCell(draft, { row: row.id, field: 'caption' }, text));
  };
  const remove = (tag: string): void => store.change(`tags-${row.id}`, (draft) => writeCell(draft, { row: row.id, field: 'hashtags' }, readHashtags(fieldText).filter((each) => each !== tag).join(' ')));
  if (reason !== null) return <p className="rounded-md bg-sunk px-3 py-2 text-sm text-quiet">{reason}</p>;
  const sets = book.voice.hashtagSets.filter(({ networks }) => networks.length === 0 || (channel !== null && networks.includes(channel.sheet.key)));
  const inComment = channel !== null && row.id !== SHARED && networkVoiceOf(book.voice, channel.sheet.key).hashtagsIn === 'firstComment' && channel.sheet.words.fields.some(({ key }) => key === 'firstComment');
  const most = book.voice.maxHashtags;
  return (
    <section aria-label="Hashtags" className="space-y-3 text-sm">
      <div>
        <p className="mb-1 text-xs text-quiet">
          {present.length} here{most === null ? '' : ` of at most ${most}`}
          {inComment ? ' · they go into the first comment' : ''}
        </p>
        <ul className="flex flex-wrap gap-1">
          {readHashtags(fieldText).map((tag) => (
            <li key={tag}>
              <button type="button" disabled={readOnly} aria-label={`Remove ${tag}`} onClick={() => remove(tag)} className="rounded-md bg-house-soft px-1.5 py-0.5 text-xs text-house hover:line-through">
                {tag}
              </button>
            </li>
          ))}
        </ul>
      </div>
      {sets.length > 0 && (
        <div>
          <h3 className="mb-1 text-xs font-semibold">Sets</h3>
          <ul className="space-y-1">
            {sets.map((set) => (
              <li key={set.key} className="flex items-baseline gap-2">
                <Button size="small" disabled={readOnly} onClick={() => add(set.tags)}>
                  <Plus aria-hidden className="size-3" />
                  {set.name}
                </Button>
                <span className="min-w-0 truncate text-xs text-quiet" title={set.tags.join(' ')}>
                  {set.tags.join(' ')}
                </span>
              </li>
            ))}
          </ul>
        </div>
      )}
      <div>
        <div className="mb-1 flex flex-wrap items-center justify-between gap-1">
          <h3 className="text-xs font-semibold">For this text</h3>
          <ChoiceRow label="Sort hashtags by" items={tagSorts.map((key) => ({ key, name: sortNames[key] }))} chosen={sort} onChoose={(key) => setSort(tagSorts.find((each) => each === key) ?? 'both')} />
        </div>
        {(found.data?.places.length ?? 0) > 0 && (
          <label className="mb-1 flex items-center gap-1.5 text-xs text-quiet">
            Rising in
            <select value={place ?? ''} onChange={(event) => setPlace(event.target.value || null)} className="h-6 rounded-md border border-line bg-panel px-1">
              <option value="">nowhere in particular</option>
              {found.data?.places.map((each) => (
                <option key={each} value={each}>
                  {each}
                </option>
              ))}
            </select>
          </label>
        )}
        {found.error && <p className="text-xs text-coral-ink">{found.error.message}</p>}
        <ul aria-label="Proposed hashtags" className="border-t border-line">
          {found.data?.tags.slice(0, MAX_LISTED).map(({ tag, fit, reach, posts, origin }) => (
            <li key={tag} className="flex items-center gap-2 border-b border-line py-1">
              <button type="button" disabled={readOnly} onClick={() => add([tag])} className="min-w-0 flex-1 truncate text-left hover:text-house">
                <span aria-hidden>+ </span>
                {tag}
                {origin === 'trend' && <span className="ml-1 text-xs text-quiet">rising</span>}
              </button>
              {!readOnly && tagInText(captionOf(), tag) !== null && (
                <button type="button" onClick={() => inText(tag)} title={`Turn these words of the caption into ${tag}`} className="shrink-0 text-xs text-house underline">
                  in the text
                </button>
              )}
              <span className="w-16 shrink-0 text-right text-xs text-quiet tabular-nums" title={posts > 0 ? `In ${posts} of your pieces` : undefined}>
                {reach === null ? (posts > 0 ? `${posts} used` : '') : shortNumber(reach)}
              </span>
              <Dots fit={fit} />
            </li>
          ))}
        </ul>
        {found.data && found.data.tags.length === 0 && <p className="py-1 text-xs text-quiet">Write a caption first: hashtags are proposed from its words.</p>}
        {found.data && (found.data.leftOut.length > 0 || found.data.note !== '') && (
          <p className="mt-1 text-xs text-quiet">
            {found.data.leftOut.length > 0 ? `Left out: ${found.data.leftOut.join(' ')} (the brand avoids them). ` : ''}
            {found.data.note}
          </p>
        )}
      </div>
    </section>
  );
}

/** How well a hashtag fits, as dots with a word for those who cannot see them. */
function Dots({ fit }: { readonly fit: number }) {
  const full = Math.max(0, Math.min(DOTS, Math.round((fit / BEST_FIT) * DOTS)));
  return (
    <span className="shrink-0 text-[10px] tracking-widest text-house" role="img" aria-label={`fits ${full} of ${DOTS}`}>
      {'●'.repeat(full)}
      {'○'.repeat(DOTS - full)}
    </span>
  );
}
