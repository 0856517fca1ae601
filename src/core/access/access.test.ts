import { describe, expect, it } from 'vitest';
import { abilities, roleMay, roles, scopeMay, tokenScopes, whyNot } from './access.ts';

describe('roles', () => {
  it.each([
    ['owner', ['see', 'remark', 'approve', 'make', 'answer', 'send', 'brand', 'people']],
    ['designer', ['see', 'remark', 'approve', 'make', 'answer', 'send', 'brand']],
    ['writer', ['see', 'remark', 'make', 'answer']],
    ['reviewer', ['see', 'remark', 'approve']],
    ['viewer', ['see']],
  ] as const)('%s may %j and nothing else', (role, allowed) => {
    expect(abilities.filter((ability) => roleMay(role, ability))).toEqual(allowed);
  });

  it('each may at least look', () => {
    for (const role of roles) expect(roleMay(role, 'see')).toBe(true);
  });
});

describe('tokens', () => {
  it('reach no people, and as far as their scope otherwise', () => {
    expect(tokenScopes.map((scope) => abilities.filter((ability) => scopeMay(scope, ability)))).toEqual([['see'], ['see', 'remark', 'make', 'brand'], ['see', 'remark', 'make', 'answer', 'send', 'brand']]);
  });
});

it('says who may what somebody may not', () => {
  expect(whyNot('writer', 'send', 'Gullwick')).toBe('As writer of Gullwick you may not schedule, cancel or send posts. Ask one of its owners or designers.');
  expect(whyNot('designer', 'people', 'Gullwick')).toBe('As designer of Gullwick you may not manage the people of this brand. Ask one of its owners.');
});
