import { describe, expect, it } from 'vitest';
import { accountKindOf, isByHand, sheetOfAccount, whatAccountCan } from './account-kind.ts';
import type { NetworkSheet } from './network-sheet.ts';
import { shippedSheets } from './shipped-sheets.ts';

function sheetOf(key: string): NetworkSheet {
  const sheet = shippedSheets.find((each) => each.key === key);
  if (!sheet) throw new RangeError(`There is no sheet '${key}'`);
  return sheet;
}

describe('kinds of accounts', () => {
  it('are the usual one where a kind is not known, so that older channels go on', () => {
    expect(accountKindOf(sheetOf('petalry'), '').key).toBe('business');
    expect(isByHand(sheetOf('petalry'), undefined)).toBe(false);
    expect(isByHand(sheetOf('petalry'), 'personal')).toBe(true);
    expect(isByHand({ ...sheetOf('petalry'), accounts: undefined }, 'personal')).toBe(false);
  });

  it('narrow a sheet to their placements and fields, as the same value each time', () => {
    const sheet = sheetOf('hearthside');
    const group = sheetOfAccount(sheet, 'group');
    expect(group.placements.map(({ key }) => key)).toEqual(['page-wide', 'page-square', 'page-portrait']);
    expect(group.words.fields.map(({ key }) => key)).not.toContain('audience');
    expect(sheetOfAccount(sheet, 'group')).toBe(group);
    expect(sheetOfAccount(sheet, 'business')).toBe(sheet);
  });

  it('say what they can and cannot do', () => {
    expect(whatAccountCan(sheetOf('hearthside'), 'personal')).toEqual({
      can: ['Confetti prepares each post; a person places it', 'Square, Portrait, Story'],
      cannot: ['Post by itself: the network lets no program in', 'No Wide', 'No first comment, audience'],
    });
    expect(whatAccountCan(sheetOf('quipline'), 'business').cannot).toEqual([]);
  });

  it.each(shippedSheets.map((sheet) => [sheet.name, sheet] as const))('of %s name placements that the sheet has', (_, sheet) => {
    const keys = sheet.placements.map(({ key }) => key);
    for (const { placements = [] } of sheet.accounts ?? []) expect(keys).toEqual(expect.arrayContaining(placements.filter((key) => key !== undefined)));
    expect(sheet.accounts?.[0]?.sends).toBe('automatic');
  });
});
