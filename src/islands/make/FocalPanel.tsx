import { useMutation, useQueryClient } from '@tanstack/react-query';
import X from 'lucide-react/icons/x';
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { changeMedia } from '../../contract/media-contracts.ts';
import type { BodyOf } from '../../contract/contract.ts';
import { cropWindow, type Picture } from '../../core/crop/crop-window.ts';
import type { FocalPoint } from '../../core/crop/picture-facts.ts';
import { ApiProblem, call } from '../ui/call.ts';
import { Button } from '../ui/Button.tsx';
import { Field, inputClasses } from '../ui/Field.tsx';
import { toast } from '../ui/toast.tsx';
import { mediaAddress, type MediaItem } from '../media/media-address.ts';
import { RecordingPlayer } from './RecordingPlayer.tsx';
import { SubjectTrack } from './SubjectTrack.tsx';
import { MediaDetails } from './MediaDetails.tsx';

const shapes = [
  { name: '1:1', width: 1, height: 1 },
  { name: '4:5', width: 4, height: 5 },
  { name: '9:16', width: 9, height: 16 },
  { name: '16:9', width: 16, height: 9 },
] as const;
const KEY_STEP = 0.02;

/** A picture with its focal point to move, and how every shape would crop it. */
export function FocalPanel({ brand, item, onClose }: { readonly brand: string; readonly item: MediaItem; readonly onClose: () => void }) {
  const client = useQueryClient();
  const [focal, setFocal] = useState<FocalPoint>(item.focal);
  const [byPerson, setByPerson] = useState(item.focalBy === 'person');
  const [altText, setAltText] = useState(item.altText);
  const revision = useRef(item.revision);
  const save = useMutation({
    mutationFn: (change: Omit<BodyOf<typeof changeMedia>, 'revision'>) => call(changeMedia, { params: { brand, media: item.id }, body: { revision: revision.current, ...change } as BodyOf<typeof changeMedia> }),
    // One after the other: each save stands on the revision that the one before has answered.
    scope: { id: `media-${item.id}` },
    onSuccess: (saved) => {
      revision.current = saved.revision;
      setFocal(saved.focal);
      setByPerson(saved.focalBy === 'person');
      void client.invalidateQueries({ queryKey: ['media', brand] });
    },
    onError: (error) => {
      toast('problem', error.message);
      if (error instanceof ApiProblem && error.code === 'stale-revision') void client.invalidateQueries({ queryKey: ['media', brand] });
    },
  });
  const picture: Picture = { id: item.id, widthPx: item.widthPx, heightPx: item.heightPx, facts: item.facts, focal, focalBy: byPerson ? 'person' : 'proposal' };
  const moveTo = (point: FocalPoint): void => {
    setFocal({ x: clamp(point.x), y: clamp(point.y) });
    setByPerson(true);
  };
  return (
    <aside aria-label={item.name} className="w-96 shrink-0 overflow-auto border-l border-line bg-panel p-4 max-md:absolute max-md:inset-0 max-md:z-10 max-md:w-full max-md:border-l-0">
      <div className="mb-3 flex items-start justify-between gap-3">
        <div className="min-w-0">
          <h2 className="truncate text-base font-semibold">{item.name}</h2>
          <p className="text-xs text-quiet tabular-nums">
            {item.recording?.kind === 'sound' ? 'Sound' : `${item.widthPx} × ${item.heightPx}`}
            {item.recording ? '' : `, ${Math.max(1, Math.round(item.bytes / 1024))} KB`}
          </p>
        </div>
        <button type="button" aria-label="Close" onClick={onClose} className="rounded-md p-1 text-quiet hover:bg-sunk hover:text-ink">
          <X aria-hidden className="size-4" />
        </button>
      </div>
      {item.archived && <p className="mb-2 rounded-md bg-sunk px-2.5 py-1.5 text-xs text-quiet">Archived: it stays where it is used and is not offered any more.</p>}
      {item.recording && <RecordingPlayer brand={brand} item={item} recording={item.recording} />}
      {item.recording?.kind === 'clip' && <SubjectTrack brand={brand} item={item} recording={item.recording} onChange={(subject) => save.mutate({ subject: subject && [...subject] })} />}
      {/* A sound has nothing to crop. */}
      {item.recording?.kind !== 'sound' && (
        <>
          <FocalPicture aspect={item.widthPx / item.heightPx} address={mediaAddress(brand, item, 640)} altText={altText} focal={focal} onMove={moveTo} onSettle={(point) => save.mutate({ focal: point })} />
          <div className="mt-2 flex items-center justify-between gap-2 text-xs text-quiet">
            <span>{byPerson ? 'Focal point: placed by hand.' : 'Focal point: proposed. Drag it, or use the arrow keys.'}</span>
            {byPerson && (
              <Button look="quiet" size="small" onClick={() => save.mutate({ focal: null })}>
                Back to the proposal
              </Button>
            )}
          </div>
          <h3 className="mt-4 mb-2 text-sm font-semibold">How it crops</h3>
          <div className="flex flex-wrap items-end gap-3">
            {shapes.map((shape) => (
              <CropPreview key={shape.name} shape={shape} picture={picture} address={mediaAddress(brand, item, 640)} />
            ))}
          </div>
        </>
      )}
      <div className="mt-5">
        <Field label="Alt text" hint="What somebody who cannot see it should know.">
          {({ id, describedBy }) => (
            <textarea
              id={id}
              aria-describedby={describedBy}
              rows={3}
              maxLength={1000}
              value={altText}
              onChange={(event) => setAltText(event.target.value)}
              onBlur={() => altText !== item.altText && save.mutate({ altText })}
              className={inputClasses}
            />
          )}
        </Field>
      </div>
      <MediaDetails brand={brand} item={item} revision={() => revision.current} onChange={(change) => save.mutate(change)} onReplaced={onClose} />
    </aside>
  );
}

function clamp(value: number): number {
  return Math.min(1, Math.max(0, Math.round(value * 1000) / 1000));
}

interface FocalPictureProps {
  /** Width by height: its room is there before the picture is. */
  readonly aspect: number;
  readonly address: string;
  readonly altText: string;
  readonly focal: FocalPoint;
  readonly onMove: (point: FocalPoint) => void;
  readonly onSettle: (point: FocalPoint) => void;
}

function FocalPicture({ aspect, address, altText, focal, onMove, onSettle }: FocalPictureProps) {
  const area = useRef<HTMLDivElement>(null);
  const pointOf = (event: PointerEvent): FocalPoint => {
    const box = area.current?.getBoundingClientRect();
    return box ? { x: clamp((event.clientX - box.left) / box.width), y: clamp((event.clientY - box.top) / box.height) } : focal;
  };
  const step = (event: KeyboardEvent): void => {
    const moves: Readonly<Record<string, readonly [number, number]>> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
    const move = moves[event.key];
    if (!move) return;
    event.preventDefault();
    const point = { x: clamp(focal.x + move[0] * KEY_STEP), y: clamp(focal.y + move[1] * KEY_STEP) };
    onMove(point);
    onSettle(point);
  };
  return (
    <div
      ref={area}
      className="relative touch-none overflow-hidden rounded-md bg-sunk"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        onMove(pointOf(event));
      }}
      onPointerMove={(event) => event.currentTarget.hasPointerCapture(event.pointerId) && onMove(pointOf(event))}
      onPointerUp={(event) => onSettle(pointOf(event))}
    >
      <img src={address} alt={altText} draggable={false} style={{ aspectRatio: aspect }} className="block w-full select-none" />
      <button
        type="button"
        aria-label={`Focal point, ${Math.round(focal.x * 100)}% from the left, ${Math.round(focal.y * 100)}% from the top. Move with the arrow keys.`}
        onKeyDown={step}
        style={{ left: `${focal.x * 100}%`, top: `${focal.y * 100}%` }}
        className="absolute size-9 -translate-x-1/2 -translate-y-1/2 cursor-move rounded-md border-2 border-panel shadow-[0_0_0_1.5px_var(--c-ink),inset_0_0_0_1.5px_var(--c-ink)] after:absolute after:inset-[45%] after:rounded-full after:bg-panel after:shadow-[0_0_0_1.5px_var(--c-ink)]"
      />
    </div>
  );
}

const PREVIEW_HEIGHT_PX = 84;

function CropPreview({ shape, picture, address }: { readonly shape: (typeof shapes)[number]; readonly picture: Picture; readonly address: string }) {
  const height = shape.width > shape.height ? PREVIEW_HEIGHT_PX * 0.75 : PREVIEW_HEIGHT_PX;
  const width = (height * shape.width) / shape.height;
  const box = { xPx: 0, yPx: 0, widthPx: width, heightPx: height };
  const window = cropWindow(picture, box, box);
  return (
    <figure className="text-center">
      <div className="overflow-hidden rounded-md bg-sunk" style={{ width, height }}>
        <img src={address} alt="" draggable={false} style={{ width: width / window.width, maxWidth: 'none', height: height / window.height, marginLeft: -(window.x * width) / window.width, marginTop: -(window.y * height) / window.height }} />
      </div>
      <figcaption className="mt-1 text-xs text-quiet">{shape.name}</figcaption>
    </figure>
  );
}
