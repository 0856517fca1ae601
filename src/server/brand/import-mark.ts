import { readFile } from 'node:fs/promises';
import sharp from 'sharp';
import { markRoomOf, type BrandMark } from '../../core/brand/brand-book.ts';
import { relativeLuminance } from '../../core/colour/contrast.ts';
import type { ReadSvg, SvgNote } from '../../core/artwork/read-svg.ts';
import type { Brand } from '../db/brand-repository.ts';
import type { MediaItem } from '../db/media-repository.ts';
import { ProblemError } from '../errors.ts';
import { keepMedia } from '../imports/keep-media.ts';
import type { ReceivedFile } from '../media/receive-upload.ts';
import type { Services } from '../services.ts';

export interface ImportedMark {
  readonly mark: BrandMark;
  /** Sentences about what could not be taken over. */
  readonly notes: readonly string[];
  /** Whether parts that one would miss (text, pictures) are left out. */
  readonly isPart: boolean;
  readonly picture: MediaItem | null;
}

const MAX_SVG_BYTES = 1024 * 1024;
/** A mark lighter than this is drawn for dark grounds. */
const LIGHT_FROM = 0.4;

const noteSentences: Readonly<Record<SvgNote, string>> = {
  strokes: 'Lines without a fill are left out: turn them into outlines first.',
  gradients: 'Gradients have become their first colour.',
  pictures: 'Pictures inside the drawing are left out.',
  text: 'Text is left out: turn it into outlines first.',
  transparency: 'Transparent parts have become solid.',
  effects: 'Shadows and other effects are left out.',
};

const refusals: Readonly<Record<Extract<ReadSvg, { kind: 'refused' }>['reason'], string>> = {
  'not-svg': 'is no SVG drawing that can be read',
  'no-size': 'does not say how large it is: it needs a viewBox, or a width and a height',
  'nothing-filled': 'has no filled outline in it; lines have to be turned into outlines first',
  'too-much': 'has more outlines than a mark may have (400); simplify it first',
};

/**
 * Reads a mark out of an SVG file (only outlines and colours are taken) or a PNG file (kept as a picture of the brand).
 * @throws ProblemError saying what is wrong with the file
 */
export async function importMark(services: Services, brand: Brand, file: ReceivedFile, name: string, nowMs: number): Promise<ImportedMark> {
  const head = (await readFile(file.path)).subarray(0, 8);
  const isPng = head.subarray(0, 4).equals(Buffer.from([0x89, 0x50, 0x4e, 0x47]));
  const key = `mark-${file.hash.slice(0, 8)}`;
  return isPng ? pictureMarkOf(services, brand, file, name, key, nowMs) : vectorMarkOf(await services.readers.read({ kind: 'svg', source: await readText(file, name) }), name, key);
}

async function readText(file: ReceivedFile, name: string): Promise<string> {
  if (file.bytes > MAX_SVG_BYTES) throw new ProblemError(413, 'too-large', `“${name}” is larger than 1 MB. A mark is a few outlines; simplify it first.`);
  return (await readFile(file.path)).toString('utf8');
}

function vectorMarkOf(read: ReadSvg, name: string, key: string): ImportedMark {
  if (read.kind === 'refused') throw new ProblemError(422, 'not-a-mark', `“${name}” ${refusals[read.reason]}.`);
  const { viewBox, paths } = read.artwork;
  const [first] = paths;
  const mark: BrandMark = { kind: 'vector', key, name: markNameOf(name), for: suits(first?.fill ?? '#000000'), ...markRoomOf(viewBox), viewBox: { ...viewBox }, paths: paths.map((path) => ({ ...path })) };
  return { mark, notes: read.notes.map((note) => noteSentences[note]), isPart: read.notes.some((note) => note === 'text' || note === 'pictures'), picture: null };
}

async function pictureMarkOf(services: Services, brand: Brand, file: ReceivedFile, name: string, key: string, nowMs: number): Promise<ImportedMark> {
  const picture = await keepMedia(services, brand, { path: file.path, hash: file.hash, name, tags: ['mark'] }, nowMs);
  const mainColour = await mainColourOf(services.media.pathOf(picture.storedHash), name);
  const size = { width: picture.widthPx, height: picture.heightPx };
  const mark: BrandMark = { kind: 'picture', key, name: markNameOf(name), for: suits(mainColour), ...markRoomOf(size), mediaId: picture.id, viewBox: size, mainColour };
  return { mark, notes: [], isPart: false, picture };
}

/** A file's name without its ending, as people read it. */
function markNameOf(name: string): string {
  return name.replace(/\.[a-z]{2,5}$/iu, '').replaceAll(/[-_]+/gu, ' ').trim().slice(0, 60);
}

function suits(colour: string): 'light' | 'dark' {
  return relativeLuminance(colour) >= LIGHT_FROM ? 'dark' : 'light';
}

/** The mean colour of what can be seen; a mark without transparency would stand in a box. */
async function mainColourOf(path: string, name: string): Promise<string> {
  const { data } = await sharp(path).resize(64, 64, { fit: 'inside' }).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  const sums = [0, 0, 0];
  let weight = 0;
  for (let at = 0; at < data.length; at += 4) {
    const alpha = data[at + 3] ?? 0;
    weight += alpha;
    for (let channel = 0; channel < 3; channel += 1) sums[channel] = (sums[channel] ?? 0) + (data[at + channel] ?? 0) * alpha;
  }
  if (weight > (data.length / 4) * 250) throw new ProblemError(422, 'mark-in-a-box', `“${name}” has no transparent ground, so it would stand in a box. Export the mark with transparency.`);
  return `#${sums.map((sum) => Math.round(sum / Math.max(1, weight)).toString(16).padStart(2, '0')).join('')}`;
}
