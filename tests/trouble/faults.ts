import { parseArgs } from 'node:util';
import setup from '../server/seed-once.ts';
import { runCampaign } from './campaign.ts';

/** Sends thousands of deliveries while everything goes wrong, and prints what became of them; ends with 1 when anything was doubled, lost, early or left without a reason. */
const { values } = parseArgs({ options: { deliveries: { type: 'string', default: '2000' }, seed: { type: 'string', default: '1' }, calm: { type: 'boolean', default: false } } });
const say = (text: string): void => void process.stdout.write(`${text}\n`);

await setup();
const result = await runCampaign({ deliveries: Number(values.deliveries), seed: Number(values.seed), hasTrouble: !values.calm, say });
for (const [trouble, times] of Object.entries(result.troubles).toSorted()) say(`  ${String(times).padStart(4)} × ${trouble}`);
say('');
for (const name of ['deliveries', 'sent', 'explained', 'doubled', 'lost', 'early', 'unexplained'] as const) say(`${name.padEnd(14)}${result[name]}`);
say(`seconds       ${result.seconds.toFixed(0)}`);
say(`late p95 (s)  ${result.lateP95.toFixed(1)}`);
process.exit(result.doubled + result.lost + result.early + result.unexplained === 0 ? 0 : 1);
