import RotateCcw from 'lucide-react/icons/rotate-ccw';
import { lazy, memo, Suspense, useCallback, useDeferredValue, useMemo, useRef, useState, type RefObject } from 'react';
import { Tab, TabList, Tabs } from 'react-aria-components';
import type { BrandBook } from '../../../core/brand/brand-book.ts';
import { fieldOf } from '../../../core/words/fields.ts';
import { diffWords } from '../../../core/words/word-diff.ts';
import { countGraphemes } from '../../../core/words/count-characters.ts';
import { countField } from '../../../core/wording/compose.ts';
import { resetCells, writeCell } from '../../../core/wording/edit.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { Button } from '../../ui/Button.tsx';
import { StillPanel } from '../../ui/StillPanel.tsx';
import { TabPart, TabParts } from '../../ui/tab-parts.tsx';
import { useTyped } from '../../ui/use-typed.ts';
import { FactMenu, WITH_FACTS } from '../FactMenu.tsx';
import type { ViewProps } from '../view-props.ts';
import { cellName } from './cell-name.ts';
import { choicesOf } from './choices.ts';
import { ComposedText } from './ComposedText.tsx';
import { FeedPreview, type PreviewProps } from './FeedPreview.tsx';
import { FieldEditor } from './FieldEditor.tsx';
import { composedOf, sheetCellOf, type SheetCell, type SheetChannel, type SheetColumn, type SheetRow } from './sheet/sheet-rows.ts';
import { SnippetMenu } from './SnippetMenu.tsx';
import { Variants } from './Variants.tsx';
import type { Suggest } from './WordArea.tsx';

const TagsPanel = lazy(() => import('./TagsPanel.tsx'));
const DeskPanel = lazy(() => import('./desk/DeskPanel.tsx'));
const EmojiMenu = lazy(() => import('./EmojiMenu.tsx'));
const LinkPanel = lazy(() => import('./LinkPanel.tsx'));

interface PanelProps extends ViewProps {
  readonly row: SheetRow;
  readonly column: SheetColumn;
  readonly rows: readonly SheetRow[];
  /** The channel whose post is shown: that of the row, or of the row before it where the shared row is chosen. */
  readonly shown: SheetChannel | null;
  readonly suggest: Suggest;
  readonly width: 'phone' | 'wide';
  readonly onWidth: (width: 'phone' | 'wide') => void;
}

const ROWS: Readonly<Partial<Record<string, number>>> = { caption: 9, firstComment: 5, altText: 5 };
const tabClasses = 'cursor-default border-b-2 border-transparent px-1 py-1.5 text-sm text-quiet outline-0 hover:text-ink data-selected:border-house data-selected:font-semibold data-selected:text-house data-focus-visible:outline-2 data-focus-visible:outline-house';

/** The chosen cell with room to write, what it is counted by, and what helps to write it. */
export function CellPanel(props: PanelProps) {
  const { row, column, piece, brandData, store, readOnly } = props;
  const { field } = column;
  const { book } = brandData;
  const sheetCell = sheetCellOf(row, field, piece, book);
  const { kind } = fieldOf(field);
  const write = useCallback((text: string): void => store.change(`cell-${row.id}-${field}`, (draft) => writeCell(draft, { row: row.id, field }, text)), [store, row.id, field]);
  // The field follows every key; what stands around it when there is time.
  const later = { piece: useDeferredValue(piece), cuts: useDeferredValue(props.cuts), text: useDeferredValue(sheetCell.kind === 'cell' ? sheetCell.cell.text : '') };
  const takesTags = field === 'caption' || field === 'hashtags' || field === 'firstComment';
  return (
    <aside aria-label="Chosen cell" className="flex w-[22rem] shrink-0 flex-col overflow-auto [contain:content] border-l border-line bg-panel px-4 py-3 max-md:w-full max-md:border-t max-md:border-l-0 max-lg:w-72">
      <div className="mb-2 flex min-h-7 items-center gap-2">
        {row.channel && <ChannelBadge badge={row.channel.sheet.badge} size={18} />}
        <h2 className="min-w-0 flex-1 truncate text-base font-semibold">
          {row.name} · {sheetCell.kind === 'cell' ? (sheetCell.field?.rule.label ?? column.name) : column.name}
        </h2>
        {sheetCell.kind === 'cell' && sheetCell.cell.from === 'own' && !readOnly && (
          <Button look="quiet" size="small" className="text-house" onClick={() => store.change(`back-${row.id}-${field}`, (draft) => resetCells(draft, [{ row: row.id, field }]))}>
            <RotateCcw aria-hidden className="size-3" />
            Back to shared
          </Button>
        )}
      </div>
      {sheetCell.kind === 'none' ? (
        <p className="rounded-md bg-sunk px-3 py-2 text-sm text-quiet">{sheetCell.reason}</p>
      ) : (
        <div {...WITH_FACTS} className="mb-2" data-cell-editor>
          <CellField key={`${row.id} ${field}`} {...props} cell={sheetCell} takesTags={takesTags} onText={write} />
          {kind === 'link' && !readOnly && (
            <Suspense fallback={null}>
              <LinkPanel brand={props.brand} address={sheetCell.cell.text} pieceId={props.pieceId} label={row.id} onText={write} />
            </Suspense>
          )}
          {row.channel && sheetCell.cell.from === 'own' && kind === 'text' && <Difference shared={piece.words.shared[field] ?? ''} own={sheetCell.cell.text} />}
        </div>
      )}
      {field === 'caption' && sheetCell.kind === 'cell' && <Variants piece={piece} store={store} readOnly={readOnly} current={sheetCell.cell.text} onUse={write} />}
      <BesideCell {...props} piece={later.piece} cuts={later.cuts} text={later.text} mayWrite={sheetCell.kind === 'cell' && kind === 'text' && !readOnly} onText={write} />
    </aside>
  );
}

interface FieldProps extends PanelProps {
  readonly cell: Extract<SheetCell, { kind: 'cell' }>;
  readonly takesTags: boolean;
  readonly onText: (text: string) => void;
}

/** The field and its count. They render at once with each key; the piece changes a frame later. */
function CellField(props: FieldProps) {
  const { row, column, rows, readOnly, suggest, cell, takesTags } = props;
  const { field } = column;
  const { book } = props.brandData;
  const area = useRef<HTMLTextAreaElement>(null);
  const { text, type, flush } = useTyped(cell.cell.text, props.onText);
  const textLater = useDeferredValue(cell.cell.text);
  const isText = fieldOf(field).kind === 'text';
  return (
    <div onBlur={flush} onKeyDownCapture={({ ctrlKey, metaKey, key }) => (ctrlKey || metaKey || key === 'Escape' || key === 'Tab') && flush()}>
      <FieldEditor
        label={`${cellName(row, field)}${row.channel && cell.cell.from !== 'own' ? ', inherited' : ''}`}
        field={field}
        rule={cell.field?.rule ?? null}
        choices={choicesOf(field, row.channel, rows)}
        value={isText ? text : cell.cell.text}
        inherited={row.channel !== null && cell.cell.from !== 'own' && text === cell.cell.text}
        readOnly={readOnly}
        rows={ROWS[field] ?? 2}
        suggest={takesTags ? suggest : null}
        area={area}
        onChange={isText ? type : props.onText}
      />
      <div className="mt-1 flex min-h-6 items-start justify-between gap-2 text-xs text-quiet">
        <CountLine {...props} text={text} />
        {!readOnly && isText && <TextMenus book={book} takesTags={takesTags} area={area} text={textLater} onText={type} />}
      </div>
    </div>
  );
}

interface BesideProps extends PanelProps {
  /** What stands in the cell. */
  readonly text: string;
  readonly mayWrite: boolean;
  readonly onText: (text: string) => void;
}

/** What helps to write a cell: how it goes out, hashtags, and the desk. It follows when there is time. */
const BesideCell = memo(function BesideCell(props: BesideProps) {
  const { shown, text } = props;
  const [tab, setTab] = useState('out');
  return (
    <TabParts
      value={{
        out: shown && <GoesOut {...props} channel={shown} />,
        tags: tab === 'tags' && <TagsPanel {...props} channel={shown} cellText={text} />,
        desk: tab === 'desk' && <DeskPanel {...props} channel={shown} cellText={text} />,
      }}
    >
      <BesideTabs tab={tab} onTab={setTab} />
    </TabParts>
  );
});

const BesideTabs = memo(function BesideTabs({ tab, onTab }: { readonly tab: string; readonly onTab: (tab: string) => void }) {
  return (
    <Tabs selectedKey={tab} onSelectionChange={(key) => onTab(String(key))} className="flex min-h-0 flex-1 flex-col">
      <TabList aria-label="Beside the cell" className="mb-2 flex gap-3 border-b border-line">
        <Tab id="out" className={tabClasses}>
          Goes out
        </Tab>
        <Tab id="tags" className={tabClasses}>
          Hashtags
        </Tab>
        <Tab id="desk" className={tabClasses}>
          Writing desk
        </Tab>
      </TabList>
      <StillPanel id="out">
        <TabPart name="out" />
      </StillPanel>
      <StillPanel id="tags">
        <Suspense fallback={<p className="text-sm text-quiet">Loading…</p>}>
          <TabPart name="tags" />
        </Suspense>
      </StillPanel>
      <StillPanel id="desk">
        <Suspense fallback={<p className="text-sm text-quiet">Loading…</p>}>
          <TabPart name="desk" />
        </Suspense>
      </StillPanel>
    </Tabs>
  );
});

/** What may be put into a text from elsewhere. */
const TextMenus = memo(function TextMenus({ book, takesTags, area, text, onText }: { readonly book: BrandBook; readonly takesTags: boolean; readonly area: RefObject<HTMLTextAreaElement | null>; readonly text: string; readonly onText: (text: string) => void }) {
  return (
    <span className="flex shrink-0 items-center">
      <FactMenu facts={book.facts} hashtags={takesTags ? book.voice.hashtags : []} onText={onText} />
      <SnippetMenu snippets={book.voice.snippets} area={area} onText={onText} />
      <Suspense fallback={null}>
        <EmojiMenu area={area} text={text} habit={book.voice.emoji} onText={onText} />
      </Suspense>
    </span>
  );
});

/** The whole text of a channel, and how its post will look. */
const GoesOut = memo(function GoesOut(props: PreviewProps) {
  const { channel, piece, brandData } = props;
  const composed = useMemo(() => composedOf(channel, piece, brandData.book), [channel, piece, brandData.book]);
  return (
    <>
      <ComposedText channel={channel} composed={composed} />
      <FeedPreview {...props} />
    </>
  );
});

function CountLine({ row, column, piece, brandData, rows, text }: PanelProps & { readonly text: string }) {
  if (!row.channel) {
    const others = rows.filter((each) => each.channel !== null);
    const inheriting = others.filter((each) => piece.words.own[each.id]?.[column.field] === undefined).length;
    return (
      <span className="tabular-nums">
        {countGraphemes(text)} characters · used by {inheriting === others.length ? 'all' : `${inheriting} of ${others.length}`}
      </span>
    );
  }
  const { sheet } = row.channel;
  const rule = sheet.words.fields.find(({ key }) => key === column.field);
  const composed = composedOf(row.channel, piece, brandData.book);
  if (!rule || rule.max === null) return <span className="tabular-nums">{countGraphemes(text)} characters</span>;
  const { used, max, over } = countField(composed.words[column.field] ?? '', rule, sheet);
  const limits = column.field === 'caption' ? [`${composed.hashtags.length}${sheet.words.hashtags.max === null ? '' : ` of ${sheet.words.hashtags.max}`} tags`, `${composed.mentions.length}${sheet.words.mentions.max === null ? '' : ` of ${sheet.words.mentions.max}`} mentions`, sheet.words.foldAfter === null ? '' : `first ${sheet.words.foldAfter} shown`] : [];
  return (
    <span className={`tabular-nums ${over > 0 ? 'font-semibold text-coral-ink' : ''}`}>
      {[over > 0 ? `${over} over: ${used} of ${max}` : `${used} of ${max?.toLocaleString('en')}`, ...limits].filter((part) => part !== '').join(' · ')}
    </span>
  );
}

/** What the channel says differently, word by word. */
function Difference({ shared, own }: { readonly shared: string; readonly own: string }) {
  if (shared === '' || shared === own) return null;
  return (
    <details className="mt-1 text-xs">
      <summary className="text-quiet">What differs from the shared text</summary>
      <p className="mt-1 break-words whitespace-pre-wrap">
        {diffWords(shared, own).map((part, index) =>
          part.kind === 'same' ? (
            <span key={index}>{part.text}</span>
          ) : part.kind === 'added' ? (
            <ins key={index} className="bg-sky-soft text-sky-ink no-underline">
              {part.text}
            </ins>
          ) : (
            <del key={index} className="text-coral-ink">
              {part.text}
            </del>
          ),
        )}
      </p>
    </details>
  );
}

