import { cutKey, type Piece } from '../piece/piece.ts';
import { coverOf, restingFrame } from '../video/cover.ts';
import { shorten } from '../video/shorten.ts';
import { clockLength, type Recording } from '../video/recording.ts';
import { readingMs, VIDEO_FPS } from '../video/shot-times.ts';
import { timelineOf, toMs, type TimedShot, type Timeline } from '../video/timeline.ts';
import { plural, type CutToCheck, type Finding, type PictureTerms } from './finding.ts';

/** Faster than this, in characters a second, subtitles are not read to their end. */
const MAX_CHARACTERS_A_SECOND = 20;
/** Shorter black or stillness is a blink. */
const MIN_STRETCH_MS = 300;
/** Shorter blur and shaking are forgiven. */
const MIN_BAD_MS = 600;

/** What is about a video as a whole: its length in each place, what is spoken, what can be read in time, what its clips hold. */
export function videoFindings(piece: Piece, cuts: readonly CutToCheck[], pictures: readonly PictureTerms[]): readonly Finding[] {
  if (piece.kind !== 'video') return [];
  const recordings = new Map(pictures.flatMap(({ id, recording }) => (recording ? [[id, recording] as const] : [])));
  const timeline = timelineOf(piece.frames, recordings);
  return [...lengthFindings(piece, cuts, recordings), ...coverFindings(piece, cuts, timeline), ...timeline.shots.flatMap((shot, index) => shotFindings(shot, index, recordings)), ...trackFindings(piece, toMs(timeline.lengthFrames), pictures)];
}

function lengthFindings(piece: Piece, cuts: readonly CutToCheck[], recordings: ReadonlyMap<string, Recording>): readonly Finding[] {
  return cuts.flatMap(({ ref, sheet, placement, slides }): readonly Finding[] => {
    const rule = placement.video;
    const seconds = timelineOf(slides.map(({ frame }) => frame), recordings).lengthFrames / VIDEO_FPS;
    if (!rule || (seconds >= rule.leastSeconds && seconds <= rule.mostSeconds)) return [];
    return [{ severity: 'stops', sentence: `${sheet.name} ${placement.name} takes ${rule.leastSeconds} to ${rule.mostSeconds} seconds; the video lasts ${seconds.toFixed(1)}.`, cut: cutKey(ref), view: 'look', fix: seconds > rule.mostSeconds ? shortenFix(piece, cutKey(ref), rule.mostSeconds, recordings) : null }];
  });
}

function shortenFix(piece: Piece, cut: string, seconds: number, recordings: ReadonlyMap<string, Recording>): Finding['fix'] {
  const shortened = shorten(piece.frames.filter(({ shot }) => !shot?.onlyCover), recordings, seconds * 1000);
  return shortened && { label: `Make it ${seconds} s here`, change: { kind: 'own-lengths', cut, lengths: Object.fromEntries(shortened.lengths), without: shortened.without } };
}

/** A place that takes a cover and gets none shows whatever frame comes first; one that takes only a moment gets the nearest. */
function coverFindings(piece: Piece, cuts: readonly CutToCheck[], timeline: Timeline): readonly Finding[] {
  const taking = cuts.filter(({ placement }) => placement.video?.cover !== undefined);
  const [first] = taking;
  const [opening] = timeline.shots;
  if (!first) return [];
  if (!piece.cover) {
    const fix: Finding['fix'] = opening ? { label: 'Take a moment of the opening', change: { kind: 'set-cover', cover: { kind: 'frame', atMs: Math.round(toMs(restingFrame(opening))) } } } : null;
    return [{ severity: 'warns', sentence: `No cover is chosen: ${first.sheet.name} ${first.placement.name}${taking.length > 1 ? ` and ${taking.length - 1} more` : ''} will show whatever comes first.`, cut: null, view: 'look', fix }];
  }
  return taking.flatMap(({ ref, sheet, placement }): readonly Finding[] => {
    const cover = coverOf(piece.cover, placement.video, piece.frames, timeline);
    return cover?.kind === 'frame' && cover.proposed ? [{ severity: 'warns', sentence: `${sheet.name} ${placement.name} takes no cover of its own but a moment of the video: it gets ${(toMs(cover.frame) / 1000).toFixed(1)} s, the nearest.`, cut: cutKey(ref), view: 'look', fix: null }] : [];
  });
}

function shotFindings({ frame, lengthFrames, clip }: TimedShot, index: number, recordings: ReadonlyMap<string, Recording>): readonly Finding[] {
  const name = `Shot ${index + 1}`;
  const found: Finding[] = [];
  const say = (sentence: string): void => void found.push({ severity: 'warns', sentence, cut: null, slide: frame.id, view: 'look', fix: null });
  const lengthMs = toMs(lengthFrames);
  const reading = readingMs(frame);
  if (reading > lengthMs + MIN_STRETCH_MS) say(`${name} lasts ${(lengthMs / 1000).toFixed(1)} seconds; its words take ${(reading / 1000).toFixed(1)} to read.`);
  const recording = clip && recordings.get(clip.mediaId);
  if (clip && recording) {
    const fromMs = toMs(clip.fromFrame);
    const within = (spans: Recording['facts']['black']): number => spans.reduce((sum, span) => sum + Math.max(0, Math.min(span.toMs, fromMs + lengthMs) - Math.max(span.fromMs, fromMs)), 0);
    const [black, still] = [within(recording.facts.black), within(recording.facts.frozen)];
    const [blurred, shaking] = [within(recording.facts.blurred), within(recording.facts.shaking)];
    if (blurred >= MIN_BAD_MS) say(`${name} is out of focus for ${(blurred / 1000).toFixed(1)} seconds.`);
    if (shaking >= MIN_BAD_MS) say(`${name} shakes for ${(shaking / 1000).toFixed(1)} seconds.`);
    if (black >= MIN_STRETCH_MS) say(`${name} is black for ${(black / 1000).toFixed(1)} seconds.`);
    if (still >= lengthMs / 2) say(`${name} stands still for ${(still / 1000).toFixed(1)} seconds.`);
  }
  return found;
}

function trackFindings({ track = {} }: Piece, lengthMs: number, pictures: readonly PictureTerms[]): readonly Finding[] {
  const found: Finding[] = [];
  const say = (severity: Finding['severity'], sentence: string, view: Finding['view'] = 'look'): void => void found.push({ severity, sentence, cut: null, view, fix: null });
  const cues = (track.subtitles ?? []).filter(({ text }) => text.trim() !== '');
  if (track.voice !== undefined && cues.length === 0) say('warns', 'Somebody speaks, and there are no subtitles: most people watch without sound.');
  const fast = cues.filter(({ fromMs, toMs: endMs, text }) => (text.length * 1000) / (endMs - fromMs) > MAX_CHARACTERS_A_SECOND);
  const [first] = fast;
  if (first) say('warns', `${plural(fast.length, 'subtitle')} at ${clockLength(first.fromMs)}${fast.length > 1 ? ' and later' : ''}: more than ${MAX_CHARACTERS_A_SECOND} characters a second, nobody reads that.`);
  const late = cues.filter(({ fromMs }) => fromMs >= lengthMs).length;
  if (late > 0) say('warns', `${plural(late, 'subtitle')} begin${late === 1 ? 's' : ''} after the video has ended.`);
  const over = cues.find(({ fromMs, toMs: endMs }) => fromMs < lengthMs && endMs > lengthMs + MIN_STRETCH_MS);
  if (over) {
    const fix: Finding['fix'] = { label: 'End it with the video', change: { kind: 'end-subtitles', atMs: Math.floor(lengthMs) } };
    found.push({ severity: 'warns', sentence: `The subtitle at ${clockLength(over.fromMs)} ends ${((over.toMs - lengthMs) / 1000).toFixed(1)} seconds after the video; it is cut off there.`, cut: null, view: 'look', fix });
  }
  const voice = pictures.find(({ id }) => id === track.voice);
  if (voice?.recording && voice.recording.durationMs > lengthMs + MIN_STRETCH_MS) say('warns', `The voice lasts ${((voice.recording.durationMs - lengthMs) / 1000).toFixed(1)} seconds longer than the video; it ends with its last whole words there.`);
  const music = pictures.find(({ id }) => id === track.music);
  if (music && music.licence.trim() === '') say('warns', `No licence is noted for the music “${music.name}”.`, 'media');
  return found;
}
