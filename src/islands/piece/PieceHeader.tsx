import { memo } from 'react';
import HistoryIcon from 'lucide-react/icons/history';
import { pieceName, type Piece } from '../../core/piece/piece.ts';
import { Button } from '../ui/Button.tsx';
import { Tab, TabList } from 'react-aria-components';
import { HistoryButtons } from '../editor/HistoryButtons.tsx';
import { OnceInTabs } from '../ui/OnceInTabs.tsx';
import type { PresentPerson } from '../shell/change-events.ts';
import type { PieceState, PieceStore } from './piece-store.ts';

export type ViewKey = 'look' | 'words' | 'times';

const views: readonly { readonly key: ViewKey; readonly name: string }[] = [
  { key: 'look', name: 'Look' },
  { key: 'words', name: 'Words' },
  { key: 'times', name: 'Times' },
];

/** Memoized: the header renders with each key, the tabs only when another one is chosen. */
const ViewTabList = memo(function ViewTabList() {
  return (
    <TabList aria-label="Views of the piece" className="flex gap-5">
      {views.map((each) => (
        <Tab key={each.key} id={each.key} className="cursor-default border-b-2 border-transparent px-0.5 pt-3.5 pb-3 text-base text-quiet outline-0 hover:text-ink data-selected:border-house data-selected:font-semibold data-selected:text-house data-focus-visible:outline-2 data-focus-visible:outline-house">
          {each.name}
        </Tab>
      ))}
    </TabList>
  );
});

interface HeaderProps {
  readonly piece: Piece;
  readonly store: PieceStore;
  readonly state: PieceState;
  readonly readOnly: boolean;
  /** Who else has the piece open. */
  readonly others: readonly PresentPerson[];
  readonly isHistoryOpen: boolean;
  readonly onHistory: () => void;
}

/** The piece's name, its three views, and where saving stands. */
export function PieceHeader({ piece, store, state, readOnly, others, isHistoryOpen, onHistory }: HeaderProps) {
  return (
    <div className="flex h-12 shrink-0 items-center gap-4 border-b border-line bg-panel px-4 max-md:h-auto max-md:flex-wrap max-md:gap-y-0">
      <OnceInTabs>
        <div className="min-w-0 flex-1 max-md:basis-full max-md:pt-1.5">
          <input
            aria-label="Name of the piece"
            value={piece.title}
            readOnly={readOnly}
            placeholder={pieceName({ ...piece, title: '' })}
            maxLength={120}
            onChange={(event) => store.change('title', (draft) => void (draft.title = event.target.value))}
            className="-ml-1.5 w-full truncate rounded-md border border-transparent bg-transparent px-1.5 py-1 font-heading text-[15px] font-semibold placeholder:text-ink placeholder:opacity-100 hover:border-line focus:border-house focus:outline-none"
          />
        </div>
      </OnceInTabs>
      <ViewTabList />
      <OnceInTabs>
        <div className="flex flex-1 items-center justify-end gap-1">
          {others.length > 0 && (
            <span data-present={others.length} className="mr-2 truncate rounded-md bg-sunk px-2 py-0.5 text-xs" title={`${others.map(({ name }) => name).join(', ')} ${others.length === 1 ? 'has' : 'have'} this piece open`}>
              {others.map(({ name }) => name.split(' ')[0]).join(', ')} {others.length === 1 ? 'is' : 'are'} here
            </span>
          )}
          <SaveWord save={state.save} />
          <Button look="quiet" size="icon" aria-label="History" title="Saved states: who saved what, and when" aria-pressed={isHistoryOpen} onClick={onHistory}>
            <HistoryIcon aria-hidden className="size-4" />
          </Button>
          {!readOnly && <HistoryButtons store={store} state={state} />}
        </div>
      </OnceInTabs>
    </div>
  );
}

const saveWords: Readonly<Record<PieceState['save']['kind'], string>> = {
  saved: 'Saved',
  waiting: 'Not saved yet',
  saving: 'Saving…',
  offline: 'Not saved: trying again',
  refused: 'Not saved',
  conflict: 'Both wrote here',
};

function SaveWord({ save }: { readonly save: PieceState['save'] }) {
  const tone = save.kind === 'offline' || save.kind === 'conflict' ? 'text-marigold-ink font-medium' : save.kind === 'refused' ? 'text-coral-ink font-medium' : 'text-quiet';
  return (
    <span role="status" data-save={save.kind} title={save.kind === 'offline' || save.kind === 'refused' ? save.sentence : undefined} className={`mr-2 text-sm ${tone}`}>
      {save.kind === 'refused' ? save.sentence : saveWords[save.kind]}
    </span>
  );
}
