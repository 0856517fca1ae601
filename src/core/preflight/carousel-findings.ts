import { slotText, type Frame, type Piece } from '../piece/piece.ts';
import { ownSlots } from '../piece/slides-of-cut.ts';
import { slideOf } from '../template/slide-template.ts';
import type { Template } from '../template/template.ts';
import { plural, type CutToCheck, type Finding, type PictureTerms } from './finding.ts';

/** What a slide that is seen for a few seconds can carry, in characters. */
const MOST_ON_A_SLIDE = 240;

/** What is about a carousel as a whole, and about what stays behind where. */
export function carouselFindings(piece: Piece, template: Template, cuts: readonly CutToCheck[], pictures: readonly PictureTerms[]): readonly Finding[] {
  if (piece.kind === 'graphic') return [];
  return [...coverFindings(piece, template), ...piece.frames.flatMap((frame, index) => slideFindings(piece, template, frame, index, pictures)), ...cuts.flatMap((cut) => countFindings(piece, cut))];
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

function isPoint(template: Template, frame: Frame): boolean {
  const use = frame.slide === undefined ? null : slideOf(template, frame.slide)?.use;
  return use === 'point' || use === 'picture';
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
  if (length > MOST_ON_A_SLIDE) found.push(about(`${name} carries ${length} characters; over ${MOST_ON_A_SLIDE} nobody reads on. Split it in two.`, frame));
  const hasAlt = (frame.altText ?? '').trim() !== '' || (index === 0 && piece.words.shared.altText.trim() !== '');
  if (!hasAlt) found.push({ ...about(`${name} has no alt text.`, frame), fix: altTextFix(frame, texts, pictures) });
  return found;
}

/** What a slide shows is the alt text of its picture, or what is written on it. */
function altTextFix(frame: Frame, texts: readonly string[], pictures: readonly PictureTerms[]): Finding['fix'] {
  const shown = Object.values(frame.slots).flatMap((value) => (value.kind === 'picture' ? [value.mediaId] : []));
  const picture = pictures.find(({ id, altText }) => id === shown[0] && altText.trim() !== '');
  if (picture) return { label: 'Take the picture’s alt text', change: { kind: 'write-slide-alt', frame: frame.id, text: picture.altText } };
  return texts.length === 0 ? null : { label: 'Take its words', change: { kind: 'write-slide-alt', frame: frame.id, text: texts.map((text) => (/[.!?…]$/u.test(text) ? text : `${text}.`)).join(' ') } };
}

/** Where a carousel cannot go out whole. */
function countFindings(piece: Piece, { ref, sheet, placement, slides, left }: CutToCheck): readonly Finding[] {
  const where = `${sheet.name} ${placement.name}`;
  const cut = `${ref.channelId}.${ref.placement}`;
  const found: Finding[] = [];
  const say = (severity: Finding['severity'], sentence: string): void => void found.push({ severity, sentence, cut, sheet: 'look', fix: null });
  const behind = left.filter(({ because }) => because !== 'chosen');
  const rule = placement.carousel;
  if (slides.length === 0) say('stops', `${where} has no slide left. Take one back in.`);
  else if (rule?.as === 'document' && slides.length < rule.least) say('stops', `${where} is a document of at least ${rule.least} pages, and has ${slides.length}.`);
  if (rule && behind.length > 0) say('warns', `${where} takes ${rule.most} slides: ${numbersOf(piece, behind.map(({ frame }) => frame))} stay${behind.length === 1 ? 's' : ''} behind.`);
  if (!rule && behind.length > 0) say('warns', `${where} takes no carousel: slide ${piece.frames.findIndex((frame) => frame.id === slides[0]?.frame.id) + 1} goes alone.`);
  return found;
}

/** Numbers of slides as people write them: `5`, `5 and 6`, `5 to 8`. */
function numbersOf(piece: Piece, frames: readonly Frame[]): string {
  const numbers = frames.map((frame) => piece.frames.findIndex((each) => each.id === frame.id) + 1);
  const [first = 0, last = 0] = [numbers[0], numbers.at(-1)];
  if (numbers.length === 1) return `slide ${first}`;
  if (last - first === numbers.length - 1 && numbers.length > 2) return `slides ${first} to ${last}`;
  return `slides ${numbers.slice(0, -1).join(', ')} and ${last}`;
}

function about(sentence: string, frame: Frame): Finding {
  return { severity: 'warns', sentence, cut: null, slide: frame.id, sheet: 'look', fix: null };
}
