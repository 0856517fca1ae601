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

/** Sends files one after the other in parts, with progress. What breaks can resume; what fails says why. */
export function useUploads(brand: string, onDone: (item: MediaItem) => void): Uploads {
  const [list, setList] = useState<readonly Upload[]>([]);
  const remote = useRef(new Map<number, string>());
  const queue = useRef<Promise<void>>(Promise.resolve());
  const dropped = useRef(new Set<number>());
  const lastId = useRef(0);

  const set = (id: number, state: UploadState): void => setList((now) => now.map((each) => (each.id === id ? { ...each, state } : each)));
  const remove = (id: number): void => setList((now) => now.filter((each) => each.id !== id));

  const sendOne = async ({ id, file }: Upload): Promise<void> => {
    if (dropped.current.has(id)) return;
    let at = 0;
    try {
      const known = remote.current.get(id);
      let state = known === undefined ? await begin(brand, file) : await call(getUpload, { params: { brand, upload: known } });
      remote.current.set(id, state.id);
      if (state.work?.state === 'failed') state = await call(retryUpload, { params: { brand, upload: state.id } });
      for (at = state.received; at < file.size; at = state.received) {
        if (dropped.current.has(id)) return;
        set(id, { kind: 'sending', share: at / file.size });
        state = await sendFile(sendUploadPart, { brand, upload: state.id }, { at }, file.slice(at, at + PART_BYTES));
      }
      while (!state.item && !dropped.current.has(id)) {
        if (state.work?.state === 'failed' || state.work?.state === 'cancelled') return set(id, { kind: 'failed', sentence: state.work.problem ?? 'It could not be imported.', canRetry: true });
        set(id, { kind: 'importing', share: state.work?.progress ?? 0 });
        await new Promise((resolve) => setTimeout(resolve, ASK_EVERY_MS));
        state = await call(getUpload, { params: { brand, upload: state.id } });
      }
      if (!state.item) return;
      remove(id);
      onDone(state.item);
    } catch (error) {
      if (dropped.current.has(id) || !(error instanceof ApiProblem)) return;
      if (error.status === 0 && !(await isReadable(file))) return set(id, { kind: 'failed', sentence: 'The file has changed on this computer since it was chosen. Choose it again.', canRetry: false });
      set(id, error.status === 0 ? { kind: 'broken', share: at / file.size, sentence: 'The connection broke.' } : { kind: 'failed', sentence: error.message, canRetry: false });
    }
  };
  const enqueue = (upload: Upload): void => {
    queue.current = queue.current.then(() => sendOne(upload));
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

/** A file that is moved or written to after it was chosen cannot be read any more; a request with it looks like a broken connection. */
const isReadable = (file: File): Promise<boolean> => file.slice(0, 1).arrayBuffer().then(() => true, () => false);

function begin(brand: string, file: File) {
  const most = /^(?:video|audio)\//.test(file.type) ? MAX_RECORDING_BYTES : MAX_UPLOAD_BYTES;
  if (file.size > most) {
    const megabytes = (bytes: number): string => `${Math.round(bytes / 1024 / 1024)} MB`;
    throw new ApiProblem(413, 'too-large', `It has ${megabytes(file.size)}; the most is ${megabytes(most)}. Export it smaller and upload it again.`, {});
  }
  return call(startUpload, { params: { brand }, body: { name: file.name.slice(0, 200) || 'picture', bytes: file.size } });
}
