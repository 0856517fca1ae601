/** A number and what it counts, or a name and its number, which must not part at a line's end. */
const UNITS = /(\d)[ ](?=(?:am|pm|a\.m\.|p\.m\.|uhr|h|min|s|km|m|cm|mm|kg|g|l|ml|%|°|€|£|\$|x|×)(?![\p{L}\p{N}]))/giu;
/** French puts a space before these signs; it must not break. */
const FRENCH_SIGNS = /[ ](?=[?!:;»](?:\s|$))/gu;
const AFTER_GUILLEMET = /«[ ]/gu;
/** A dot between two things closes a line and does not open one. */
const BEFORE_MIDDLE_DOT = /[ ](?=·[ ])/gu;
const NO_BREAK_SPACE = '\u00a0';

/** Sets what typing leaves out: no-break spaces before units and French signs, and single spaces between words. */
export function tidyText(text: string): string {
  return text
    .replace(/[ \t]{2,}/g, ' ')
    .replace(UNITS, `$1${NO_BREAK_SPACE}`)
    .replace(FRENCH_SIGNS, NO_BREAK_SPACE)
    .replace(BEFORE_MIDDLE_DOT, NO_BREAK_SPACE)
    .replace(AFTER_GUILLEMET, `«${NO_BREAK_SPACE}`);
}
