import { LRUCache } from 'lru-cache';
import { compose, type ComposeInput, type Composed } from './compose.ts';
import type { Engines } from './set-cut.ts';

/** Slides whose texts of one role and slot share their size: those of one kind. */
export interface RunMember extends ComposeInput {
  /** Names all that this slide is made of; two members of one signature come out the same. */
  readonly signature: string;
  /** Which slides it shares its sizes with. */
  readonly family: string;
}

/** Results that are kept, in slides. */
const MAX_KEPT = 1_200;

/**
 * Composes the slides of carousels, those of one cut together: each is fitted alone first, then all take the smallest size that any of
 * them needed, so that sizes do not jump from slide to slide. What has not changed is not composed again, and comes back as the
 * same value.
 */
export class RunComposer {
  readonly #kept = new LRUCache<string, Composed>({ max: MAX_KEPT });

  constructor(readonly engines: Engines) {}

  compose(members: readonly RunMember[]): readonly Composed[] {
    const alone = members.map((member) => this.#composeOnce(member, null));
    return members.map((member, index) => {
      const own = alone[index];
      const caps = new Map<string, number>();
      members.forEach((other, at) => {
        if (other.family !== member.family) return;
        for (const [key, sizePx] of alone[at]?.sizes ?? []) caps.set(key, Math.min(sizePx, caps.get(key) ?? Infinity));
      });
      const isSmallest = own !== undefined && [...own.sizes].every(([key, sizePx]) => sizePx <= (caps.get(key) ?? Infinity) + 1e-6);
      return own !== undefined && isSmallest ? own : this.#composeOnce(member, caps);
    });
  }

  #composeOnce(member: RunMember, caps: ReadonlyMap<string, number> | null): Composed {
    const key = caps === null ? member.signature : `${member.signature}|${[...caps].map(([name, sizePx]) => `${name}=${sizePx.toFixed(3)}`).join(',')}`;
    const known = this.#kept.get(key);
    const composed = known ?? compose(caps === null ? member : { ...member, caps }, this.engines);
    this.#kept.set(key, composed);
    return composed;
  }
}
