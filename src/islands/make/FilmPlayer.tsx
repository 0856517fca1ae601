import { getMediaFilm } from '../../contract/media-contracts.ts';
import { clockLength, type Span } from '../../core/video/film.ts';
import { addressOf } from '../ui/call.ts';
import { mediaAddress, type MediaItem } from '../ui/media-address.ts';

interface PlayerProps {
  readonly brand: string;
  readonly item: MediaItem;
  readonly film: NonNullable<MediaItem['film']>;
}

/** A clip or sound to play, and what was found in it when it came in. */
export function FilmPlayer({ brand, item, film }: PlayerProps) {
  const address = addressOf(getMediaFilm, { brand, media: item.id }, { of: item.revision });
  const found = findings(film);
  return (
    <div className="mb-3">
      {film.kind === 'clip' ? (
        <video src={address} poster={mediaAddress(brand, item, 640)} controls preload="metadata" playsInline aria-label={`Play ${item.name}`} className="max-h-72 w-full rounded-md bg-sunk" />
      ) : (
        <audio src={address} controls preload="metadata" aria-label={`Play ${item.name}`} className="w-full" />
      )}
      <p className="mt-1.5 text-xs text-quiet tabular-nums">
        {clockLength(film.durationMs)}, {film.hasSound ? 'with sound' : 'silent'}
        {found.length > 0 && `; ${found.join('; ')}`}
      </p>
    </div>
  );
}

function findings({ facts, durationMs }: PlayerProps['film']): readonly string[] {
  const scenes = facts.sceneChangesMs.length + 1;
  return [
    ...(scenes > 1 ? [`${scenes} scenes`] : []),
    ...spans('black', facts.black, durationMs),
    ...spans('still', facts.frozen, durationMs),
  ];
}

function spans(word: string, found: readonly Span[], durationMs: number): readonly string[] {
  const totalMs = found.reduce((sum, { fromMs, toMs }) => sum + toMs - fromMs, 0);
  return totalMs === 0 ? [] : [`${word} for ${totalMs >= durationMs * 0.95 ? 'all of it' : `${(totalMs / 1000).toFixed(1)} s`}`];
}
