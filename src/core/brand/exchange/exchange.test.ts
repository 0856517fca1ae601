import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../../demo/brands/gullwick.ts';
import { lanternfallBook } from '../../../../demo/brands/lanternfall.ts';
import { colourWord } from '../../colour/colour-word.ts';
import { contrastRatio } from '../../colour/contrast.ts';
import { readBrandBook } from '../read-brand-book.ts';
import { resolveScheme } from '../brand-book.ts';
import { bookToCss, coloursOfCss } from './css-properties.ts';
import { bookToTokens, readTokens } from './design-tokens.ts';
import { draftBook, type BookPicks } from './draft-book.ts';
import { bookToPalette, readPalette } from './palette.ts';
import { readLook, readPage } from './web-page.ts';

const books = [
  ['gullwick', gullwickBook],
  ['lanternfall', lanternfallBook],
] as const;

describe('design tokens', () => {
  it.each(books)('%s comes back whole', (name, book) => {
    const written = JSON.parse(JSON.stringify(bookToTokens(book, name))) as unknown;
    expect(readTokens(written)).toEqual({ kind: 'book', book });
  });

  it('gives other tools colours they can read, with schemes as aliases', () => {
    const tokens = bookToTokens(gullwickBook, 'Gullwick') as { colour: Record<string, unknown>; scheme: Record<string, Record<string, unknown>> };
    expect(tokens.colour['signal-red']).toEqual({ $value: '#d7263d', $description: 'Signal Red' });
    expect(tokens.scheme['dark']?.['ground']).toEqual({ $type: 'color', $value: '{colour.sea-ink}' });
  });

  it('reads tokens from elsewhere: nested groups, inherited types, aliases, colours in components', () => {
    const tokens = {
      palette: { $type: 'color', red: { 500: { $value: '#ff0000' } }, sea: { $value: { colorSpace: 'srgb', components: [0, 0.5, 1] } }, again: { $value: '{palette.red.500}' } },
      text: { body: { $type: 'fontFamily', $value: ['Lora', 'serif'] }, size: { $type: 'dimension', $value: { value: 16, unit: 'px' } } },
    };
    expect(readTokens(tokens)).toEqual({ kind: 'found', colours: [{ name: '500', hex: '#ff0000' }, { name: 'sea', hex: '#0080ff' }], families: ['Lora'] });
  });

  it.each([
    ['a list', [], 'not-tokens'],
    ['an object without tokens', { a: { b: 1 } }, 'not-tokens'],
    ['tokens of no use here', { gap: { $type: 'dimension', $value: '4px' } }, 'nothing-found'],
    ['aliases in a circle', { a: { $type: 'color', $value: '{b}' }, b: { $type: 'color', $value: '{a}' } }, 'nothing-found'],
  ])('refuses %s', (_, json, reason) => {
    expect(readTokens(json)).toEqual({ kind: 'refused', reason });
  });
});

describe.each(books)('colours of %s', (name, book) => {
  const lower = book.colours.map((colour) => ({ name: colour.name, hex: colour.hex.toLowerCase() }));
  it('come back from CSS', () => {
    expect(coloursOfCss(bookToCss(book, name)).map(({ name: colour, hex }) => ({ name: colour, hex }))).toEqual(lower);
  });
  it('come back from a GIMP palette', () => {
    expect(readPalette(bookToPalette(book, name))).toEqual(lower);
  });
});

it('a text that is no palette is none, and lines that are no colours are passed over', () => {
  expect(readPalette('Name: x')).toBeNull();
  expect(readPalette('GIMP Palette\n# note\n300 0 0 Too red\n1 2 3\n')).toEqual([{ name: '#010203', hex: '#010203' }]);
});

const PAGE = `<!doctype html><html><head><title>Salt &amp; Rye</title>
  <meta name="description" content="Bread by the harbour."><meta name="theme-color" content="#7a1f3d">
  <link rel="stylesheet" href="/main.css"><link rel="icon" href="/icon.png"><link rel="icon" type="image/svg+xml" href="icon.svg">
  <style>:root{--crust:#c47a2c} body{background:#fff8ee;color:#2b1d14;font-family:"Work Sans",sans-serif} h1{font: 700 3rem/1 'Lora',serif}</style></head>
  <body style="color: #2b1d14"><h1>Rye`;

describe('a web page', () => {
  const parts = readPage(PAGE);

  it('says what it is, and where the rest lies, the drawn icon first', () => {
    expect(parts).toMatchObject({ title: 'Salt & Rye', description: 'Bread by the harbour.', stylesheets: ['/main.css'], icons: ['icon.svg', '/icon.png'], themeColour: '#7a1f3d' });
  });

  it('gives its colours by weight, with variables followed and near ones taken together', () => {
    const { colours } = readLook(parts, ['button{background:var(--crust)} .card{border:1px solid rgba(0,0,0,.2)} a{color:#c57b2d} @font-face{font-family:Nope}']);
    expect(colours[0]?.hex).toBe('#7a1f3d');
    expect(colours.map((colour) => colour.hex)).toEqual(['#7a1f3d', '#c47a2c', '#fff8ee', '#2b1d14']);
    expect(colours.reduce((sum, colour) => sum + colour.share, 0)).toBeCloseTo(1);
  });

  it('knows which typeface headings are set in', () => {
    expect(readLook(parts, []).families).toEqual([
      { family: 'Work Sans', share: 0.5, forHeadings: false },
      { family: 'Lora', share: 0.5, forHeadings: true },
    ]);
  });

  it('reads what it can of broken markup and style', () => {
    const look = readLook(readPage('<p style="color:red;;{{"><style>a{color:#123456} b{color'), ['}}} i{background:#654321']);
    expect(look.colours.map((colour) => colour.hex)).toEqual(expect.arrayContaining(['#123456', '#654321']));
    expect(readPage('')).toMatchObject({ title: '', stylesheets: [] });
  });
});

describe('draftBook', () => {
  const picks = (colours: BookPicks['colours']): BookPicks => ({ colours, displayFont: 'lora-700', textFont: 'inter-500', marks: [], site: 'saltrye.example', handle: '@saltrye', language: null, guidance: 'Bread.' });
  it.each([
    ['nothing', []],
    ['one loud colour', [{ name: 'Red', hex: '#ff0033' }]],
    ['greys', [{ name: 'A', hex: '#777777' }, { name: 'B', hex: '#999999' }]],
    ['a bakery', [{ name: 'Wine', hex: '#7a1f3d' }, { name: 'Crust', hex: '#c47a2c' }, { name: 'Cream', hex: '#fff8ee' }, { name: 'Ink', hex: '#2b1d14' }]],
    ['two browns and a cream', [{ name: 'Crust', hex: '#5b3a1e' }, { name: 'Cream', hex: '#f6ead2' }, { name: 'Caramel', hex: '#c8742b' }]],
    ['two names alike', [{ name: 'Blue', hex: '#0000ff' }, { name: 'Blue', hex: '#0044ff' }]],
  ])('of %s can be read in every scheme', (_, colours) => {
    const book = draftBook(picks(colours));
    expect(readBrandBook(book)).toEqual(book);
    for (const { key } of book.schemes) {
      const { ink, ground, surface, accent } = resolveScheme(book, key);
      expect(contrastRatio(ink, ground)).toBeGreaterThanOrEqual(4.5);
      expect(Math.max(...[ink, ground, surface].map((text) => contrastRatio(text, accent)))).toBeGreaterThanOrEqual(4.5);
      expect(contrastRatio(ink, surface)).toBeGreaterThanOrEqual(4.5);
    }
    for (const { hex } of colours) expect(book.colours.map((colour) => colour.hex)).toContain(hex);
    expect(book.facts.find((fact) => fact.key === 'site')?.text).toBe('saltrye.example');
  });

  it('gives a mark that melts into one of the grounds a twin in the ink of that ground', () => {
    const mark = { kind: 'vector' as const, key: 'mark-1', for: 'light' as const, clearSpace: 0.2, leastHeightPx: 48, viewBox: { width: 1, height: 1 }, paths: [{ d: 'M0 0h1v1z', fill: '#7a1f3d' }, { d: 'M0 0h1z', fill: '#e0a458' }] };
    const book = draftBook({ ...picks([{ name: 'Wine', hex: '#7a1f3d' }, { name: 'Flour', hex: '#fbf4ea' }]), marks: [mark] });
    expect(book.marks.length).toBeGreaterThan(1);
    for (const { key } of book.schemes) {
      const { ground } = resolveScheme(book, key);
      expect(Math.max(...book.marks.map((each) => (each.kind === 'vector' ? contrastRatio(each.paths[0]?.fill ?? ground, ground) : 1)))).toBeGreaterThanOrEqual(3);
    }
    expect(book.marks.every((each) => each.kind === 'vector' && each.paths[1]?.fill === '#e0a458')).toBe(true);
  });
});

it.each([
  ['#7a1f3d', 'Wine'],
  ['#2d1b16', 'Dark brown'],
  ['#ffffff', 'White'],
  ['#d7263d', 'Red'],
  ['#12355b', 'Deep blue'],
  ['#e3f4ee', 'Paper'],
])('calls %s “%s”', (hex, word) => {
  expect(colourWord(hex)).toBe(word);
});
