import { readClockOffsetMs } from '../../src/server/db/clock-repository.ts';
import { openChannel } from '../../src/server/connect/open-channel.ts';
import { connectorFor } from '../../src/server/connectors/registry.ts';
import { getDelivery } from '../../src/server/db/delivery-repository.ts';
import { makeFiles, planFiles } from '../../src/server/dispatch/outgoing-files.ts';
import { outgoingOf } from '../../src/server/dispatch/outgoing-post.ts';
import { readPin } from '../../src/server/documents/pins.ts';
import { runJobs } from '../../src/server/jobs/job-runner.ts';
import { lanes, PLACES_OF_GROUP } from '../../src/server/jobs/lanes.ts';
import { closeServices, openServices, type Services } from '../../src/server/services.ts';
import { readSettings } from '../../src/server/settings.ts';
import { workHandlers } from '../../src/server/worker/handlers.ts';
import setup from '../server/seed-once.ts';
import { freePort, until } from '../fixtures/programs.ts';
import { Machine } from '../trouble/machine.ts';
import { brandOf, grantAccesses, makeGraphics, spread, type MadeDelivery } from '../trouble/make-deliveries.ts';

const DELIVERIES = 210;
const UNUSED = new AbortController().signal;

/** What sending takes beyond what the networks take themselves. */
export interface SendingTimes {
  readonly deliveries: number;
  /** Seconds of the dispatcher, from the moment at which all are due. */
  readonly dispatcher: number;
  /** Seconds of the same requests alone: uploads, drafts, posts and what follows them, as many at once. */
  readonly requests: number;
}

/** Sends as many deliveries by requests alone as by the dispatcher, to the same networks in the same run, from files made before. */
export async function sendingTimes(): Promise<SendingTimes> {
  await setup();
  const machine = new Machine();
  const port = await freePort();
  const origin = `http://127.0.0.1:${port}`;
  machine.environment = { CONFETTI_DATA: machine.data, CONFETTI_DEMO: '1', CONFETTI_STANDIN: origin, CONFETTI_LOG: 'silent', NODE_ENV: 'production', STANDIN_DATA: machine.networks, STANDIN_PORT: String(port) };
  const services = await openServices(readSettings(machine.environment), 2);
  try {
    machine.start('standin');
    await until('the stand-ins', () => fetch(`${origin}/switchboard`).then(({ ok }) => ok, () => false));
    await fetch(`${origin}/switchboard/clock`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ offsetMs: await readClockOffsetMs(services.db) }) });
    const brand = await brandOf(services);
    await services.db('channels').update({ origin });
    await services.db('jobs').delete();
    await grantAccesses(services, brand, origin);
    const made = await makeGraphics(services, brand, 2 * DELIVERIES);
    const half = Math.floor(made.length / 2);
    for (const { id } of made) await filesOf(services, id);
    const requests = await secondsOf(() => byRequests(services, made.slice(0, half)));
    const dispatcher = await secondsOf(() => byDispatcher(services, made.slice(half, 2 * half)));
    return { deliveries: half, dispatcher, requests };
  } finally {
    await machine.endPrograms();
    await closeServices(services);
    machine.remove();
  }
}

async function secondsOf(work: () => Promise<void>): Promise<number> {
  const started = performance.now();
  await work();
  return (performance.now() - started) / 1_000;
}

async function filesOf(services: Services, id: string) {
  const delivery = await getDelivery(services.db, id);
  const plan = planFiles(services, await readPin(services.db, delivery.pin), delivery);
  return { delivery, plan, files: await makeFiles(services, plan, delivery, UNUSED) };
}

/** As many of each network at once as the dispatcher allows itself. */
async function byRequests(services: Services, made: readonly MadeDelivery[]): Promise<void> {
  const networks = [...new Set(made.map(({ network }) => network))];
  await Promise.all(networks.flatMap((network) => {
    const waiting = made.filter((each) => each.network === network);
    return Array.from({ length: PLACES_OF_GROUP }, async () => {
      for (let next = waiting.shift(); next; next = waiting.shift()) await publish(services, next.id);
    });
  }));
}

async function publish(services: Services, id: string): Promise<void> {
  const { delivery, plan, files } = await filesOf(services, id);
  const connector = connectorFor(await openChannel(services, delivery.channelId), plan.sheet);
  const remote: string[] = [];
  for (const file of files) remote.push((await connector.upload(file, UNUSED)).remoteMediaId);
  const { post, follows } = outgoingOf(delivery, remote, plan);
  const { remoteDraftId } = await connector.prepare(post, UNUSED);
  const { address } = await connector.publish(post, { idempotencyKey: `bare-${id}`, remoteDraftId }, UNUSED);
  for (const follow of follows) await connector.follow(address, follow, UNUSED);
}

async function byDispatcher(services: Services, made: readonly MadeDelivery[]): Promise<void> {
  await services.db('jobs').whereNotIn('key', made.map(({ id }) => `delivery:${id}`)).delete();
  await spread(services, made, 0);
  const stop = new AbortController();
  const work = runJobs(services, workHandlers(services), lanes.filter(({ name }) => name === 'send'), stop.signal);
  await until('everything to be sent', async () => Number((await services.db('deliveries').whereIn('id', made.map(({ id }) => id)).where({ state: 'sent' }).count({ count: '*' }).first())?.['count']) === made.length);
  stop.abort();
  await work;
}
