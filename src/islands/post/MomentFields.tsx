import { formatMoment, resolveWallTime, wallTimeOf, WALL_TIME_PATTERN, zonePlace } from '../../core/time/wall-time.ts';
import { DayField } from '../ui/DayField.tsx';
import { TimeOfDayField } from '../ui/TimeOfDayField.tsx';

/** A wall time of the brand's zone, and which of the two is meant where clocks show it twice. */
export interface ChosenMoment {
  readonly wall: string;
  readonly repeated?: 'earlier' | 'later';
}

interface MomentProps {
  readonly moment: ChosenMoment;
  readonly zone: string;
  readonly nowMs: number;
  readonly onChange: (moment: ChosenMoment) => void;
}

/** A day and a time in the brand's zone, and in a sentence what they mean. */
export function MomentFields(props: MomentProps) {
  return (
    <>
      <DayAndTime {...props} />
      <MomentReading {...props} />
    </>
  );
}

interface DayAndTimeProps extends Pick<MomentProps, 'moment' | 'zone' | 'onChange'> {
  /** What the moment is of, where labels are read aloud alone. */
  readonly bareLabel?: string;
  readonly className?: string;
}

/** The two fields of a moment. */
export function DayAndTime({ moment, zone, onChange, bareLabel, className = '' }: DayAndTimeProps) {
  // Either half may be empty while it is typed.
  const [day = '', time = ''] = moment.wall.split('T');
  const labels = bareLabel === undefined ? { day: 'Day', time: `Time in ${zonePlace(zone)}` } : { day: `${bareLabel}: day`, time: `${bareLabel}: time` };
  const isBare = bareLabel !== undefined;
  return (
    <div className={`flex ${isBare ? 'gap-1.5' : 'gap-3'}`}>
      <div className="min-w-0 flex-1">
        <DayField label={labels.day} isBare={isBare} day={day} onChange={(next) => onChange({ ...moment, wall: `${next}T${time}` })} className={className} />
      </div>
      <div className={isBare ? 'w-20' : 'w-36'}>
        <TimeOfDayField label={labels.time} isBare={isBare} time={time} onChange={(next) => onChange({ ...moment, wall: `${day}T${next}` })} className={className} />
      </div>
    </div>
  );
}

/** What a moment means, and which of two is meant where there are two. */
export function MomentReading({ moment, zone, nowMs, onChange }: MomentProps) {
  const reading = readMoment(moment.wall, zone, nowMs);
  return (
    <>
      <p className={`mt-2 text-sm ${reading.kind === 'fine' ? '' : 'text-coral-ink'}`} data-moment={reading.kind} suppressHydrationWarning>
        {reading.sentence}
      </p>
      {reading.kind === 'repeated' && (
        <div role="radiogroup" aria-label="Which of the two" className="mt-1 space-y-1 text-sm">
          {(['earlier', 'later'] as const).map((which) => (
            <label key={which} className="flex items-center gap-2">
              <input type="radio" checked={moment.repeated === which} onChange={() => onChange({ wall: moment.wall, repeated: which })} className="accent-house" />
              {which === 'earlier' ? 'The first time' : 'The second time, an hour later'}
            </label>
          ))}
        </div>
      )}
    </>
  );
}

/** The next full quarter of an hour, as the clock in the zone shows it. */
export function nextQuarter(ms: number, zone: string): string {
  const quarter = 15 * 60_000;
  return wallTimeOf(Math.ceil(ms / quarter) * quarter, zone);
}

interface Reading {
  readonly kind: 'fine' | 'past' | 'skipped' | 'repeated' | 'unfinished';
  readonly sentence: string;
}

/** What the chosen day and time mean, in a sentence, as one chooses; the server has the last word. */
function readMoment(wall: string, zone: string, nowMs: number): Reading {
  if (!WALL_TIME_PATTERN.test(wall)) return { kind: 'unfinished', sentence: 'Choose a day and a time.' };
  const moment = resolveWallTime(wall, zone);
  switch (moment.kind) {
    case 'skipped':
      return { kind: 'skipped', sentence: `Clocks in ${zonePlace(zone)} jump over this time. They resume at ${formatMoment(moment.resumesAtMs, zone)}.` };
    case 'repeated':
      return { kind: 'repeated', sentence: `Clocks in ${zonePlace(zone)} show this time twice that day. Which one?` };
    case 'exact':
      return moment.atMs <= nowMs
        ? { kind: 'past', sentence: `${formatMoment(moment.atMs, zone)} has passed.` }
        : { kind: 'fine', sentence: `Goes out ${formatMoment(moment.atMs, zone)}, ${distance(moment.atMs - nowMs)} from now.` };
  }
}

function distance(ms: number): string {
  const minutes = Math.round(ms / 60_000);
  if (minutes < 60) return `${minutes} minute${minutes === 1 ? '' : 's'}`;
  const hours = Math.round(minutes / 60);
  if (hours < 48) return `${hours} hour${hours === 1 ? '' : 's'}`;
  return `${Math.round(hours / 24)} days`;
}
