import { useId } from 'react';
import { MIN_SHOT_MS, MAX_SHOT_MS, slowMoves, transitionKinds, type Shot, type SlowMove, type TransitionKind } from '../../../core/piece/shot.ts';
import { clipOf, readingMs, shotLengthMs, startInClipMs } from '../../../core/video/shot-times.ts';
import { ClipTrim } from './ClipTrim.tsx';
import type { ContentProps } from '../view-props.ts';
import { draftFrame } from '../draft-frame.ts';
import { recordingsOf } from './use-video.ts';

const transitionNames: Readonly<Record<TransitionKind, string>> = { cut: 'Cut', fade: 'Fade', push: 'Push', wipe: 'Wipe', sweep: 'Sweep of scraps' };
const moveNames: Readonly<Record<SlowMove, string>> = { closer: 'Closer', away: 'Away', left: 'To the left', right: 'To the right', still: 'Not at all' };
const USUAL_TRANSITION_MS = 400;
const inputLook = 'h-8 w-full rounded-md border border-line bg-panel px-2 text-sm tabular-nums';

/** How long a shot lasts, where its clip begins, how it comes in and how loud it is. */
export function ShotFields({ piece, frame, store, brand, media, readOnly }: ContentProps) {
  const recordings = recordingsOf(media);
  const clip = clipOf(frame, recordings);
  const item = clip ? media.get(clip.mediaId) : undefined;
  const showsPicture = Object.values(frame.slots).some(({ kind }) => kind === 'picture');
  const lengthMs = shotLengthMs(frame, recordings);
  const isFirst = piece.frames[0].id === frame.id;
  const change = (part: Shot): void =>
    store.change(`shot-${frame.id}-${Object.keys(part).join('')}`, (draft) => {
      const written = draftFrame(draft, frame.id);
      written.shot = { ...written.shot, ...part };
      if (part.onlyCover === undefined && 'onlyCover' in part) delete written.shot.onlyCover;
    });
  const into = frame.shot?.into ?? { kind: 'cut' as const, ms: 0 };
  const readIn = readingMs(frame);
  return (
    <fieldset disabled={readOnly} className="grid grid-cols-2 gap-x-3 gap-y-2.5 border-b border-line pb-4">
      <legend className="sr-only">How the shot plays</legend>
      <Seconds label="Lasts" ms={lengthMs} leastMs={MIN_SHOT_MS} mostMs={clip ? clip.recording.durationMs - startInClipMs(frame, clip.recording) : MAX_SHOT_MS} onChange={(ms) => change({ lengthMs: ms })} />
      {clip && <Seconds label="Clip begins at" ms={startInClipMs(frame, clip.recording)} leastMs={0} mostMs={clip.recording.durationMs - MIN_SHOT_MS} onChange={(ms) => change({ fromMs: ms })} />}
      {clip && item && (
        <ClipTrim
          brand={brand.slug}
          item={item}
          recording={clip.recording}
          span={{ fromMs: startInClipMs(frame, clip.recording), toMs: startInClipMs(frame, clip.recording) + lengthMs }}
          onChange={({ fromMs, toMs }) => change({ fromMs, lengthMs: Math.round(toMs - fromMs) })}
        />
      )}
      {!clip && showsPicture && <Choice label="The picture moves" value={frame.shot?.move ?? 'closer'} options={slowMoves.map((move) => [move, moveNames[move]])} onChange={(move) => change({ move: move as SlowMove })} />}
      {!isFirst && (
        <Choice label="Comes in by" value={into.kind} options={transitionKinds.map((kind) => [kind, transitionNames[kind]])} onChange={(kind) => change({ into: { kind: kind as TransitionKind, ms: kind === 'cut' ? 0 : into.ms || USUAL_TRANSITION_MS } })} />
      )}
      {!isFirst && into.kind !== 'cut' && <Seconds label="Within" ms={into.ms} leastMs={100} mostMs={2_000} onChange={(ms) => change({ into: { ...into, ms } })} />}
      {clip?.recording.hasSound && (
        <label className="col-span-2 text-xs text-quiet">
          Sound of the clip
          <input type="range" min={0} max={1} step={0.05} value={frame.shot?.volume ?? 1} onChange={(event) => change({ volume: event.target.valueAsNumber })} className="mt-1 w-full accent-house" />
        </label>
      )}
      {!isFirst && (
        <label className="col-span-2 flex items-center gap-2 text-sm">
          <input type="checkbox" checked={frame.shot?.onlyCover === true} onChange={(event) => change({ onlyCover: event.target.checked ? true : undefined })} className="accent-house" />
          Only there to be the cover, not played
        </label>
      )}
      {readIn > lengthMs && <p className="col-span-2 text-xs font-medium text-marigold-ink">Its words take {(readIn / 1000).toFixed(1)} s to read.</p>}
    </fieldset>
  );
}

interface SecondsProps {
  readonly label: string;
  readonly ms: number;
  readonly leastMs: number;
  readonly mostMs: number;
  readonly onChange: (ms: number) => void;
}

function Seconds({ label, ms, leastMs, mostMs, onChange }: SecondsProps) {
  const id = useId();
  return (
    <div className="text-xs text-quiet">
      <label htmlFor={id}>{label}</label>
      <span className="mt-1 flex items-center gap-1.5">
        <input
          id={id}
          type="number"
          min={leastMs / 1000}
          max={Math.floor(mostMs / 100) / 10}
          step={0.1}
          value={Math.round(ms / 100) / 10}
          onChange={(event) => {
            const wanted = Math.round(event.target.valueAsNumber * 1000);
            if (Number.isFinite(wanted)) onChange(Math.min(Math.floor(mostMs), Math.max(leastMs, wanted)));
          }}
          className={`${inputLook} text-ink`}
        />
        s
      </span>
    </div>
  );
}

interface ChoiceProps {
  readonly label: string;
  readonly value: string;
  readonly options: readonly (readonly [string, string])[];
  readonly onChange: (value: string) => void;
}

function Choice({ label, value, options, onChange }: ChoiceProps) {
  return (
    <label className="text-xs text-quiet">
      {label}
      <select value={value} onChange={(event) => onChange(event.target.value)} className={`${inputLook} mt-1 text-ink`}>
        {options.map(([key, name]) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}
