import { useQuery } from '@tanstack/react-query';
import Trash2 from 'lucide-react/icons/trash-2';
import { useId, useState } from 'react';
import { getMedia, listMedia } from '../../../contract/media-contracts.ts';
import type { Cue, Track } from '../../../core/piece/track.ts';
import { clockLength } from '../../../core/video/recording.ts';
import { readSubtitles, SubtitleError, writeSrt, writeVtt } from '../../../core/video/subtitles.ts';
import { timeScript } from '../../../core/video/time-script.ts';
import { moveCue } from '../../../core/video/move-cue.ts';
import { Button } from '../../ui/Button.tsx';
import { call } from '../../ui/call.ts';
import { FilePick } from '../../ui/FilePick.tsx';
import { toast } from '../../ui/toast.tsx';
import type { ContentProps } from '../view-props.ts';
import { SpokenWave } from './SpokenWave.tsx';
import type { MediaItem, MediaSummary } from '../../media/media-address.ts';

const selectLook = 'mt-1 h-8 w-full rounded-md border border-line bg-panel px-2 text-sm text-ink';

/** Music, a voice and subtitles: what goes through all shots. */
export function TrackFields({ piece, store, brand, media, onMedia, readOnly }: ContentProps) {
  const track = piece.track ?? {};
  const sounds = useQuery({ queryKey: ['media', brand.slug, 'sounds'], queryFn: () => call(listMedia, { params: { brand: brand.slug }, query: { limit: 100, kind: 'sound' } }) });
  const change = (part: Track): void =>
    store.change(`track-${Object.keys(part).join('')}`, (draft) => {
      const next = { ...draft.track, ...part };
      for (const key of Object.keys(next) as (keyof Track)[]) if (next[key] === undefined) delete next[key];
      draft.track = next as typeof draft.track;
    });
  const choose = (key: 'music' | 'voice', id: string): void => {
    if (id === '') return change({ [key]: undefined });
    // What is known of its sound comes with the item itself.
    call(getMedia, { params: { brand: brand.slug, media: id } }).then(
      (item) => {
        onMedia(item);
        change({ [key]: id });
      },
      (error: unknown) => toast('problem', error instanceof Error ? error.message : String(error)),
    );
  };
  const voice = track.voice === undefined ? undefined : media.get(track.voice);
  return (
    <details className="border-t border-line pt-3" open={track.voice !== undefined || track.music !== undefined}>
      <summary className="cursor-pointer text-sm font-semibold">Sound and subtitles</summary>
      <fieldset disabled={readOnly} className="mt-3 min-w-0 space-y-3">
        <legend className="sr-only">Sound and subtitles</legend>
        <SoundChoice label="Voice" none="nobody speaks" chosen={track.voice} sounds={sounds.data?.items ?? []} onChoose={(id) => choose('voice', id)} />
        <SoundChoice label="Music" none="no music" chosen={track.music} sounds={sounds.data?.items ?? []} onChoose={(id) => choose('music', id)} />
        {track.music !== undefined && (
          <label className="block text-xs text-quiet">
            {track.voice === undefined ? 'Volume of the music' : 'Volume of the music, where nobody speaks'}
            <input type="range" min={0} max={1} step={0.05} value={track.musicVolume ?? 1} onChange={(event) => change({ musicVolume: event.target.valueAsNumber })} className="mt-1 w-full accent-house" />
          </label>
        )}
        {(track.subtitles?.length ?? 0) > 0 && (
          <label className="flex items-start gap-2 text-xs text-quiet">
            <input type="checkbox" checked={track.subtitleFile === true} onChange={(event) => change({ subtitleFile: event.target.checked ? true : undefined })} className="mt-0.5 accent-house" />
            Send subtitles as a file where a network takes one; elsewhere they stay on the picture
          </label>
        )}
        <Subtitles brand={brand.slug} cues={track.subtitles ?? []} voice={voice} readOnly={readOnly} onChange={(subtitles) => change({ subtitles: subtitles.length === 0 ? undefined : subtitles })} />
      </fieldset>
    </details>
  );
}

interface SoundChoiceProps {
  readonly label: string;
  readonly none: string;
  readonly chosen: string | undefined;
  readonly sounds: readonly MediaSummary[];
  readonly onChoose: (id: string) => void;
}

function SoundChoice({ label, none, chosen, sounds, onChoose }: SoundChoiceProps) {
  const id = useId();
  return (
    <div className="text-xs text-quiet">
      <label htmlFor={id}>{label}</label>
      <select id={id} value={chosen ?? ''} onChange={(event) => onChoose(event.target.value)} className={selectLook}>
        <option value="">{none}</option>
        {sounds.map(({ id, name, recording }) => (
          <option key={id} value={id}>
            {name}
            {recording ? ` (${clockLength(recording.durationMs)})` : ''}
          </option>
        ))}
      </select>
    </div>
  );
}

interface SubtitleProps {
  readonly brand: string;
  readonly cues: readonly Cue[];
  readonly voice: MediaItem | undefined;
  readonly readOnly: boolean;
  readonly onChange: (cues: readonly Cue[]) => void;
}

/** Lines of subtitles with their times: read from a file, timed from a script, changed one by one. */
function Subtitles({ brand, cues, voice, readOnly, onChange }: SubtitleProps) {
  const [script, setScript] = useState('');
  const bringIn = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    try {
      onChange(readSubtitles(await file.text()));
    } catch (error) {
      if (!(error instanceof SubtitleError)) throw error;
      toast('problem', `“${file.name}” could not be taken. ${error.message}`);
    }
  };
  const takeOut = (name: string, text: string): void => {
    const address = URL.createObjectURL(new Blob([text], { type: 'text/plain' }));
    Object.assign(document.createElement('a'), { href: address, download: name }).click();
    URL.revokeObjectURL(address);
  };
  const recording = voice?.recording;
  const setCue = (index: number, part: Partial<Cue>): void => onChange(cues.map((cue, at) => (at === index ? { ...cue, ...part } : cue)));
  return (
    <div className="space-y-2">
      <p className="text-xs text-quiet">Subtitles</p>
      {cues.length > 0 && voice && recording && !readOnly && <SpokenWave brand={brand} item={voice} recording={recording} cues={cues} onChange={onChange} />}
      {cues.length > 0 && (
        <ol aria-label="Subtitles" className="max-h-56 space-y-1.5 overflow-auto">
          {cues.map((cue, index) => (
            <li key={index} className="flex items-start gap-1.5">
              <span className="w-14 shrink-0 space-y-1">
                <CueTime label={`Subtitle ${index + 1} from`} ms={cue.fromMs} onChange={(fromMs) => onChange(moveCue(cues, index, { fromMs, toMs: cue.toMs }))} />
                <CueTime label={`Subtitle ${index + 1} to`} ms={cue.toMs} onChange={(toMs) => onChange(moveCue(cues, index, { fromMs: cue.fromMs, toMs }))} />
              </span>
              <textarea aria-label={`Subtitle ${index + 1}`} rows={2} value={cue.text} maxLength={300} onChange={(event) => setCue(index, { text: event.target.value })} className="min-w-0 flex-1 resize-none rounded-md border border-line bg-panel px-2 py-1 text-xs" />
              <button type="button" aria-label={`Remove subtitle ${index + 1}`} onClick={() => onChange(cues.filter((_, at) => at !== index))} className="rounded-md p-1 text-quiet hover:bg-sunk hover:text-ink">
                <Trash2 aria-hidden className="size-3.5" />
              </button>
            </li>
          ))}
        </ol>
      )}
      {recording && cues.length === 0 && (
        <>
          <textarea aria-label="Script" rows={4} value={script} placeholder="Paste the spoken text; it is timed against the voice." onChange={(event) => setScript(event.target.value)} className="w-full rounded-md border border-line bg-panel px-2 py-1.5 text-sm" />
          <Button size="small" disabled={script.trim() === ''} onClick={() => onChange(timeScript(script, recording))}>
            Time it
          </Button>
        </>
      )}
      {!readOnly && (
        <div className="flex flex-wrap gap-1.5">
          <FilePick size="small" accept=".srt,.vtt" onFiles={([file]) => void bringIn(file)}>
            Import SRT or VTT
          </FilePick>
          {cues.length > 0 && (
            <>
              <Button size="small" onClick={() => takeOut('subtitles.srt', writeSrt(cues))}>
                SRT
              </Button>
              <Button size="small" onClick={() => takeOut('subtitles.vtt', writeVtt(cues))}>
                VTT
              </Button>
              <Button size="small" look="quiet" onClick={() => onChange([])}>
                Remove all
              </Button>
            </>
          )}
        </div>
      )}
    </div>
  );
}

function CueTime({ label, ms, onChange }: { readonly label: string; readonly ms: number; readonly onChange: (ms: number) => void }) {
  return <input type="number" aria-label={label} min={0} step={0.1} value={Math.round(ms / 100) / 10} onChange={(event) => Number.isFinite(event.target.valueAsNumber) && onChange(Math.round(event.target.valueAsNumber * 1000))} className="h-6 w-full rounded-md border border-line bg-panel px-1 text-xs tabular-nums" />;
}
