import type { VideoRule } from '../network/network-sheet.ts';
import { MAX_CUE, MAX_CUES, type Cue, type Track } from '../piece/track.ts';

export class SubtitleError extends Error {
  override readonly name = 'SubtitleError';
  readonly code = 'subtitles';
}

/** `00:01:02,345` of SubRip, `01:02.345` of WebVTT. */
const TIME = String.raw`(?:(\d{1,3}):)?(\d{1,2}):(\d{1,2})[.,](\d{1,3})`;
const SPAN = new RegExp(String.raw`^\s*(-?)${TIME}\s*-->\s*(-?)${TIME}`);

/**
 * Reads subtitles in SubRip (`.srt`) or WebVTT (W3C), by their content.
 * @throws SubtitleError saying in which line what is wrong
 */
export function readSubtitles(text: string): readonly Cue[] {
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n|\r|\n/);
  const cues: Cue[] = [];
  for (let at = 0; at < lines.length; at += 1) {
    const line = lines[at] ?? '';
    if (!line.includes('-->')) continue;
    const found = SPAN.exec(line);
    if (!found) throw new SubtitleError(`Line ${at + 1} is no time span: “${line.trim().slice(0, 60)}”.`);
    if (found[1] === '-' || found[6] === '-') throw new SubtitleError(`Line ${at + 1} begins before the video does.`);
    const [fromMs, toMs] = [momentOf(found.slice(2, 6)), momentOf(found.slice(7, 11))];
    if (toMs <= fromMs) throw new SubtitleError(`Line ${at + 1} ends before it begins.`);
    const before = cues.at(-1);
    if (before && fromMs < before.toMs) throw new SubtitleError(`Line ${at + 1} begins while the subtitle before it is still there.`);
    const words: string[] = [];
    for (at += 1; at < lines.length && (lines[at] ?? '').trim() !== ''; at += 1) words.push(lines[at] ?? '');
    const said = plainWords(words.join('\n'));
    if (said.length > MAX_CUE) throw new SubtitleError(`The subtitle at ${clockOf(fromMs, ',')} has ${said.length} characters; the most is ${MAX_CUE}.`);
    if (said !== '') cues.push({ fromMs, toMs, text: said });
  }
  if (cues.length === 0) throw new SubtitleError('There are no subtitles in it. They are read as SubRip (.srt) or WebVTT (.vtt).');
  if (cues.length > MAX_CUES) throw new SubtitleError(`There are ${cues.length} subtitles in it; the most is ${MAX_CUES}.`);
  return cues;
}

function momentOf([hours, minutes, seconds, fraction]: readonly (string | undefined)[]): number {
  return (Number(hours ?? 0) * 3_600 + Number(minutes) * 60 + Number(seconds)) * 1000 + Number((fraction ?? '').padEnd(3, '0'));
}

/** Without the marks that players use for voices, slants and places. */
function plainWords(text: string): string {
  return text.replace(/<[^<>]*>/g, '').replace(/\{\\[^{}]*\}/g, '').replaceAll('&lt;', '<').replaceAll('&amp;', '&').split('\n').map((line) => line.trim()).join('\n').trim();
}

export function writeSrt(cues: readonly Cue[]): string {
  return cues.map(({ fromMs, toMs, text }, index) => `${index + 1}\n${clockOf(fromMs, ',')} --> ${clockOf(toMs, ',')}\n${text}\n`).join('\n');
}

export function writeVtt(cues: readonly Cue[]): string {
  return `WEBVTT\n\n${cues.map(({ fromMs, toMs, text }) => `${clockOf(fromMs, '.')} --> ${clockOf(toMs, '.')}\n${escapeVtt(text)}\n`).join('\n')}`;
}

function escapeVtt(text: string): string {
  return text.replaceAll('&', '&amp;').replaceAll('<', '&lt;');
}

function clockOf(ms: number, point: ',' | '.'): string {
  const two = (value: number): string => String(value).padStart(2, '0');
  return `${two(Math.floor(ms / 3_600_000))}:${two(Math.floor(ms / 60_000) % 60)}:${two(Math.floor(ms / 1000) % 60)}${point}${String(ms % 1000).padStart(3, '0')}`;
}

/** Whether a place gets the subtitles as a file beside the video. */
export function takesSubtitleFile(track: Track | undefined, rule: VideoRule | undefined): boolean {
  return track?.subtitleFile === true && rule?.subtitleFile === true && (track.subtitles ?? []).some(({ text }) => text.trim() !== '');
}
