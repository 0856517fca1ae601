import Minus from 'lucide-react/icons/minus';
import Plus from 'lucide-react/icons/plus';
import Undo2 from 'lucide-react/icons/undo-2';
import type { Draft } from 'immer';
import { useId, useMemo } from 'react';
import { resolveScheme } from '../../../core/brand/brand-book.ts';
import type { CutReport } from '../../../core/compose/report.ts';
import { adjustCut, applyToCuts, moveCrop, rejoinCut, stepText, toggleHidden, turnTemplate } from '../../../core/piece/adjust.ts';
import { MARK_SLOT, MAX_TEXT_STEPS, MAX_ZOOM, type Adjustment } from '../../../core/piece/adjustment.ts';
import { commonAdjustment, differsFrom } from '../../../core/piece/common-adjustment.ts';
import { slotText, type Frame } from '../../../core/piece/piece.ts';
import { Button as AriaButton, Menu, MenuItem, MenuTrigger, Popover } from 'react-aria-components';
import { arrange } from '../../../core/compose/arrange.ts';
import { Button, buttonClasses } from '../../ui/Button.tsx';
import type { ViewProps } from '../view-props.ts';
import { SchemeChoice } from './SchemeChoice.tsx';
import { TemplateTurns } from './TemplateTurns.tsx';
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
  const { cut, cuts, report, template, brandData, store, frame, readOnly } = props;
  const id = useId();
  const { adjustment } = cut;
  const change = (label: string, recipe: (adjustment: Draft<Adjustment>) => void): void => store.change(`${label}-${cut.key}`, (draft) => adjustCut(draft, cut.key, recipe));
  const common = useMemo(() => commonAdjustment(cuts.list.map((each) => each.adjustment)), [cuts.list]);
  const own = differsFrom(adjustment, common);
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
      {/* What only the finished cut tells comes last: it moves nothing that somebody is about to press. */}
      <div role="group" aria-label="How the template is turned" className={`${group} gap-x-4! text-xs text-quiet`}>
        <TemplateTurns arrangements={template.arrangements.filter(({ key }) => key === report?.arrangement)} now={[adjustment]} onTurn={(field, value) => store.change(`turn-${field}-${cut.key}`, (draft) => turnTemplate(draft, [cut.key], field, value))} />
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
        {own && !readOnly && <ApplyMenu {...props} />}
        {own ? (
          <Button size="small" onClick={() => store.change(`rejoin-${cut.key}`, (draft) => rejoinCut(draft, cut.key, common))}>
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

/** Takes what differs in this cut over to others. */
function ApplyMenu({ cut, cuts, template, store }: ControlsProps) {
  // A slide of a carousel differs by itself: its changes go to the same slide elsewhere.
  const [, slide] = cut.key.split('/');
  const others = cuts.list.filter(({ ref }) => ref.channelId !== cut.ref.channelId || ref.placement !== cut.ref.placement);
  const arrangementOf = ({ placement }: Pick<Cut, 'placement'>): string => arrange(template, { widthPx: placement.exportPx.width, heightPx: placement.exportPx.height }).key;
  const alike = others.filter((each) => arrangementOf(each) === arrangementOf(cut));
  const keysOf = (list: readonly Cut[]): readonly string[] => list.map(({ key }) => (slide === undefined ? key : `${key}/${slide}`));
  const apply = (reach: 'shape' | 'all'): void => store.change(`apply-${reach}-${cut.key}`, (draft) => applyToCuts(draft, cut.adjustment, keysOf(reach === 'shape' ? alike : others), reach));
  if (others.length === 0) return null;
  return (
    <MenuTrigger>
      <AriaButton className={buttonClasses('plain', 'small')}>Apply to…</AriaButton>
      <Popover placement="bottom end" className="shadow-float rounded-md border border-line bg-panel p-1">
        <Menu aria-label="Apply to other cuts" className="min-w-56 outline-none" disabledKeys={alike.length === 0 ? ['shape'] : []} onAction={(key) => apply(key === 'shape' ? 'shape' : 'all')}>
          <MenuItem id="shape" textValue="Cuts of this shape" className={menuItemClasses}>
            {alike.length === 0 ? 'No other cut has this shape' : `${alike.length} more ${alike.length === 1 ? 'cut' : 'cuts'} of this shape`}
          </MenuItem>
          <MenuItem id="all" textValue="All cuts" className={menuItemClasses}>
            All {others.length} others: scheme, text, sides, ornament, parts
          </MenuItem>
        </Menu>
      </Popover>
    </MenuTrigger>
  );
}

const menuItemClasses = 'cursor-pointer rounded-md px-2.5 py-1 text-sm outline-none data-[focused]:bg-sunk data-[disabled]:text-quiet';
