import type { BrandBook } from '../brand-book.ts';

/** The brand's colours and type as CSS custom properties; a scheme is a class that sets the roles. */
export function bookToCss(book: BrandBook, name: string): string {
  const colours = book.colours.map((colour) => `  --brand-${colour.key}: ${colour.hex.toLowerCase()}; /* ${colour.name.replaceAll('*/', '')} */`);
  const type = Object.entries(book.type).flatMap(([role, setting]) => [`  --type-${role}-leading: ${setting.leading};`, `  --type-${role}-tracking: ${setting.trackingEm}em;`, `  --type-${role}-font: '${setting.font}';`]);
  const schemes = book.schemes.map((scheme) => {
    const roles = (['ground', 'surface', 'ink', 'accent'] as const).map((role) => `  --${role}: var(--brand-${scheme[role]});`);
    return `.scheme-${scheme.key} {\n${roles.join('\n')}\n}\n`;
  });
  return `/* ${name.replaceAll('*/', '')} */\n:root {\n${[...colours, ...type].join('\n')}\n}\n\n${schemes.join('\n')}`;
}

/** Colours that a style sheet of ours names, in order. */
export function coloursOfCss(css: string): readonly { readonly key: string; readonly hex: string; readonly name: string }[] {
  return [...css.matchAll(/--brand-([a-z][a-z0-9-]*):\s*(#[0-9a-f]{6});(?: \/\* (.*?) \*\/)?/g)].map(([, key = '', hex = '', name = key]) => ({ key, hex, name }));
}
