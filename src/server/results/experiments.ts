import { compareArms, type Arm } from '../../core/results/experiment.ts';
import { wordingsOf } from '../../core/plan/rotated-piece.ts';
import type { Brand } from '../db/brand-repository.ts';
import { findMediaByIds } from '../db/media-repository.ts';
import { findPiece } from '../db/piece-repository.ts';
import { listPublicationsOfPosts } from '../db/results-repository.ts';
import type { Publication } from '../db/publication-repository.ts';
import { listRotations, listRuns, type StoredRotation } from '../db/rotation-repository.ts';
import { listTrials } from '../db/trial-repository.ts';
import type { RateBase } from '../../core/results/measures.ts';
import type { Services } from '../services.ts';
import type { Outcome } from '../../core/results/what-works.ts';
import { WORKS_HOURS, worksOf } from './works.ts';

const SINCE_DAYS = '0000-00-00';
const NAME = 90;

type AgedFigures = NonNullable<Publication['aged'][typeof WORKS_HOURS]>;

type Of = 'wording' | 'picture';

/** What is tried: wordings or pictures that take turns in one rotation, or versions of a piece that share its slots. */
type Tried = Of | 'version';

/** Rotations that try several wordings or pictures, and versions that share their slots: each compared by what its posts had at the same age. */
export async function experimentsOf(services: Pick<Services, 'db' | 'clock'>, brand: Brand, base: RateBase, nowMs: number) {
  const { db } = services;
  const rotations = await listRotations(db, brand.id);
  const runs = await listRuns(db, brand.id, SINCE_DAYS);
  const { outcomes } = await worksOf(services, brand, base, null, nowMs);
  const levels = levelsOfChannels(outcomes);
  const seenOf = (aged: AgedFigures): number => (base === 'reach' ? (aged.reach ?? aged.impressions) : (aged.impressions ?? aged.reach)) ?? 0;
  const armOf = (id: string, posts: readonly Publication[]): Arm => {
    const figures = posts.flatMap(({ aged, channelId }) => (aged[WORKS_HOURS] ? [{ ...aged[WORKS_HOURS], level: levels.get(channelId) ?? 1 }] : []));
    // A version that was out where people engage more must not win by that: every channel is brought to the same level.
    return { id, posts: figures.length, seen: Math.round(figures.reduce((sum, each) => sum + seenOf(each), 0)), engaged: Math.round(figures.reduce((sum, each) => sum + each.engagement / each.level, 0)) };
  };
  const postsOf = async (wanted: readonly { readonly postId: string; readonly channelId: string }[]): Promise<readonly Publication[]> => {
    const publications = await listPublicationsOfPosts(db, brand.id, [...new Set(wanted.map(({ postId }) => postId))]);
    return publications.filter((each) => wanted.some(({ postId, channelId }) => each.postId === postId && each.channelId === channelId));
  };
  const experiments = [];
  for (const rotation of rotations.filter(({ settings }) => settings.wordings.length > 1 || settings.pictures.length > 1)) {
    const own = runs.filter(({ pieceId }) => pieceId === rotation.pieceId);
    const publications = await postsOf(own);
    for (const of of ['wording', 'picture'] as const) {
      const names = await armNames(db, brand, rotation, of);
      if (names.size < 2) continue;
      const arms = [...names.keys()].map((id) => armOf(id, own.filter((run) => run[of] === id).flatMap((run) => publications.filter((each) => each.postId === run.postId && each.channelId === run.channelId))));
      experiments.push({ pieceId: rotation.pieceId, pieceName: rotation.pieceName, of: of as Tried, isOn: rotation.isOn, ...standingOf(arms, names) });
    }
  }
  for (const { pieceIds } of await listTrials(db, brand.id)) {
    const versions = pieceIds.flatMap((pieceId) => rotations.find((each) => each.pieceId === pieceId) ?? []);
    const [first] = versions;
    if (!first || versions.length < 2) continue;
    const arms = await Promise.all(versions.map(async ({ pieceId }) => armOf(pieceId, await postsOf(runs.filter((run) => run.pieceId === pieceId)))));
    experiments.push({ pieceId: first.pieceId, pieceName: first.pieceName, of: 'version' as Tried, isOn: versions.some(({ isOn }) => isOn), ...standingOf(arms, new Map(versions.map(({ pieceId, pieceName }) => [pieceId, pieceName]))) });
  }
  return experiments;
}

/** The arms with their names, and how they stand against each other. */
function standingOf(arms: readonly Arm[], names: ReadonlyMap<string, string>) {
  const standing = arms.filter(({ seen }) => seen > 0).length < 2 ? null : compareArms(arms.filter(({ seen }) => seen > 0));
  return {
    arms: arms.map((arm) => {
      const told = standing?.arms.find(({ id }) => id === arm.id);
      return { ...arm, name: names.get(arm.id) ?? arm.id, rate: told?.rate ?? 0, low: told?.low ?? 0, high: told?.high ?? 0, leads: told?.leads ?? 0, loss: told?.loss ?? 0 };
    }),
    leader: standing?.leader ?? null,
    isDecided: standing?.isDecided ?? false,
    postsWanted: standing?.postsWanted ?? null,
  };
}

/** How much more people engage on a channel than on all of them together. */
function levelsOfChannels(outcomes: readonly Outcome[]): ReadonlyMap<string, number> {
  const sums = new Map<string, { engagement: number; seen: number }>();
  const all = { engagement: 0, seen: 0 };
  for (const { traits, engagement, seen } of outcomes) {
    const known = sums.get(traits.channelId) ?? { engagement: 0, seen: 0 };
    sums.set(traits.channelId, { engagement: known.engagement + engagement, seen: known.seen + seen });
    all.engagement += engagement;
    all.seen += seen;
  }
  const mean = all.engagement / Math.max(1, all.seen);
  return new Map([...sums].map(([channelId, { engagement, seen }]) => [channelId, engagement === 0 || mean === 0 ? 1 : engagement / seen / mean]));
}

const shortened = (text: string): string => (text.length <= NAME ? text : `${text.slice(0, text.lastIndexOf(' ', NAME))}…`);

/** The versions that take turns, as a person knows them: how a caption begins, what a picture is called. */
async function armNames(db: Services['db'], brand: Brand, { pieceId, settings }: StoredRotation, of: Of): Promise<ReadonlyMap<string, string>> {
  if (of === 'picture') return new Map((await findMediaByIds(db, brand.id, settings.pictures)).map(({ id, name }) => [id, name]));
  const piece = await findPiece(db, brand.id, pieceId);
  const wordings = piece ? wordingsOf(piece.document) : [];
  return new Map(wordings.filter(({ id }) => settings.wordings.includes(id)).map(({ id, text }) => [id, shortened(text)]));
}
