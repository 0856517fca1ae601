import { spawnSync, type ChildProcess } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { endProgram, startProgram } from '../fixtures/programs.ts';
import { SEED_FOLDER } from '../fixtures/seed-folder.ts';

const DISK_MEGABYTES = 900;

/** Two dispatchers, the stand-ins in a process of their own, a disk that can be filled, and everything started again when it ends. */
export class Machine {
  readonly folder = mkdtempSync(join(tmpdir(), 'confetti-faults-'));
  readonly disk = join(this.folder, 'disk');
  readonly data = join(this.disk, 'data');
  readonly networks = join(this.folder, 'networks');
  readonly hasDisk: boolean;
  readonly #running = new Map<string, ChildProcess>();
  #isStopping = false;
  environment: Record<string, string> = {};

  constructor() {
    mkdirSync(this.disk);
    this.hasDisk = spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${DISK_MEGABYTES}m`, 'tmpfs', this.disk]).status === 0;
    cpSync(SEED_FOLDER, this.data, { recursive: true });
    cpSync(join(SEED_FOLDER, 'standin'), this.networks, { recursive: true });
  }

  start(name: string): void {
    const child = startProgram(name.startsWith('worker') ? 'worker.mjs' : 'standin.mjs', this.environment);
    this.#running.set(name, child);
    child.once('exit', () => void setTimeout(() => this.#isStopping || this.start(name), 300));
  }

  kill(name: string): void {
    this.#running.get(name)?.kill('SIGKILL');
  }

  /** Leaves no room on the disk for a while. */
  async fillDisk(ms: number): Promise<void> {
    if (!this.hasDisk) return;
    const path = join(this.disk, 'filler');
    const { bavail, bsize } = statfsSync(this.disk);
    try {
      writeFileSync(path, Buffer.alloc(Math.max(0, bavail * bsize - 64 * 1024)));
    } catch {
      // As full as it gets.
    }
    await sleep(ms);
    rmSync(path, { force: true });
  }

  async endPrograms(): Promise<void> {
    this.#isStopping = true;
    await Promise.all([...this.#running.values()].map((child) => endProgram(child, 'SIGKILL')));
  }

  remove(): void {
    if (this.hasDisk) spawnSync('umount', ['-l', this.disk]);
    rmSync(this.folder, { recursive: true, force: true });
  }
}
