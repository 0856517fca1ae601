import { number, object, type InferType } from 'yup';
import { signOffs, type SignOff } from './sign-off.ts';

const signOff = () => number<SignOff>().oneOf([...signOffs]);

/** Longest time, in hours, after which a missed post may still go out by itself. */
const MAX_LATE_HOURS = 72;

/** How a brand sends: who approves, and what becomes of posts that were missed. */
export const sendSettingsSchema = object({
  signOff: signOff().required(),
  /** Approval by theme, where it differs from the brand's. */
  themes: object().test('themes', 'Approval by theme is none, one or two people', (value) => Object.values(value ?? {}).every((each) => signOffs.some((known) => known === each))).required(),
  /** Within this many hours Confetti still sends a post that was due while it did not run; after that a person decides. */
  lateHours: number().min(0).max(MAX_LATE_HOURS).required(),
}).noUnknown();

export type SendSettings = Omit<InferType<typeof sendSettingsSchema>, 'themes'> & { readonly themes: Readonly<Record<string, SignOff>> };

export const usualSendSettings: SendSettings = { signOff: 0, themes: {}, lateHours: 2 };

/** How many people approve a post of a theme. Whoever may not send by themselves asks at least one. */
export function signOffNeeded(settings: SendSettings, themeId: string | null, maySend: boolean): SignOff {
  const needed = (themeId === null ? undefined : settings.themes[themeId]) ?? settings.signOff;
  return needed === 0 && !maySend ? 1 : needed;
}

/** Whether a person has to decide about a post that was due while nothing ran. */
export function isTooLate(settings: Pick<SendSettings, 'lateHours'>, dueMs: number, nowMs: number): boolean {
  return nowMs - dueMs > settings.lateHours * 3_600_000;
}
