import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { getClipStrip } from '../../../contract/media-contracts.ts';
import { MIN_SHOT_MS } from '../../../core/piece/shot.ts';
import type { Recording, Span } from '../../../core/video/recording.ts';
import { goodParts } from '../../../core/video/good-part.ts';
import { Button } from '../../ui/Button.tsx';
import { addressOf } from '../../ui/call.ts';
import type { MediaItem } from '../../media/media-address.ts';

interface TrimProps {
  readonly brand: string;
  readonly item: MediaItem;
  readonly recording: Recording;
  readonly span: Span;
  readonly onChange: (span: Span) => void;
}

/** Steps of the arrow keys, in milliseconds; with Shift ten of them. */
const KEY_STEP_MS = 100;
/** A part that differs by less than this from what is shown is no news. */
const SAME_MS = 250;

/** The clip of a shot as a strip of its frames, with what was found in it, and its two ends to drag. */
export function ClipTrim({ brand, item, recording, span, onChange }: TrimProps) {
  const strip = useRef<HTMLDivElement>(null);
  const { durationMs, facts } = recording;
  const share = (ms: number): string => `${(100 * ms) / durationMs}%`;
  const setFrom = (ms: number): void => onChange({ fromMs: Math.round(Math.min(span.toMs - MIN_SHOT_MS, Math.max(0, ms))), toMs: span.toMs });
  const setTo = (ms: number): void => onChange({ fromMs: span.fromMs, toMs: Math.round(Math.min(durationMs, Math.max(span.fromMs + MIN_SHOT_MS, ms))) });
  const msAt = (event: PointerEvent): number => {
    const box = strip.current?.getBoundingClientRect();
    return box ? ((event.clientX - box.left) / box.width) * durationMs : 0;
  };
  const handle = (label: string, at: number, set: (ms: number) => void) => (
    <button
      type="button"
      role="slider"
      aria-label={label}
      aria-valuemin={0}
      aria-valuemax={durationMs}
      aria-valuenow={Math.round(at)}
      aria-valuetext={`${(at / 1000).toFixed(1)} s`}
      onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
      onPointerMove={(event) => event.currentTarget.hasPointerCapture(event.pointerId) && set(msAt(event))}
      onKeyDown={(event: KeyboardEvent) => {
        const steps: Readonly<Record<string, number>> = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 };
        const step = steps[event.key];
        if (step === undefined) return;
        event.preventDefault();
        set(at + step * KEY_STEP_MS * (event.shiftKey ? 10 : 1));
      }}
      style={{ left: share(at) }}
      className="absolute inset-y-0 z-10 w-6 -translate-x-1/2 cursor-ew-resize touch-none after:absolute after:inset-y-0 after:left-1/2 after:w-1.5 after:-translate-x-1/2 after:rounded-full after:bg-house after:shadow-[0_0_0_1.5px_var(--c-panel)]"
    />
  );
  const [best] = goodParts(recording);
  const isBetter = best !== undefined && (span.fromMs < best.fromMs - SAME_MS || span.toMs > best.toMs + SAME_MS);
  return (
    <div className="col-span-2 text-xs text-quiet">
      <p className="mb-1 flex items-baseline justify-between">
        <span>Shown of the clip</span>
        <span className="tabular-nums">
          {(span.fromMs / 1000).toFixed(1)} to {(span.toMs / 1000).toFixed(1)} of {(durationMs / 1000).toFixed(1)} s
        </span>
      </p>
      <div className="px-1.5">
        <div ref={strip} className="relative h-12 rounded-md bg-sunk bg-[length:100%_100%]" style={{ backgroundImage: `url("${addressOf(getClipStrip, { brand, media: item.id }, { of: item.revision })}")` }}>
          <span className="absolute inset-y-0 left-0 rounded-l-md bg-panel/80" style={{ width: share(span.fromMs) }} />
          <span className="absolute inset-y-0 right-0 rounded-r-md bg-panel/80" style={{ width: share(durationMs - span.toMs) }} />
          {facts.sceneChangesMs.map((ms) => (
            <span key={ms} title={`The scene changes at ${(ms / 1000).toFixed(1)} s`} className="absolute inset-y-0 w-0.5 bg-panel" style={{ left: share(ms) }} />
          ))}
          {handle('Shot begins', span.fromMs, setFrom)}
          {handle('Shot ends', span.toMs, setTo)}
        </div>
        <div className="relative mt-1 h-1.5 rounded-full bg-sunk">{found(facts).flatMap(({ word, spans, colour }) => spans.map((each) => <span key={`${word}${each.fromMs}`} title={`${word} from ${(each.fromMs / 1000).toFixed(1)} to ${(each.toMs / 1000).toFixed(1)} s`} className="absolute inset-y-0 rounded-full" style={{ left: share(each.fromMs), width: share(each.toMs - each.fromMs), background: colour }} />))}</div>
      </div>
      {found(facts).some(({ spans }) => spans.length > 0) && <p className="mt-1">{found(facts).flatMap(({ word, spans }) => (spans.length > 0 ? [`${word} ${spans.map(({ fromMs, toMs }) => `${(fromMs / 1000).toFixed(1)}–${(toMs / 1000).toFixed(1)} s`).join(', ')}`] : [])).join('; ')}</p>}
      {best && isBetter && (
        <Button size="small" className="mt-1.5" onClick={() => onChange({ fromMs: Math.max(best.fromMs, Math.min(span.fromMs, best.toMs - MIN_SHOT_MS)), toMs: Math.min(best.toMs, Math.max(span.toMs, best.fromMs + MIN_SHOT_MS)) })}>
          Keep to the good part, {(best.fromMs / 1000).toFixed(1)} to {(best.toMs / 1000).toFixed(1)} s
        </Button>
      )}
    </div>
  );
}

/** What is better not shown, in words and in colour. */
function found(facts: Recording['facts']): readonly { readonly word: string; readonly spans: readonly Span[]; readonly colour: string }[] {
  return [
    { word: 'Black', spans: facts.black, colour: 'var(--c-ink)' },
    { word: 'Still', spans: facts.frozen, colour: 'var(--c-quiet)' },
    { word: 'Blurred', spans: facts.blurred, colour: 'var(--c-coral)' },
    { word: 'Shaking', spans: facts.shaking, colour: 'var(--c-marigold)' },
  ];
}
