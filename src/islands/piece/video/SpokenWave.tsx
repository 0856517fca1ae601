import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import type Regions from 'wavesurfer.js/dist/plugins/regions.js';
import { getRecordingFile, getSoundWave } from '../../../contract/media-contracts.ts';
import { moveCue } from '../../../core/video/move-cue.ts';
import type { Cue } from '../../../core/piece/track.ts';
import type { Recording } from '../../../core/video/recording.ts';
import { addressOf, call } from '../../ui/call.ts';
import type { MediaItem } from '../../media/media-address.ts';

interface WaveProps {
  readonly brand: string;
  readonly item: MediaItem;
  readonly recording: Recording;
  readonly cues: readonly Cue[];
  readonly onChange: (cues: readonly Cue[]) => void;
}

type RegionsOf = InstanceType<typeof Regions>;

const PIXELS_A_SECOND = 60;

/** The wave form of a voice with its subtitles on it, to be moved and stretched; a press on it plays from there. */
export function SpokenWave({ brand, item, recording, cues, onChange }: WaveProps) {
  const box = useRef<HTMLDivElement>(null);
  const regions = useRef<RegionsOf | null>(null);
  const latest = useRef({ cues, onChange });
  latest.current = { cues, onChange };
  const wave = useQuery({ queryKey: ['wave', brand, item.id, item.revision], queryFn: () => call(getSoundWave, { params: { brand, media: item.id } }), staleTime: Infinity });
  const peaks = wave.data?.peaks;
  useEffect(() => {
    const container = box.current;
    if (!container || !peaks) return;
    let close = (): void => undefined;
    let isOver = false;
    void Promise.all([import('wavesurfer.js'), import('wavesurfer.js/dist/plugins/regions.js')]).then(([{ default: WaveSurfer }, { default: RegionsPlugin }]) => {
      if (isOver) return;
      const colour = (name: string): string => getComputedStyle(container).getPropertyValue(name).trim();
      const plugin = RegionsPlugin.create();
      const surfer = WaveSurfer.create({ container, height: 64, peaks: [[...peaks]], duration: recording.durationMs / 1000, url: addressOf(getRecordingFile, { brand, media: item.id }, { of: item.revision }), minPxPerSec: PIXELS_A_SECOND, waveColor: colour('--c-quiet'), progressColor: colour('--c-house'), cursorColor: colour('--c-ink'), hideScrollbar: false, plugins: [plugin] });
      surfer.on('interaction', () => void surfer.play());
      plugin.on('region-updated', (region) => {
        const next = moveCue(latest.current.cues, Number(region.id), { fromMs: Math.round(region.start * 1000), toMs: Math.round(region.end * 1000) });
        latest.current.onChange(next);
        showCues(plugin, next, colour('--c-house'));
      });
      regions.current = plugin;
      // Before it knows how long the sound is, it has nowhere to put them.
      surfer.on('ready', () => showCues(plugin, latest.current.cues, colour('--c-house')));
      close = () => surfer.destroy();
    });
    return () => {
      isOver = true;
      regions.current = null;
      close();
    };
  }, [peaks, brand, item.id, item.revision, recording.durationMs]);
  useEffect(() => {
    if (regions.current && box.current) showCues(regions.current, cues, getComputedStyle(box.current).getPropertyValue('--c-house').trim());
  }, [cues]);
  return <div ref={box} aria-label="Wave form of the voice" role="group" className="overflow-hidden rounded-md border border-line bg-sunk" />;
}

/** Puts the subtitles on the wave as they are now. */
function showCues(plugin: RegionsOf, cues: readonly Cue[], colour: string): void {
  const known = plugin.getRegions();
  const isSame = known.length === cues.length && cues.every(({ fromMs, toMs }, index) => Math.abs((known[index]?.start ?? -1) * 1000 - fromMs) < 1 && Math.abs((known[index]?.end ?? -1) * 1000 - toMs) < 1);
  if (isSame) return;
  plugin.clearRegions();
  for (const [index, { fromMs, toMs }] of cues.entries()) {
    plugin.addRegion({ id: String(index), start: fromMs / 1000, end: toMs / 1000, content: String(index + 1), color: `color-mix(in srgb, ${colour} 22%, transparent)`, drag: true, resize: true });
  }
}
