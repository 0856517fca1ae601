import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { lanternfallBook } from '../../../demo/brands/lanternfall.ts';
import { plainBook } from '../../../tests/sheet/test-brands.ts';
import type { BrandBook, SubtitleLook } from '../brand/brand-book.ts';
import { subtitleLooks } from '../brand/brand-book.ts';
import { contrastRatio } from '../colour/contrast.ts';
import type { GlyphsNode, Scene } from '../scene/scene.ts';
import { wordNumbers, wordsIn } from '../text/word-numbers.ts';
import { NO_FACTS, type Recording } from './recording.ts';
import { saidWordAt, spokenSpans, wordStartsMs } from './said-words.ts';
import { styledSubtitle, subtitleStyle } from './subtitle-style.ts';

describe('words', () => {
  it('are counted by the white space between them', () => {
    expect(wordNumbers(' a  bc\nd')).toEqual([0, 0, 0, 0, 1, 1, 1, 2]);
    expect(wordsIn(' a  bc\nd')).toEqual(['a', 'bc', 'd']);
    expect(wordsIn('')).toEqual([]);
  });
});

describe('the words of a subtitle', () => {
  const cue = { fromMs: 1_000, toMs: 3_000, text: 'Go everywhere now' };

  it('share its time by their syllables', () => {
    const starts = wordStartsMs(cue, null);
    expect(starts[0]).toBe(1_000);
    expect((starts[2] ?? 0) - (starts[1] ?? 0)).toBeGreaterThan((starts[1] ?? 0) - (starts[0] ?? 0));
    expect([0, 1_000, (starts[1] ?? 0) - 1, starts[1] ?? 0, 9_000].map((at) => saidWordAt(starts, at))).toEqual([0, 0, 0, 1, 2]);
  });

  it('are spoken while somebody speaks', () => {
    const recording: Recording = { kind: 'sound', durationMs: 5_000, hasSound: true, facts: { ...NO_FACTS, silent: [{ fromMs: 1_200, toMs: 2_600 }] } };
    const speech = spokenSpans({ voice: 'v' }, new Map([['v', recording]]));
    const starts = wordStartsMs({ ...cue, text: 'one two three' }, speech);
    for (const start of starts) expect(start < 1_200 || start >= 2_600).toBe(true);
    expect(spokenSpans({}, new Map())).toBeNull();
  });
});

describe('the looks of a subtitle', () => {
  const line: GlyphsNode = { kind: 'glyphs', sizePx: 40, colour: '#123456', alpha: 1, slot: 'line', glyphs: [0, 0, 1].map((word, at) => ({ fontKey: 'f', id: at, xPx: at, yPx: 0, line: 0, word })) };
  const reaches = { glyphReach: () => ({ leftEm: 0, rightEm: 1, topEm: 0, bottomEm: 0 }) };
  const scene: Scene = { size: { widthPx: 100, heightPx: 100 }, nodes: [line] };
  const styleOf = (book: BrandBook, subtitles: SubtitleLook) => subtitleStyle({ ...book, video: { subtitles, coloursSaidWord: true } });

  it('colour the spoken word so that it can be read and told from the others', () => {
    for (const book of [gullwickBook, lanternfallBook]) {
      for (const look of subtitleLooks) {
        const { said, template, bare } = styleOf(book, look);
        const scheme = book.schemes.find(({ key }) => key === template.scheme);
        const ground = bare?.edge ?? book.colours.find(({ key }) => key === scheme?.ground)?.hex ?? '';
        expect([look, said !== null && contrastRatio(...(said.kind === 'colour' ? ([said.colour, ground] as const) : ([said.ink, said.plate] as const))) >= 4.5]).toEqual([look, true]);
      }
    }
    expect(subtitleStyle({ ...gullwickBook, video: undefined }).said).toBeNull();
  });

  it('leave all words alike where a book has no colour for it', () => {
    const two = { ...plainBook, colours: plainBook.colours.map((colour) => ({ ...colour, hex: colour.hex.toLowerCase() < '#800000' ? '#000000' : '#ffffff' })) };
    const style = styleOf(two, 'edge');
    expect(style.said).toBeNull();
    expect(styledSubtitle(scene, style, 1, reaches).nodes).toHaveLength(1);
  });

  it('turn the colours of a line round for the spoken word, on a plate as wide as it', () => {
    const style = styleOf(gullwickBook, 'label');
    const [others, plate, said] = styledSubtitle(scene, style, 0, reaches).nodes;
    expect(others).toMatchObject({ glyphs: [{ word: 1 }] });
    expect(plate).toMatchObject({ kind: 'fill', path: 'M-4.8 -36.8H45.8V12H-4.8Z' });
    expect([said?.kind === 'glyphs' && said.colour, plate?.kind === 'fill' && plate.colour]).toEqual(style.said?.kind === 'plate' ? [style.said.ink, style.said.plate] : []);
  });

  it('draw bare letters light in a dark edge, the spoken word among them', () => {
    const style = styleOf(gullwickBook, 'edge');
    const nodes = styledSubtitle(scene, style, 0, reaches).nodes as readonly GlyphsNode[];
    expect(nodes.map(({ colour, glyphs }) => [colour, glyphs.length])).toEqual([[style.bare?.ink, 1], [style.said?.kind === 'colour' ? style.said.colour : '', 2]]);
    expect(nodes.every(({ edge }) => edge?.colour === style.bare?.edge)).toBe(true);
    expect(contrastRatio(style.bare?.ink ?? '', style.bare?.edge ?? '')).toBeGreaterThan(4.5);
  });
});
