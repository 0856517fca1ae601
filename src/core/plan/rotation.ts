import { dayNumber } from '../time/day.ts';

/** An evergreen piece that comes round again: each wording with each picture is a possible post. */
export interface Rotation {
  readonly pieceId: string;
  readonly themeId: string | null;
  readonly template: string;
  readonly channelIds: readonly string[];
  /** Ids of the captions and of the pictures that take turns; at least one of each. */
  readonly wordings: readonly string[];
  readonly pictures: readonly string[];
  /** The same pair comes on a channel again no sooner than so many days later. */
  readonly pairDays: number;
  /** The piece comes on a channel again no sooner than so many days later. */
  readonly restDays: number;
  /** The last day, and how often it may run on a channel; null: for ever. */
  readonly lastDay: string | null;
  readonly maxRuns: number | null;
  /** Month and day `MM-DD` of the first and last day of its season, which may reach over the new year; null: all year. */
  readonly season: { readonly from: string; readonly until: string } | null;
}

/** One outing of a rotation on a channel. */
export interface Run {
  readonly pieceId: string;
  readonly channelId: string;
  readonly wording: string;
  readonly picture: string;
  readonly day: string;
}

export interface Pair {
  readonly wording: string;
  readonly picture: string;
}

/** Why a rotation gives nothing on a day. */
export type RotationRest = 'ended' | 'ran-out' | 'out-of-season' | 'rests' | 'pairs-rest';

export type RotationTurn = { readonly kind: 'pair'; readonly pair: Pair } | { readonly kind: 'rests'; readonly why: RotationRest };

/** How many different posts a rotation can make. */
export function distinctPosts({ wordings, pictures }: Pick<Rotation, 'wordings' | 'pictures'>): number {
  return wordings.length * pictures.length;
}

export function isInRotationSeason(season: Rotation['season'], day: string): boolean {
  if (!season) return true;
  const date = day.slice(5);
  return season.from <= season.until ? season.from <= date && date <= season.until : season.from <= date || date <= season.until;
}

const pairKey = (wording: string, picture: string): string => `${wording} ${picture}`;
const NEVER = -Infinity;

/** What has run of one rotation on one channel, kept so that the next pair is found without going through it all. */
export class RotationHistory {
  #runs = 0;
  #last = NEVER;
  readonly #pairs = new Map<string, number>();
  readonly #wordings = new Map<string, number>();
  readonly #pictures = new Map<string, number>();

  get lastDay(): number {
    return this.#last;
  }

  note({ wording, picture, day }: Omit<Run, 'pieceId' | 'channelId'>): void {
    const number = dayNumber(day);
    this.#runs += 1;
    this.#last = Math.max(this.#last, number);
    const later = (map: Map<string, number>, key: string): void => void map.set(key, Math.max(map.get(key) ?? NEVER, number));
    later(this.#pairs, pairKey(wording, picture));
    later(this.#wordings, wording);
    later(this.#pictures, picture);
  }

  /** The next pair on a day: the one that rests longest; of equals that whose wording and picture both rest longest, then the first. */
  turn(rotation: Rotation, day: string): RotationTurn {
    const today = dayNumber(day);
    if (rotation.lastDay !== null && day > rotation.lastDay) return { kind: 'rests', why: 'ended' };
    if (rotation.maxRuns !== null && this.#runs >= rotation.maxRuns) return { kind: 'rests', why: 'ran-out' };
    if (!isInRotationSeason(rotation.season, day)) return { kind: 'rests', why: 'out-of-season' };
    if (today - this.#last < rotation.restDays) return { kind: 'rests', why: 'rests' };
    let best: { readonly pair: Pair; readonly used: number; readonly worst: number; readonly sum: number } | null = null;
    for (const wording of rotation.wordings) {
      const ofWording = this.#wordings.get(wording) ?? NEVER;
      for (const picture of rotation.pictures) {
        const used = this.#pairs.get(pairKey(wording, picture)) ?? NEVER;
        if (today - used < rotation.pairDays) continue;
        const ofPicture = this.#pictures.get(picture) ?? NEVER;
        const [worst, sum] = [Math.max(ofWording, ofPicture), Math.max(ofWording, 0) + Math.max(ofPicture, 0)];
        if (!best || used < best.used || (used === best.used && (worst < best.worst || (worst === best.worst && sum < best.sum)))) best = { pair: { wording, picture }, used, worst, sum };
      }
    }
    return best ? { kind: 'pair', pair: best.pair } : { kind: 'rests', why: 'pairs-rest' };
  }
}

/** What a person chooses for an evergreen piece; its theme and template are the piece's. */
export interface RotationSettings extends Omit<Rotation, 'pieceId' | 'themeId' | 'template' | 'channelIds'> {
  readonly cuts: readonly { readonly channelId: string; readonly placement: string }[];
}
