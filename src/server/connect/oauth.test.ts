import { createHash } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { newVerifier, readGrant } from './oauth.ts';

describe('an access as a token endpoint grants it', () => {
  it('keeps what it says of renewal and of its end', () => {
    expect(readGrant({ access_token: 'a-long-token', refresh_token: 'r', expires_in: 3600, refresh_expires_in: 7200, scope: 'create' }, 'Pond')).toEqual({ accessToken: 'a-long-token', refreshToken: 'r', expiresInS: 3600, renewableForS: 7200 });
    expect(readGrant({ access_token: 'a-long-token' }, 'Pond')).toEqual({ accessToken: 'a-long-token', refreshToken: null, expiresInS: null, renewableForS: null });
  });

  it.each([null, 'token', {}, { access_token: '' }, { access_token: 12345678 }, { access_token: 'a-long-token', expires_in: -1 }, { access_token: 'a-long-token', expires_in: '3600' }, { access_token: 'x'.repeat(5_000) }])('is refused when it is %j', (given) => {
    expect(() => readGrant(given, 'Pond')).toThrow(/Pond granted no access that can be read/);
  });
});

it('a verifier is new each time, and its challenge is its SHA-256', () => {
  const [one, other] = [newVerifier(), newVerifier()];
  expect(one.verifier).not.toBe(other.verifier);
  expect(one.verifier).toMatch(/^[\w-]{43}$/);
  expect(one.challenge).toBe(createHash('sha256').update(one.verifier).digest('base64url'));
});
