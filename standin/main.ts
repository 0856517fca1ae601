import { resolve } from 'node:path';
import { startStandin } from './start.ts';

const DEFAULT_PORT = 4330;
const SLOW_MS = 8_000;

const standin = await startStandin({
  dataFolder: resolve(process.env['STANDIN_DATA'] ?? '.data/standin'),
  port: Number(process.env['STANDIN_PORT'] ?? DEFAULT_PORT),
  mailPort: Number(process.env['STANDIN_MAIL_PORT'] ?? 0),
  slowMs: Number(process.env['STANDIN_SLOW_MS'] ?? SLOW_MS),
});
process.stdout.write(`stand-in networks at ${standin.origin}\n`);
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => void standin.close().then(() => process.exit(0)));
