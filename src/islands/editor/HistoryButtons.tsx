import Redo2 from 'lucide-react/icons/redo-2';
import Undo2 from 'lucide-react/icons/undo-2';
import { Button } from '../ui/Button.tsx';
import type { DocumentState, DocumentStore } from './document-store.ts';

/** Undo and redo of a document under edit. */
export function HistoryButtons<Document extends object>({ store, state }: { readonly store: DocumentStore<Document>; readonly state: DocumentState<Document> }) {
  return (
    <>
      <Button look="quiet" size="icon" aria-label="Undo" title="Undo (Ctrl Z)" disabled={state.history.done.length === 0} onClick={() => store.undo()}>
        <Undo2 aria-hidden className="size-4" />
      </Button>
      <Button look="quiet" size="icon" aria-label="Redo" title="Redo (Ctrl Shift Z)" disabled={state.history.undone.length === 0} onClick={() => store.redo()}>
        <Redo2 aria-hidden className="size-4" />
      </Button>
    </>
  );
}
