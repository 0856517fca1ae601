const HEARTBEAT_MS = 20_000;
/** How soon a stream ends once its session or membership has. */
const LOOK_EVERY_MS = 3_000;
/** A browser whose stream breaks comes back after this long. */
const RETRY_MS = 2_000;

/** Writes to one stream of server-sent events. */
export interface EventWriter {
  /** Sends an event; `id` is what the browser says it has heard last when it comes back. */
  readonly send: (event: string, data: unknown, id?: number) => void;
}

/**
 * A stream of server-sent events.
 * @param mayGoOn asked now and then: whoever may no longer see what the stream tells is told nothing more
 * @param open begins to write and answers how to end; what it throws ends the stream, so that the browser comes back
 * @see https://html.spec.whatwg.org/multipage/server-sent-events.html
 */
export function eventStream(signal: AbortSignal, mayGoOn: () => Promise<boolean>, open: (writer: EventWriter) => Promise<() => void>): Response {
  const encoder = new TextEncoder();
  let end: (() => void) | null = null;
  let heartbeat: NodeJS.Timeout | undefined;
  let look: NodeJS.Timeout | undefined;
  let isClosed = false;
  const close = (): void => {
    if (isClosed) return;
    isClosed = true;
    clearInterval(heartbeat);
    clearInterval(look);
    end?.();
  };
  const stream = new ReadableStream<Uint8Array>({
    async start(controller) {
      const write = (text: string): void => {
        if (isClosed) return;
        try {
          controller.enqueue(encoder.encode(text));
        } catch {
          // The browser has gone between two words.
          close();
        }
      };
      signal.addEventListener('abort', close, { once: true });
      try {
        end = await open({ send: (event, data, id) => write(`${id === undefined ? '' : `id: ${id}\n`}event: ${event}\ndata: ${JSON.stringify(data)}\n\n`) });
      } catch (error) {
        close();
        controller.error(error);
        return;
      }
      if (isClosed || signal.aborted) return end();
      heartbeat = setInterval(() => write(': still here\n\n'), HEARTBEAT_MS);
      look = setInterval(() => {
        // A database that cannot be read for a moment ends no stream.
        mayGoOn().then((may) => {
          if (may || isClosed) return;
          close();
          controller.close();
        }, () => undefined);
      }, LOOK_EVERY_MS);
      write(`retry: ${RETRY_MS}\n\n`);
    },
    cancel: close,
  });
  return new Response(stream, { headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' } });
}
