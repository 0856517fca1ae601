import { XMLValidator } from 'fast-xml-parser';
import { describe, expect, it } from 'vitest';
import { readSvg } from '../artwork/read-svg.ts';
import type { Scene } from '../scene/scene.ts';
import { slugOf } from '../words/slug.ts';
import { fileNames, unknownPlaceholders, USUAL_NAME_PATTERN, type NameValues } from './file-names.ts';
import { gatherMetadata, toXmp } from './picture-metadata.ts';
import { toSvg } from './to-svg.ts';

const values: NameValues = { piece: 'wind-is-free', network: 'petalry', placement: 'story', width: '1080', height: '1920', date: '2026-11-25', number: '03' };

describe('fileNames', () => {
  it.each([
    [USUAL_NAME_PATTERN, 'wind-is-free-petalry-story-1080x1920.png'],
    ['{date} {number} {piece}', '2026-11-25 03 wind-is-free.png'],
    ['../../etc/{piece}', '-..-etc-wind-is-free.png'],
    ['Größe {width}', 'Größe 1080.png'],
    ['{unknown}', '-unknown-.png'],
    ['...', 'cut.png'],
  ])('%s', (pattern, name) => {
    expect(fileNames(pattern, [values], 'png')).toEqual([name]);
  });

  it('never gives a name twice, whatever its case', () => {
    expect(fileNames('{network}', [values, { ...values, network: 'PETALRY' }, values], 'jpg')).toEqual(['petalry.jpg', 'PETALRY-2.jpg', 'petalry-3.jpg']);
  });

  it('says which placeholders stand for nothing', () => {
    expect(unknownPlaceholders('{piece} {pice} {}')).toEqual(['pice', '']);
  });

  it.each([
    ['Wind & Wetter: für alle!', 'wind-wetter-fuer-alle'],
    ['Süße Grüße aus Łódź', 'suesse-gruesse-aus-lodz'],
    ['Змей', 'zmey'],
    ['凧', 'piece'],
  ])('makes %s part of a file name', (name, slug) => {
    expect(slugOf(name)).toBe(slug);
  });
});

describe('toXmp', () => {
  it('is well-formed whatever the texts hold, and says them under the names of the standard', () => {
    const xmp = toXmp({ title: 'A <b> & "c"', altText: 'Kite\u0000\u0008 over sea', credit: 'Isaura; Bram', licence: 'CC0-1.0' });
    expect(XMLValidator.validate(xmp.replace(/<\?xpacket.*?\?>/g, ''))).toBe(true);
    expect(xmp).toContain('<dc:title><rdf:Alt><rdf:li xml:lang="x-default">A &lt;b&gt; &amp; &quot;c&quot;</rdf:li>');
    expect(xmp).toContain('<Iptc4xmpCore:AltTextAccessibility><rdf:Alt><rdf:li xml:lang="x-default">Kite over sea<');
    expect(xmp).toContain('<rdf:li>Isaura</rdf:li><rdf:li>Bram</rdf:li>');
  });

  it('leaves out what is empty, and names every credit once', () => {
    expect(toXmp({ title: '', altText: '', credit: '', licence: '' })).not.toMatch(/<dc:|<Iptc4xmpCore:/);
    expect(gatherMetadata('T', 'A', [{ credit: 'Isaura', licence: 'CC0' }, { credit: ' Isaura', licence: '' }, { credit: 'Bram', licence: 'CC0' }])).toEqual({ title: 'T', altText: 'A', credit: 'Isaura; Bram', licence: 'CC0' });
  });
});

describe('toSvg', () => {
  const scene: Scene = {
    size: { widthPx: 20, heightPx: 10 },
    nodes: [
      { kind: 'fill', path: 'M0 0H20V10H0Z', colour: '#ffffff', alpha: 1 },
      { kind: 'picture', pictureId: 'p', box: { xPx: 0, yPx: 0, widthPx: 5, heightPx: 5 }, window: { x: 0, y: 0, width: 1, height: 1 } },
      { kind: 'glyphs', sizePx: 10, colour: '#d7263d', alpha: 0.5, glyphs: [{ fontKey: 'f', id: 1, xPx: 2, yPx: 8 }, { fontKey: 'f', id: 1, xPx: 8, yPx: 8 }] },
      { kind: 'artwork', xPx: 1, yPx: 2, scale: 0.5, paths: [{ d: 'M0 0h4v4z', fill: '#12355b', evenOdd: true }] },
    ],
  };
  const svg = toSvg(scene, { glyph: () => ({ path: 'M0 0H500V500Z', unitsPerEm: 1000 }), picture: () => 'data:image/png;base64,AAAA' }, { title: 'Wind & sea', description: 'Two words' });

  it('is well-formed and keeps the words to be read out', () => {
    expect(XMLValidator.validate(svg)).toBe(true);
    expect(svg).toContain('<title>Wind &amp; sea</title>');
  });

  it('writes each outline once and every node in its place', () => {
    expect(svg.match(/<path id="f-1"/g)).toHaveLength(1);
    expect(svg.match(/<use href="#f-1"/g)).toHaveLength(2);
    expect(svg).toContain('matrix(0.01 0 0 -0.01 2 8)');
    expect(svg).toContain('fill-rule="evenodd"');
    expect(svg).toContain('href="data:image/png;base64,AAAA"');
  });

  it('can be read back as a drawing', () => {
    const read = readSvg(svg);
    expect(read).toMatchObject({ kind: 'artwork', artwork: { viewBox: { width: 20, height: 10 } } });
    expect(read.kind === 'artwork' && read.artwork.paths.map((path) => path.fill)).toEqual(['#ffffff', '#d7263d', '#d7263d', '#12355b']);
  });
});
