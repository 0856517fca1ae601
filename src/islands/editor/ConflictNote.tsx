import { useState } from 'react';
import type { Conflict, Path, Side } from '../../core/document/merge.ts';
import { valueInWords } from '../../core/piece/place-name.ts';
import { Button } from '../ui/Button.tsx';

interface ConflictProps {
  readonly by: string;
  readonly conflicts: readonly Conflict[];
  /** What a place is called on the page. */
  readonly nameOf: (path: Path) => string;
  readonly onResolve: (decide: (conflict: Conflict) => Side) => void;
}

const keyOf = ({ path }: Conflict): string => JSON.stringify(path);

/** Two people (or two windows) wrote in one place: both texts, and a choice for each place. Everything else is kept from both. */
export function ConflictNote({ by, conflicts, nameOf, onResolve }: ConflictProps) {
  const [chosen, setChosen] = useState<ReadonlyMap<string, Side>>(new Map());
  const sideOf = (conflict: Conflict): Side => chosen.get(keyOf(conflict)) ?? 'mine';
  const choose = (conflict: Conflict, side: Side): void => setChosen((now) => new Map(now).set(keyOf(conflict), side));
  return (
    <section role="alertdialog" aria-label={`${by} wrote in the same place`} className="border-b border-marigold bg-marigold-soft px-4 py-3">
      <div className="flex items-start gap-6">
        <div className="min-w-0 flex-1">
          <p className="text-base font-semibold">
            {by} wrote in the same {conflicts.length === 1 ? 'place' : `${conflicts.length} places`}. Choose which text stays; everything else is kept from both of you.
          </p>
          <ul className="mt-2 grid max-w-4xl gap-2">
            {conflicts.map((conflict) => (
              <li key={keyOf(conflict)}>
                <fieldset className="grid grid-cols-[10rem_1fr_1fr] items-start gap-3 text-sm max-md:grid-cols-1">
                  <legend className="contents">
                    <span className="pt-1.5 font-medium">{nameOf(conflict.path)}</span>
                  </legend>
                  <SideChoice name={keyOf(conflict)} title="Yours" text={valueInWords(conflict.mine)} isChosen={sideOf(conflict) === 'mine'} onChoose={() => choose(conflict, 'mine')} />
                  <SideChoice name={keyOf(conflict)} title={by} text={valueInWords(conflict.theirs)} isChosen={sideOf(conflict) === 'theirs'} onChoose={() => choose(conflict, 'theirs')} />
                </fieldset>
              </li>
            ))}
          </ul>
        </div>
        <Button look="primary" onClick={() => onResolve(sideOf)}>
          Save this choice
        </Button>
      </div>
    </section>
  );
}

interface SideProps {
  readonly name: string;
  readonly title: string;
  readonly text: string;
  readonly isChosen: boolean;
  readonly onChoose: () => void;
}

function SideChoice({ name, title, text, isChosen, onChoose }: SideProps) {
  return (
    <label className={`flex min-w-0 gap-2 rounded-md border bg-panel px-2.5 py-1.5 ${isChosen ? 'border-house' : 'border-line'}`}>
      <input type="radio" name={name} checked={isChosen} onChange={onChoose} className="mt-1 accent-house" />
      <span className="min-w-0">
        <span className="block text-xs text-quiet">{title}</span>
        <span className="block break-words whitespace-pre-wrap">{text}</span>
      </span>
    </label>
  );
}
