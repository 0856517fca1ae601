import { LRUCache } from 'lru-cache';
import type { Typesetter } from '../../core/text/typesetter.ts';

/** Outlines come again with every key: making them costs more than painting them. */
const paths = new LRUCache<string, Path2D>({ max: 4_000 });
const glyphs = new LRUCache<string, Path2D>({ max: 6_000 });

/** An outline of an ornament by its data. */
export function pathOf(data: string): Path2D {
  const path = paths.get(data) ?? new Path2D(data);
  paths.set(data, path);
  return path;
}

/** The outline of a glyph, at the size of one em. */
export function glyphPath(typesetter: Typesetter, fontKey: string, glyphId: number): Path2D {
  const key = `${fontKey}/${glyphId}`;
  const path = glyphs.get(key) ?? new Path2D(typesetter.outline(fontKey, glyphId));
  glyphs.set(key, path);
  return path;
}
