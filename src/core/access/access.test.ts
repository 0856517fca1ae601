import { describe, expect, it } from 'vitest';
import { abilities, roleMay, roles } from './access.ts';

describe('roles', () => {
  it.each([
    ['owner', ['see', 'make', 'send', 'brand', 'people']],
    ['designer', ['see', 'make', 'send', 'brand']],
    ['writer', ['see', 'make']],
    ['reviewer', ['see']],
    ['viewer', ['see']],
  ] as const)('%s may %j and nothing else', (role, allowed) => {
    expect(abilities.filter((ability) => roleMay(role, ability))).toEqual(allowed);
  });

  it('each may at least look', () => {
    for (const role of roles) expect(roleMay(role, 'see')).toBe(true);
  });
});
