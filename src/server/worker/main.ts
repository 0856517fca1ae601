import { setTimeout as sleep } from 'node:timers/promises';
import { noteAlive, SIGN_OF_LIFE_MS } from '../dispatch/downtime.ts';
import { enqueueJob } from '../db/job-repository.ts';
import { runJobs } from '../jobs/job-runner.ts';
import { laneNames, lanes, type Lane } from '../jobs/lanes.ts';
import { sweepIncoming } from '../media/sweep-incoming.ts';
import { keepFilesPrivate } from '../secrets/keep-files-private.ts';
import { closeServices, openServices } from '../services.ts';
import { ideasJob } from '../ideas/gather-ideas.ts';
import { feedsJob } from '../ideas/poll-feeds.ts';
import { linkCheckJob } from '../links/check-links.ts';
import { planJob } from '../plan/make-real.ts';
import { reportsJob } from '../reports/send-reports.ts';
import { collectJob } from '../results/collect-handler.ts';
import { readSettings } from '../settings.ts';
import { outlinesJob } from '../media/take-outlines.ts';
import { upkeepJob } from '../upkeep/upkeep-handler.ts';
import { workHandlers } from './handlers.ts';

const THREADS = 2;
const LEFT_BEHIND_MS = 3_600_000;
/** Threads and connections that do not close within this time keep nobody waiting. */
const CLOSE_WITHIN_MS = 5_000;

keepFilesPrivate();

const settings = readSettings(process.env);
const unknown = settings.lanes?.find((name) => !laneNames.some((each) => each === name));
if (unknown !== undefined) throw new Error(`CONFETTI_LANES names '${unknown}'. There are: ${laneNames.join(', ')}.`);

const services = await openServices(settings, THREADS);
const stop = new AbortController();
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => stop.abort());
// What a worker that broke off has left behind; whatever is being made now is younger.
await sweepIncoming(settings.dataFolder, Date.now() - LEFT_BEHIND_MS);
await enqueueJob(services.db, outlinesJob, services.clock.machineNowMs(), { again: true });
for (const job of [upkeepJob, planJob, collectJob, linkCheckJob, reportsJob, ideasJob, feedsJob]) await enqueueJob(services.db, job, services.clock.machineNowMs());
await noteAlive(services.db, services.clock);
const alive = setInterval(() => void noteAlive(services.db, services.clock).catch((error: unknown) => services.log.warn({ err: error }, 'a sign of life was not noted')), SIGN_OF_LIFE_MS);
services.log.info('the worker is running');
await runJobs(services, workHandlers(services), lanes.filter(({ name }: Lane) => settings.lanes === null || settings.lanes.includes(name)), stop.signal);
clearInterval(alive);
await Promise.race([closeServices(services), sleep(CLOSE_WITHIN_MS)]);
// Whatever still runs was given up: nothing of it may keep the process.
process.exit(0);
