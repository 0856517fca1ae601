import { describe, expect, it } from 'vitest';
import { isOwnHost } from './own-hosts.ts';

describe('the names Confetti answers to', () => {
  it('are those of this machine in the demo', () => {
    const settings = { demo: true, origin: null };
    expect(['127.0.0.1:4321', 'localhost', '[::1]:4321'].map((host) => isOwnHost(host, settings))).toEqual([true, true, true]);
    expect(['evil.example', 'evil.example:4321', '127.0.0.1.evil.example', undefined, 'a b'].map((host) => isOwnHost(host, settings))).toEqual([false, false, false, false, false]);
  });

  it('are its own address where it has one', () => {
    const settings = { demo: false, origin: 'https://confetti.example' };
    expect(['confetti.example', '127.0.0.1:4321', 'other.example', 'confetti.example:81'].map((host) => isOwnHost(host, settings))).toEqual([true, true, false, false]);
  });

  it('are any without an address in the settings', () => {
    expect(isOwnHost('lan-name:4321', { demo: false, origin: null })).toBe(true);
  });
});
