import { join, resolve } from 'node:path';

/** Settings of the server, all from environment variables (documented in docs/running.md). */
export interface Settings {
  readonly dataFolder: string;
  /** The key that seals secrets in the database; it must not lie inside the database. */
  readonly keyFile: string;
  /** True when this is a demo: people can be picked and the clock can be moved. */
  readonly demo: boolean;
  /** Address people reach Confetti at, e.g. `https://confetti.example`; null takes the address of each request. */
  readonly origin: string | null;
  /** Address at which networks reach Confetti to tell what came in; null: they are asked instead. */
  readonly hookOrigin: string | null;
  /** How many proxies of ours stand before Confetti and write down where requests come from. */
  readonly proxies: number;
  /** Where the built programs lie. */
  readonly buildFolder: string;
  readonly fontsFolder: string;
  /** Pictures of emoji, one file each, made by the build. */
  readonly emojiFolder: string;
  /** Address of the stand-in networks' switchboard, told of clock moves in the demo; null when there is none. */
  readonly standinOrigin: string | null;
  readonly logLevel: string;
  /** Lanes of the queue that this process works on; null: all. */
  readonly lanes: readonly string[] | null;
  /** The room on the disk that each brand's pictures and clips have. */
  readonly brandGigabytes: number;
  /** The server that letters are sent by, e.g. `smtp://127.0.0.1:25`; null: none are. */
  readonly smtp: string | null;
  /** Who letters come from. */
  readonly mailFrom: string;
  /** Hosts with port that may be fetched from although they are not public: the stand-ins of the demo. */
  readonly trustedHosts: readonly string[];
  /** Hosts with port of writing services in our own network, which are not public. */
  readonly writingHosts: readonly string[];
}

export function readSettings(environment: Readonly<Record<string, string | undefined>>): Settings {
  const dataFolder = resolve(environment['CONFETTI_DATA'] ?? '.data');
  return {
    dataFolder,
    keyFile: resolve(environment['CONFETTI_KEY_FILE'] ?? join(dataFolder, 'confetti.key')),
    demo: environment['CONFETTI_DEMO'] === '1',
    origin: environment['CONFETTI_ORIGIN'] ?? null,
    hookOrigin: environment['CONFETTI_HOOKS'] ?? environment['CONFETTI_ORIGIN'] ?? null,
    proxies: readCount(environment['CONFETTI_PROXIES']),
    smtp: environment['CONFETTI_SMTP'] ?? null,
    mailFrom: environment['CONFETTI_MAIL_FROM'] ?? 'Confetti <confetti@localhost>',
    brandGigabytes: readGigabytes(environment['CONFETTI_BRAND_GIGABYTES']),
    buildFolder: resolve('dist'),
    fontsFolder: resolve('fonts'),
    emojiFolder: resolve('dist', 'emoji'),
    standinOrigin: environment['CONFETTI_STANDIN'] ?? null,
    logLevel: environment['CONFETTI_LOG'] ?? 'info',
    lanes: environment['CONFETTI_LANES']?.split(',') ?? null,
    writingHosts: (environment['CONFETTI_WRITING_HOSTS'] ?? '').split(',').map((host) => host.trim()).filter((host) => host !== ''),
    trustedHosts: [...(environment['CONFETTI_DEMO'] === '1' && environment['CONFETTI_STANDIN'] ? [new URL(environment['CONFETTI_STANDIN']).host] : []), ...(environment['CONFETTI_TRUSTED_HOSTS'] ?? '').split(',').map((host) => host.trim()).filter((host) => host !== '')],
  };
}

/** @throws RangeError when it is not a small number */
function readCount(text: string | undefined): number {
  if (text === undefined || text === '') return 0;
  if (!/^\d$/.test(text)) throw new RangeError(`CONFETTI_PROXIES is '${text}'. Give the number of proxies before Confetti, 0 to 9.`);
  return Number(text);
}

const USUAL_GIGABYTES = 200;

/** @throws RangeError when it is no amount */
function readGigabytes(text: string | undefined): number {
  if (text === undefined || text === '') return USUAL_GIGABYTES;
  const amount = Number(text);
  if (!Number.isFinite(amount) || amount <= 0) throw new RangeError(`CONFETTI_BRAND_GIGABYTES is '${text}'. Give an amount above 0.`);
  return amount;
}
