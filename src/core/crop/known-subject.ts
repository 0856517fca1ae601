import { type Box, intersectBoxes } from '../geometry/box.ts';
import type { CropWindow, Picture } from './crop-window.ts';
import { salientBox } from './salient-box.ts';
import { boxAroundBoth, MOST_OF_SIDE, subjectBox, type BoxInPicture } from './subject-box.ts';
import { thingBox } from './things.ts';

/** What a person points at in a picture without a known outline is taken to be so large, as a share of its sides. */
const POINTED_AT = 0.06;
/** What comes so near to the edge of a picture, as a share of its side, may go on beyond it. */
const AT_EDGE = 0.02;

/** The box of a picture's subject: around the outline that its focal point lies in, else around what a person has pointed at. Null for a mere guess. */
export function knownSubject({ facts, focal, focalBy }: Picture): BoxInPicture | null {
  const pointedAt = focalBy === 'person' ? { x: focal.x - POINTED_AT / 2, y: focal.y - POINTED_AT / 2, width: POINTED_AT, height: POINTED_AT } : null;
  return subjectBox(facts, focal) ?? pointedAt;
}

/** The box of a picture's subject as far as it can be told: the one that can be seen, else where a person points. */
export function likelySubject(picture: Picture): BoxInPicture | null {
  return seenSubject(picture) ?? knownSubject(picture);
}

/** How far a picture's subject reaches: the box of its outline, else of the thing at its focal point with what stands out there. Null where neither is found. */
export function seenSubject({ facts, focal }: Picture): BoxInPicture | null {
  return subjectBox(facts, focal) ?? guessedBox(thingBox(facts, focal), salientBox(facts, focal));
}

/** A thing that has come apart is put together by what stands out across its parts, unless that leaves the picture. What takes nearly all of the picture is none. */
function guessedBox(thing: BoxInPicture | null, salient: BoxInPicture | null): BoxInPicture | null {
  const candidates = thing && salient ? [...(leaves(salient) ? [] : [boxAroundBoth(thing, salient)]), thing, salient] : [thing ?? salient];
  return candidates.find((box) => box !== null && box.width < MOST_OF_SIDE && box.height < MOST_OF_SIDE) ?? null;
}

const leaves = ({ x, y, width, height }: BoxInPicture): boolean => x <= AT_EDGE || y <= AT_EDGE || x + width >= 1 - AT_EDGE || y + height >= 1 - AT_EDGE;

/** A box of a picture where it stands in a cut that shows a window of it; null where it is cut off whole. */
export function boxInCut(part: BoxInPicture, { box, window }: { readonly box: Box; readonly window: CropWindow }): Box | null {
  const [across, down] = [box.widthPx / window.width, box.heightPx / window.height];
  return intersectBoxes(box, { xPx: box.xPx + (part.x - window.x) * across, yPx: box.yPx + (part.y - window.y) * down, widthPx: part.width * across, heightPx: part.height * down });
}
