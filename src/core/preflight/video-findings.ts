import type { Piece } from '../piece/piece.ts';
import { clockLength, type Film } from '../video/film.ts';
import { readingMs, VIDEO_FPS } from '../video/shot-times.ts';
import { timelineOf, toMs, type TimedShot } from '../video/timeline.ts';
import { plural, type CutToCheck, type Finding, type PictureTerms } from './finding.ts';

/** Faster than this, in characters a second, subtitles are not read to their end. */
const MOST_CHARACTERS_A_SECOND = 20;
/** Shorter black or stillness is a blink. */
const LEAST_STRETCH_MS = 300;

/** What is about a video as a whole: its length in each place, what is spoken, what can be read in time, what its clips hold. */
export function videoFindings(piece: Piece, cuts: readonly CutToCheck[], pictures: readonly PictureTerms[]): readonly Finding[] {
  if (piece.kind !== 'video') return [];
  const films = new Map(pictures.flatMap(({ id, film }) => (film ? [[id, film] as const] : [])));
  const timeline = timelineOf(piece.frames, films);
  return [...lengthFindings(timeline.lengthFrames / VIDEO_FPS, cuts), ...timeline.shots.flatMap((shot, index) => shotFindings(shot, index, films)), ...trackFindings(piece, toMs(timeline.lengthFrames), pictures)];
}

function lengthFindings(seconds: number, cuts: readonly CutToCheck[]): readonly Finding[] {
  return cuts.flatMap(({ ref, sheet, placement }): readonly Finding[] => {
    const rule = placement.video;
    if (!rule || (seconds >= rule.leastSeconds && seconds <= rule.mostSeconds)) return [];
    return [{ severity: 'stops', sentence: `${sheet.name} ${placement.name} takes ${rule.leastSeconds} to ${rule.mostSeconds} seconds; the video lasts ${seconds.toFixed(1)}.`, cut: `${ref.channelId}.${ref.placement}`, sheet: 'look', fix: null }];
  });
}

function shotFindings({ frame, lengthFrames, clip }: TimedShot, index: number, films: ReadonlyMap<string, Film>): readonly Finding[] {
  const name = `Shot ${index + 1}`;
  const found: Finding[] = [];
  const say = (sentence: string): void => void found.push({ severity: 'warns', sentence, cut: null, slide: frame.id, sheet: 'look', fix: null });
  const lengthMs = toMs(lengthFrames);
  const reading = readingMs(frame);
  if (reading > lengthMs + LEAST_STRETCH_MS) say(`${name} lasts ${(lengthMs / 1000).toFixed(1)} seconds; its words take ${(reading / 1000).toFixed(1)} to read.`);
  const film = clip && films.get(clip.mediaId);
  if (clip && film) {
    const fromMs = toMs(clip.fromFrame);
    const within = (spans: Film['facts']['black']): number => spans.reduce((sum, span) => sum + Math.max(0, Math.min(span.toMs, fromMs + lengthMs) - Math.max(span.fromMs, fromMs)), 0);
    const [black, still] = [within(film.facts.black), within(film.facts.frozen)];
    if (black >= LEAST_STRETCH_MS) say(`${name} is black for ${(black / 1000).toFixed(1)} seconds.`);
    if (still >= lengthMs / 2) say(`${name} stands still for ${(still / 1000).toFixed(1)} seconds.`);
  }
  return found;
}

function trackFindings({ track = {} }: Piece, lengthMs: number, pictures: readonly PictureTerms[]): readonly Finding[] {
  const found: Finding[] = [];
  const say = (severity: Finding['severity'], sentence: string, sheet: Finding['sheet'] = 'look'): void => void found.push({ severity, sentence, cut: null, sheet, fix: null });
  const cues = (track.subtitles ?? []).filter(({ text }) => text.trim() !== '');
  if (track.voice !== undefined && cues.length === 0) say('warns', 'Somebody speaks, and there are no subtitles: most people watch without sound.');
  const fast = cues.filter(({ fromMs, toMs: endMs, text }) => (text.length * 1000) / (endMs - fromMs) > MOST_CHARACTERS_A_SECOND);
  const [first] = fast;
  if (first) say('warns', `${plural(fast.length, 'subtitle')} at ${clockLength(first.fromMs)}${fast.length > 1 ? ' and later' : ''}: more than ${MOST_CHARACTERS_A_SECOND} characters a second, nobody reads that.`);
  const late = cues.filter(({ fromMs }) => fromMs >= lengthMs).length;
  if (late > 0) say('warns', `${plural(late, 'subtitle')} begin${late === 1 ? 's' : ''} after the video has ended.`);
  const voice = pictures.find(({ id }) => id === track.voice);
  if (voice?.film && voice.film.durationMs > lengthMs + LEAST_STRETCH_MS) say('warns', `The voice lasts ${((voice.film.durationMs - lengthMs) / 1000).toFixed(1)} seconds longer than the video and is cut off.`);
  const music = pictures.find(({ id }) => id === track.music);
  if (music && music.licence.trim() === '') say('warns', `No licence is noted for the music “${music.name}”.`, 'media');
  return found;
}
