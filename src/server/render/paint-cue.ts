import { appendFile } from 'node:fs/promises';
import type { Scene } from '../../core/scene/scene.ts';
import { styledSubtitle, type SubtitleStyle } from '../../core/video/subtitle-style.ts';
import { cutOut, paintToFile, type LayerPainter, type PaintedInk } from './paint-layers.ts';
import { paintLayer } from './canvas-painter.ts';

/** A line of subtitles: pictures of one size, one after the other in a file. */
export interface PaintedCue extends PaintedInk {
  /** The frames of the video from which the second picture is shown, the third, and so on; empty where there is one. */
  readonly changes: readonly number[];
}

/**
 * Paints a line of subtitles, once for each of its words where the spoken one is coloured.
 * @param wordFrames the frames of the video in which its words begin
 */
export async function paintCue(scene: Scene, style: SubtitleStyle, wordFrames: readonly number[], fileName: string, painter: LayerPainter): Promise<PaintedCue | null> {
  const isColoured = style.said !== null && wordFrames.length > 0;
  const first = await paintToFile(styledSubtitle(scene, style, isColoured ? 0 : null, painter.typesetter), fileName, painter);
  if (!first || !isColoured) return first && { ...first, changes: [] };
  for (let word = 1; word < wordFrames.length; word += 1) {
    // Only colours differ: the ink of all of them lies in the same box.
    await appendFile(first.picture.file, cutOut(await paintLayer(styledSubtitle(scene, style, word, painter.typesetter), painter.typesetter, painter.sources), first.box));
  }
  return { ...first, changes: wordFrames.slice(1) };
}
