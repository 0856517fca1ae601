import { useVirtualizer } from '@tanstack/react-virtual';
import { memo, useEffect, useRef, useState, type ClipboardEvent, type KeyboardEvent, type PointerEvent } from 'react';
import type { BrandBook } from '../../../core/brand/brand-book.ts';
import type { Piece } from '../../../core/piece/piece.ts';
import { fieldOf } from '../../../core/words/fields.ts';
import { copyCells, resetCells, SHARED, writeCell, type CellRef } from '../../../core/wording/edit.ts';
import { toast } from '../../ui/toast.tsx';
import { useDocumentState } from '../../editor/use-document.ts';
import type { PieceStore } from '../piece-store.ts';
import { cellName } from './cell-name.ts';
import { choicesOf } from './choices.ts';
import { FieldEditor, type EditorProps } from './FieldEditor.tsx';
import { copyTable, fillDown, pastedTable, pasteInto } from './sheet/clipboard.ts';
import { isWithin, moved, rangeOf, single, whole, type Place, type Selection } from './sheet/selection.ts';
import { composedOf, sheetCellOf, type SheetCell, type SheetColumn, type SheetRow } from './sheet/sheet-rows.ts';
import { RowHead } from './RowHead.tsx';
import { SheetCellBox, whereItGoes } from './SheetCells.tsx';
import { SheetMenu } from './SheetMenu.tsx';
import type { Suggest } from './WordArea.tsx';

interface GridProps {
  readonly rows: readonly SheetRow[];
  readonly columns: readonly SheetColumn[];
  readonly piece: Piece;
  readonly book: BrandBook;
  readonly store: PieceStore;
  readonly readOnly: boolean;
  readonly selection: Selection;
  readonly suggest: Suggest;
  readonly onSelect: (selection: Selection) => void;
  /** Opens a cell whose editor needs room beside the sheet. */
  readonly onOpenLarge: () => void;
}

const ROW_PX = 78;
const HEAD_PX = 148;
/** Kinds whose editor fits in a cell. */
const EDITED_IN_PLACE: ReadonlySet<string> = new Set(['text', 'tags', 'keywords', 'link', 'slug', 'place', 'choice', 'flag']);

/** What is being written in the sheet itself: the cell, and what it said before. */
interface Editing extends Place {
  readonly before: string | null;
}

/**
 * The wording sheet as a grid, with the keys of a spreadsheet: arrows and Tab move, Shift makes a range, typing begins a text, Enter and F2 open it,
 * Escape takes it back, Delete returns cells to what they inherit, Ctrl C, X, V and D copy, cut, paste and fill down. Escape lets Tab leave the sheet.
 */
export const WordingGrid = memo(function WordingGrid(props: GridProps) {
  const { rows, columns, piece, book, store, readOnly, selection, onSelect } = props;
  const scroller = useRef<HTMLDivElement>(null);
  const [editing, setEditing] = useState<Editing | null>(null);
  const [isLeaving, setLeaving] = useState(false);
  const size = { rows: rows.length, columns: columns.length };
  const virtual = useVirtualizer({ count: rows.length, getScrollElement: () => scroller.current, estimateSize: () => ROW_PX, overscan: 3, scrollMargin: 0 });
  const { cursor } = selection;
  const range = rangeOf(selection);
  useEffect(() => {
    virtual.scrollToIndex(cursor.row, { align: 'auto' });
    const element = scroller.current?.querySelector(`[data-place="${cursor.row}.${cursor.column}"]`);
    element?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [virtual, cursor.row, cursor.column]);

  const refOf = ({ row, column }: Place): CellRef | null => {
    const [sheetRow, sheetColumn] = [rows[row], columns[column]];
    return sheetRow && sheetColumn ? { row: sheetRow.id, field: sheetColumn.field } : null;
  };
  const shownAt = ({ row, column }: Place): SheetCell | null => {
    const [sheetRow, sheetColumn] = [rows[row], columns[column]];
    return sheetRow && sheetColumn ? sheetCellOf(sheetRow, sheetColumn.field, store.getState().history.document, book) : null;
  };
  const textAt = (place: Place): string => {
    const shown = shownAt(place);
    return shown?.kind === 'cell' ? shown.cell.text : '';
  };
  const placesIn = ({ top, bottom, left, right }: typeof range): readonly Place[] =>
    Array.from({ length: bottom - top + 1 }, (_, down) => Array.from({ length: right - left + 1 }, (__, across) => ({ row: top + down, column: left + across }))).flat();
  const isFree = (place: Place): boolean => !readOnly && shownAt(place)?.kind === 'cell';
  const focusGrid = (): void => scroller.current?.focus({ preventScroll: true });

  const open = (place: Place, typed: string | null): void => {
    const [ref, column] = [refOf(place), columns[place.column]];
    if (!ref || !column || !isFree(place)) return;
    if (!EDITED_IN_PLACE.has(fieldOf(column.field).kind)) return props.onOpenLarge();
    const { words } = store.getState().history.document;
    const own = ref.row === SHARED ? words.shared[ref.field] : words.own[ref.row]?.[ref.field];
    setEditing({ ...place, before: own ?? null });
    if (typed !== null) store.change(`cell-${ref.row}-${ref.field}`, (draft) => writeCell(draft, ref, typed));
  };
  const write = (place: Place, text: string): void => {
    const ref = refOf(place);
    if (ref) store.change(`cell-${ref.row}-${ref.field}`, (draft) => writeCell(draft, ref, text));
  };
  const takeBack = (): void => {
    const ref = editing && refOf(editing);
    if (ref) store.change(`cell-${ref.row}-${ref.field}`, (draft) => (editing.before === null ? resetCells(draft, [ref]) : writeCell(draft, ref, editing.before)));
    close();
  };
  const close = (next?: Selection | null): void => {
    setEditing(null);
    if (next) onSelect(next);
    focusGrid();
  };
  const reset = (places: readonly Place[]): void => {
    const refs = places.filter(isFree).flatMap((place) => refOf(place) ?? []);
    if (refs.length > 0) store.change('reset-cells', (draft) => resetCells(draft, refs));
  };
  const copy = (event: ClipboardEvent): void => {
    if (editing) return;
    event.preventDefault();
    const table = Array.from({ length: range.bottom - range.top + 1 }, (_, down) => Array.from({ length: range.right - range.left + 1 }, (__, across) => textAt({ row: range.top + down, column: range.left + across })));
    copyTable(event.clipboardData, table);
    if (event.type === 'cut') reset(placesIn(range));
  };
  const paste = (event: ClipboardEvent): void => {
    if (editing || readOnly) return;
    event.preventDefault();
    const { cells, left } = pasteInto(pastedTable(event.clipboardData), range, size);
    const free = cells.filter(isFree);
    store.change('paste-cells', (draft) => copyCells(draft, free.flatMap((cell) => { const to = refOf(cell); return to ? [{ to, text: cell.text }] : []; })));
    const last = free.at(-1);
    if (last) onSelect({ anchor: { row: range.top, column: range.left }, cursor: { row: last.row, column: last.column } });
    const missed = left + cells.length - free.length;
    if (missed > 0) toast('problem', `${missed} ${missed === 1 ? 'cell' : 'cells'} of what was pasted had no place in the sheet.`);
  };
  const handleKey = (event: KeyboardEvent): void => {
    if (editing || event.target !== event.currentTarget) return;
    const jump = event.ctrlKey || event.metaKey;
    if (event.key === 'Tab' && isLeaving) return;
    setLeaving(event.key === 'Escape');
    if (event.key === 'Escape') return onSelect(single(cursor));
    const next = moved(selection, event.key, { shift: event.shiftKey, jump }, size);
    if (next) {
      event.preventDefault();
      return onSelect(next);
    }
    if (jump) {
      const key = event.key.toLowerCase();
      if (key === 'a') {
        event.preventDefault();
        onSelect(whole(size));
      } else if (key === 'd') {
        event.preventDefault();
        const filled = fillDown(range).filter(({ to }) => isFree(to));
        store.change('fill-down', (draft) => copyCells(draft, filled.flatMap(({ from, to }) => { const ref = refOf(to); return ref ? [{ to: ref, text: textAt(from) }] : []; })));
      }
      return;
    }
    if (event.key === 'Enter' || event.key === 'F2') {
      event.preventDefault();
      open(cursor, null);
    } else if (event.key === 'Delete' || event.key === 'Backspace') {
      event.preventDefault();
      reset(placesIn(range));
    } else if ([...event.key].length === 1 && !event.altKey) {
      const kind = fieldOf(columns[cursor.column]?.field ?? 'caption').kind;
      event.preventDefault();
      open(cursor, kind === 'choice' || kind === 'flag' ? null : event.key);
    }
  };
  const isEdited = ({ row, column }: Place): boolean => editing?.row === row && editing.column === column;
  const handlePointer = (event: PointerEvent): void => {
    const place = placeOf(event.target);
    if (!place || isEdited(place)) return;
    event.preventDefault();
    setEditing(null);
    onSelect(event.shiftKey ? { anchor: selection.anchor, cursor: place } : single(place));
    focusGrid();
  };
  const handleEditorKey = (event: KeyboardEvent): void => {
    if (event.key === 'Escape') {
      event.stopPropagation();
      takeBack();
    } else if (event.key === 'Tab') {
      event.preventDefault();
      close(moved(single(cursor), 'Tab', { shift: event.shiftKey, jump: false }, size));
    } else if (event.key === 'Enter' && !event.shiftKey && !event.altKey && !event.nativeEvent.isComposing) {
      event.preventDefault();
      close(moved(single(cursor), 'ArrowDown', { shift: false, jump: false }, size));
    }
  };
  const template = `${HEAD_PX}px ${columns.map(({ widthPx, field }) => (field === 'caption' ? `minmax(${widthPx}px, 1fr)` : `${widthPx}px`)).join(' ')}`;
  const widthPx = HEAD_PX + columns.reduce((sum, column) => sum + column.widthPx, 0);
  return (
    <div
      ref={scroller}
      role="grid"
      aria-label="Wording sheet"
      aria-rowcount={rows.length + 1}
      aria-colcount={columns.length + 1}
      aria-multiselectable
      aria-readonly={readOnly}
      aria-activedescendant={`cell-${cursor.row}-${cursor.column}`}
      aria-describedby="wording-keys"
      tabIndex={0}
      onKeyDown={handleKey}
      onCopy={copy}
      onCut={copy}
      onPaste={paste}
      onPointerDown={handlePointer}
      onDoubleClick={({ target }) => {
        const place = placeOf(target);
        if (place && !isEdited(place)) open(place, null);
      }}
      className="relative min-h-0 flex-1 overflow-auto rounded-md border border-line bg-panel outline-0 focus-visible:outline-2 focus-visible:outline-house"
    >
      <p id="wording-keys" className="sr-only">
        Arrow keys move. Enter or typing opens a cell, Escape takes it back, Delete returns it to what it inherits. Press Escape, then Tab, to leave the sheet.
      </p>
      <div role="row" aria-rowindex={1} style={{ gridTemplateColumns: template, minWidth: widthPx }} className="sticky top-0 z-10 grid border-b border-line bg-panel text-xs font-semibold">
        <span role="columnheader" className="sticky left-0 z-10 border-r border-line bg-panel px-2.5 py-1.5 text-quiet">
          Channel
        </span>
        {columns.map((column, index) => (
          <span key={column.field} role="columnheader" aria-colindex={index + 2} className="flex items-center justify-between gap-1 border-r border-line px-2.5 py-1.5 last:border-r-0">
            <span className="truncate">{column.name}</span>
            {!readOnly && (
              <SheetMenu
                label={`${column.name}: column`}
                items={[{ key: 'reset', name: 'Back to shared in every row', act: () => reset(rows.flatMap((row, at) => (row.channel ? [{ row: at, column: index }] : []))) }]}
              />
            )}
          </span>
        ))}
      </div>
      <div style={{ height: virtual.getTotalSize(), minWidth: widthPx }} className="relative">
        {virtual.getVirtualItems().map((item) => {
          const row = rows[item.index];
          if (!row) return null;
          const composed = row.channel ? composedOf(row.channel, piece, book) : null;
          return (
            <div
              key={row.id}
              role="row"
              aria-rowindex={item.index + 2}
              data-channel={row.channel ? row.id : undefined}
              style={{ gridTemplateColumns: template, transform: `translateY(${item.start}px)` }}
              className="absolute inset-x-0 top-0 grid h-[78px] border-b border-line [contain:size_layout_style]"
            >
              <RowHead row={row} composed={composed} isChosen={item.index === cursor.row} isAlone={rows.filter((each) => each.channel?.sheet.key === row.channel?.sheet.key).length === 1}>
                {!readOnly && (
                  <SheetMenu
                    label={`${row.name}: row`}
                    items={[
                      ...(row.channel ? [{ key: 'reset', name: 'Back to shared in this row', act: () => reset(columns.map((_, column) => ({ row: item.index, column }))) }] : []),
                      {
                        key: 'copy',
                        name: 'Copy this row to all others',
                        act: () => {
                          const places = rows.flatMap((other, at) => (at === item.index || !other.channel ? [] : columns.map((_, column) => ({ row: at, column }))));
                          store.change('copy-row', (draft) => copyCells(draft, places.filter(isFree).filter(({ column }) => shownAt({ row: item.index, column })?.kind === 'cell').flatMap((to) => { const ref = refOf(to); return ref ? [{ to: ref, text: textAt({ row: item.index, column: to.column }) }] : []; })));
                        },
                      },
                    ]}
                  />
                )}
              </RowHead>
              {columns.map((column, at) => {
                const place = { row: item.index, column: at };
                const shown = sheetCellOf(row, column.field, piece, book);
                const isEditing = isEdited(place) && shown.kind === 'cell';
                return (
                  <SheetCellBox
                    key={column.field}
                    row={row}
                    field={column.field}
                    rowIndex={item.index}
                    columnIndex={at}
                    shown={shown}
                    shared={piece.words.shared[column.field] ?? ''}
                    where={whereItGoes(row, column, book)}
                    counted={composed?.words[column.field] ?? ''}
                    isChosen={isWithin(range, place)}
                    isCursor={item.index === cursor.row && at === cursor.column}
                    editor={isEditing ? (
                      <LiveEditor
                        store={store}
                        row={row}
                        book={book}
                        label={`${cellName(row, column.field)}, in the sheet`}
                        field={column.field}
                        rule={shown.field?.rule ?? null}
                        choices={choicesOf(column.field, row.channel, rows)}
                        inherited={false}
                        readOnly={false}
                        rows={column.field === 'caption' ? 5 : 3}
                        suggest={props.suggest}
                        autoFocus
                        onChange={(text) => write(place, text)}
                        onKeyDown={handleEditorKey}
                      />
                    ) : null}
                  />
                );
              })}
            </div>
          );
        })}
      </div>
    </div>
  );
});

/** The place of the cell that something in the sheet belongs to. */
function placeOf(target: EventTarget): Place | null {
  const [row, column] = (target instanceof Element ? (target.closest<HTMLElement>('[data-place]')?.dataset['place'] ?? '') : '').split('.').map(Number);
  return row === undefined || column === undefined ? null : { row, column };
}

/** The editor of a cell in the sheet: it follows every key, while the sheet around it follows when there is time. */
function LiveEditor({ store, row, book, ...props }: Omit<EditorProps, 'value'> & { readonly store: PieceStore; readonly row: SheetRow; readonly book: BrandBook }) {
  const shown = sheetCellOf(row, props.field, useDocumentState(store).history.document, book);
  return <FieldEditor {...props} value={shown.kind === 'cell' ? shown.cell.text : ''} />;
}
