import { keepCheck, listDueLinks, type ShortLink } from '../db/short-link-repository.ts';
import type { NewJob } from '../db/job-repository.ts';
import { ProblemError } from '../errors.ts';
import type { JobHandler } from '../jobs/job-handler.ts';
import { guardedAsk } from '../outside/guarded-fetch.ts';
import type { Services } from '../services.ts';

const KIND = 'link-check';
const EVERY_MS = 60_000;
const DAY_MS = 86_400_000;
/** What fails is looked at again soon: a site may only be restarting. */
const AGAIN_MS = 3_600_000;
const A_ROUND = 20;
const MAX_BYTES = 2 * 1024 * 1024;

export const linkCheckJob: NewJob = { key: KIND, kind: KIND, lane: 'learn', payload: {}, maxAttempts: 8 };

/** Looks once a day whether short links still lead somewhere; it comes round for ever. */
export function linkCheckHandler(services: Pick<Services, 'db' | 'clock' | 'settings'>): JobHandler {
  return {
    async run() {
      const nowMs = await services.clock.nowMs();
      for (const link of await listDueLinks(services.db, nowMs, A_ROUND)) {
        const problem = await problemOf(services, link);
        await keepCheck(services.db, link.code, { checkedMs: nowMs, nextMs: nowMs + (problem === null ? DAY_MS : AGAIN_MS), problem });
      }
      return { kind: 'again', afterMs: EVERY_MS };
    },
  };
}

/** Why a link leads nowhere; null when it leads somewhere. */
export async function problemOf({ settings }: Pick<Services, 'settings'>, { target }: Pick<ShortLink, 'target'>): Promise<string | null> {
  try {
    const { status } = await guardedAsk(target, { method: 'GET', headers: { accept: '*/*' } }, { mostBytes: MAX_BYTES, trustedHosts: settings.trustedHosts, accept: '*/*' });
    // Sites that ask people to sign in, or to come back later, are there.
    return status < 400 || status === 401 || status === 403 || status === 429 ? null : `it answered ${status}.`;
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error;
    // A page that is larger than what is read is there.
    return error.code === 'too-large' ? null : error.sentence;
  }
}
