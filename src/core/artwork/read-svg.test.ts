import { describe, expect, it } from 'vitest';
import { readSvg } from './read-svg.ts';

const svg = (inner: string, attributes = 'viewBox="0 0 10 10"') => `<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${inner}</svg>`;
const pathsOf = (source: string) => {
  const read = readSvg(source);
  if (read.kind === 'refused') throw new Error(read.reason);
  return read.artwork.paths;
};

describe('readSvg', () => {
  it('takes outlines with their colours, in painting order, moved to a box that starts at nothing', () => {
    const read = readSvg(svg('<g fill="red" transform="translate(5 5)"><path d="M0 0h2v2z" transform="scale(2)"/></g><circle cx="7" cy="7" r="1" style="fill:#00f"/>', 'viewBox="5 5 20 30"'));
    expect(read).toMatchObject({ kind: 'artwork', artwork: { viewBox: { width: 20, height: 30 } }, notes: [] });
    const [square, circle] = pathsOf(svg('<g fill="red" transform="translate(5 5)"><path d="M0 0h2v2z" transform="scale(2)"/></g><circle cx="7" cy="7" r="1" style="fill:#00f"/>', 'viewBox="5 5 20 30"'));
    expect(square).toEqual({ d: 'M0 0H4V4Z', fill: '#ff0000' });
    expect(circle?.fill).toBe('#0000ff');
  });

  it.each([
    ['a rectangle', '<rect x="1" y="2" width="3" height="4"/>', 'M1 2H4V6H1Z'],
    ['a polygon', '<polygon points="0,0 4,0 4,4"/>', 'M0 0L4 0 4 4Z'],
    ['a reused shape', '<defs><path id="a" d="M0 0h1v1z"/></defs><use href="#a" x="3"/>', 'M3 0H4V1Z'],
  ])('knows %s', (_, inner, d) => {
    expect(pathsOf(svg(inner)).map((path) => path.d.replaceAll(/(?<=[A-Z0-9]) (?=[A-Z])/g, ''))).toEqual([d]);
  });

  it('reads rules for elements, comments, and values with semicolons in strings; what is no CSS is left out', () => {
    const paths = pathsOf(svg('<style>/* .a{fill:red} */ rect{fill:#112233} .b{font-family:"x;fill:red";fill:#445566} @media print{}</style><rect width="1" height="1"/><rect class="b" style="broken;;fill : #778899 !important" width="1" height="1"/><rect class="b" width="1" height="1"/>'));
    expect(paths.map(({ fill }) => fill)).toEqual(['#112233', '#778899', '#445566']);
  });

  it('reads classes, inherits fills, and leaves out what is hidden or not filled', () => {
    const paths = pathsOf(svg('<style>.a,.b{fill:#abcdef}.b{fill:none}</style><rect class="a" width="1" height="1"/><rect class="b" width="1" height="1"/><rect display="none" width="1" height="1"/>'));
    expect(paths.map((path) => path.fill)).toEqual(['#abcdef']);
  });

  it('keeps nothing that could act: scripts, links, foreign content, event handlers', () => {
    const read = readSvg(svg('<script>alert(1)</script><foreignObject><body onload="x()"/></foreignObject><a href="javascript:alert(1)"><rect onclick="x()" width="1" height="1" fill="red"/></a>'));
    expect(JSON.stringify(read)).not.toMatch(/alert|onload|onclick|javascript/);
    expect(read.kind).toBe('artwork');
  });

  it('says what it had to leave out', () => {
    const read = readSvg(
      svg('<linearGradient id="g"><stop stop-color="#123456"/></linearGradient><rect width="1" height="1" fill="url(#g)" stroke="#000"/><text>Hi</text><image href="x.png"/><g opacity="0.5"><rect width="1" height="1"/></g>'),
    );
    expect(read).toMatchObject({ notes: ['gradients', 'strokes', 'text', 'pictures', 'transparency'], artwork: { paths: [{ fill: '#123456' }, { fill: '#000000' }] } });
  });

  it('knows holes by the even-odd rule', () => {
    expect(pathsOf(svg('<path fill-rule="evenodd" d="M0 0h9v9z"/>'))[0]?.evenOdd).toBe(true);
  });

  it.each([
    ['plain text', 'not a drawing', 'not-svg'],
    ['broken XML', '<svg viewBox="0 0 1 1"><g></svg>', 'not-svg'],
    ['no size', svg('<rect width="1" height="1"/>', ''), 'no-size'],
    ['nothing filled', svg('<path d="M0 0L1 1" fill="none" stroke="red"/>'), 'nothing-filled'],
    ['too many outlines', svg('<rect width="1" height="1"/>'.repeat(401)), 'too-much'],
    ['a drawing that contains itself', svg('<g id="a"><use href="#a"/></g>'), 'too-much'],
    ['a billion laughs', `<!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;">]>${svg('<text>&b;</text>')}`, 'not-svg'],
  ])('refuses %s', (_, source, reason) => {
    expect(readSvg(source)).toEqual({ kind: 'refused', reason });
  });
});
