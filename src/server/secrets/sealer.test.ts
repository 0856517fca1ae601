import { mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { randomBytes } from 'node:crypto';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { isSealed, readKeyFile, sealerOf } from './sealer.ts';

describe('a sealer', () => {
  const sealer = sealerOf(randomBytes(32));

  it('opens what it has sealed, which looks different each time', () => {
    const [one, other] = [sealer.seal('tøken'), sealer.seal('tøken')];
    expect([sealer.open(one), sealer.open(other), isSealed(one), one === other, one.includes('tøken')]).toEqual(['tøken', 'tøken', true, false, false]);
  });

  it('opens nothing that was changed, or sealed with another key', () => {
    const sealed = sealer.seal('token');
    expect(() => sealer.open(`${sealed.slice(0, -1)}${sealed.endsWith('A') ? 'B' : 'A'}`)).toThrow();
    expect(() => sealerOf(randomBytes(32)).open(sealed)).toThrow();
    expect(() => sealer.open('token')).toThrow(/not sealed/);
  });
});

describe('the key file', () => {
  let folder: string;
  beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'confetti-key-'))));
  afterEach(() => rmSync(folder, { recursive: true }));

  it('is made once, for the user alone', () => {
    const path = join(folder, 'keys', 'confetti.key');
    expect(readKeyFile(path)).toEqual(readKeyFile(path));
    expect(statSync(path).mode & 0o077).toBe(0);
  });

  it('that holds no key stops the start', () => {
    const path = join(folder, 'confetti.key');
    writeFileSync(path, 'too short');
    expect(() => readKeyFile(path)).toThrow(/holds no key/);
  });
});
