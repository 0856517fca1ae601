import { share } from './audience/chance.ts';
import { Hono } from 'hono';
import { people, places, tagWords } from './reach-words.ts';

/** A hashtag with how many people a month see posts that have it. */
export interface TagReach {
  readonly tag: string;
  readonly reach: number;
}

const MOST = 40;
const MIN_REACH = 40;
/** Reach falls with the rank of a tag, as word counts do. */
const TOP_REACH = 2_400_000;


/** The reach of a tag on a network: short and general tags reach more; each has a size of its own that never changes. */
export function reachOf(network: string, tag: string): number {
  const word = tag.replace(/^#/u, '').toLowerCase();
  const length = Math.max(3, word.length);
  const own = Math.exp((share(`${network} ${word}`) - 0.5) * 4);
  return Math.max(MIN_REACH, Math.round(((TOP_REACH * 9) / length ** 3.2) * own));
}

/** Tags that begin like that, the farthest reaching first. */
function suggest(network: string, start: string): readonly TagReach[] {
  const wanted = start.replace(/^#/u, '').toLowerCase();
  return tagWords.filter((tag) => tag.toLowerCase().startsWith(wanted)).map((tag) => ({ tag: `#${tag}`, reach: reachOf(network, tag) })).toSorted((a, b) => b.reach - a.reach).slice(0, MOST);
}

/** What rises at a place: a dozen tags of the network's own choosing for it. */
function trends(network: string, place: string): readonly TagReach[] {
  return tagWords.toSorted((a, b) => share(`${network} ${place} ${a}`) - share(`${network} ${place} ${b}`)).slice(0, 12).map((tag) => ({ tag: `#${tag}`, reach: reachOf(network, tag) }));
}

/** What a network knows of hashtags and of people. */
export function reachApi(network: string): Hono {
  const api = new Hono();
  api.get('/hashtags', (context) => {
    const tags = context.req.query('tags');
    return context.json({ tags: tags === undefined ? suggest(network, context.req.query('start') ?? '') : tags.split(',').slice(0, 200).map((tag) => ({ tag, reach: reachOf(network, tag) })) });
  });
  api.get('/trends', (context) => context.json({ places, tags: trends(network, context.req.query('place') ?? places[0] ?? '') }));
  api.get('/people', (context) => {
    const wanted = (context.req.query('start') ?? '').replace(/^@/u, '').toLowerCase();
    const found = people.filter(({ name, networks }) => networks[network] !== undefined && (name.toLowerCase().includes(wanted) || (networks[network] ?? '').toLowerCase().includes(wanted)));
    return context.json({ people: found.slice(0, MOST).map(({ name, networks }) => ({ name, handle: networks[network] })) });
  });
  return api;
}
