import { join, resolve } from 'node:path';
import { describe, expect, it } from 'vitest';
import { readSettings } from './settings.ts';

describe('settings', () => {
  it('are those of an installation of its own where nothing is said', () => {
    expect(readSettings({})).toMatchObject({ dataFolder: resolve('.data'), keyFile: join(resolve('.data'), 'confetti.key'), demo: false, origin: null, hookOrigin: null, proxies: 0, standinOrigin: null, lanes: null, smtp: null, brandGigabytes: 200, trustedHosts: [], writingHosts: [] });
  });

  it('keep the key beside the data unless another place is named', () => {
    expect(readSettings({ CONFETTI_DATA: '/var/confetti' }).keyFile).toBe('/var/confetti/confetti.key');
    expect(readSettings({ CONFETTI_DATA: '/var/confetti', CONFETTI_KEY_FILE: '/etc/confetti.key' }).keyFile).toBe('/etc/confetti.key');
  });

  it('let networks tell where people come in, unless they have an address of their own', () => {
    expect(readSettings({ CONFETTI_ORIGIN: 'https://confetti.example' }).hookOrigin).toBe('https://confetti.example');
    expect(readSettings({ CONFETTI_ORIGIN: 'https://confetti.example', CONFETTI_HOOKS: 'https://hooks.example' }).hookOrigin).toBe('https://hooks.example');
  });

  it('trust the stand-ins in the demo alone, and hosts that are named', () => {
    const standin = { CONFETTI_STANDIN: 'http://127.0.0.1:4500' };
    expect(readSettings(standin).trustedHosts).toEqual([]);
    expect(readSettings({ ...standin, CONFETTI_DEMO: '1' }).trustedHosts).toEqual(['127.0.0.1:4500']);
    expect(readSettings({ CONFETTI_DEMO: 'yes', ...standin }).demo).toBe(false);
    expect(readSettings({ CONFETTI_TRUSTED_HOSTS: ' feeds.local:80, ,files.local:8080 ' }).trustedHosts).toEqual(['feeds.local:80', 'files.local:8080']);
  });

  it.each([
    [{ CONFETTI_PROXIES: '12' }, /CONFETTI_PROXIES is '12'. Give the number/],
    [{ CONFETTI_PROXIES: '-1' }, /0 to 9/],
    [{ CONFETTI_BRAND_GIGABYTES: 'plenty' }, /CONFETTI_BRAND_GIGABYTES is 'plenty'. Give an amount above 0/],
    [{ CONFETTI_BRAND_GIGABYTES: '0' }, /above 0/],
  ])('%j are refused with what to give', (environment, problem) => {
    expect(() => readSettings(environment)).toThrow(problem);
  });

  it('take numbers that are none for what is usual when they are empty', () => {
    expect(readSettings({ CONFETTI_PROXIES: '', CONFETTI_BRAND_GIGABYTES: '' })).toMatchObject({ proxies: 0, brandGigabytes: 200 });
    expect(readSettings({ CONFETTI_PROXIES: '2', CONFETTI_BRAND_GIGABYTES: '0.5' })).toMatchObject({ proxies: 2, brandGigabytes: 0.5 });
  });
});
