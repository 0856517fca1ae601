import { describe, expect, it } from 'vitest';
import { readBody } from './read-body.ts';

/** A body in chunks that notes how much of it has been asked for. */
function chunked(chunk: Uint8Array, count: number): { readonly request: Request; readonly asked: () => number; readonly isCancelled: () => boolean } {
  let asked = 0;
  let isCancelled = false;
  const body = new ReadableStream<Uint8Array>({
    pull(controller) {
      asked += 1;
      if (asked > count) controller.close();
      else controller.enqueue(chunk);
    },
    cancel() {
      isCancelled = true;
    },
  });
  const init: RequestInit & { readonly duplex: 'half' } = { method: 'POST', body, duplex: 'half' };
  return { request: new Request('http://localhost/', init), asked: () => asked, isCancelled: () => isCancelled };
}

describe('reading a body', () => {
  it('reads chunks that stay within the limit, to the byte', async () => {
    const { request } = chunked(new TextEncoder().encode('äb'), 3);
    expect((await readBody(request, 9)).toString('utf8')).toBe('äbäbäb');
  });

  it('stops at the first byte too many, instead of reading on', async () => {
    const { request, asked, isCancelled } = chunked(new Uint8Array(1_000), 10_000);
    await expect(readBody(request, 5_000)).rejects.toMatchObject({ status: 413, code: 'too-large' });
    expect(asked()).toBeLessThan(10);
    expect(isCancelled()).toBe(true);
  });

  it('reads nothing of what is announced as too long', async () => {
    const request = new Request('http://localhost/', { method: 'POST', headers: { 'content-length': '6000' }, body: 'short' });
    await expect(readBody(request, 5_000)).rejects.toMatchObject({ status: 413 });
    expect(request.bodyUsed).toBe(false);
  });

  it('finds nothing in a request without a body', async () => {
    expect(await readBody(new Request('http://localhost/'), 10)).toHaveLength(0);
  });
});
