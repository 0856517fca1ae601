import { loadYoga } from 'yoga-layout/load';
import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { testPicture } from '../../../tests/fixtures/pictures.ts';
import { testTypesetter } from '../../../tests/fixtures/typesetter.ts';
import { OUTLINE_UNITS } from '../crop/subject-outline.ts';
import type { Picture } from '../crop/crop-window.ts';
import { linkedCut } from '../piece/adjustment.ts';
import type { Part, StackPart } from '../template/parts.ts';
import { getShippedTemplate } from '../template/shipped-templates.ts';
import { compose } from './compose.ts';
import { coveringText, fixedCovers, hiddenShare } from './covered-subject.ts';
import { cutFrame } from './cut-frame.ts';
import type { CutFinding, CutReport } from './report.ts';
import type { BlockOnPhoto } from './words-on-photo.ts';

const engines = { typesetter: testTypesetter(), yoga: await loadYoga() };
const square = { key: 'square', name: 'Square', surface: 'feed', exportPx: { width: 1000, height: 1000 }, safePercent: { top: 4, right: 4, bottom: 4, left: 4 } };
const pointedAt = testPicture({ focal: { x: 0.5, y: 0.5 }, focalBy: 'person' });
const guessed: Picture = { ...pointedAt, focalBy: 'proposal' };
const outlined: Picture = { ...guessed, facts: { ...guessed.facts, outline: [[0.4, 0.4, 0.6, 0.4, 0.6, 0.6, 0.4, 0.6].map((share) => share * OUTLINE_UNITS)] } };

const block = (subject: BlockOnPhoto['subject'], place: BlockOnPhoto['place'] = 'bottom-left'): BlockOnPhoto => ({ place, extent: { xPx: 60, yPx: 600, widthPx: 500, heightPx: 340 }, frame: cutFrame(square), subject });
const texts = [{ slot: 'label', box: { xPx: 60, yPx: 600, widthPx: 200, heightPx: 30 } }, { slot: 'headline', box: { xPx: 60, yPx: 660, widthPx: 500, heightPx: 280 } }];
const [none, thin, strong] = [{ kind: 'none' }, { kind: 'gradient', colour: '#000000', share: 0.2 }, { kind: 'gradient', colour: '#000000', share: 0.6 }] as const;

describe('coveringText', () => {
  it('is the text that the subject lies under', () => {
    expect(coveringText(pointedAt, block({ xPx: 300, yPx: 800 }), texts, none, false)).toBe('headline');
    expect(coveringText(outlined, block({ xPx: 100, yPx: 610 }), texts, none, false)).toBe('label');
  });

  it('is the largest text where its gradient, tint or panel hides the subject beside it', () => {
    const beside = block({ xPx: 800, yPx: 800 });
    expect(coveringText(pointedAt, beside, texts, strong, false)).toBe('headline');
    expect(coveringText(pointedAt, beside, texts, thin, false)).toBeNull();
    expect(coveringText(pointedAt, beside, texts, { kind: 'panel', colour: '#000000' }, false)).toBeNull();
    const near = block({ xPx: 580, yPx: 800 });
    expect(coveringText(pointedAt, near, texts, { kind: 'panel', colour: '#000000' }, false)).toBe('headline');
    expect(coveringText(pointedAt, near, texts, { kind: 'tint', colour: '#000000', share: 0.5 }, false)).toBe('headline');
    expect(coveringText(pointedAt, beside, texts, { kind: 'tint', colour: '#000000', share: 0.5 }, false)).toBeNull();
    // A tint has no room to open here, so that all of it stays.
    expect(coveringText(pointedAt, block({ xPx: 700, yPx: 800 }), texts, { kind: 'tint', colour: '#000000', share: 0.5 }, false)).toBe('headline');
  });

  it('is the largest text where its own field hides the subject beside it', () => {
    const field = { xPx: 40, yPx: 580, widthPx: 560, heightPx: 380 };
    expect(coveringText(pointedAt, { ...block({ xPx: 590, yPx: 800 }), field }, texts, none, false)).toBe('headline');
    expect(coveringText(pointedAt, { ...block({ xPx: 620, yPx: 800 }), field }, texts, none, false)).toBeNull();
  });

  it('is the largest text where a veil of the template hides the subject', () => {
    expect(coveringText(pointedAt, block({ xPx: 800, yPx: 200 }), texts, none, true)).toBe('headline');
  });

  it('is none where the subject is free, cut off, or only guessed', () => {
    expect(coveringText(pointedAt, block({ xPx: 500, yPx: 200 }), texts, strong, false)).toBeNull();
    expect(coveringText(pointedAt, block(null), texts, strong, false)).toBeNull();
    expect(coveringText(guessed, block({ xPx: 300, yPx: 800 }), texts, none, false)).toBeNull();
  });
});

describe('fixedCovers', () => {
  const box = { xPx: 0, yPx: 0, widthPx: 1000, heightPx: 1000 };
  const placed = { slot: 'photo', pictureId: 'p', box, window: { x: 0, y: 0, width: 1, height: 1 }, subject: { xPx: 500, yPx: 500 } };
  const label = { slot: 'label', box: { xPx: 450, yPx: 450, widthPx: 100, heightPx: 100 }, after: 1 };

  it('names a text or field that was painted over a subject, and no other', () => {
    const finding = { kind: 'covered-subject', slot: 'label', picture: 'photo' };
    expect(fixedCovers([placed], { photo: pointedAt }, [label])).toEqual([finding]);
    expect(fixedCovers([placed], { photo: outlined }, [{ ...label, slot: 'rows.2.label' }]).map(({ kind }) => kind)).toEqual(['covered-subject']);
    expect(fixedCovers([placed], { photo: pointedAt }, [{ ...label, after: 0 }])).toEqual([]);
    expect(fixedCovers([placed], { photo: pointedAt }, [{ ...label, box: { ...label.box, xPx: 510 } }])).toEqual([]);
  });

  it('names nothing on a guess, on a cut-out, or where the subject is cut off', () => {
    expect(fixedCovers([placed], { photo: guessed }, [label])).toEqual([]);
    expect(fixedCovers([placed], { photo: { ...pointedAt, facts: { ...pointedAt.facts, clearShare: 0.5 } } }, [label])).toEqual([]);
    expect(fixedCovers([{ ...placed, subject: null }], { photo: pointedAt }, [label])).toEqual([]);
  });

  it('is asked of texts that a template fixes on its photograph', () => {
    const lull = getShippedTemplate('lull');
    const fixed = (part: Part): Part => (part.part === 'stack' ? { ...part, afloat: undefined, children: part.children.map(fixed) } : part);
    const template = { ...lull, arrangements: lull.arrangements.map((each) => ({ ...each, root: fixed(each.root) as StackPart })) };
    const slots = { photo: { kind: 'picture', mediaId: pointedAt.id }, headline: { kind: 'text', text: 'Up and away' } } as const;
    const reportOf = (focal: Picture['focal']): CutReport =>
      compose({ template, frame: { id: 'f', slots }, book: gullwickBook, placement: square, pictures: new Map([[pointedAt.id, testPicture({ widthPx: 2000, heightPx: 2000, focal, focalBy: 'person' })]]), ghosts: false, adjustment: { ...linkedCut, crops: { photo: { x: 0.5, y: 0.5, zoom: 1 } } } }, engines).report;
    const { box } = reportOf({ x: 0.5, y: 0.5 }).placed.find(({ slot }) => slot === 'headline') ?? { box: { xPx: 0, yPx: 0, widthPx: 0, heightPx: 0 } };
    const below = { x: (box.xPx + box.widthPx / 2) / 1000, y: (box.yPx + box.heightPx / 2) / 1000 };
    expect(reportOf(below).findings).toContainEqual({ kind: 'covered-subject', slot: 'headline', picture: 'photo' });
    expect(reportOf({ x: 1 - below.x, y: 1 - below.y }).findings.map(({ kind }) => kind)).not.toContain('covered-subject');
  });
});

describe('hiddenShare', () => {
  const subject = { xPx: 400, yPx: 400, widthPx: 200, heightPx: 200 };
  const nothing = { xPx: 0, yPx: 0, widthPx: 100, heightPx: 100 };

  it('is how much of a subject lies below words, or as far as colours hide it', () => {
    expect(hiddenShare(subject, nothing, () => 0)).toBe(0);
    expect(hiddenShare(subject, { xPx: 0, yPx: 500, widthPx: 1000, heightPx: 500 }, () => 0)).toBe(0.5);
    expect(hiddenShare(subject, nothing, ({ xPx }) => (xPx < 450 ? 0.8 : 0))).toBeCloseTo(0.2);
    expect(hiddenShare(subject, { xPx: 0, yPx: 500, widthPx: 1000, heightPx: 500 }, () => 0.4)).toBeCloseTo(0.7);
  });
});

describe('a headline on a photograph', () => {
  const reportOf = (headline: string, picture: Picture): CutReport => {
    const slots = { photo: { kind: 'picture', mediaId: picture.id }, headline: { kind: 'text', text: headline } } as const;
    return compose({ template: getShippedTemplate('lull'), frame: { id: 'f', slots }, book: gullwickBook, placement: square, pictures: new Map([[picture.id, picture]]), ghosts: false, adjustment: linkedCut }, engines).report;
  };
  const findings = (headline: string, picture: Picture): readonly CutFinding[] => reportOf(headline, picture).findings;
  const long = 'There is a moment, just after the line goes tight and just before the sail finds the wind, when nothing is decided yet: the kite may climb or it may turn its face into the sand, and everybody who has ever held a line knows that this moment, short as it is, is really what they came for today.';

  it('is set smaller where that frees the subject, and no smaller than it has to be', () => {
    const sizeOf = (headline: string, picture: Picture): number | undefined => reportOf(headline, picture).placed.find(({ slot }) => slot === 'headline')?.sizePx;
    const low: Picture = { ...pointedAt, focal: { x: 0.5, y: 0.6 } };
    const wordsOf = (count: number): string => long.split(' ').slice(0, count).join(' ');
    const shares = [14, 26, 28].map((count) => (sizeOf(wordsOf(count), low) ?? 0) / (sizeOf(wordsOf(count), { ...low, focalBy: 'proposal' }) ?? 1));
    expect(shares.map((share) => share.toFixed(2))).toEqual(['1.00', '0.85', '0.72']);
    for (const count of [26, 28]) expect(findings(wordsOf(count), low)).toEqual([]);
  });

  it('is reported where it is so long that it lies on the subject', () => {
    expect(findings(long, pointedAt)).toContainEqual({ kind: 'covered-subject', slot: 'headline', picture: 'photo' });
    expect(findings('Up', pointedAt).filter(({ kind }) => kind === 'covered-subject')).toEqual([]);
  });
});
