import { compareArms, type Arm } from '../../core/results/experiment.ts';
import { wordingsOf } from '../../core/plan/rotated-piece.ts';
import type { Brand } from '../db/brand-repository.ts';
import { findMediaByIds } from '../db/media-repository.ts';
import { findPiece } from '../db/piece-repository.ts';
import { listPublicationsOfPosts } from '../db/results-repository.ts';
import { listRotations, listRuns, type StoredRotation } from '../db/rotation-repository.ts';
import type { RateBase } from '../../core/results/measures.ts';
import type { Services } from '../services.ts';
import type { Outcome } from '../../core/results/what-works.ts';
import { WORKS_HOURS, worksOf } from './works.ts';

const SINCE_DAYS = '0000-00-00';
const NAME = 90;

type Of = 'wording' | 'picture';

/** Rotations that try several wordings or pictures, each compared by what its posts had at the same age. */
export async function experimentsOf(services: Pick<Services, 'db' | 'clock'>, brand: Brand, base: RateBase, nowMs: number) {
  const { db } = services;
  const rotations = (await listRotations(db, brand.id)).filter(({ settings }) => settings.wordings.length > 1 || settings.pictures.length > 1);
  const runs = await listRuns(db, brand.id, SINCE_DAYS);
  const { outcomes } = await worksOf(services, brand, base, null, nowMs);
  const levels = levelsOfChannels(outcomes);
  const experiments = [];
  for (const rotation of rotations) {
    const own = runs.filter(({ pieceId }) => pieceId === rotation.pieceId);
    const publications = await listPublicationsOfPosts(db, brand.id, [...new Set(own.map(({ postId }) => postId))]);
    for (const of of ['wording', 'picture'] as const) {
      const names = await armNames(db, brand, rotation, of);
      if (names.size < 2) continue;
      const arms = [...names.keys()].map((id): Arm => {
        const posts = own.filter((run) => run[of] === id).flatMap(({ postId, channelId }) => publications.filter((each) => each.postId === postId && each.channelId === channelId));
        const figures = posts.flatMap(({ aged, channelId }) => (aged[WORKS_HOURS] ? [{ ...aged[WORKS_HOURS], level: levels.get(channelId) ?? 1 }] : []));
        const seenOf = (each: (typeof figures)[number]): number => (base === 'reach' ? (each.reach ?? each.impressions) : (each.impressions ?? each.reach)) ?? 0;
        // A version that was out where people engage more must not win by that: every channel is brought to the same level.
        return { id, posts: figures.length, seen: Math.round(figures.reduce((sum, each) => sum + seenOf(each), 0)), engaged: Math.round(figures.reduce((sum, each) => sum + each.engagement / each.level, 0)) };
      });
      const standing = arms.filter(({ seen }) => seen > 0).length < 2 ? null : compareArms(arms.filter(({ seen }) => seen > 0));
      experiments.push({
        pieceId: rotation.pieceId,
        pieceName: rotation.pieceName,
        of,
        isOn: rotation.isOn,
        arms: arms.map((arm) => {
          const told = standing?.arms.find(({ id }) => id === arm.id);
          return { ...arm, name: names.get(arm.id) ?? arm.id, rate: told?.rate ?? 0, low: told?.low ?? 0, high: told?.high ?? 0, leads: told?.leads ?? 0, loss: told?.loss ?? 0 };
        }),
        leader: standing?.leader ?? null,
        isDecided: standing?.isDecided ?? false,
        postsWanted: standing?.postsWanted ?? null,
      });
    }
  }
  return experiments;
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
