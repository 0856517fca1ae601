/** What a visit could not save: the document as it was left, and what it was changed from. */
export interface UnsavedNote<Document> {
  readonly base: Document;
  readonly revision: number;
  readonly document: Document;
  readonly atMs: number;
}

/** Where a document keeps what is not saved yet, until it is. */
export interface UnsavedNotes<Document> {
  read(): UnsavedNote<Document> | null;
  write(note: UnsavedNote<Document>): void;
  clear(): void;
}

const PREFIX = 'confetti-unsaved/';

/** Keeps it in this browser, for this person alone. */
export function notesInBrowser<Document>(person: string, kind: string, id: string): UnsavedNotes<Document> {
  const key = `${PREFIX}${person}/${kind}/${id}`;
  return {
    read: () => {
      const kept = localStorage.getItem(key);
      try {
        return kept === null ? null : (JSON.parse(kept) as UnsavedNote<Document>);
      } catch {
        return null;
      }
    },
    write: (note) => {
      try {
        localStorage.setItem(key, JSON.stringify(note));
      } catch {
        // A browser that is full, or keeps nothing, still has the page and its question before it goes.
      }
    },
    clear: () => localStorage.removeItem(key),
  };
}

/** Whoever signs out leaves nothing behind for the next person at this browser. */
export function forgetUnsaved(): void {
  for (const key of Object.keys(localStorage)) if (key.startsWith(PREFIX)) localStorage.removeItem(key);
}
