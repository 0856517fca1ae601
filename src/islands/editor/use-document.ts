import { useEffect, useSyncExternalStore } from 'react';
import type { DocumentState, DocumentStore } from './document-store.ts';

/** The state of a store as it is now. */
export function useDocumentState<Document extends object>(store: DocumentStore<Document>): DocumentState<Document> {
  return useSyncExternalStore(store.subscribe, store.getState, store.getState);
}

/**
 * The state of a store, and what every editor has: keys for undo and redo, a question before unsaved changes are left, saving when the
 * page goes. One component a store, for each one would undo.
 */
export function useDocument<Document extends object>(store: DocumentStore<Document>): DocumentState<Document> {
  useEffect(() => {
    const warn = (event: BeforeUnloadEvent): void => {
      if (!store.hasUnsaved()) return;
      // Sent while the question stands: a browser that is busy gives a page no time once it goes.
      store.leave();
      event.preventDefault();
    };
    const keys = (event: KeyboardEvent): void => {
      if (!(event.ctrlKey || event.metaKey) || event.altKey) return;
      const key = event.key.toLowerCase();
      // Both habits: Ctrl+Shift+Z and Ctrl+Y.
      const isRedo = (key === 'z' && event.shiftKey) || (key === 'y' && !event.shiftKey && !event.metaKey);
      if (key !== 'z' && !isRedo) return;
      event.preventDefault();
      if (isRedo) store.redo();
      else store.undo();
    };
    const leave = (): void => store.leave();
    const hide = (): void => void (document.visibilityState === 'hidden' && store.leave());
    addEventListener('beforeunload', warn);
    addEventListener('keydown', keys);
    addEventListener('pagehide', leave);
    // A phone may end a page in the background without another word.
    document.addEventListener('visibilitychange', hide);
    return () => {
      removeEventListener('beforeunload', warn);
      removeEventListener('keydown', keys);
      removeEventListener('pagehide', leave);
      document.removeEventListener('visibilitychange', hide);
    };
  }, [store]);
  return useDocumentState(store);
}
