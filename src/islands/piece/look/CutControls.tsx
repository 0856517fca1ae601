import Minus from 'lucide-react/icons/minus';
import Plus from 'lucide-react/icons/plus';
import Undo2 from 'lucide-react/icons/undo-2';
import type { Draft } from 'immer';
import { useId } from 'react';
import { resolveScheme } from '../../../core/brand/brand-book.ts';
import type { CutReport } from '../../../core/compose/report.ts';
import { adjustCut, moveCrop, rejoinCut, stepText, toggleHidden } from '../../../core/piece/adjust.ts';
import { differs, MARK_SLOT, MAX_TEXT_STEPS, MAX_ZOOM, type Adjustment } from '../../../core/piece/adjustment.ts';
import { slotText, type Frame } from '../../../core/piece/piece.ts';
import { Button } from '../../ui/Button.tsx';
import type { ViewProps } from '../view-props.ts';
import type { Cut } from '../use-cuts.ts';

interface ControlsProps extends ViewProps {
  readonly cut: Cut;
  readonly report: CutReport | undefined;
  /** The slide that is looked at; a graphic's only frame. */
  readonly frame: Frame;
}

const group = 'flex items-center gap-1.5';
const heading = 'text-xs text-quiet';

/** The few things that may differ in one cut; each stays linked until it is touched, and all can go back at once. */
export function CutControls(props: ControlsProps) {
  const { cut, report, template, brandData, store, frame, readOnly } = props;
  const id = useId();
  const { adjustment } = cut;
  const change = (label: string, recipe: (adjustment: Draft<Adjustment>) => void): void => store.change(`${label}-${cut.key}`, (draft) => adjustCut(draft, cut.key, recipe));
  const own = differs(adjustment);
  const picture = report?.pictures[0];
  const crop = picture ? (adjustment.crops?.[picture.slot] ?? { x: picture.window.x + picture.window.width / 2, y: picture.window.y + picture.window.height / 2, zoom: 1 }) : null;
  const filled = template.slots.filter((slot) => slot.kind !== 'picture' && !slot.required && (slotText(frame, slot.key).trim() !== '' || slot.fact !== undefined));
  return (
    <fieldset disabled={readOnly} className="flex flex-wrap items-center gap-x-5 gap-y-2 border-y border-line bg-panel px-6 py-2 text-sm">
      <legend className="sr-only">What differs in this cut</legend>
      <div className={group}>
        <label htmlFor={id} className={heading}>
          Arrangement
        </label>
        <select
          id={id}
          value={report?.arrangement ?? ''}
          onChange={(event) => change('arrangement', (draft) => void (draft.arrangement = event.target.value))}
          className="h-7 rounded-md border border-line bg-panel px-1.5"
        >
          {template.arrangements.map((each) => (
            <option key={each.key} value={each.key}>
              {each.name}
            </option>
          ))}
        </select>
      </div>
      <div role="radiogroup" aria-label="Scheme" className={group}>
        <span className={heading}>Scheme</span>
        {brandData.book.schemes.map(({ key, name }) => (
          <SchemeChoice key={key} name={name} colours={resolveScheme(brandData.book, key)} chosen={(adjustment.scheme ?? template.scheme) === key} onChoose={() => change('scheme', (draft) => void (draft.scheme = key === template.scheme ? undefined : key))} />
        ))}
      </div>
      <div role="group" aria-label="Text size" className={group}>
        <span className={heading}>Text</span>
        <Button size="small" aria-label="Smaller" disabled={(adjustment.textStep ?? 0) <= -MAX_TEXT_STEPS} onClick={() => change('text', (draft) => stepText(draft, -1))}>
          <Minus aria-hidden className="size-3" />
        </Button>
        <span className="w-5 text-center tabular-nums">{adjustment.textStep ?? 0}</span>
        <Button size="small" aria-label="Larger" disabled={(adjustment.textStep ?? 0) >= MAX_TEXT_STEPS} onClick={() => change('text', (draft) => stepText(draft, 1))}>
          <Plus aria-hidden className="size-3" />
        </Button>
      </div>
        <div role="group" aria-label="Parts shown" className={group}>
          <span className={heading}>Show</span>
          {[...filled, { key: MARK_SLOT, label: 'Mark' }].map((slot) => (
            <label key={slot.key} className="flex items-center gap-1">
              <input type="checkbox" checked={!adjustment.hidden?.includes(slot.key)} onChange={() => change(`show-${slot.key}`, (draft) => toggleHidden(draft, slot.key))} className="accent-house" />
              {slot.label}
            </label>
          ))}
        </div>
      {picture && crop && (
        <label className={group}>
          <span className={heading}>Zoom</span>
          <input
            type="range"
            min={1}
            max={MAX_ZOOM}
            step={0.05}
            value={crop.zoom}
            onChange={(event) => change('crop', (draft) => moveCrop(draft, picture.slot, { ...crop, zoom: Number(event.target.value) }))}
            className="w-20 accent-house"
          />
        </label>
      )}
      <span className="ml-auto flex items-center gap-2">
        {own ? (
          <Button size="small" onClick={() => store.change(`rejoin-${cut.key}`, (draft) => rejoinCut(draft, cut.key))}>
            <Undo2 aria-hidden className="size-3" />
            Follow the piece again
          </Button>
        ) : (
          <span className={heading}>follows the piece</span>
        )}
      </span>
    </fieldset>
  );
}

interface SchemeProps {
  readonly name: string;
  readonly colours: ReturnType<typeof resolveScheme>;
  readonly chosen: boolean;
  readonly onChoose: () => void;
}

function SchemeChoice({ name, colours, chosen, onChoose }: SchemeProps) {
  return (
    <button type="button" role="radio" aria-checked={chosen} aria-label={name} title={name} onClick={onChoose} className={`flex h-6 overflow-hidden rounded-md border ${chosen ? 'border-house ring-1 ring-house' : 'border-line hover:border-edge'}`}>
      {[colours.ground, colours.ink, colours.accent].map((colour) => (
        <span key={colour} style={{ background: colour }} className="w-3" />
      ))}
    </button>
  );
}
