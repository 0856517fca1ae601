import type { AnswerOf } from '../../contract/contract.ts';
import type { readBrandSource as contract } from '../../contract/brand-contracts.ts';
import { markRoomOf, type BrandMark } from '../../core/brand/brand-book.ts';
import { coloursOfCss } from '../../core/brand/exchange/css-properties.ts';
import { readTokens } from '../../core/brand/exchange/design-tokens.ts';
import { readPalette } from '../../core/brand/exchange/palette.ts';
import { readLook, readPage, type PageParts } from '../../core/brand/exchange/web-page.ts';
import { colourWord } from '../../core/colour/colour-word.ts';
import { languageOf } from '../../core/words/language.ts';
import { relativeLuminance } from '../../core/colour/contrast.ts';
import { readSvg } from '../../core/artwork/read-svg.ts';
import { matchFamily } from '../../core/text/match-family.ts';
import { ProblemError } from '../errors.ts';

export type BrandSource = AnswerOf<typeof contract>;

const nothing: BrandSource = { title: '', language: null, description: '', site: '', colours: [], families: [], marks: [], book: null, notes: [] };

/** A brand as saved files show it: HTML with CSS, design tokens, a GIMP palette, SVG marks. */
export function readBrandFiles(files: readonly { readonly name: string; readonly text: string }[]): BrandSource {
  let source = nothing;
  const styles = files.filter((file) => /\.css$/i.test(file.name)).map((file) => file.text);
  // A style sheet that we have written names its colours; of any other they are weighed.
  for (const css of styles) {
    const named = coloursOfCss(css);
    if (named.length > 0) source = merge(source, { ...nothing, colours: named.map(({ name, hex }) => ({ name, hex, share: null })) });
  }
  const sheets = styles.filter((css) => coloursOfCss(css).length === 0);
  const pages = files.filter((file) => /\.html?$/i.test(file.name) || /^\s*<(!doctype html|html)/i.test(file.text));
  for (const page of pages) source = merge(source, sourceOf(readPage(page.text), sheets));
  if (pages.length === 0 && sheets.length > 0) source = merge(source, sourceOf(readPage(''), sheets));
  for (const { name, text } of files) {
    const palette = readPalette(text);
    if (palette) source = merge(source, { ...nothing, colours: palette.map(({ name: colour, hex }) => ({ name: colour, hex, share: null })) });
    if (/\.svg$/i.test(name)) source = merge(source, { ...nothing, marks: [...marksOf(text)] });
    if (/\.json$/i.test(name)) source = merge(source, tokensSource(name, text));
  }
  if (source === nothing) throw new ProblemError(422, 'nothing-found', 'Nothing of a brand is in these files. Saved web pages (HTML, CSS), design tokens (JSON), GIMP palettes and SVG marks can be read.');
  return source;
}

function tokensSource(name: string, text: string): BrandSource {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    throw new ProblemError(422, 'not-json', `“${name}” is not valid JSON.`);
  }
  const tokens = readTokens(json);
  switch (tokens.kind) {
    case 'book':
      return { ...nothing, book: tokens.book };
    case 'found':
      return { ...nothing, colours: tokens.colours.map((colour) => ({ ...colour, share: null })), families: tokens.families.map((family, index) => describeFamily(family, index === 0)) };
    case 'refused':
      throw new ProblemError(422, tokens.reason, tokens.reason === 'not-tokens' ? `“${name}” holds no design tokens: no value under a “$value”.` : `The tokens in “${name}” name no colour and no typeface.`);
  }
}

/** What a page says of a brand, with its style sheets. */
export function sourceOf(parts: PageParts, sheets: readonly string[]): BrandSource {
  const look = readLook(parts, sheets);
  return {
    ...nothing,
    title: parts.title.slice(0, 60),
    language: languageOf(parts.language) ?? null,
    description: parts.description.slice(0, 500),
    colours: look.colours.map(({ hex, share }) => ({ name: colourWord(hex), hex, share })),
    families: look.families.map(({ family, forHeadings }) => describeFamily(family, forHeadings)),
  };
}

function describeFamily(family: string, forHeadings: boolean): BrandSource['families'][number] {
  const display = matchFamily(family, true);
  return { family: family.slice(0, 80), forHeadings, exact: display.exact, displayFont: display.font.key, textFont: matchFamily(family, false).font.key };
}

/** A drawing as marks: as it is drawn, for the grounds that its main colour shows on. */
export function marksOf(svg: string): readonly BrandMark[] {
  const read = readSvg(svg);
  if (read.kind === 'refused') return [];
  const { viewBox, paths } = read.artwork;
  const isLight = relativeLuminance(paths[0]?.fill ?? '#000000') >= 0.4;
  return [{ kind: 'vector', key: 'icon', for: isLight ? 'dark' : 'light', ...markRoomOf(viewBox), viewBox: { ...viewBox }, paths: paths.map((path) => ({ ...path })) }];
}

function merge(a: BrandSource, b: BrandSource): BrandSource {
  return {
    title: a.title || b.title,
    language: a.language ?? b.language,
    description: a.description || b.description,
    site: a.site || b.site,
    colours: [...a.colours, ...b.colours.filter((colour) => !a.colours.some((each) => each.hex === colour.hex))],
    families: [...a.families, ...b.families],
    marks: [...a.marks, ...b.marks],
    book: a.book ?? b.book,
    notes: [...a.notes, ...b.notes],
  };
}
