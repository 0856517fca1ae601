import { describe, expect, it } from 'vitest';
import { fadeStyle, raiseFade, type Fade } from './fade.ts';
import { raiseScene } from './raise-scene.ts';

const stops = [{ at: 0.25, share: 1 }, { at: 1, share: 0 }];
const line: Fade = { kind: 'line', from: { xPx: 0, yPx: 900 }, to: { xPx: 0, yPx: 500 }, stops };
const round: Fade = { kind: 'round', middle: { xPx: 300, yPx: 400 }, radiusPx: 120, stops };

/** A canvas that says which gradient was asked of it. */
function asked(fade: Fade, colour: string): readonly unknown[] {
  const calls: unknown[] = [];
  const gradient = { addColorStop: (at: number, stop: string): void => void calls.push([at, stop]) };
  fadeStyle({ createLinearGradient: (...places) => (calls.push(['line', ...places]), gradient), createRadialGradient: (...places) => (calls.push(['round', ...places]), gradient) }, fade, colour);
  return calls;
}

describe('a fade', () => {
  it('is a gradient of one colour whose opacity changes', () => {
    expect(asked(line, '#12305a')).toEqual([['line', 0, 900, 0, 500], [0.25, 'rgba(18, 48, 90, 1.00000)'], [1, 'rgba(18, 48, 90, 0.00000)']]);
    expect(asked(round, '#ffffff')[0]).toEqual(['round', 300, 400, 0, 300, 400, 120]);
  });

  it('rises with its fill', () => {
    const scene = { size: { widthPx: 10, heightPx: 10 }, nodes: [line, round].map((fade) => ({ kind: 'fill', path: 'M0 100H10V200H0Z', colour: '#000000', alpha: 1, fade }) as const) };
    const raised = raiseScene(scene, 60).nodes.map((node) => (node.kind === 'fill' ? node.fade : undefined));
    expect(raised).toEqual([raiseFade(line, 60), raiseFade(round, 60)]);
    expect(raised).toMatchObject([{ from: { yPx: 840 }, to: { yPx: 440 } }, { middle: { xPx: 300, yPx: 340 } }]);
  });
});
