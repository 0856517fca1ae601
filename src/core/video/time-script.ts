import type { Cue } from '../piece/track.ts';
import type { Recording, Span } from './recording.ts';

/** Longest subtitle: two lines of what a phone shows. */
const MAX_CHARACTERS = 74;
/** A silence shorter than this parts no sentences. */
const MIN_PAUSE_MS = 120;
const MIN_CUE_MS = 700;

const sentences = new Intl.Segmenter('en', { granularity: 'sentence' });

/**
 * Times a script against the speech in a sound: its lines are spread over the time in which somebody speaks, by their syllables, and
 * begin and end where the nearest pause does.
 */
export function timeScript(script: string, recording: Pick<Recording, 'durationMs' | 'facts'>): readonly Cue[] {
  const lines = script.split(/\n+/).flatMap((paragraph) => [...sentences.segment(paragraph)].map(({ segment }) => segment.trim())).filter((line) => line !== '').flatMap(shortLines);
  const speech = speechSpans(recording);
  const spokenMs = speech.reduce((sum, { fromMs, toMs }) => sum + toMs - fromMs, 0);
  const total = lines.reduce((sum, line) => sum + syllables(line), 0);
  if (total === 0 || spokenMs === 0) return [];
  let said = 0;
  const cues: Cue[] = [];
  let start = speech[0]?.fromMs ?? 0;
  for (const text of lines) {
    said += syllables(text);
    const { endMs, nextMs } = borderAt((said / total) * spokenMs, speech);
    const fromMs = Math.max(start, cues.at(-1)?.toMs ?? 0);
    cues.push({ fromMs: Math.round(fromMs), toMs: Math.round(Math.max(fromMs + MIN_CUE_MS, endMs)), text });
    start = nextMs;
  }
  return cues;
}

/** Where somebody speaks: all that is not silent. */
export function speechSpans({ durationMs, facts }: Pick<Recording, 'durationMs' | 'facts'>): readonly Span[] {
  const spans: Span[] = [];
  let fromMs = 0;
  for (const pause of [...facts.silent.filter(({ fromMs: start, toMs }) => toMs - start >= MIN_PAUSE_MS), { fromMs: durationMs, toMs: durationMs }]) {
    if (pause.fromMs > fromMs) spans.push({ fromMs, toMs: pause.fromMs });
    fromMs = Math.max(fromMs, pause.toMs);
  }
  return spans;
}

/** How far a border may be from a pause to be moved there, in milliseconds of speech. */
const NEAR_MS = 900;

/** Where a line ends after so much speech, and the next begins: around the nearest pause, if one is near. */
function borderAt(spokenMs: number, speech: readonly Span[]): { readonly endMs: number; readonly nextMs: number } {
  let before = 0;
  const pauses = speech.map(({ fromMs, toMs }, index) => {
    before += toMs - fromMs;
    return { atMs: before, endMs: toMs, nextMs: speech[index + 1]?.fromMs ?? toMs };
  });
  const [nearest] = pauses.toSorted((a, b) => Math.abs(a.atMs - spokenMs) - Math.abs(b.atMs - spokenMs));
  if (nearest && Math.abs(nearest.atMs - spokenMs) <= NEAR_MS) return nearest;
  const index = pauses.findIndex(({ atMs }) => atMs >= spokenMs);
  const [span, pause] = [speech[index], pauses[index]];
  const momentMs = span && pause ? span.toMs - (pause.atMs - spokenMs) : (speech.at(-1)?.toMs ?? 0);
  return { endMs: momentMs, nextMs: momentMs };
}

/** Groups of vowels, at least one a word; a number has one a digit. */
export function syllables(text: string): number {
  const words = text.toLowerCase().match(/[\p{L}\p{N}’']+/gu) ?? [];
  return words.reduce((sum, word) => sum + Math.max(1, (word.match(/[aeiouyäöüáéíóúàèìòùâêîôûå]+|\d/gu) ?? []).length - (/[^aeiouy]e$/.test(word) ? 1 : 0)), 0);
}

/** A sentence in parts that fit on two lines, parted at commas where there are some. */
function shortLines(sentence: string): readonly string[] {
  if (sentence.length <= MAX_CHARACTERS) return [sentence];
  const words = sentence.split(/\s+/);
  const parts: string[] = [];
  const count = Math.ceil(sentence.length / MAX_CHARACTERS);
  let line = '';
  for (const word of words) {
    const next = line === '' ? word : `${line} ${word}`;
    const isFull = next.length > MAX_CHARACTERS || (line.length >= sentence.length / count - 12 && /[,;:–—]$/.test(line));
    if (isFull && line !== '') {
      parts.push(line);
      line = word;
    } else line = next;
  }
  return [...parts, line];
}
