import { useRef, useState } from 'react';
import { MOST_UPLOAD_BYTES, uploadMedia } from '../../contract/media-contracts.ts';
import type { AnswerOf } from '../../contract/contract.ts';
import { addressOf, problemFrom } from '../ui/call.ts';

type MediaItem = AnswerOf<typeof uploadMedia>;

export type UploadState =
  | { readonly kind: 'waiting' }
  | { readonly kind: 'sending'; readonly share: number }
  /** All bytes are there; the server checks and measures the picture. */
  | { readonly kind: 'reading' }
  | { readonly kind: 'failed'; readonly sentence: string };

export interface Upload {
  readonly id: number;
  readonly file: File;
  readonly state: UploadState;
}

export interface Uploads {
  readonly list: readonly Upload[];
  readonly add: (files: readonly File[]) => void;
  /** Stops an upload, or puts away one that failed. */
  readonly drop: (id: number) => void;
}

/** Sends files one after the other, with progress. What fails stays in the list and says why. */
export function useUploads(brand: string, onDone: (item: MediaItem) => void): Uploads {
  const [list, setList] = useState<readonly Upload[]>([]);
  const requests = useRef(new Map<number, XMLHttpRequest>());
  const queue = useRef<Promise<void>>(Promise.resolve());
  const dropped = useRef(new Set<number>());
  const lastId = useRef(0);

  const set = (id: number, state: UploadState): void => setList((now) => now.map((each) => (each.id === id ? { ...each, state } : each)));
  const remove = (id: number): void => setList((now) => now.filter((each) => each.id !== id));

  const sendOne = async (upload: Upload): Promise<void> => {
    if (dropped.current.has(upload.id)) return;
    const outcome = await send(brand, upload.file, (state) => set(upload.id, state), (request) => requests.current.set(upload.id, request));
    requests.current.delete(upload.id);
    if (dropped.current.has(upload.id)) return;
    if (outcome.kind === 'failed') return set(upload.id, outcome);
    remove(upload.id);
    onDone(outcome.item);
  };

  return {
    list,
    add: (files) => {
      const added = files.map((file): Upload => ({ id: ++lastId.current, file, state: { kind: 'waiting' } }));
      setList((now) => [...now, ...added]);
      for (const upload of added) queue.current = queue.current.then(() => sendOne(upload));
    },
    drop: (id) => {
      dropped.current.add(id);
      requests.current.get(id)?.abort();
      remove(id);
    },
  };
}

type Outcome = { readonly kind: 'done'; readonly item: MediaItem } | { readonly kind: 'failed'; readonly sentence: string };

/** fetch cannot tell how much of a request has gone, hence the older interface. */
function send(brand: string, file: File, onState: (state: UploadState) => void, onRequest: (request: XMLHttpRequest) => void): Promise<Outcome> {
  if (file.size > MOST_UPLOAD_BYTES) {
    const megabytes = (bytes: number): string => `${Math.round(bytes / 1024 / 1024)} MB`;
    return Promise.resolve({ kind: 'failed', sentence: `It has ${megabytes(file.size)}; the most is ${megabytes(MOST_UPLOAD_BYTES)}. Export it smaller and bring it in again.` });
  }
  return new Promise((resolve) => {
    const request = new XMLHttpRequest();
    onRequest(request);
    request.upload.onprogress = ({ loaded, total }) => onState({ kind: 'sending', share: total > 0 ? loaded / total : 0 });
    request.upload.onload = () => onState({ kind: 'reading' });
    request.onload = () => {
      const body = readJson(request.responseText);
      if (request.status === 201) resolve({ kind: 'done', item: body as unknown as MediaItem });
      else resolve({ kind: 'failed', sentence: problemFrom(request.status, body).message });
    };
    request.onerror = () => resolve({ kind: 'failed', sentence: 'The connection broke. Bring it in again.' });
    request.onabort = () => resolve({ kind: 'failed', sentence: 'Stopped.' });
    request.open('POST', addressOf(uploadMedia, { brand }, { name: file.name.slice(0, 200) }));
    request.setRequestHeader('content-type', 'application/octet-stream');
    request.send(file);
  });
}

function readJson(text: string): Record<string, unknown> {
  try {
    return JSON.parse(text) as Record<string, unknown>;
  } catch {
    return {};
  }
}
