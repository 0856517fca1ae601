import type { Adjustment } from '../piece/adjustment.ts';
import type { TextPart } from '../template/parts.ts';
import type { Template } from '../template/template.ts';
import type { Bound } from './bind.ts';
import type { FitOutcome } from './fit.ts';
import { measureOverflow, type OverBy } from './measure-overflow.ts';
import { runFit, shapeTexts, type SetTexts, type Setting } from './set-cut.ts';

/** A cut whose sizes are found, with what it had to leave out for it. */
export interface Fitted {
  readonly setting: Setting;
  readonly texts: SetTexts;
  readonly fitted: FitOutcome;
  readonly dropped: readonly string[];
  readonly overBy: OverBy | null;
}

/** The share of a template's least sizes down to which words are set where nothing else helps: smaller than its designer would choose, and still read with ease. */
const LAST_SHARE = 0.72;

/** How far words may go to fit. */
export interface Leeway {
  /** The share of a template's least sizes down to which words may shrink. */
  readonly leastShare: number;
  /** Whether words on a photograph stay inside their place. */
  readonly isBound: boolean;
}

/** The ways in which a cut is tried until it fits, after the usual one. */
const LAST_RESORTS: readonly Leeway[] = [
  { leastShare: 1, isBound: false },
  { leastShare: LAST_SHARE, isBound: true },
  { leastShare: LAST_SHARE, isBound: false },
];

/** A cut as it is set without some of its slots. */
type SettingWithout = (dropped: readonly string[]) => Setting;

/** Fits a cut, with as little leeway as it takes. When it does not fit with any, everything stays and the overflow is measured. */
export function fitCut(template: Template, adjustment: Adjustment, settingFor: (leeway: Leeway) => SettingWithout, mayGrow: boolean): Fitted {
  let found = fitDropping(template, adjustment, settingFor({ leastShare: 1, isBound: true }));
  for (const leeway of LAST_RESORTS) {
    if (!found.fitted.overflow) return found;
    if (leeway.isBound || mayGrow) found = fitDropping(template, adjustment, settingFor(leeway));
  }
  return found.fitted.overflow ? { ...found, overBy: measureOverflow(found.setting, found.texts, found.fitted.overflow) } : found;
}

/** Fits a cut; where it does not fit, leaves out what the template says can be missed, one after the other, until it does. When even that does not help, everything stays. */
function fitDropping(template: Template, adjustment: Adjustment, settingWithout: SettingWithout): Fitted {
  const whole = fitHyphenating(settingWithout([]));
  if (!whole.fitted.overflow) return { ...whole, dropped: [], overBy: null };
  const droppable = (template.drop ?? []).filter((slot) => !adjustment.hidden?.includes(slot) && isFilled(whole.setting.bound, slot));
  for (let count = 1; count <= droppable.length; count += 1) {
    const dropped = droppable.slice(0, count);
    const fewer = fitHyphenating(settingWithout(dropped));
    if (!fewer.fitted.overflow) return { ...fewer, dropped, overBy: null };
  }
  return { ...whole, dropped: [], overBy: null };
}

/** Fits a cut; a text whose word is too wide at its smallest size is set again with soft hyphens, as a last resort. */
function fitHyphenating(setting: Setting): Pick<Fitted, 'setting' | 'texts' | 'fitted'> {
  const texts = shapeTexts(setting);
  const fitted = runFit(setting, texts);
  const { language } = setting.book;
  if (fitted.overflow?.reason !== 'word-too-wide' || language === undefined) return { setting, texts, fitted };
  const canBeParted = ({ slot, fill }: TextPart): boolean => {
    const text = setting.bound.texts[slot]?.text ?? '';
    return fill !== true && !setting.hyphenated.has(slot) && setting.engines.typesetter.hyphenate(text, language) !== text;
  };
  const parted = fitted.overflow.parts.filter(canBeParted).map(({ slot }) => slot);
  return parted.length === 0 ? { setting, texts, fitted } : fitHyphenating({ ...setting, hyphenated: new Set([...setting.hyphenated, ...parted]) });
}

function isFilled(bound: Bound, slot: string): boolean {
  return bound.texts[slot]?.ghost === false || bound.pictures[slot] !== undefined || (bound.lists[slot]?.count ?? 0) > 0;
}
