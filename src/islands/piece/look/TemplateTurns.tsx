import { turnable } from '../../../core/compose/vary.ts';
import type { TurnedField } from '../../../core/piece/adjust.ts';
import type { Adjustment } from '../../../core/piece/adjustment.ts';
import type { Template } from '../../../core/template/template.ts';

interface TurnsProps {
  /** The arrangements that are in use. */
  readonly arrangements: Template['arrangements'];
  /** How the cuts are turned now, one or several. */
  readonly now: readonly Adjustment[];
  readonly onTurn: <Field extends TurnedField>(field: Field, value: Adjustment[Field]) => void;
}

/** What can be turned in a template without drawing it anew: how text is set, at which side the picture stands, with or without ornament. */
export function TemplateTurns({ arrangements, now, onTurn }: TurnsProps) {
  const can = turnable(arrangements);
  const aligns = new Set(now.map(({ align }) => align ?? ''));
  const isAll = (field: 'swapsSides' | 'isPlain'): boolean => now.length > 0 && now.every((each) => each[field] === true);
  const [align] = aligns;
  return (
    <>
      {can.align && (
        <label className="flex items-center gap-1.5">
          Set text
          <select value={aligns.size === 1 ? align : 'mixed'} onChange={(event) => onTurn('align', event.target.value === '' ? undefined : (event.target.value as 'start' | 'centre'))} className="h-7 rounded-md border border-line bg-panel px-1.5 text-ink">
            {aligns.size > 1 && <option value="mixed">not the same in all cuts</option>}
            <option value="">as drawn</option>
            <option value="start">flush</option>
            <option value="centre">centred</option>
          </select>
        </label>
      )}
      {can.sides && (
        <label className="flex items-center gap-1">
          <input type="checkbox" checked={isAll('swapsSides')} onChange={(event) => onTurn('swapsSides', event.target.checked ? true : undefined)} className="accent-house" />
          Picture at the other side
        </label>
      )}
      {can.ornament && (
        <label className="flex items-center gap-1">
          <input type="checkbox" checked={!isAll('isPlain')} onChange={(event) => onTurn('isPlain', event.target.checked ? undefined : true)} className="accent-house" />
          Ornament
        </label>
      )}
    </>
  );
}
