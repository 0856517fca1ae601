import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { constants, setPriority } from 'node:os';
import { VIDEO_FPS } from '../../core/video/shot-times.ts';
import { ProblemError } from '../errors.ts';

/** What a run left behind. */
export interface FfmpegOutput {
  readonly stdout: Buffer;
  /** Its last messages, without paths. */
  readonly messages: string;
}

export class FfmpegError extends Error {
  override readonly name = 'FfmpegError';
  constructor(
    readonly program: string,
    readonly messages: string,
    /** Null when it was ended by a signal. */
    readonly exitCode: number | null,
  ) {
    super(`${program} ended with ${exitCode ?? 'a signal'}: ${messages.slice(-400)}`);
  }
}

export interface FfmpegOptions {
  readonly signal?: AbortSignal | undefined;
  /** The longest it may take, in milliseconds. */
  readonly mostMs: number;
  /** Takes the standard output as it comes, which is not kept then. */
  readonly onBytes?: ((bytes: Buffer) => void) | undefined;
  /** Nobody looks at a page that waits for it: others go first. */
  readonly isPatient?: boolean | undefined;
  /** Told the moment of the output that has been reached, in milliseconds, a few times a second. */
  readonly onProgress?: ((reachedMs: number) => void) | undefined;
}

/** Messages that are kept, in characters: the last ones say what went wrong. */
const MAX_MESSAGES = 60_000;
const MAX_STDOUT_BYTES = 64 * 1024 * 1024;

/** Only files of this machine are opened: a playlist inside an upload may name addresses and devices. */
const FILES_ONLY = ['-protocol_whitelist', 'file,pipe'] as const;

/** @param input before `-i`, with the whitelist that keeps a file from opening others */
export const inputFile = (path: string, ...options: readonly string[]): readonly string[] => [...options, ...FILES_ONLY, '-i', path];

/** A value, such as a path, as it stands in a graph of filters: once for the filter's own list of options, once for the graph. */
export const filterValue = (value: string): string => value.replace(/[\\':]/g, String.raw`\$&`).replace(/[\\'[\],;]/g, String.raw`\$&`);

/** A number of frames as ffmpeg takes times. */
export const seconds = (frames: number): string => (frames / VIDEO_FPS).toFixed(5);

/**
 * Runs ffmpeg and waits for its end.
 * @throws FfmpegError when it fails, takes too long or is stopped; ProblemError 503 when it is not installed
 */
export function runFfmpeg(args: readonly string[], options: FfmpegOptions): Promise<FfmpegOutput> {
  const progress = options.onProgress ? ['-progress', 'pipe:2', '-stats_period', '0.25'] : [];
  return run('ffmpeg', ['-hide_banner', '-nostdin', '-nostats', '-y', ...progress, ...args], options);
}

/** Runs ffprobe; its answer is JSON. */
export async function runFfprobe(args: readonly string[], options: FfmpegOptions): Promise<unknown> {
  const { stdout } = await run('ffprobe', ['-hide_banner', '-loglevel', 'error', '-of', 'json', ...args], options);
  return JSON.parse(stdout.toString('utf8'));
}

function run(program: string, args: readonly string[], { signal, mostMs, onBytes, isPatient = false, onProgress }: FfmpegOptions): Promise<FfmpegOutput> {
  return new Promise((resolve, reject) => {
    const [command, ...wrapped] = dyingWithUs(program, args);
    const child = spawn(command, wrapped, { stdio: ['ignore', 'pipe', 'pipe'] });
    if (isPatient && child.pid !== undefined) giveWay(child.pid);
    const chunks: Buffer[] = [];
    let bytes = 0;
    let messages = '';
    const stop = (): void => void child.kill('SIGKILL');
    const timer = setTimeout(stop, mostMs);
    signal?.addEventListener('abort', stop, { once: true });
    child.stdout.on('data', (chunk: Buffer) => {
      if (onBytes) return onBytes(chunk);
      bytes += chunk.length;
      if (bytes > MAX_STDOUT_BYTES) return stop();
      chunks.push(chunk);
    });
    child.stderr.on('data', (chunk: Buffer) => {
      const text = chunk.toString('utf8');
      messages = (messages + text).slice(-MAX_MESSAGES);
      if (!onProgress) return;
      const reached = /out_time_us=(\d+)/g;
      for (const found of text.matchAll(reached)) onProgress(Number(found[1]) / 1000);
    });
    const end = (): void => {
      clearTimeout(timer);
      signal?.removeEventListener('abort', stop);
    };
    child.once('error', (error) => {
      end();
      reject((error as NodeJS.ErrnoException).code === 'ENOENT' ? missing(program) : error);
    });
    child.once('close', (code) => {
      end();
      const said = messages.replaceAll(/\/[^\s:']+/g, '…').replaceAll(/ ?@ 0x[0-9a-f]+/g, '');
      if (code === 0) resolve({ stdout: Buffer.concat(chunks), messages: said });
      else if (code === NOT_FOUND) reject(missing(program));
      else reject(new FfmpegError(program, said, code));
    });
    if (signal?.aborted) stop();
  });
}

/** What a program that starts another one ends with when there is none. */
const NOT_FOUND = 127;

/** Not the file is at fault. */
function missing(program: string): ProblemError {
  return new ProblemError(503, 'program-missing', `${program} is not installed where Confetti runs, so clips and sounds cannot be read. Tell whoever runs it.`);
}

const SETPRIV = '/usr/bin/setpriv';
const hasSetpriv = existsSync(SETPRIV);

/** A program whose parent is killed outright would go on alone, and hold its share of the machine. */
function dyingWithUs(program: string, args: readonly string[]): readonly [string, ...string[]] {
  return hasSetpriv ? [SETPRIV, '--pdeathsig', 'KILL', '--', program, ...args] : [program, ...args];
}

function giveWay(pid: number): void {
  try {
    setPriority(pid, constants.priority.PRIORITY_BELOW_NORMAL);
  } catch {
    // It has ended already, or the system does not let us: then it runs as all others do.
  }
}
