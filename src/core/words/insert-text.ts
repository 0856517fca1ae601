/** A text after something was put into it, and where the caret stands then. */
export interface Inserted {
  readonly text: string;
  readonly caret: number;
}

/**
 * Puts something in the place of a selection, parted from the words around it by a space where there is none.
 * @param start, end the selection, in UTF-16 units as fields count; the same for a caret
 */
export function insertText(text: string, { start, end }: { readonly start: number; readonly end: number }, added: string): Inserted {
  const [before, behind] = [text.slice(0, start), text.slice(end)];
  const lead = before === '' || /[\s([{„“"'«-]$/u.test(before) ? '' : ' ';
  const tail = behind === '' || /^[\s.,;:!?)\]}…”“"'»-]/u.test(behind) ? '' : ' ';
  const until = before + lead + added;
  return { text: until + tail + behind, caret: until.length };
}
