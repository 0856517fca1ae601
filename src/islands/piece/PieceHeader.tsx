import Redo2 from 'lucide-react/icons/redo-2';
import Undo2 from 'lucide-react/icons/undo-2';
import { pieceName, type Piece } from '../../core/piece/piece.ts';
import { Button } from '../ui/Button.tsx';
import type { PieceState, PieceStore, SaveState } from './piece-store.ts';

export type ViewKey = 'look' | 'words' | 'times';

const sheets: readonly { readonly key: ViewKey; readonly name: string }[] = [
  { key: 'look', name: 'Look' },
  { key: 'words', name: 'Words' },
  { key: 'times', name: 'Times' },
];

interface HeaderProps {
  readonly piece: Piece;
  readonly store: PieceStore;
  readonly state: PieceState;
  readonly sheet: ViewKey;
  readonly onSheet: (sheet: ViewKey) => void;
  readonly readOnly: boolean;
}

/** The piece's name, its three sheets, and where saving stands. */
export function PieceHeader({ piece, store, state, sheet, onSheet, readOnly }: HeaderProps) {
  return (
    <div className="flex h-12 shrink-0 items-center gap-4 border-b border-line bg-panel px-4">
      <div className="min-w-0 flex-1">
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
      <div role="tablist" aria-label="Sheets of the piece" className="flex gap-5">
        {sheets.map((each) => (
          <button
            key={each.key}
            type="button"
            role="tab"
            aria-selected={sheet === each.key}
            onClick={() => onSheet(each.key)}
            className={`border-b-2 px-0.5 pt-3.5 pb-3 text-base ${sheet === each.key ? 'border-house font-semibold text-house' : 'border-transparent text-quiet hover:text-ink'}`}
          >
            {each.name}
          </button>
        ))}
      </div>
      <div className="flex flex-1 items-center justify-end gap-1">
        <SaveWord save={state.save} />
        {!readOnly && (
          <>
            <Button look="quiet" size="icon" aria-label="Undo" title="Undo (Ctrl Z)" disabled={state.history.done.length === 0} onClick={() => store.undo()}>
              <Undo2 aria-hidden className="size-4" />
            </Button>
            <Button look="quiet" size="icon" aria-label="Redo" title="Redo (Ctrl Shift Z)" disabled={state.history.undone.length === 0} onClick={() => store.redo()}>
              <Redo2 aria-hidden className="size-4" />
            </Button>
          </>
        )}
      </div>
    </div>
  );
}

const saveWords: Readonly<Record<SaveState['kind'], string>> = {
  saved: 'Saved',
  waiting: 'Not saved yet',
  saving: 'Saving…',
  offline: 'Not saved: trying again',
  refused: 'Not saved',
  conflict: 'Changed elsewhere',
};

function SaveWord({ save }: { readonly save: SaveState }) {
  const tone = save.kind === 'offline' || save.kind === 'conflict' ? 'text-marigold-ink font-medium' : save.kind === 'refused' ? 'text-coral-ink font-medium' : 'text-quiet';
  return (
    <span role="status" data-save={save.kind} title={save.kind === 'offline' || save.kind === 'refused' ? save.sentence : undefined} className={`mr-2 text-sm ${tone}`}>
      {save.kind === 'refused' ? save.sentence : saveWords[save.kind]}
    </span>
  );
}
