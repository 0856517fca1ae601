import { seededNumbers } from '../motif/seeded-numbers.ts';

/** A colour in OKLab: lightness in [0, 1], and the two axes of its hue. */
export interface Ground {
  readonly l: number;
  readonly a: number;
  readonly b: number;
}

/** What of a post shows in the grid of a profile. */
export interface Tile {
  readonly id: string;
  readonly themeId: string | null;
  readonly template: string;
  readonly kind: string;
  readonly mediaIds: readonly string[];
  /** The colour that most of its picture has; null: not known. */
  readonly ground: Ground | null;
}

export interface ShuffleRules {
  readonly columns: number;
  readonly themeTwice: boolean;
  readonly template: number;
  readonly picture: number;
}

const TRIES_PER_TILE = 60;
const MAX_TRIES = 20_000;
const BROKEN_RULE = 100;

/**
 * Another order of what waits: neighbours in the grid unlike in ground colour, theme and template, rows not of one kind, and what the queue
 * keeps apart kept apart. A seeded local search by exchanges: each seed gives its own order, the same one every time.
 * @param before what stands in the grid already, the latest last
 */
export function shuffleTiles(tiles: readonly Tile[], before: readonly Tile[], rules: ShuffleRules, seed: number): readonly Tile[] {
  const random = seededNumbers(seed);
  const order = [...tiles];
  for (let at = order.length - 1; at > 0; at -= 1) {
    const other = Math.floor(random() * (at + 1));
    [order[at], order[other]] = [order[other] as Tile, order[at] as Tile];
  }
  const reach = Math.max(rules.columns, rules.template, rules.picture, 1) + 1;
  const lead = before.slice(-reach);
  const costAround = (places: readonly number[]): number => {
    const touched = new Set(places.flatMap((place) => Array.from({ length: reach + 1 }, (_, step) => place + step)));
    const sequence = [...lead, ...order];
    return [...touched].filter((place) => place < order.length).reduce((sum, place) => sum + costAt(sequence, place + lead.length, rules), 0);
  };
  const tries = Math.min(MAX_TRIES, order.length * TRIES_PER_TILE);
  for (let count = 0; count < tries && order.length > 1; count += 1) {
    const [a, b] = [Math.floor(random() * order.length), Math.floor(random() * order.length)];
    if (a === b) continue;
    const was = costAround([a, b]);
    [order[a], order[b]] = [order[b] as Tile, order[a] as Tile];
    if (costAround([a, b]) > was) [order[a], order[b]] = [order[b] as Tile, order[a] as Tile];
  }
  return order;
}

/** How much a tile is like those before it, and what it breaks. */
function costAt(sequence: readonly Tile[], at: number, { columns, themeTwice, template, picture }: ShuffleRules): number {
  const tile = sequence[at] as Tile;
  const back = (count: number): readonly Tile[] => (count === 0 ? [] : sequence.slice(Math.max(0, at - count), at));
  let cost = 0;
  for (const neighbour of [sequence[at - 1], sequence[at - columns]]) if (neighbour) cost += likeness(tile, neighbour);
  const row = sequence.slice(Math.max(0, at - columns + 1), at + 1);
  if (row.length === columns && new Set(row.map(({ kind }) => kind)).size === 1) cost += 1;
  if (themeTwice && tile.themeId !== null && sequence[at - 1]?.themeId === tile.themeId) cost += BROKEN_RULE;
  if (back(template).some((each) => each.template === tile.template)) cost += BROKEN_RULE;
  if (back(picture).some((each) => each.mediaIds.some((id) => tile.mediaIds.includes(id)))) cost += BROKEN_RULE;
  return cost;
}

/** Grounds this far apart in OKLab are seen as different colours at a glance; twice the step between neighbours of a scheme. */
const APART = 0.3;
/** Ground is what one sees first of a wall. */
const GROUND_WEIGHT = 2;

/** How alike two tiles look, in [0, 4]. */
function likeness(a: Tile, b: Tile): number {
  const ground = a.ground === null || b.ground === null ? 0.5 : 1 - Math.min(1, Math.hypot(a.ground.l - b.ground.l, a.ground.a - b.ground.a, a.ground.b - b.ground.b) / APART);
  return (a.template === b.template ? 1 : 0) + (a.themeId !== null && a.themeId === b.themeId ? 1 : 0) + GROUND_WEIGHT * ground;
}
