import { LRUCache } from 'lru-cache';
import type { Composed } from '../../core/compose/compose.ts';
import type { Engines } from '../../core/compose/set-cut.ts';
import { RunComposer, type RunMember } from '../../core/compose/compose-run.ts';
import type { Template } from '../../core/template/template.ts';
import type { AlikeCuts } from '../painted-batch.ts';
import type { PaintRequest, WallContent, WantedCut } from '../wall-protocol.ts';

/** Templates come as copies; each different one gets a number, as its text would be long in a signature. */
const MAX_TEMPLATES = 100;

/** Composes the cuts of requests; what has not changed comes back as the same value. */
export class CutComposer {
  readonly #templateNumbers = new LRUCache<string, number>({ max: MAX_TEMPLATES });
  #lastNumber = 0;
  /** Results hold for as long as cuts are made of the same book and pictures. */
  #kept: { readonly content: WallContent; readonly ghosts: boolean; readonly run: RunComposer } | null = null;

  constructor(readonly engines: Engines) {}

  compose({ content, ghosts, cuts: wanted }: Pick<PaintRequest, 'ghosts' | 'cuts'> & { readonly content: WallContent }): ReadonlyMap<WantedCut, Composed> {
    if (this.#kept?.content !== content || this.#kept.ghosts !== ghosts) this.#kept = { content, ghosts, run: new RunComposer(this.engines) };
    const { run } = this.#kept;
    const pictures = new Map(content.pictures.map(({ picture }) => [picture.id, picture]));
    // The copies of one request share references.
    const numbers = new Map<Template, number>();
    const numberOf = (template: Template): number => {
      const number = numbers.get(template) ?? this.#templateNumber(template);
      numbers.set(template, number);
      return number;
    };
    const all = new Map<WantedCut, Composed>();
    for (const cuts of byRun(wanted)) {
      const members = cuts.map((cut): RunMember => {
        const { template, frame, placement, adjustment, place, family, blank, wantsParts } = cut;
        const signature = `${numberOf(template)}${JSON.stringify([frame.slots, placement.exportPx, placement.safePercent, adjustment, place, blank, wantsParts])}`;
        return { template, frame, book: content.book, placement, pictures, ghosts: ghosts || blank === true, adjustment, place, family, signature, wantsParts };
      });
      run.compose(members).forEach((composed, index) => {
        const cut = cuts[index];
        if (cut) all.set(cut, composed);
      });
    }
    return all;
  }

  #templateNumber(template: Template): number {
    const text = JSON.stringify(template);
    const number = this.#templateNumbers.get(text) ?? (this.#lastNumber += 1);
    this.#templateNumbers.set(text, number);
    return number;
  }
}

/** Slides of one run are fitted together. */
export function byRun(wanted: readonly WantedCut[]): Iterable<readonly WantedCut[]> {
  const runs = new Map<string, WantedCut[]>();
  for (const cut of wanted) {
    const run = runs.get(cut.run);
    if (run) run.push(cut);
    else runs.set(cut.run, [cut]);
  }
  return runs.values();
}

/** Cuts that come out the same, at the same scale and moment, are painted once. */
export function groupAlike(composed: ReadonlyMap<WantedCut, Composed>): readonly AlikeCuts[] {
  const groups = new Map<Composed, Map<string, [WantedCut, ...WantedCut[]]>>();
  for (const [cut, each] of composed) {
    const scales = groups.get(each) ?? new Map<string, [WantedCut, ...WantedCut[]]>();
    const look = `${cut.scale} ${cut.unseen ?? false} ${cut.moment?.frame ?? ''} ${cut.moment?.over?.progress ?? ''}`;
    groups.set(each, scales);
    const group = scales.get(look);
    if (group) group.push(cut);
    else scales.set(look, [cut]);
  }
  return [...groups.values()].flatMap((scales) => [...scales.values()]);
}
