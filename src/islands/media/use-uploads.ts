import { useRef, useState } from 'react';
import { dropUpload, getUpload, retryUpload, MAX_RECORDING_BYTES, MAX_UPLOAD_BYTES, sendUploadPart, startUpload } from '../../contract/media-contracts.ts';
import { ApiProblem, call, sendFile } from '../ui/call.ts';
import type { MediaItem } from './media-address.ts';

export type UploadState =
  | { readonly kind: 'waiting' }
  | { readonly kind: 'sending'; readonly share: number }
  /** All bytes have arrived; the server reads the file. */
  | { readonly kind: 'importing'; readonly share: number }
  /** The connection broke; what has arrived is kept, and the upload resumes from there. */
  | { readonly kind: 'broken'; readonly share: number; readonly sentence: string }
  /** `canRetry`: the file is on the server, and can be imported again without another upload. */
  | { readonly kind: 'failed'; readonly sentence: string; readonly canRetry: boolean };

export interface Upload {
  readonly id: number;
  readonly file: File;
  readonly state: UploadState;
}

export interface Uploads {
  readonly list: readonly Upload[];
  readonly add: (files: readonly File[]) => void;
  /** Cancels an upload, or removes one that failed from the list. */
  readonly drop: (id: number) => void;
  /** Resumes one that broke, where it stopped; retries one whose import failed. */
  readonly resume: (id: number) => void;
}

/** Parts are small enough that a break costs little, and large enough that most pictures are one or two. */
const PART_BYTES = 2 * 1024 * 1024;
/** How often an import is asked about that takes longer than its upload waits. */
const ASK_EVERY_MS = 700;

/** One file is sent while the one before it is imported. */
const SENT_AT_ONCE = 2;

/** Sends files in parts, two at a time, with progress; they are handed on in their order. What breaks can resume; what fails says why. */
export function useUploads(brand: string, onDone: (item: MediaItem) => void): Uploads {
  const [list, setList] = useState<readonly Upload[]>([]);
  const remote = useRef(new Map<number, string>());
  const sent = useRef<readonly Promise<unknown>[]>([]);
  const handedOn = useRef<Promise<void>>(Promise.resolve());
  const dropped = useRef(new Set<number>());
  const lastId = useRef(0);

  const set = (id: number, state: UploadState): void => setList((now) => now.map((each) => (each.id === id ? { ...each, state } : each)));
  const remove = (id: number): void => setList((now) => now.filter((each) => each.id !== id));

  const sendOne = async ({ id, file }: Upload): Promise<MediaItem | null> => {
    if (dropped.current.has(id)) return null;
    let at = 0;
    try {
      const known = remote.current.get(id);
      let state = known === undefined ? await begin(brand, file) : await call(getUpload, { params: { brand, upload: known } });
      remote.current.set(id, state.id);
      if (state.work?.state === 'failed') state = await call(retryUpload, { params: { brand, upload: state.id } });
      for (at = state.received; at < file.size; at = state.received) {
        if (dropped.current.has(id)) return null;
        set(id, { kind: 'sending', share: at / file.size });
        state = await sendFile(sendUploadPart, { brand, upload: state.id }, { at }, file.slice(at, at + PART_BYTES));
      }
      while (!state.item && !dropped.current.has(id)) {
        if (state.work?.state === 'failed' || state.work?.state === 'cancelled') {
          set(id, { kind: 'failed', sentence: state.work.problem ?? 'It could not be imported.', canRetry: true });
          return null;
        }
        set(id, { kind: 'importing', share: state.work?.progress ?? 0 });
        await new Promise((resolve) => setTimeout(resolve, ASK_EVERY_MS));
        state = await call(getUpload, { params: { brand, upload: state.id } });
      }
      // Handed on once those before it are.
      set(id, { kind: 'importing', share: 1 });
      return state.item ?? null;
    } catch (error) {
      if (!dropped.current.has(id)) set(id, await brokenState(error, file, at));
      return null;
    }
  };
  const enqueue = (upload: Upload): void => {
    const one = Promise.resolve(sent.current.at(-SENT_AT_ONCE)).then(() => sendOne(upload));
    sent.current = [...sent.current.slice(-SENT_AT_ONCE), one];
    // One that is quick waits for the one before it, so that pictures come in the order in which they were chosen.
    handedOn.current = Promise.all([one, handedOn.current]).then(([item]) => {
      if (!item || dropped.current.has(upload.id)) return;
      remove(upload.id);
      onDone(item);
    });
  };

  return {
    list,
    add: (files) => {
      const added = files.map((file): Upload => ({ id: ++lastId.current, file, state: { kind: 'waiting' } }));
      setList((now) => [...now, ...added]);
      added.forEach(enqueue);
    },
    drop: (id) => {
      dropped.current.add(id);
      const upload = remote.current.get(id);
      remove(id);
      // What had arrived is of no more use; should this not reach the server, it is removed within a day.
      if (upload !== undefined) call(dropUpload, { params: { brand, upload } }).catch(() => undefined);
    },
    resume: (id) => {
      const upload = list.find((each) => each.id === id);
      if (!upload) return;
      set(id, { kind: 'waiting' });
      enqueue(upload);
    },
  };
}

async function brokenState(error: unknown, file: File, at: number): Promise<UploadState> {
  // An answer that breaks off in its middle is a broken connection as well.
  if (error instanceof ApiProblem && error.status !== 0) return { kind: 'failed', sentence: error.message, canRetry: false };
  if (!(await isReadable(file))) return { kind: 'failed', sentence: 'The file has changed on this computer since it was chosen. Choose it again.', canRetry: false };
  return { kind: 'broken', share: at / file.size, sentence: 'The connection broke.' };
}

/** A file that is moved or written to after it was chosen cannot be read any more; a request with it looks like a broken connection. */
const isReadable = (file: File): Promise<boolean> => file.slice(0, 1).arrayBuffer().then(() => true, () => false);

function begin(brand: string, file: File) {
  const most = /^(?:video|audio)\//.test(file.type) ? MAX_RECORDING_BYTES : MAX_UPLOAD_BYTES;
  if (file.size > most) {
    const megabytes = (bytes: number): string => `${Math.round(bytes / 1024 / 1024)} MB`;
    throw new ApiProblem(413, 'too-large', `It has ${megabytes(file.size)}; the most is ${megabytes(most)}. Export it smaller and upload it again.`, {});
  }
  // With a signal of its own it is no second press of another file's: two may have one name and one size.
  return call(startUpload, { params: { brand }, body: { name: file.name.slice(0, 200) || 'picture', bytes: file.size }, signal: new AbortController().signal });
}
