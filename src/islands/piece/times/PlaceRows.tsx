import RotateCcw from 'lucide-react/icons/rotate-ccw';
import { isByHand } from '../../../core/network/account-kind.ts';
import { formatMoment } from '../../../core/time/wall-time.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { DayAndTime, MomentReading, type ChosenMoment } from '../../post/MomentFields.tsx';
import { StateChip } from '../../post/StateChip.tsx';
import type { Delivery } from '../../post/use-deliveries.ts';
import type { Cut } from '../use-cuts.ts';
import { choose, followShared, type Choices, type PlaceRow } from './places.ts';

interface RowsProps {
  readonly rows: readonly PlaceRow<Delivery>[];
  /** Whether it is known where the piece goes out already: until then nothing can be ticked. */
  readonly isKnown: boolean;
  /** Changes what is chosen by then. */
  readonly onChoices: (change: (now: Choices) => Choices) => void;
  readonly shared: ChosenMoment;
  readonly onShared: (moment: ChosenMoment) => void;
  readonly zone: string;
  readonly nowMs: number;
}

const columns = 'grid grid-cols-[1.25rem_minmax(0,1fr)] items-center gap-x-3 gap-y-1.5 md:grid-cols-[1.25rem_minmax(0,1fr)_7rem_17rem]';

/** The shared moment, then a row a place: whether something goes out there, in which shape, and when. */
export function PlaceRows(props: RowsProps) {
  const { rows, isKnown, onChoices, shared, onShared, zone, nowMs } = props;
  const on = rows.filter(({ isOn }) => isOn).length;
  const set = (changed: readonly PlaceRow[], isOn: boolean): void => onChoices((now) => changed.reduce((choices, { place }) => choose(choices, place.key, { isOn }), now));
  /** Places that are still to come, of a piece that is scheduled or out in others. */
  const others = rows.filter(({ earlier }) => earlier === null);
  return (
    <div>
      <div role="group" aria-label="All places" className={`${columns} border-b border-edge pb-3`}>
        <input
          type="checkbox"
          aria-label="All places"
          disabled={!isKnown}
          checked={on === rows.length}
          ref={(box) => {
            if (box) box.indeterminate = on > 0 && on < rows.length;
          }}
          onChange={() => set(rows, on < rows.length)}
          className="size-4 accent-house"
        />
        <p className="text-sm">
          <span className="font-semibold">All places</span>{' '}
          <span className="text-quiet tabular-nums">
            {on} of {rows.length}
          </span>
          {isKnown && on === 0 && others.length > 0 && others.length < rows.length && (
            <button type="button" onClick={() => set(others, true)} className="ml-3 text-house underline">
              Tick the {others.length === 1 ? 'other' : `${others.length} others`}
            </button>
          )}
        </p>
        <p className="hidden text-xs text-quiet md:block">Type in a row to differ.</p>
        <div className="col-start-2 pr-[1.875rem] md:col-start-4">
          <DayAndTime moment={shared} zone={zone} onChange={onShared} bareLabel="All places" />
        </div>
        <div className="col-start-2 md:col-span-3 [&>p]:mt-0">
          <MomentReading moment={shared} zone={zone} nowMs={nowMs} onChange={onShared} />
        </div>
      </div>
      <ul>
        {rows.map((row) => (
          <Row key={row.place.key} {...props} row={row} />
        ))}
      </ul>
    </div>
  );
}

/** Whether a network has one account here: then its name is enough. */
function isAlone(cut: Cut, rows: readonly PlaceRow<Delivery>[]): boolean {
  return rows.every((row) => row.cut.channel.id === cut.channel.id || row.cut.sheet.key !== cut.sheet.key);
}

function Row({ row, rows, isKnown, onChoices, zone, nowMs }: RowsProps & { readonly row: PlaceRow<Delivery> }) {
  const { place, cut, isOn, moment, hasOwnMoment, earlier } = row;
  const change = (part: Parameters<typeof choose>[2]): void => onChoices((now) => choose(now, place.key, part));
  return (
    <li className="border-b border-line py-2">
      <div role="group" aria-label={place.name} className={columns}>
        <input type="checkbox" aria-label={place.name} disabled={!isKnown} checked={isOn} onChange={() => change({ isOn: !isOn })} className="size-4 accent-house" />
        <p className={`flex min-w-0 items-center gap-2 text-sm ${isOn ? '' : 'text-quiet'}`}>
          <ChannelBadge badge={cut.sheet.badge} size={16} />
          <span className="truncate font-semibold" title={cut.channel.name}>
            {cut.sheet.name}
            {isAlone(cut, rows) ? '' : ` ${cut.channel.handle}`}
          </span>
          <span className="text-quiet">{cut.placement.surface}</span>
          {cut.channel.state === 'paused' && <span className="shrink-0 text-xs text-marigold-ink">paused</span>}
          {isByHand(cut.sheet, cut.channel.kind) && <span className="shrink-0 text-xs text-quiet">by hand</span>}
          {earlier && (
            <span className="flex shrink-0 items-center gap-1 text-xs text-quiet tabular-nums" title={formatMoment(earlier.sentMs ?? earlier.dueMs, zone)}>
              <StateChip state={earlier.state} /> {formatMoment(earlier.sentMs ?? earlier.dueMs, zone).split(/ \d{4}/)[0]}
            </span>
          )}
        </p>
        <div className="col-start-2 md:col-start-3">
          {place.cuts.length > 1 ? (
            <select aria-label={`${place.name}: shape`} value={cut.key} onChange={(event) => change({ cutKey: event.target.value })} className="h-8 w-full rounded-md border border-line bg-panel px-1.5 text-sm">
              {place.cuts.map((each) => (
                <option key={each.key} value={each.key}>
                  {each.placement.name}
                </option>
              ))}
            </select>
          ) : (
            <span className="text-sm text-quiet">{cut.placement.name}</span>
          )}
        </div>
        <div className="col-start-2 flex items-center gap-1 md:col-start-4">
          <div className="flex-1">
            <DayAndTime moment={moment} zone={zone} onChange={(own) => change({ moment: own })} bareLabel={place.name} className={hasOwnMoment && isOn ? 'font-semibold' : 'border-dashed text-quiet'} />
          </div>
          <button
            type="button"
            aria-label={`${place.name}: with all places again`}
            title="With all places again"
            disabled={!hasOwnMoment}
            onClick={() => onChoices((now) => followShared(now, place.key))}
            className="rounded-md p-1 text-quiet hover:bg-sunk hover:text-ink disabled:invisible"
          >
            <RotateCcw aria-hidden className="size-3.5" />
          </button>
        </div>
        {isOn && hasOwnMoment && (
          <div className="col-start-2 min-w-0 md:col-span-3 [&>p]:mt-0 [&>p]:text-xs">
            <MomentReading moment={moment} zone={zone} nowMs={nowMs} onChange={(own) => change({ moment: own })} />
          </div>
        )}
      </div>
    </li>
  );
}
