import type { Painting } from './painter/wall-painter.ts';
import { overtake } from './overtake.ts';
import type { PainterMessage, PaintRequest, WallContent, WallMessage } from './wall-protocol.ts';

/**
 * Paints the cuts of a proof wall. The newest request wins: while one is painted, later ones replace each other in the
 * waiting place.
 */
let waiting: Painting | null = null;
let isWorking = false;
let isRehearsed = false;
/** How long a painter has nothing to do before it rehearses, in milliseconds. */
const REST_MS = 400;
let resting: ReturnType<typeof setTimeout> | undefined;
let content: WallContent | null = null;

// HarfBuzz starts with a top-level await: a handler set behind a static import would miss the first message.
self.onmessage = ({ data }: MessageEvent<PainterMessage>) => {
  if (data.kind === 'content') {
    content = data.content;
    return;
  }
  if (!content) return closeClipPictures(data);
  clearTimeout(resting);
  // A request that is overtaken takes the pictures that were made for it along.
  if (waiting) closeClipPictures(waiting);
  waiting = { ...(waiting ? overtake(waiting, data) : data), content };
  if (!isWorking) void work();
};

const painting = import('./painter/wall-painter.ts').then(({ WallPainter }) => WallPainter.start());
// A painter that cannot start says so with the first request.
painting.catch(() => undefined);

async function work(): Promise<void> {
  isWorking = true;
  let last: Painting | null = null;
  for (await letMessagesIn(); waiting; await letMessagesIn()) {
    const request = waiting;
    last = request;
    waiting = null;
    try {
      await (await painting).paint(request, () => waiting !== null);
    } catch (error) {
      self.postMessage({ kind: 'failed', id: request.id, sentence: error instanceof Error ? error.message : String(error) } satisfies WallMessage);
    } finally {
      closeClipPictures(request);
    }
  }
  isWorking = false;
  const written = last?.isWrittenIn && !isRehearsed ? last : null;
  if (written) resting = setTimeout(() => void rehearse(written), REST_MS);
}

async function rehearse(request: Painting): Promise<void> {
  isWorking = true;
  isRehearsed = true;
  try {
    await (await painting).rehearse(request, async () => {
      await letMessagesIn();
      return waiting !== null;
    });
  } catch {
    // Nobody waits for a rehearsal. What is wrong with the content, the next request says.
  }
  await work();
}

const yielder = new MessageChannel();

/** Lets messages that have come in meanwhile be handled, so that only the newest request is painted. */
function letMessagesIn(): Promise<void> {
  return new Promise((resolve) => {
    yielder.port1.onmessage = () => resolve();
    yielder.port2.postMessage(null);
  });
}

function closeClipPictures({ clipPictures }: Pick<PaintRequest, 'clipPictures'>): void {
  for (const { bitmap } of clipPictures ?? []) bitmap.close();
}
