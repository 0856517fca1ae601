/** What can be asked of the writing desk: a new text, or another form of one that is there. */
export const deskAsks = ['draft', 'shorter', 'longer', 'opening', 'question', 'list', 'calmer', 'brighter', 'formal', 'plainer'] as const;
export type DeskAsk = (typeof deskAsks)[number];
