import { formatMoment } from '../time/wall-time.ts';

/** What is wrong, or worth a second look, with the moment of a post. */
export interface TimeFinding {
  readonly severity: 'stops' | 'warns';
  readonly sentence: string;
}

/** A channel that a post would go to, with the pace of its network. */
export interface PacedChannel {
  readonly id: string;
  readonly name: string;
  readonly dailyMax: number;
  readonly leastGapMin: number;
}

/** What is planned or out on a channel around then. */
export interface PlannedThen {
  readonly channelId: string;
  readonly atMs: number;
  readonly day: string;
  readonly name: string;
}

export interface TimeCheck {
  readonly atMs: number;
  /** Its day in the brand's zone. */
  readonly day: string;
  readonly zone: string;
  readonly nowMs: number;
  readonly channels: readonly PacedChannel[];
  readonly planned: readonly PlannedThen[];
  /** Holidays and days that matter, by their names. */
  readonly days: readonly { readonly day: string; readonly until: string; readonly name: string; readonly of: string }[];
}

const MINUTE_MS = 60_000;
/** Closer than this two posts on one channel take from each other, whatever the network allows. */
const CROWDED_MIN = 60;

/** Past, full days, too close, close by, and days on which its readers may be elsewhere; what stops it comes first. */
export function timeFindings({ atMs, day, zone, nowMs, channels, planned, days }: TimeCheck): readonly TimeFinding[] {
  if (atMs <= nowMs) return [{ severity: 'stops', sentence: `${formatMoment(atMs, zone)} has passed. Choose a later moment.` }];
  const findings: TimeFinding[] = [];
  for (const channel of channels) {
    const there = planned.filter(({ channelId }) => channelId === channel.id);
    const thatDay = there.filter((each) => each.day === day).length;
    if (thatDay >= channel.dailyMax) findings.push({ severity: 'stops', sentence: `${channel.name} takes ${channel.dailyMax} posts a day, and ${thatDay} are planned on ${day}. Choose another day.` });
    const nearest = there.toSorted((a, b) => Math.abs(a.atMs - atMs) - Math.abs(b.atMs - atMs))[0];
    const minutes = nearest ? Math.abs(nearest.atMs - atMs) / MINUTE_MS : Infinity;
    if (!nearest || minutes >= Math.max(CROWDED_MIN, channel.leastGapMin)) continue;
    if (minutes < channel.leastGapMin) findings.push({ severity: 'stops', sentence: `${channel.name} wants ${channel.leastGapMin} minutes between two posts; “${nearest.name}” goes out ${inWords(minutes)} away.` });
    else findings.push({ severity: 'warns', sentence: `“${nearest.name}” goes out on ${channel.name} ${minutes < 1 ? 'at the same time' : `${inWords(minutes)} away`}.` });
  }
  for (const each of days) {
    if (each.day > day || each.until < day) continue;
    if (each.of === 'pause') findings.push({ severity: 'warns', sentence: `The rota pauses on ${day}: ${each.name}.` });
    else if (each.of !== 'own') findings.push({ severity: 'warns', sentence: `${day} is ${each.name}: many readers are off then.` });
  }
  return findings.toSorted((a, b) => Number(b.severity === 'stops') - Number(a.severity === 'stops'));
}

function inWords(minutes: number): string {
  const whole = Math.max(1, Math.round(minutes));
  return `${whole} minute${whole === 1 ? '' : 's'}`;
}
