import { slotText, type Frame, type Piece } from '../piece/piece.ts';
import { isPoint, ownSlots } from '../piece/slides-of-cut.ts';
import { sumSlide } from '../template/slide-template.ts';
import type { Template } from '../template/template.ts';
import { plural, type CutToCheck, type Finding, type PictureTerms } from './finding.ts';

/** What a slide that is seen for a few seconds can carry, in characters. */
const MAX_ON_A_SLIDE = 240;

/** What is about a carousel as a whole, and about what stays behind where. */
export function carouselFindings(piece: Piece, template: Template, cuts: readonly CutToCheck[], pictures: readonly PictureTerms[]): readonly Finding[] {
  if (piece.kind !== 'carousel') return [];
  return [...coverFindings(piece, template), ...shapeFindings(piece, pictures), ...piece.frames.flatMap((frame, index) => slideFindings(piece, template, frame, index, pictures)), ...cuts.flatMap((cut) => countFindings(piece, template, cut))];
}

function coverFindings(piece: Piece, template: Template): readonly Finding[] {
  const [cover] = piece.frames;
  const points = piece.frames.filter((frame) => isPoint(template, frame)).length;
  const said = claimedCount(ownSlots(template, cover.slide).map((slot) => slotText(cover, slot.key)).join('\n'));
  return [
    ...(cover.slide === undefined ? [] : [about('The first slide is no cover: nothing says what the others are about.', cover)]),
    ...(said !== null && points > 0 && said !== points ? [about(`The cover says ${said}, and there ${points === 1 ? 'is' : 'are'} ${plural(points, 'point')}.`, cover)] : []),
  ];
}

const numberWords = ['two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten', 'eleven', 'twelve'];
/** A number before the thing that is counted: `7 places`, `five good winds`. */
const CLAIM = new RegExp(`(?:^|[\\s“"(])(\\d{1,2}|${numberWords.join('|')})\\s+(?:\\p{L}+\\s+)?\\p{L}{2,}s\\b`, 'iu');

/** How many things a text promises; null when it promises no number of them. */
export function claimedCount(text: string): number | null {
  const found = CLAIM.exec(text)?.[1]?.toLowerCase();
  if (found === undefined) return null;
  const count = /\d/.test(found) ? Number(found) : numberWords.indexOf(found) + 2;
  return count >= 2 ? count : null;
}

function slideFindings(piece: Piece, template: Template, frame: Frame, index: number, pictures: readonly PictureTerms[]): readonly Finding[] {
  const name = `Slide ${index + 1}`;
  const texts = ownSlots(template, frame.slide).map((slot) => slotText(frame, slot.key).trim()).filter((text) => text !== '');
  const length = texts.join(' ').length;
  const found: Finding[] = [];
  if (length > MAX_ON_A_SLIDE) found.push(about(`${name} carries ${length} characters; over ${MAX_ON_A_SLIDE} nobody reads on. Split it in two.`, frame));
  if (isClip(frame, pictures)) found.push(about(`${name} is a clip: a carousel shows its still picture.`, frame));
  const hasAlt = (frame.altText ?? '').trim() !== '' || (index === 0 && piece.words.shared.altText.trim() !== '');
  if (!hasAlt) found.push({ ...about(`${name} has no alt text.`, frame), fix: altTextFix(frame, texts, pictures) });
  return found;
}

/** Width divided by height from which on a picture is wide, and below which it is tall. */
const WIDE_FROM = 1.1;
const TALL_BELOW = 0.9;
const shapes = ['wide', 'tall', 'square'] as const;

function shapeOf({ widthPx, heightPx }: PictureTerms): (typeof shapes)[number] {
  const aspect = widthPx / heightPx;
  return aspect >= WIDE_FROM ? 'wide' : aspect < TALL_BELOW ? 'tall' : 'square';
}

/** Pictures of a series all go through one window; the few that have another shape than the many lose the most. */
function shapeFindings({ frames }: Piece, pictures: readonly PictureTerms[]): readonly Finding[] {
  const shaped = frames.flatMap((frame, index) => Object.values(frame.slots).flatMap((value) => {
    const picture = value.kind === 'picture' ? pictures.find(({ id }) => id === value.mediaId) : undefined;
    return picture ? [{ frame, number: index + 1, shape: shapeOf(picture) }] : [];
  }));
  const groups = shapes.map((shape) => ({ shape, slides: shaped.filter((each) => each.shape === shape) })).filter(({ slides }) => slides.length > 0);
  const [fewest, ...others] = groups.toSorted((a, b) => a.slides.length - b.slides.length);
  const [odd] = fewest?.slides ?? [];
  if (!odd || others.length === 0) return [];
  const which = groups.map(({ shape, slides }) => `${slideNumbers(slides.map(({ number }) => number))} ${slides.length === 1 ? 'is' : 'are'} ${shape}`);
  return [about(`The pictures have unequal shapes: ${which.join(', ')}. Look whether their window cuts off what counts.`, odd.frame)];
}

function isClip(frame: Frame, pictures: readonly PictureTerms[]): boolean {
  return Object.values(frame.slots).some((value) => value.kind === 'picture' && pictures.some(({ id, recording }) => id === value.mediaId && recording?.kind === 'clip'));
}

/** What a slide shows is the alt text of its picture, or what is written on it. */
function altTextFix(frame: Frame, texts: readonly string[], pictures: readonly PictureTerms[]): Finding['fix'] {
  const shown = Object.values(frame.slots).flatMap((value) => (value.kind === 'picture' ? [value.mediaId] : []));
  const picture = pictures.find(({ id, altText }) => id === shown[0] && altText.trim() !== '');
  if (picture) return { label: 'Take the picture’s alt text', change: { kind: 'write-slide-alt', frame: frame.id, text: picture.altText } };
  return texts.length === 0 ? null : { label: 'Take its words', change: { kind: 'write-slide-alt', frame: frame.id, text: texts.map((text) => (/[.!?…]$/u.test(text) ? text : `${text}.`)).join(' ') } };
}

/** Where a carousel cannot go out whole. */
function countFindings(piece: Piece, template: Template, { ref, sheet, placement, slides, left }: CutToCheck): readonly Finding[] {
  const where = `${sheet.name} ${placement.name}`;
  const cut = `${ref.channelId}.${ref.placement}`;
  const found: Finding[] = [];
  const say = (severity: Finding['severity'], sentence: string, fix: Finding['fix'] = null): void => void found.push({ severity, sentence, cut, view: 'look', fix });
  const behind = left.filter(({ because }) => because !== 'chosen');
  const rule = placement.carousel;
  if (slides.length === 0) say('stops', `${where} has no slide left. Take one back in.`);
  else if (rule?.as === 'document' && slides.length < rule.least) say('stops', `${where} is a document of at least ${rule.least} pages, and has ${slides.length}.`);
  if (rule && behind.length > 0) say('warns', `${where} takes ${rule.most} slides: ${numbersOf(piece, behind.map(({ frame }) => frame))} stay${behind.length === 1 ? 's' : ''} behind.`);
  if (!rule && behind.length > 0) say('warns', `${where} takes no carousel: slide ${piece.frames.findIndex((frame) => frame.id === slides[0]?.frame.id) + 1} goes alone.`, sumSlide(template) ? { label: 'Gather all in one picture', change: { kind: 'gather', cut } } : null);
  return found;
}

/** Numbers of slides as people write them: `5`, `5 and 6`, `5 to 8`. */
function numbersOf(piece: Piece, frames: readonly Frame[]): string {
  return slideNumbers(frames.map((frame) => piece.frames.findIndex((each) => each.id === frame.id) + 1));
}

function slideNumbers(numbers: readonly number[]): string {
  const [first = 0, last = 0] = [numbers[0], numbers.at(-1)];
  if (numbers.length === 1) return `slide ${first}`;
  if (last - first === numbers.length - 1 && numbers.length > 2) return `slides ${first} to ${last}`;
  return `slides ${numbers.slice(0, -1).join(', ')} and ${last}`;
}

function about(sentence: string, frame: Frame): Finding {
  return { severity: 'warns', sentence, cut: null, slide: frame.id, view: 'look', fix: null };
}
