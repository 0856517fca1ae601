import { describe, expect, it } from 'vitest';
import { ownPath } from './own-path.ts';

describe('where signing in leads', () => {
  it('is the wanted page of ours', () => {
    expect(ownPath('/b/gullwick/make/pieces?q=a#x', 'https://c.example')).toBe('/b/gullwick/make/pieces?q=a#x');
  });

  it.each([null, '', 'https://evil.example', '//evil.example', '/\\evil.example', '/\t/evil.example', '/\n/evil.example', '/\r/evil.example', '/\t\\evil.example', 'javascript:alert(1)', '/%', 'evil.example'])('is never elsewhere: %j', (wanted) => {
    const path = ownPath(wanted, 'https://c.example');
    expect(new URL(path, 'https://c.example').origin).toBe('https://c.example');
    expect(path.startsWith('//')).toBe(false);
  });
});
