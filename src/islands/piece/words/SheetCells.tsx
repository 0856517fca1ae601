import { memo, type ReactNode } from 'react';
import { networkVoiceOf, type BrandBook } from '../../../core/brand/brand-book.ts';
import { diffWords } from '../../../core/words/word-diff.ts';
import { countField } from '../../../core/wording/compose.ts';
import type { SheetCell, SheetColumn, SheetRow } from './sheet/sheet-rows.ts';

/** Where a field goes out that a network has no field for. */
export function whereItGoes({ channel }: SheetRow, { field }: SheetColumn, book: BrandBook): string {
  const inComment = field === 'hashtags' && channel !== null && networkVoiceOf(book.voice, channel.sheet.key).hashtagsIn === 'firstComment' && channel.sheet.words.fields.some(({ key }) => key === 'firstComment');
  return inComment ? 'in the first comment' : 'in the text';
}

interface CellBoxProps {
  readonly row: SheetRow;
  readonly field: SheetColumn['field'];
  readonly rowIndex: number;
  readonly columnIndex: number;
  readonly shown: SheetCell;
  readonly shared: string;
  readonly where: string;
  /** What goes out in this field, which is what its network counts. */
  readonly counted: string;
  readonly isChosen: boolean;
  readonly isCursor: boolean;
  readonly editor: ReactNode;
}

/** A cell of the sheet. It renders again only when its own content changes. */
export const SheetCellBox = memo(function SheetCellBox({ row, field, rowIndex, columnIndex, shown, shared, where, counted, isChosen, isCursor, editor }: CellBoxProps) {
  return (
    <div
      id={`cell-${rowIndex}-${columnIndex}`}
      role="gridcell"
      aria-colindex={columnIndex + 2}
      aria-selected={isChosen}
      aria-readonly={shown.kind === 'none' || undefined}
      data-place={`${rowIndex}.${columnIndex}`}
      data-field={field}
      title={shown.kind === 'none' ? shown.reason : undefined}
      className={`relative min-w-0 border-r border-line last:border-r-0 ${cellLook(shown, isChosen, isCursor)}`}
    >
      {editor ? <div className="absolute inset-x-0 top-0 z-20 p-0.5">{editor}</div> : <CellText shown={shown} shared={shared} isShared={row.channel === null} where={where} />}
      {shown.kind === 'cell' && shown.field && !shown.field.within && shown.field.rule.max !== null && <CellCount text={counted} field={field} row={row} shown={shown} />}
    </div>
  );
}, isSameCell);

function isSameCell(a: CellBoxProps, b: CellBoxProps): boolean {
  const { shown: shownBefore, shared: sharedBefore, ...before } = a;
  const { shown, shared, ...now } = b;
  const isOwn = shown.kind === 'cell' && shown.cell.from === 'own';
  return (Object.keys(now) as (keyof typeof now)[]).every((key) => before[key] === now[key]) && isSameShown(shownBefore, shown) && (!isOwn || sharedBefore === shared);
}

function isSameShown(a: SheetCell, b: SheetCell): boolean {
  if (a.kind === 'none' || b.kind === 'none') return a.kind === 'none' && b.kind === 'none' && a.reason === b.reason;
  // `fieldsOfRow` makes a new rule object for these fields each time, with the same content.
  const isSameRule = a.field?.rule === b.field?.rule || (a.field?.within === true && b.field?.within === true);
  return isSameRule && a.cell.text === b.cell.text && a.cell.from === b.cell.from && a.field?.within === b.field?.within;
}

const STRIPES = 'bg-[repeating-linear-gradient(135deg,var(--c-sunk)_0_4px,transparent_4px_10px)]';

function cellLook(shown: SheetCell, isChosen: boolean, isCursor: boolean): string {
  const outline = isCursor ? 'z-[5] outline-2 -outline-offset-2 outline-house' : '';
  if (shown.kind === 'none') return `${STRIPES} ${outline}`;
  return `${isChosen ? 'bg-house-soft' : ''} ${outline}`;
}

/** What a cell says: ghosted where it is inherited, and with what differs from the shared text underlined where it is its own. */
function CellText({ shown, shared, isShared, where }: { readonly shown: SheetCell; readonly shared: string; readonly isShared: boolean; readonly where: string }) {
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
}

/** The length as the network counts it, where it is near the limit or over it, and always for captions. */
function CellCount({ text, field, row, shown }: { readonly text: string; readonly field: SheetColumn['field']; readonly row: SheetRow; readonly shown: SheetCell & { readonly kind: 'cell' } }) {
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
