import type { LanguagePack } from './language-pack.ts';
import { cosine, countsOf, stemsOf } from './tokens.ts';

/** A sentence with where it comes from. */
export interface Sentence {
  readonly text: string;
  /** What it is from, as people call it: “headline”, “fact Workshop”, “article”. */
  readonly source: string;
  /** Place among the sentences of its source, counted from 1. */
  readonly place: number;
}

export interface Ranked extends Sentence {
  readonly index: number;
  /** 0 to 1, the best has 1. */
  readonly score: number;
  readonly stems: ReadonlyMap<string, number>;
}

const DAMPING = 0.85;
const ROUNDS = 30;
/** Sentences that share less than this are no neighbours. */
const THRESHOLD = 0.1;
/** Beyond this the graph is built over the first sentences alone: what comes late in a long text seldom leads it. */
const MAX_SENTENCES = 300;
const PRIOR = { topic: 0.6, early: 0.3, held: 0.3 } as const;

/**
 * Sentences by how much they say of all of them: LexRank over cosines of stems (Erkan and Radev 2004), with priors for the words of a topic,
 * an early place and held spans.
 * @param held how many held spans a sentence has
 */
export function rankSentences(sentences: readonly Sentence[], pack: LanguagePack, topic: string, held: (text: string) => number): readonly Ranked[] {
  const kept = sentences.slice(0, MAX_SENTENCES);
  const bags = kept.map(({ text }) => countsOf(stemsOf(text, pack)));
  const topicBag = countsOf(stemsOf(topic, pack));
  const near = bags.map((bag, row) => bags.map((other, column) => (row === column ? 0 : cosine(bag, other))).map((value) => (value < THRESHOLD ? 0 : value)));
  const sums = near.map((row) => row.reduce((sum, value) => sum + value, 0));
  const prior = kept.map(({ text, place }, index) => 1 + PRIOR.topic * (topicBag.size === 0 ? 0 : cosine(bags[index] ?? new Map<string, number>(), topicBag)) + PRIOR.early / place + PRIOR.held * Math.min(1, held(text) / 3));
  const total = prior.reduce((sum, value) => sum + value, 0);
  const start = prior.map((value) => value / total);
  let scores = start;
  for (let round = 0; round < ROUNDS; round += 1) {
    const before = scores;
    scores = start.map((own, column) => (1 - DAMPING) * own + DAMPING * before.reduce((sum, score, row) => sum + (sums[row] ? (score * (near[row]?.[column] ?? 0)) / (sums[row] ?? 1) : score * own), 0));
  }
  const best = Math.max(...scores, Number.EPSILON);
  return kept.map((sentence, index) => ({ ...sentence, index, score: (scores[index] ?? 0) / best, stems: bags[index] ?? new Map<string, number>() }));
}

/** How much a sentence must bring that is new: 1 looks at its rank alone. */
const LAMBDA = 0.7;

/**
 * Sentences for a length, by maximal marginal relevance (Carbonell and Goldstein 1998), in the order of their sources.
 * @param fits whether so many sentences together still fit
 */
export function chooseSentences(ranked: readonly Ranked[], fits: (chosen: readonly Ranked[]) => boolean): readonly Ranked[] {
  let left = [...ranked];
  let chosen: Ranked[] = [];
  while (left.length > 0) {
    const worth = (each: Ranked): number => LAMBDA * each.score - (1 - LAMBDA) * Math.max(0, ...chosen.map((other) => cosine(each.stems, other.stems)));
    const best = left.reduce((most, each) => (worth(each) > worth(most) ? each : most));
    left = left.filter((each) => each !== best);
    const next = [...chosen, best].toSorted((a, b) => a.index - b.index);
    if (fits(next)) chosen = next;
  }
  return chosen;
}
