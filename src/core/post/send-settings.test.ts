import { describe, expect, it } from 'vitest';
import { isTooLate, sendSettingsSchema, signOffNeeded, usualSendSettings } from './send-settings.ts';

const HOUR_MS = 3_600_000;

describe('sign-off', () => {
  it.each([
    [{ ...usualSendSettings }, null, true, 0],
    [{ ...usualSendSettings }, null, false, 1],
    [{ ...usualSendSettings, signOff: 2 as const }, 'loft', true, 2],
    [{ ...usualSendSettings, signOff: 2 as const, themes: { loft: 0 as const } }, 'loft', true, 0],
    [{ ...usualSendSettings, signOff: 2 as const, themes: { loft: 0 as const } }, 'loft', false, 1],
    [{ ...usualSendSettings, themes: { loft: 1 as const } }, 'other', true, 0],
  ])('by %j of theme %s, may send: %s, needs %i', (settings, theme, maySend, needed) => {
    expect(signOffNeeded(settings, theme, maySend)).toBe(needed);
  });

  it('is none, one or two, and nothing else', () => {
    const isFine = (value: unknown): boolean => sendSettingsSchema.isValidSync(value, { strict: true });
    expect(isFine(usualSendSettings)).toBe(true);
    expect(isFine({ ...usualSendSettings, signOff: 3 })).toBe(false);
    expect(isFine({ ...usualSendSettings, themes: { loft: 9 } })).toBe(false);
    expect(isFine({ ...usualSendSettings, lateHours: -1 })).toBe(false);
  });
});

it('a post is too late beyond the hours that the brand allows', () => {
  expect(isTooLate({ lateHours: 2 }, 0, 2 * HOUR_MS)).toBe(false);
  expect(isTooLate({ lateHours: 2 }, 0, 2 * HOUR_MS + 1)).toBe(true);
  expect(isTooLate({ lateHours: 0 }, 0, 1)).toBe(true);
});
