import { NO_FACTS } from '../video/recording.ts';
import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { plainPiece } from '../../../tests/fixtures/piece.ts';
import type { CutReport } from '../compose/report.ts';
import { getPlacement, type NetworkSheet } from '../network/network-sheet.ts';
import { shippedSheets } from '../network/shipped-sheets.ts';
import { linkedCut } from '../piece/adjustment.ts';
import { adjustmentOf, type Frame, type Piece } from '../piece/piece.ts';
import { slidesOfCut } from '../piece/slides-of-cut.ts';
import { getShippedTemplate } from '../template/shipped-templates.ts';
import { carouselFindings, claimedCount } from './carousel-findings.ts';
import type { CutToCheck, PictureTerms } from './finding.ts';
import { fixed } from './fix.ts';
import { preflight } from './preflight.ts';

const strand = getShippedTemplate('strand');
const clean: CutReport = { arrangement: 'card', texts: [], placed: [], pictures: [], blocks: [], fronts: [], panels: [], marks: [], findings: [] };
const text = (value: string) => ({ kind: 'text' as const, text: value });
const point = (id: string, heading: string, more = ''): Frame => ({ id, slide: 'point', altText: heading, slots: { heading: text(heading), ...(more === '' ? {} : { text: text(more) }) } });
const closing: Frame = { id: 'z', slide: 'closing', altText: 'Come by', slots: { headline: text('Come by'), call: text('Book') } };
const cover = (headline: string): Frame => ({ id: 'c', altText: headline, slots: { headline: text(headline) } });
const carousel = (...frames: [Frame, ...Frame[]]): Piece => ({ ...plainPiece, kind: 'carousel', template: { key: 'strand' }, frames, cuts: [], words: { shared: { caption: 'Swipe', altText: '' }, own: {} } });

function cut(piece: Piece, network: string, key: string, report: CutReport = clean): CutToCheck {
  const sheet = shippedSheets.find((each) => each.key === network) as NetworkSheet;
  const placement = getPlacement(sheet, key);
  const { shown, left } = slidesOfCut(piece, strand, placement.carousel, linkedCut);
  return { ref: { channelId: 'c1', placement: key }, channelName: sheet.name, sheet, placement, slides: shown.map((frame) => ({ frame, report })), left };
}
const sentences = (piece: Piece, cuts: readonly CutToCheck[] = [], pictures: readonly PictureTerms[] = []): readonly string[] => carouselFindings(piece, strand, cuts, pictures).map(({ sentence }) => sentence);
const three = carousel(cover('Three winds'), point('a', 'A breath'), point('b', 'A breeze'), point('d', 'A blow'), closing);

describe('what a cover promises', () => {
  it.each([
    ['7 places to fly', 7],
    ['Five good winds', 5],
    ['The twelve knots you need', 12],
    ['Our “three rules” of the loft', 3],
    ['Saturday, 9 am', null],
    ['One kite', null],
    ['Kites of 2026', null],
    ['Come at seven', null],
  ])('%s: %s', (given, count) => {
    expect(claimedCount(given)).toBe(count);
  });

  it('is compared with the points that there are', () => {
    expect(sentences(three)).toEqual([]);
    expect(sentences(carousel(cover('Seven winds'), point('a', 'A breath'), closing))).toEqual(['The cover says 7, and there is 1 point.']);
    expect(sentences(carousel(cover('Seven winds'), point('a', 'A breath'), point('b', 'A blow')))).toEqual(['The cover says 7, and there are 2 points.']);
  });

  it('is missed where the first slide is no cover', () => {
    expect(sentences(carousel(point('a', 'A breath'), point('b', 'A blow')))).toEqual(['The first slide is no cover: nothing says what the others are about.']);
  });
});

describe('a slide', () => {
  it('that carries too much text is named by its number', () => {
    expect(sentences(carousel(cover('Winds'), point('a', 'A breath', 'x'.repeat(260))))).toEqual(['Slide 2 carries 269 characters; over 240 nobody reads on. Split it in two.']);
  });

  it('without alt text can take its words, or its picture’s alt text', () => {
    const bare = carousel(cover('Winds'), { ...point('a', 'A breath', 'Sled kites'), altText: ' ' });
    const [finding] = carouselFindings(bare, strand, [], []);
    expect(finding).toMatchObject({ severity: 'warns', slide: 'a', sentence: 'Slide 2 has no alt text.', fix: { label: 'Take its words' } });
    expect(finding?.fix && fixed(bare, finding.fix.change).frames[1]?.altText).toBe('A breath. Sled kites.');
    const pictured = carousel(cover('Winds'), { id: 'p', slide: 'point', slots: { photo: { kind: 'picture', mediaId: 'm1' } } });
    const terms: PictureTerms = { id: 'm1', name: 'kite.jpg', altText: 'A red kite', recording: null, licence: '', widthPx: 1500, heightPx: 1000, licenceUntil: null };
    expect(carouselFindings(pictured, strand, [], [terms])[0]?.fix).toEqual({ label: 'Take the picture’s alt text', change: { kind: 'write-slide-alt', frame: 'p', text: 'A red kite' } });
    expect(carouselFindings(pictured, strand, [], [])[0]?.fix).toBeNull();
  });

  it('with a picture of another shape than the others is named', () => {
    const terms = (id: string, widthPx: number, heightPx: number): PictureTerms => ({ id, name: id, altText: id, recording: null, licence: '', widthPx, heightPx, licenceUntil: null });
    const shown = (id: string, mediaId: string): Frame => ({ id, slide: 'point', altText: id, slots: { photo: { kind: 'picture', mediaId } } });
    const series = carousel(cover('Winds'), shown('a', 'm1'), shown('b', 'm2'), shown('d', 'm3'));
    expect(sentences(series, [], [terms('m1', 3000, 2000), terms('m2', 1200, 900), terms('m3', 900, 1600)])).toEqual(['The pictures have unequal shapes: slides 2 and 3 are wide, slide 4 is tall. Look whether their window cuts off what counts.']);
    expect(sentences(series, [], [terms('m1', 3000, 2000), terms('m2', 1200, 900), terms('m3', 1600, 900)])).toEqual([]);
  });

  it('that is a clip is reported as shown by its still', () => {
    const moving = carousel(cover('Winds'), { id: 'a', slide: 'point', altText: 'a', slots: { photo: { kind: 'picture', mediaId: 'm1' } } });
    const clip: PictureTerms = { id: 'm1', name: 'loop.mp4', altText: '', recording: { kind: 'clip', durationMs: 6000, hasSound: false, facts: NO_FACTS }, licence: '', widthPx: 1920, heightPx: 1080, licenceUntil: null };
    expect(sentences(moving, [], [clip])).toEqual(['Slide 2 is a clip: a carousel shows its still picture.']);
    expect(sentences(moving, [], [{ ...clip, recording: null }])).toEqual([]);
  });

  it('is not reported where the piece has an alt text for the cover', () => {
    const quiet = carousel({ ...cover('Winds'), altText: '' }, point('a', 'A breath'));
    expect(sentences({ ...quiet, words: { ...quiet.words, shared: { ...quiet.words.shared, altText: 'A list of winds' } } })).toEqual([]);
  });
});

describe('a place that takes less', () => {
  const many = carousel(cover('Winds'), ...['a', 'b', 'd', 'e', 'f'].map((id) => point(id, id)), closing);

  it.each([
    ['quipline', 'post-square', 'Quipline Square takes 4 slides: slides 4 to 6 stay behind.'],
    ['tackboard', 'card', 'Tackboard Card takes 5 slides: slides 5 and 6 stay behind.'],
    ['kerbside', 'update', 'Kerbside Update takes no carousel: slide 1 goes alone.'],
  ])('%s %s', (network, key, sentence) => {
    expect(sentences(many, [cut(many, network, key)])).toEqual([sentence]);
  });

  it('can gather all slides in its one picture, and then nothing stays behind', () => {
    const [finding] = carouselFindings(many, strand, [cut(many, 'kerbside', 'update')], []);
    expect(finding?.fix).toEqual({ label: 'Gather all in one picture', change: { kind: 'gather', cut: 'c1.update' } });
    const gathered = finding?.fix ? fixed(many, finding.fix.change) : many;
    const { shown, left } = slidesOfCut(gathered, strand, undefined, adjustmentOf(gathered, { channelId: 'c1', placement: 'update' }));
    expect(sentences(gathered, [{ ...cut(gathered, 'kerbside', 'update'), slides: shown.map((frame) => ({ frame, report: clean })), left }])).toEqual([]);
  });

  it('is silent where all fit, and stops a document of one page and a cut of none', () => {
    expect(sentences(many, [cut(many, 'petalry', 'feed-square'), cut(many, 'guildrow', 'document')])).toEqual([]);
    const single = carousel(cover('Winds'));
    expect(carouselFindings(single, strand, [cut(single, 'guildrow', 'document')], []).map(({ severity, sentence }) => [severity, sentence])).toEqual([['stops', 'Guildrow Document is a document of at least 2 pages, and has 1.']]);
    const none = { ...cut(many, 'petalry', 'feed-square'), slides: [] };
    expect(carouselFindings(many, strand, [none], [])[0]).toMatchObject({ severity: 'stops', sentence: 'Petalry Square has no slide left. Take one back in.' });
  });
});

describe('preflight of a carousel', () => {
  const check = (piece: Piece, report: CutReport) => preflight({ piece, template: strand, book: gullwickBook, cuts: [cut(piece, 'petalry', 'feed-square', report)], pictures: [], atMs: Date.UTC(2026, 10, 25), zone: 'Europe/London' });

  it('names the slide, and mends it alone', () => {
    const findings = check(three, { ...clean, texts: [{ kind: 'overflows', slot: 'text', sizePx: 32, lines: 9, overBy: 12, reason: 'too-tall' }] });
    const second = findings.find(({ slide }) => slide === 'a');
    expect(second?.sentence).toBe('Slide 2: Text is too long for Petalry Square by 12 characters.');
    expect(second?.fix && fixed(three, second.fix.change).adjustments).toEqual({ 'c1.feed-square/a': { hidden: ['text'] } });
  });

  it('writes a word that the brand avoids anew on the slide that has it', () => {
    const slipped = carousel(cover('Winds'), point('a', 'Elevate your kite'), closing);
    const finding = check(slipped, clean).find(({ sentence }) => sentence.includes('Elevate'));
    expect(finding?.sentence).toMatch(/^Slide 2: /);
    expect(finding?.fix && fixed(slipped, finding.fix.change).frames[1]?.slots['heading']).toEqual(text('Lift your kite'));
  });
});
