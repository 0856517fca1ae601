import type { Page } from '@playwright/test';

/** Both ends of the switch between the painter and its floor. */
const CHANNEL = 'bench-floor';
const SWITCH_MS = 60;

/**
 * Stands before the program's own painter. While the floor is on, it answers a request by drawing ready bitmaps of what the last
 * request painted, at the same sizes, on canvases that it keeps: all that a painter cannot do without. Else the painter works.
 */
const floorSource = (painterAddress: string): string => `
const post = self.postMessage.bind(self);
const kept = new Map();
let lastId = -1;
let lastKeys = new Set();
let isFloor = false;
let painter = null;
const canvases = new Map();
const contextOf = (name, width, height) => {
  const key = name + width + 'x' + height;
  if (!canvases.has(key)) canvases.set(key, new OffscreenCanvas(width, height).getContext('2d', { alpha: false, willReadFrequently: true }));
  return canvases.get(key);
};
self.postMessage = (message, options) => {
  if (message.kind === 'painted') {
    if (message.id !== lastId) lastKeys = new Set();
    lastId = message.id;
    for (const { key, pixels, report, settled } of message.cuts) {
      if (!pixels) continue;
      lastKeys.add(key);
      const { image, xPx, yPx, whole } = pixels;
      const isWhole = image.width === whole.widthPx && image.height === whole.heightPx;
      // The pixels are given away; the bitmap is made when the floor needs it, not while a keystroke is measured.
      const copy = { image: new ImageData(image.data.slice(), image.width, image.height), xPx, yPx };
      kept.set(key, { whole, parts: [...(isWhole ? [] : kept.get(key).parts), copy], report, settled });
    }
  }
  post(message, options);
};
Object.defineProperty(self, 'onmessage', { set(handler) { painter = handler; }, get() { return painter; } });
const early = [];
const answer = (event) => {
  const { data } = event;
  if (!isFloor || data.kind !== 'paint') return painter ? painter(event) : early.push(event);
  const cuts = [...lastKeys].flatMap((key) => {
    const own = kept.get(key);
    if (!own) return [];
    const { widthPx, heightPx } = own.whole;
    const context = contextOf('shown', widthPx, heightPx);
    context.drawImage(own.bitmap, 0, 0);
    return [{ key, pixels: { image: context.getImageData(0, 0, widthPx, heightPx), xPx: 0, yPx: 0, whole: own.whole }, report: own.report, settled: own.settled }];
  });
  post({ kind: 'painted', id: data.id, cuts }, { transfer: cuts.map(({ pixels }) => pixels.image.data.buffer) });
  post({ kind: 'done', id: data.id, tookMs: 0 });
};
self.addEventListener('message', answer);
new BroadcastChannel(${JSON.stringify(CHANNEL)}).onmessage = ({ data }) => {
  isFloor = data;
  if (!isFloor) return;
  for (const key of lastKeys) {
    const own = kept.get(key);
    const context = contextOf(key, own.whole.widthPx, own.whole.heightPx);
    for (const { image, xPx, yPx } of own.parts.splice(0)) context.putImageData(image, xPx, yPx);
    own.bitmap = context.canvas;
  }
};
import(${JSON.stringify(painterAddress)}).then(() => early.splice(0).forEach(answer));
`;

/** From now on pages load their painters with the floor before them. */
export async function routeFloor(page: Page): Promise<void> {
  await page.route(/\/wall-worker[^/]*\.js$/, (route) => route.fulfill({ contentType: 'text/javascript', body: floorSource(`${route.request().url()}?painter`) }));
}

/** Switches between the painter and its floor, and waits until the painters are ready for it. */
export async function switchFloor(page: Page, isOn: boolean): Promise<void> {
  await page.evaluate(
    ({ channel, on }) => {
      const tell = new BroadcastChannel(channel);
      tell.postMessage(on);
      tell.close();
    },
    { channel: CHANNEL, on: isOn },
  );
  await page.waitForTimeout(SWITCH_MS);
}
