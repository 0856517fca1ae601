import type { WantedCut } from '../wall-protocol.ts';
import { byRun } from './cut-composer.ts';

/** Letters that are written in a rehearsal: with them words come and lines break anew. */
const LETTERS = 24;
/** Runs that are composed in a rehearsal at the most. */
const MOST_RUNS = 288;

/**
 * The runs of a wall as they would be asked for if somebody wrote on: letter by letter, in one text of each run. It is written on with
 * its own letters, which are loaded.
 */
export function rehearsal(cuts: readonly WantedCut[]): readonly (readonly WantedCut[])[] {
  const runs = [...byRun(cuts)].filter((run) => run.some((cut) => firstText(cut) !== null));
  return Array.from({ length: LETTERS }, (_, letter) => runs.map((run) => writtenOn(run, letter + 1))).flat().slice(0, MOST_RUNS);
}

function writtenOn(run: readonly WantedCut[], letters: number): readonly WantedCut[] {
  const written = run.findIndex((cut) => firstText(cut) !== null);
  return run.map((cut, index) => {
    const found = index === written ? firstText(cut) : null;
    if (!found) return cut;
    const text = `${found.text} ${[...found.text].slice(0, letters).join('')}`;
    return { ...cut, frame: { ...cut.frame, slots: { ...cut.frame.slots, [found.slot]: { kind: 'text', text } } } };
  });
}

function firstText({ frame }: WantedCut): { readonly slot: string; readonly text: string } | null {
  for (const [slot, value] of Object.entries(frame.slots)) if (value.kind === 'text' && value.text.trim() !== '') return { slot, text: value.text };
  return null;
}
