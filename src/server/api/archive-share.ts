import { ProblemError } from '../errors.ts';

/** Archives that one person may have made at once: each keeps the painters busy for a while. */
const MAX_ARCHIVES = 2;
const underWay = new Map<string, number>();

/** Takes one of a person's places for archives; the answered function gives it back, once. @throws ProblemError 429 when all are taken */
export function takeArchivePlace(personId: string): () => void {
  const count = underWay.get(personId) ?? 0;
  if (count >= MAX_ARCHIVES) throw new ProblemError(429, 'archives-under-way', `${MAX_ARCHIVES} downloads of yours are being made already. Wait until one is done.`, { retryAfterSeconds: 20 });
  underWay.set(personId, count + 1);
  let isGiven = false;
  return () => {
    if (isGiven) return;
    isGiven = true;
    const left = (underWay.get(personId) ?? 1) - 1;
    if (left > 0) underWay.set(personId, left);
    else underWay.delete(personId);
  };
}

/** A stream that says when it has ended, broken off or been cancelled. */
export function withEnd(stream: ReadableStream<Uint8Array<ArrayBuffer>>, end: () => void): ReadableStream<Uint8Array<ArrayBuffer>> {
  const reader = stream.getReader();
  return new ReadableStream({
    async pull(controller) {
      try {
        const { done, value } = await reader.read();
        if (!done) return controller.enqueue(value);
        end();
        controller.close();
      } catch (error) {
        end();
        controller.error(error);
      }
    },
    async cancel(reason) {
      end();
      await reader.cancel(reason);
    },
  });
}
