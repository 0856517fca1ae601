import { type Box, intersectBoxes } from '../geometry/box.ts';
import type { CropWindow, Picture } from './crop-window.ts';
import { salientBox } from './salient-box.ts';
import { subjectBox, type BoxInPicture } from './subject-box.ts';

/** What a person points at in a picture without a known outline is taken to be so large, as a share of its sides. */
const POINTED_AT = 0.06;

/** The box of a picture's subject: around the outline that its focal point lies in, else around what a person has pointed at. Null for a mere guess. */
export function knownSubject({ facts, focal, focalBy }: Picture): BoxInPicture | null {
  const pointedAt = focalBy === 'person' ? { x: focal.x - POINTED_AT / 2, y: focal.y - POINTED_AT / 2, width: POINTED_AT, height: POINTED_AT } : null;
  return subjectBox(facts, focal) ?? pointedAt;
}

/** The box of a picture's subject as far as it can be told: the known one, or what stands out around its focal point. */
export function likelySubject(picture: Picture): BoxInPicture | null {
  const { facts, focal } = picture;
  return subjectBox(facts, focal) ?? salientBox(facts, focal) ?? knownSubject(picture);
}

/** A box of a picture where it stands in a cut that shows a window of it; null where it is cut off whole. */
export function boxInCut(part: BoxInPicture, { box, window }: { readonly box: Box; readonly window: CropWindow }): Box | null {
  const [across, down] = [box.widthPx / window.width, box.heightPx / window.height];
  return intersectBoxes(box, { xPx: box.xPx + (part.x - window.x) * across, yPx: box.yPx + (part.y - window.y) * down, widthPx: part.width * across, heightPx: part.height * down });
}
