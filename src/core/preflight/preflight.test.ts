import { describe, expect, it } from 'vitest';
import type { CutReport } from '../compose/report.ts';
import { getPlacement, networkSheetSchema } from '../network/network-sheet.ts';
import petalryJson from '../network/sheets/petalry.json' with { type: 'json' };
import { plainPreflight } from '../../../tests/fixtures/preflight.ts';
import type { CutToCheck, Finding } from './finding.ts';
import { fixed } from './fix.ts';
import { preflight, type PreflightInput } from './preflight.ts';

const sheet = networkSheetSchema.validateSync(petalryJson);
const clean: CutReport = { arrangement: 'cliff', texts: [], placed: [], pictures: [], blocks: [], fronts: [], panels: [], marks: [], findings: [] };
const cut = (placement: string, report: Partial<CutReport> = {}): CutToCheck => ({
  ref: { channelId: 'c2', placement },
  channelName: 'Petalry @kites',
  sheet,
  placement: getPlacement(sheet, placement),
  slides: [{ frame: plainPreflight.piece.frames[0], report: { ...clean, ...report } }],
  left: [],
});
const { piece } = plainPreflight;
const check = (cuts: readonly CutToCheck[], more: Partial<PreflightInput> = {}) => preflight({ ...plainPreflight, cuts, ...more });

describe('preflight', () => {
  it('finds nothing in a piece that is in order', () => {
    expect(check([cut('feed-square'), cut('story')])).toEqual([]);
  });

  it('says an empty slot once, by the name the designer sees', () => {
    const empty = { findings: [{ kind: 'empty-slot' as const, slot: 'headline' }] };
    const findings = check([cut('feed-square', empty), cut('story', empty)]);
    expect(findings).toEqual([{ severity: 'stops', sentence: 'Headline is empty. Headland cannot go out without it.', cut: null, view: 'look', fix: null }]);
  });

  it('says which text is too long for which cut, and by how much', () => {
    const report = { texts: [{ kind: 'overflows' as const, slot: 'headline', sizePx: 40, lines: 9, overBy: 1, reason: 'too-tall' as const }] };
    expect(check([cut('story', report)])).toEqual([{ severity: 'stops', sentence: 'Headline is too long for Petalry Story by 1 character.', cut: 'c2.story', view: 'look', fix: null }]);
  });

  it('checks the words of a channel once, however many cuts it has', () => {
    const long = { ...piece, words: { shared: { caption: 'x'.repeat(2_201), altText: '' }, own: {} } };
    const findings = check([cut('feed-square'), cut('story')], { piece: long });
    expect(findings.map((finding) => finding.severity)).toEqual(['stops', 'warns']);
    expect(findings[0]?.sentence).toBe('Caption for Petalry @kites is 1 character over the 2200 that Petalry takes.');
  });

  it('warns of soft pictures, weak contrast and letters that cannot be written', () => {
    const findings = check([
      cut('story', {
        findings: [
          { kind: 'low-resolution', slot: 'photo', pictureId: 'm1', enlargedBy: 2.04 },
          { kind: 'low-contrast', slot: 'line', ratio: 2.31, needed: 4.5 },
          { kind: 'missing-glyphs', slot: 'headline', characters: ['凧'] },
        ],
      }),
    ]);
    expect(findings.map((finding) => finding.severity)).toEqual(['stops', 'warns', 'warns']);
    expect(findings.map((finding) => finding.sentence).join(' ')).toMatch(/凧.*contrast of 2\.3.*2\.0 times/);
  });

  it('asks for facts that are missing, once for all cuts, and says where they are filled in', () => {
    const missing = { findings: [{ kind: 'missing-fact' as const, slot: 'line', fact: 'phone', reason: 'empty' as const }] };
    expect(check([cut('feed-square', missing), cut('story', missing)])).toEqual([{ severity: 'stops', sentence: 'Line uses the fact {phone}, which has no text yet.', cut: null, view: 'facts', fix: null }]);
  });

  it('minds the mark: its size, and the room around it', () => {
    const findings = check([cut('story', { findings: [{ kind: 'small-mark', heightPx: 31.6, leastHeightPx: 48 }, { kind: 'crowded-mark', slot: 'line' }] })]);
    expect(findings.map((finding) => finding.sentence)).toEqual(['The mark is 32 pixels high in Petalry Story; the book asks for 48.', 'Line comes into the clear space of the mark in Petalry Story.']);
  });

  it('says which words lie on the subject of which picture, and what is left out', () => {
    const findings = check([cut('story', { findings: [{ kind: 'covered-subject', slot: 'line', picture: 'photo' }, { kind: 'dropped', slot: 'label' }] })]);
    expect(findings).toMatchObject([
      { severity: 'warns', sentence: 'Line lies on the subject of picture in Petalry Story. Shorten it, or move the picture.', cut: 'c2.story', fix: { label: 'Leave line out here' } },
      { severity: 'warns', sentence: 'Label is left out of Petalry Story: there is no room for it.', fix: null },
    ]);
    expect(check([cut('story', { findings: [{ kind: 'covered-subject', slot: 'headline', picture: 'photo' }] })])[0]?.fix).toBeNull();
  });

  it('stops a cut that cuts the mark off, and offers to leave it out there', () => {
    expect(check([cut('story', { findings: [{ kind: 'cut-off-mark' }] })])).toMatchObject([{ severity: 'stops', sentence: 'The mark is cut off in Petalry Story: there is no room for all of it.', fix: { change: { kind: 'hide-part', slot: 'mark' } } }]);
  });

  it.each([
    ['2026-11-24', 'stops', /ended on 24 November 2026/],
    ['2026-11-25', 'warns', /ends on 25 November 2026/],
    ['2027-01-08', 'warns', /ends on 8 January 2027/],
  ])('a licence until %s %s', (licenceUntil, severity, sentence) => {
    const [finding] = check([], { pictures: [{ id: 'm1', name: 'sea.jpg', altText: '', recording: null, licence: '', widthPx: 1500, heightPx: 1000, licenceUntil }] });
    expect(finding).toMatchObject({ severity, view: 'media', sentence: expect.stringMatching(sentence) as string });
  });

  it('says nothing of licences that end far away or never', () => {
    expect(check([], { pictures: [{ id: 'm1', name: 'a', altText: '', recording: null, licence: '', widthPx: 1500, heightPx: 1000, licenceUntil: '2027-03-01' }, { id: 'm2', name: 'b', altText: '', recording: null, licence: '', widthPx: 1500, heightPx: 1000, licenceUntil: null }] })).toEqual([]);
  });
});

describe('fixes', () => {
  const fixFor = (findings: readonly Finding[], sentence: RegExp) => {
    const found = findings.find((finding) => sentence.test(finding.sentence));
    if (!found?.fix) throw new Error(`Nothing mends ${sentence}: ${findings.map((finding) => finding.sentence).join('; ')}`);
    return found.fix;
  };
  /** Mending makes the finding go away, and a second time changes nothing. */
  const expectMended = (input: Partial<PreflightInput>, cuts: readonly CutToCheck[], sentence: RegExp) => {
    const { change } = fixFor(check(cuts, input), sentence);
    const mended = fixed(input.piece ?? piece, change);
    expect(check(cuts, { ...input, piece: mended }).some((finding) => sentence.test(finding.sentence))).toBe(false);
    expect(fixed(mended, change)).toEqual(mended);
    return mended;
  };

  it('takes the alt text of the picture', () => {
    const bare = { ...piece, words: { shared: { caption: 'Hello', altText: '' }, own: {} } };
    const [mediaId = ''] = Object.values(bare.frames[0].slots).flatMap((value) => (value.kind === 'picture' ? [value.mediaId] : []));
    const mended = expectMended({ piece: bare, pictures: [{ id: mediaId, name: 'a', altText: 'A red kite', recording: null, licence: '', widthPx: 1500, heightPx: 1000, licenceUntil: null }] }, [cut('story')], /no alt text/);
    expect(mended.words.shared.altText).toBe('A red kite');
  });

  it('says what the brand would rather say, in captions and in slots', () => {
    const loud = { ...piece, words: { ...piece.words, shared: { caption: 'Unleash the wind', altText: 'A kite' } } };
    expect(expectMended({ piece: loud }, [cut('story')], /says “Unleash”/).words.shared.caption).toBe('Let go the wind');
    const frame = { ...piece.frames[0], slots: { ...piece.frames[0].slots, headline: { kind: 'text' as const, text: 'Elevate your Saturday' } } };
    expect(expectMended({ piece: { ...piece, frames: [frame] } }, [cut('story')], /Headline says “Elevate”/).frames[0].slots['headline']).toEqual({ kind: 'text', text: 'Lift your Saturday' });
  });

  it('keeps as many hashtags as a network takes, for that channel alone', () => {
    const tags = Array.from({ length: 31 }, (_, index) => `#kite${index}`).join(' ');
    const mended = expectMended({ piece: { ...piece, words: { shared: { caption: tags, altText: 'A kite' }, own: {} } } }, [cut('story')], /31 hashtags/);
    expect(mended.words.own['c2']?.caption?.split(' ')).toHaveLength(30);
    expect(mended.words.shared.caption).toBe(tags);
  });

  it('leaves out a part that does not fit and can be missed, or goes back to the usual size first', () => {
    const report = { texts: [{ kind: 'overflows' as const, slot: 'line', sizePx: 40, lines: 9, overBy: 1, reason: 'too-tall' as const }] };
    expect(fixFor(check([cut('story', report)]), /Line is too long/).change).toEqual({ kind: 'hide-part', cut: 'c2.story', slot: 'line' });
    const stepped = { ...piece, adjustments: { 'c2.story': { textStep: 2, scheme: 'dark' } } };
    const { change } = fixFor(check([cut('story', report)], { piece: stepped }), /Line is too long/);
    expect(fixed(stepped, change).adjustments['c2.story']).toEqual({ scheme: 'dark' });
    const hidden = fixed(stepped, { kind: 'hide-part', cut: 'c2.story', slot: 'line' });
    expect(hidden.adjustments['c2.story']).toEqual({ textStep: 2, scheme: 'dark', hidden: ['line'] });
  });

  it('says of a soft picture once what concerns several cuts', () => {
    const soft = (key: string, enlargedBy: number) => cut(key, { findings: [{ kind: 'low-resolution', slot: 'photo', pictureId: 'm1', enlargedBy }] });
    expect(check([soft('feed-square', 1.3), soft('story', 2), soft('feed-portrait', 1.6)]).map(({ sentence, cut: at }) => [sentence, at])).toEqual([['The picture is enlarged up to 2.0 times in Petalry Story and 2 more cuts and will look soft.', 'c2.story']]);
  });

  it('zooms out of a crop that makes a picture soft', () => {
    const zoomed = { ...piece, adjustments: { 'c2.story': { crops: { photo: { x: 0.4, y: 0.5, zoom: 3 } } } } };
    const soft = cut('story', { findings: [{ kind: 'low-resolution', slot: 'photo', pictureId: 'm1', enlargedBy: 2 }] });
    const { change } = fixFor(check([soft], { piece: zoomed }), /look soft/);
    expect(fixed(zoomed, change).adjustments['c2.story']?.crops).toEqual({ photo: { x: 0.4, y: 0.5, zoom: 1 } });
    expect(check([soft])[0]?.fix).toBeNull();
  });
});
