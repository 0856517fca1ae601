import ical, { ICalCalendarMethod, ICalEventStatus } from 'ical-generator';
import { hashSecret, newSecret } from '../auth/secrets.ts';
import { findBrandById, listChannels, type Brand } from '../db/brand-repository.ts';
import { listOutings } from '../db/outing-repository.ts';
import { listPlanEntries } from '../db/plan-entry-repository.ts';
import { findBrandOfFeed, setFeed } from '../db/plan-repository.ts';
import type { Services } from '../services.ts';

const DAY_MS = 86_400_000;
const [BACK_MS, AHEAD_MS] = [56 * DAY_MS, 120 * DAY_MS];
const MAX_EVENTS = 5_000;
const LENGTH_MS = 15 * 60_000;

/** Gives a brand's calendar feed a new secret address; the one before ends. */
export async function openFeed({ db }: Pick<Services, 'db'>, brand: Brand): Promise<{ readonly path: string }> {
  const secret = newSecret('cfc');
  await setFeed(db, brand.id, hashSecret(secret));
  return { path: `/calendar/${secret}.ics` };
}

/**
 * The plan of the brand that a secret names, as a calendar: a post an event, with its channels and a link to it. Null for a secret that
 * is none.
 * @param origin where people reach Confetti
 */
export async function calendarOf(services: Pick<Services, 'db' | 'clock'>, secret: string, origin: string): Promise<string | null> {
  const brandId = /^cfc_[\w-]{20,80}$/.test(secret) ? await findBrandOfFeed(services.db, hashSecret(secret)) : null;
  const brand = brandId === null ? null : await findBrandById(services.db, brandId);
  if (!brand) return null;
  const nowMs = await services.clock.nowMs();
  const range = { fromMs: nowMs - BACK_MS, toMs: nowMs + AHEAD_MS, limit: MAX_EVENTS };
  const names = new Map((await listChannels(services.db, brand.id)).map(({ id, name }) => [id, name]));
  const calendar = ical({ name: `${brand.name}, Confetti`, method: ICalCalendarMethod.PUBLISH, prodId: { company: 'Confetti', product: 'Plan' } });
  const outings = await listOutings(services.db, brand.id, range);
  const posts = new Map<string, { readonly first: (typeof outings)[number]; readonly channels: string[] }>();
  for (const outing of outings) {
    const known = posts.get(outing.postId);
    if (known) known.channels.push(names.get(outing.channelId) ?? '');
    else posts.set(outing.postId, { first: outing, channels: [names.get(outing.channelId) ?? ''] });
  }
  for (const { first, channels } of posts.values()) {
    calendar.createEvent({
      id: `post-${first.postId}@confetti`,
      start: new Date(first.dueMs),
      end: new Date(first.dueMs + LENGTH_MS),
      summary: first.pieceName,
      description: `${first.state === 'sent' ? 'Out on' : 'Goes out on'} ${[...new Set(channels)].join(', ')}`,
      url: `${origin}/b/${brand.slug}/make/pieces/${first.pieceId}`,
      status: ICalEventStatus.CONFIRMED,
    });
  }
  for (const entry of await listPlanEntries(services.db, brand.id, range)) {
    calendar.createEvent({ id: `entry-${entry.id}@confetti`, start: new Date(entry.dueMs), end: new Date(entry.dueMs + LENGTH_MS), summary: `${entry.pieceName ?? entry.text} (${entry.pieceId === null ? 'placeholder' : 'draft'})`, status: ICalEventStatus.TENTATIVE });
  }
  return calendar.toString();
}
