import { slideOf, slideTemplate } from '../template/slide-template.ts';
import type { Slot, Template } from '../template/template.ts';
import type { Frame, Piece, SlotValue } from './piece.ts';

type Family = 'words' | 'picture' | 'mark';

/** Texts and lists can take each other's place; pictures and marks only their own. */
const family = (kind: Slot['kind']): Family => (kind === 'picture' || kind === 'mark' ? kind : 'words');
const familyOfValue = ({ kind }: SlotValue): Family => (kind === 'picture' || kind === 'mark' ? kind : 'words');

/**
 * The content of a frame for another template. A value stays in a slot of the same name and family; what is left fills
 * the new template's empty required slots, in order. What finds no place stays in the frame under its old name, so that
 * changing back loses nothing; where the new template calls a slot for something else so, the name says what is kept.
 */
export function changeTemplate(frame: Frame, from: Template, to: Template): Frame {
  const slots: Record<string, SlotValue> = {};
  const homeless = from.slots.filter((slot) => {
    const value = frame.slots[slot.key];
    const target = to.slots.find((each) => each.key === slot.key && family(each.kind) === family(slot.kind));
    if (value && target) slots[slot.key] = value;
    return value !== undefined && !target;
  });
  // What an earlier template left behind comes back where its name fits, and is still kept where not.
  const leftBehind = Object.entries(frame.slots).filter(([key]) => !from.slots.some((slot) => slot.key === key));
  for (const [key, value] of leftBehind) {
    const name = nameIn(to, key, value);
    slots[slots[name] === undefined ? name : key] = value;
  }
  const open = to.slots.filter((slot) => slot.required && slots[slot.key] === undefined);
  for (const slot of homeless) {
    const value = frame.slots[slot.key];
    const place = open.findIndex((each) => family(each.kind) === family(slot.kind));
    const target = place < 0 ? undefined : open.splice(place, 1)[0];
    if (value) slots[target?.key ?? nameIn(to, slot.key, value)] = value;
  }
  return { ...frame, slots };
}

/** The name under which a template has a value: its own, or with its family where the template's slot of that name is for something else. */
function nameIn({ slots }: Template, key: string, value: SlotValue): string {
  const own = familyOfValue(value);
  const plain = key.endsWith(`-${own}`) ? key.slice(0, -own.length - 1) : key;
  const slot = slots.find((each) => each.key === plain);
  if (slot === undefined) return key;
  return family(slot.kind) === own ? plain : `${plain}-${own}`;
}

/** A piece in another template of its kind: every slide becomes the new template's slide of the same use. */
export function changeTemplateOfPiece(piece: Piece, from: Template, to: Template): Pick<Piece, 'template' | 'frames'> {
  const [first, ...rest] = piece.frames.map((frame) => changeSlide(frame, from, to, slideOfUse(to, from, frame.slide)));
  return { template: { key: to.key }, frames: [first ?? piece.frames[0], ...rest] };
}

/** A slide of another kind, with its content. */
export function changeSlide(frame: Frame, from: Template, to: Template, slide: string | undefined): Frame {
  const { slide: _, ...changed } = changeTemplate(frame, slideTemplate(from, frame.slide), slideTemplate(to, slide));
  return slide === undefined ? changed : { ...changed, slide };
}

function slideOfUse(to: Template, from: Template, slide: string | undefined): string | undefined {
  const use = slide === undefined ? undefined : slideOf(from, slide)?.use;
  if (use === undefined) return undefined;
  return (to.slides?.find((each) => each.use === use) ?? to.slides?.find((each) => each.use !== 'closing') ?? to.slides?.[0])?.key;
}

/** Texts of a frame that its template has no slot for. */
export function textsKeptAside(frame: Frame, template: Template): readonly { readonly slot: string; readonly text: string }[] {
  return Object.entries(frame.slots).flatMap(([slot, value]) => (value.kind === 'text' && !template.slots.some((each) => each.key === slot) ? [{ slot, text: value.text }] : []));
}
