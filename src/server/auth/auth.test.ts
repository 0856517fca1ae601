import { describe, expect, it } from 'vitest';
import { readCookie, sessionCookie } from './caller.ts';
import { hashPassword, hashSecret, newSecret, verifyPassword } from './secrets.ts';

describe('passwords', () => {
  it('are hashed with argon2id, differently each time, and verified', async () => {
    const [one, other] = await Promise.all([hashPassword('sand'), hashPassword('sand')]);
    expect(one).toMatch(/^\$argon2id\$/);
    expect(one).not.toBe(other);
    expect([await verifyPassword(one, 'sand'), await verifyPassword(one, 'Sand'), await verifyPassword(null, 'sand')]).toEqual([true, false, false]);
  });
});

describe('secrets', () => {
  it('say what they are, never repeat, and cannot be read from their hash', () => {
    const secrets = new Set(Array.from({ length: 50 }, () => newSecret('cft')));
    expect(secrets.size).toBe(50);
    for (const secret of secrets) {
      expect(secret).toMatch(/^cft_[\w-]{43}$/);
      expect(hashSecret(secret)).toMatch(/^[0-9a-f]{64}$/);
    }
  });
});

describe('cookies', () => {
  it('are found by their whole name', () => {
    const headers = new Headers({ cookie: 'xconfetti_session=no; confetti_session=a=b; theme=dark' });
    expect([readCookie(headers, 'confetti_session'), readCookie(headers, 'session'), readCookie(new Headers(), 'theme')]).toEqual(['a=b', null, null]);
  });

  it('go over TLS only where the request did, and end when there is no secret', () => {
    expect(sessionCookie('s', true)).toMatch(/; Secure$/);
    expect(sessionCookie('s', false)).not.toMatch(/Secure/);
    expect(sessionCookie(null, false)).toMatch(/Max-Age=0/);
  });
});
