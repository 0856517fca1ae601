import { getRecordingFile } from '../../contract/media-contracts.ts';
import { clockLength, type Span } from '../../core/video/recording.ts';
import { addressOf } from '../ui/call.ts';
import { mediaAddress, type MediaItem } from '../media/media-address.ts';

interface PlayerProps {
  readonly brand: string;
  readonly item: MediaItem;
  readonly recording: NonNullable<MediaItem['recording']>;
}

/** A clip or sound to play, and what was found in it when it came in. */
export function RecordingPlayer({ brand, item, recording }: PlayerProps) {
  const address = addressOf(getRecordingFile, { brand, media: item.id }, { of: item.revision });
  const found = findings(recording);
  return (
    <div className="mb-3">
      {recording.kind === 'clip' ? (
        <video src={address} poster={mediaAddress(brand, item, 640)} controls preload="metadata" playsInline aria-label={`Play ${item.name}`} className="max-h-72 w-full rounded-md bg-sunk" />
      ) : (
        <audio src={address} controls preload="metadata" aria-label={`Play ${item.name}`} className="w-full" />
      )}
      <p className="mt-1.5 text-xs text-quiet tabular-nums">
        {clockLength(recording.durationMs)}, {recording.hasSound ? 'with sound' : 'silent'}
        {found.length > 0 && `; ${found.join('; ')}`}
      </p>
    </div>
  );
}

function findings({ facts, durationMs }: PlayerProps['recording']): readonly string[] {
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
