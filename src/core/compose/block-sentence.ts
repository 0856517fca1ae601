import type { CalmPlace } from '../template/parts.ts';
import type { ReadingHelp } from './reading-help.ts';
import type { InsteadOf, PlacedBlock, PlacedFront, SetBeside } from './report.ts';

const placeNames: Readonly<Record<CalmPlace, string>> = {
  'top-left': 'top left',
  top: 'top',
  'top-right': 'top right',
  left: 'left',
  right: 'right',
  'bottom-left': 'bottom left',
  bottom: 'bottom',
  'bottom-right': 'bottom right',
};

/** Says where words stand on a photograph and what makes them readable. */
export function blockSentence({ place, help }: PlacedBlock): string {
  return `Words at the ${placeNames[place]}, the calmest place of this crop; ${helpWords(help)}.`;
}

/** Says that a subject stands before letters, and how much of them it hides. */
export function frontSentence({ hiddenShare }: PlacedFront): string {
  return `The subject stands before the letters and hides ${percent(hiddenShare)} of them; each can still be told.`;
}

/** Says why words stand beside a photograph instead of on it. */
export function besideSentence({ seenShare, seenOnPhoto }: SetBeside): string {
  return `Words beside the photograph: ${percent(seenShare)} of its subject can be seen, with words on it ${percent(seenOnPhoto)}.`;
}

/** Says why a cut has the arrangement of another shape. */
export function insteadSentence({ seenShare, seenInIt }: InsteadOf): string {
  return `Arranged as for another shape: ${percent(seenShare)} of a subject can be seen, as usual ${percent(seenInIt)}.`;
}

function helpWords(help: ReadingHelp): string {
  switch (help.kind) {
    case 'none':
      return 'they need no help to be read';
    case 'gradient':
      return `a gradient of ${percent(help.share)} makes them readable`;
    case 'tint':
      return `a tint of ${percent(help.share)} over the picture makes them readable`;
    case 'panel':
      return 'a panel makes them readable, as no gradient is enough';
  }
}

function percent(share: number): string {
  return `${Math.round(share * 100)}%`;
}
