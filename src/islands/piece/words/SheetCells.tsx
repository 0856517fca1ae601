import { memo } from 'react';
import { networkVoiceOf, type BrandBook } from '../../../core/brand/brand-book.ts';
import { diffWords } from '../../../core/words/word-diff.ts';
import { countField } from '../../../core/wording/compose.ts';
import type { SheetCell, SheetColumn, SheetRow } from './sheet/sheet-rows.ts';

/** Where a field goes out that a network has no field for. */
export function whereItGoes({ channel }: SheetRow, { field }: SheetColumn, book: BrandBook): string {
  const inComment = field === 'hashtags' && channel !== null && networkVoiceOf(book.voice, channel.sheet.key).hashtagsIn === 'firstComment' && channel.sheet.words.fields.some(({ key }) => key === 'firstComment');
  return inComment ? 'in the first comment' : 'in the text';
}

/** What a cell says: ghosted where it is inherited, and with what differs from the shared text underlined where it is its own. */
export const CellText = memo(function CellText({ shown, shared, isShared, where }: { readonly shown: SheetCell; readonly shared: string; readonly isShared: boolean; readonly where: string }) {
  if (shown.kind === 'none') return <span className="sr-only">Not available: {shown.reason}</span>;
  const { text, from } = shown.cell;
  const clamp = 'mx-2.5 my-1.5 line-clamp-3 text-xs break-words whitespace-pre-wrap';
  if (isShared) return <p className={clamp}>{text}</p>;
  if (from !== 'own') {
    return (
      <p className={`${clamp} text-quiet italic`}>
        <span className="sr-only">Inherited: </span>
        {shown.field?.within && text !== '' ? <span className="not-italic">{where}: </span> : null}
        {text}
      </p>
    );
  }
  return (
    <p className={clamp}>
      {text === '' && <span className="text-quiet">(empty here)</span>}
      {diffWords(shared, text).filter(({ kind }) => kind !== 'removed').map((part, index) => (part.kind === 'added' && shared !== '' ? <ins key={index} className="no-underline [box-shadow:inset_0_-2px_0_var(--c-sky)]">{part.text}</ins> : <span key={index}>{part.text}</span>))}
    </p>
  );
});

/** The length as the network counts it, where it is near the limit or over it, and always for captions. */
export function CellCount({ text, field, row, shown }: { readonly text: string; readonly field: SheetColumn['field']; readonly row: SheetRow; readonly shown: SheetCell & { readonly kind: 'cell' } }) {
  if (!row.channel || !shown.field) return null;
  const count = countField(text, shown.field.rule, row.channel.sheet);
  const isNear = count.max !== null && count.used > count.max * 0.8;
  if (field !== 'caption' && !isNear) return null;
  return (
    <span data-count={field} className={`absolute right-1.5 bottom-0.5 rounded bg-panel/90 px-1 text-[11px] tabular-nums ${count.over > 0 ? 'font-semibold text-coral-ink' : 'text-quiet'}`}>
      {count.over > 0 ? `${count.over} over: ` : ''}
      {count.used} / {count.max}
    </span>
  );
}
