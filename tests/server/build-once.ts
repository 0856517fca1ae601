import { execFileSync } from 'node:child_process';

/** Server tests run against the built programs, so they are built first (a no-op when nothing has changed). */
export default function setup(): void {
  execFileSync(process.execPath, ['scripts/build.mjs'], { stdio: 'inherit' });
}
