import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { getRecordingFile } from '../../contract/media-contracts.ts';
import type { FocalPoint } from '../../core/crop/picture-facts.ts';
import type { FocalAt, Recording } from '../../core/video/recording.ts';
import { subjectAt } from '../../core/video/movement.ts';
import { Button } from '../ui/Button.tsx';
import { addressOf } from '../ui/call.ts';
import { mediaAddress, type MediaItem } from '../media/media-address.ts';

interface TrackProps {
  readonly brand: string;
  readonly item: MediaItem;
  readonly recording: Recording;
  readonly onChange: (subject: readonly FocalAt[] | null) => void;
}

const KEY_STEP = 0.01;
/** A point this near to the moment at hand is the one that is moved. */
const SAME_MS = 120;

/** Where the subject of a clip is, moment by moment: as it was found, or as a person has placed it. Crops follow it. */
export function SubjectTrack({ brand, item, recording, onChange }: TrackProps) {
  // What a person has placed; null stands for what was found.
  const [byHand, setByHand] = useState<readonly FocalAt[] | null>(recording.subject ?? null);
  const points = byHand ?? recording.facts.subject;
  const [atMs, setAtMs] = useState(0);
  const video = useRef<HTMLVideoElement>(null);
  const area = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (video.current) video.current.currentTime = atMs / 1000;
  }, [atMs]);
  const here = subjectAt(points, atMs) ?? item.focal;
  const own = points.find((point) => Math.abs(point.atMs - atMs) <= SAME_MS);
  const placed = (point: FocalPoint): readonly FocalAt[] => [...points.filter((each) => each !== own), { x: clamp(point.x), y: clamp(point.y), atMs: own?.atMs ?? Math.round(atMs) }].sort((a, b) => a.atMs - b.atMs);
  const pointOf = (event: PointerEvent): FocalPoint => {
    const box = area.current?.getBoundingClientRect();
    return box ? { x: (event.clientX - box.left) / box.width, y: (event.clientY - box.top) / box.height } : here;
  };
  const keep = (next: readonly FocalAt[] | null): void => {
    setByHand(next);
    onChange(next);
  };
  const keys = (event: KeyboardEvent): void => {
    const moves: Readonly<Record<string, readonly [number, number]>> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
    const move = moves[event.key];
    if (!move) return;
    event.preventDefault();
    keep(placed({ x: here.x + move[0] * KEY_STEP, y: here.y + move[1] * KEY_STEP }));
  };
  return (
    <div className="mb-3">
      <h3 className="mb-1.5 text-sm font-semibold">Where the subject is</h3>
      <div
        ref={area}
        className="relative touch-none overflow-hidden rounded-md bg-sunk"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          setByHand(placed(pointOf(event)));
        }}
        onPointerMove={(event) => event.currentTarget.hasPointerCapture(event.pointerId) && setByHand(placed(pointOf(event)))}
        onPointerUp={(event) => keep(placed(pointOf(event)))}
      >
        <video ref={video} src={addressOf(getRecordingFile, { brand, media: item.id }, { of: item.revision })} poster={mediaAddress(brand, item, 640)} muted playsInline preload="auto" style={{ aspectRatio: item.widthPx / item.heightPx }} className="block w-full" />
        <svg viewBox="0 0 100 100" preserveAspectRatio="none" className="pointer-events-none absolute inset-0 size-full" aria-hidden>
          <polyline points={points.map(({ x, y }) => `${x * 100},${y * 100}`).join(' ')} fill="none" stroke="var(--c-panel)" strokeWidth="2" strokeDasharray="5 4" vectorEffect="non-scaling-stroke" />
        </svg>
        <button
          type="button"
          aria-label={`Subject at ${(atMs / 1000).toFixed(1)} s, ${Math.round(here.x * 100)}% from the left, ${Math.round(here.y * 100)}% from the top. Move with the arrow keys.`}
          onKeyDown={keys}
          style={{ left: `${here.x * 100}%`, top: `${here.y * 100}%` }}
          className="absolute size-8 -translate-x-1/2 -translate-y-1/2 cursor-move rounded-full border-2 border-panel shadow-[0_0_0_1.5px_var(--c-ink),inset_0_0_0_1.5px_var(--c-ink)]"
        />
      </div>
      <div className="relative mt-2">
        <input type="range" aria-label="Moment of the clip" aria-valuetext={`${(atMs / 1000).toFixed(1)} s`} min={0} max={recording.durationMs} step={50} value={atMs} onChange={(event) => setAtMs(event.target.valueAsNumber)} className="w-full accent-house" />
        <div className="relative mx-2 h-2">
          {points.map((point) => (
            <button key={point.atMs} type="button" aria-label={`Go to the point at ${(point.atMs / 1000).toFixed(1)} s`} onClick={() => setAtMs(point.atMs)} style={{ left: `${(100 * point.atMs) / recording.durationMs}%` }} className="absolute -top-1 size-6 -translate-x-1/2 after:absolute after:inset-[7px] after:rotate-45 after:bg-house" />
          ))}
        </div>
      </div>
      <p className="mt-2 text-xs text-quiet">
        {points.length === 0 ? 'It stays where the focal point is. If it moves, go to a moment and drag it there.' : byHand ? `Placed by hand at ${points.length === 1 ? 'one moment' : `${points.length} moments`}; every crop follows.` : `Found at ${points.length} moments; every crop follows. Drag it where that is wrong.`}
      </p>
      <div className="mt-1.5 flex flex-wrap gap-1.5">
        {own && (
          <Button size="small" onClick={() => keep(points.filter((each) => each !== own))}>
            Remove this point
          </Button>
        )}
        {points.length > 0 && (
          <Button size="small" look="quiet" onClick={() => keep([])}>
            It stays in one place
          </Button>
        )}
        {byHand && (recording.facts.subject.length > 0 || points.length > 0) && (
          <Button size="small" look="quiet" onClick={() => keep(null)}>
            Back to what was found
          </Button>
        )}
      </div>
    </div>
  );
}

function clamp(value: number): number {
  return Math.min(1, Math.max(0, Math.round(value * 1000) / 1000));
}
