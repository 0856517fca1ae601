/** Which cuts of a wall are painted: those in view first; the others follow while the video stands. */
export type WhichCuts = 'seen' | 'unseen';

/** What of the moment at hand is still to be painted; who owes the cuts in view owes the others, too. */
export type PaintDue = 'nothing' | WhichCuts;

export type PaintEvent =
  /** Another moment, or something on the page, is to be shown; or what was begun could not be painted. */
  | 'change'
  | 'begin'
  | 'painted-on-the-way'
  | 'painted-at-rest'
  | 'rest-painted'
  | 'rest-put-off';

/** While something is painted it is not due; a change meanwhile makes it due again, whatever comes of the painting. */
const transitions: Readonly<Record<PaintDue, Readonly<Record<PaintEvent, PaintDue>>>> = {
  nothing: { change: 'seen', begin: 'nothing', 'painted-on-the-way': 'nothing', 'painted-at-rest': 'unseen', 'rest-painted': 'nothing', 'rest-put-off': 'unseen' },
  seen: { change: 'seen', begin: 'nothing', 'painted-on-the-way': 'seen', 'painted-at-rest': 'seen', 'rest-painted': 'seen', 'rest-put-off': 'seen' },
  unseen: { change: 'seen', begin: 'nothing', 'painted-on-the-way': 'unseen', 'painted-at-rest': 'unseen', 'rest-painted': 'unseen', 'rest-put-off': 'unseen' },
};

export function nextDue(due: PaintDue, event: PaintEvent): PaintDue {
  return transitions[due][event];
}
