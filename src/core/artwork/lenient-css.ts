import { parse, type CssNode, type ParseOptions } from 'css-tree';

/** Faults after which the rest is not read: each costs the parser a fresh start, and no style sheet of a person has as many. */
const MAX_FAULTS = 100;

class TooManyFaults extends Error {
  constructor(readonly offset: number) {
    super('Too many faults');
  }
}

/** A style sheet as far as it can be read: what is broken is passed over. Null when it is none at all. */
export function parseLenientCss(css: string, options: Omit<ParseOptions, 'onParseError'> = {}): CssNode | null {
  let faults = 0;
  try {
    return parse(css, {
      ...options,
      onParseError: ({ offset }) => {
        faults += 1;
        if (faults > MAX_FAULTS) throw new TooManyFaults(offset);
      },
    });
  } catch (error) {
    // The part before the last fault has no more than as many.
    if (error instanceof TooManyFaults) return parse(css.slice(0, error.offset), { ...options, onParseError: () => undefined });
    if (error instanceof SyntaxError) return null;
    throw error;
  }
}
