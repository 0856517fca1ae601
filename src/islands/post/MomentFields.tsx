import { formatMoment, resolveWallTime, wallTimeOf, WALL_TIME_PATTERN, zonePlace } from '../../core/time/wall-time.ts';
import { Field, inputClasses } from '../ui/Field.tsx';

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
export function MomentFields({ moment, zone, nowMs, onChange }: MomentProps) {
  const { wall, repeated } = moment;
  const reading = readMoment(wall, zone, nowMs);
  return (
    <>
      <div className="flex gap-3">
        <div className="flex-1">
          <Field label="Day">
            {({ id }) => <input id={id} type="date" value={wall.slice(0, 10)} onChange={(event) => onChange({ ...moment, wall: `${event.target.value}T${wall.slice(11)}` })} className={`${inputClasses} tabular-nums`} />}
          </Field>
        </div>
        <div className="w-32">
          <Field label={`Time in ${zonePlace(zone)}`}>
            {({ id }) => <input id={id} type="time" value={wall.slice(11)} onChange={(event) => onChange({ ...moment, wall: `${wall.slice(0, 10)}T${event.target.value}` })} className={`${inputClasses} tabular-nums`} />}
          </Field>
        </div>
      </div>
      <p className={`mt-2 text-sm ${reading.kind === 'fine' ? '' : 'text-coral-ink'}`} data-moment={reading.kind} suppressHydrationWarning>
        {reading.sentence}
      </p>
      {reading.kind === 'repeated' && (
        <div role="radiogroup" aria-label="Which of the two" className="mt-1 space-y-1 text-sm">
          {(['earlier', 'later'] as const).map((which) => (
            <label key={which} className="flex items-center gap-2">
              <input type="radio" name="repeated" checked={repeated === which} onChange={() => onChange({ wall, repeated: which })} className="accent-house" />
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

/** What the chosen day and time mean, in a sentence, as one chooses; the server has the last word. */
function readMoment(wall: string, zone: string, nowMs: number): { readonly kind: 'fine' | 'past' | 'skipped' | 'repeated' | 'unfinished'; readonly sentence: string } {
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
