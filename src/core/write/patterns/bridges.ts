import { patternsIn, type Pattern } from './pattern.ts';

/** What may stand between two thoughts. */
export const bridges: readonly Pattern[] = [
  ...patternsIn(
    'plain',
    `
    Here is the rest.
    And this as well.
    The details:
    In short:
    What else to know:
    One more thing.
    The rest follows.
    Briefly:
    `,
  ),
  ...patternsIn(
    'warm',
    `
    And because you asked:
    There is more, gladly.
    While you are here:
    Let us tell you the rest.
    A few things to take with you:
    Stay a moment longer.
    And, just between us:
    So that you know:
    `,
  ),
  ...patternsIn(
    'bright',
    `
    And there is more!
    Wait for it.
    Now for the good part.
    Here we go:
    That is not all.
    Hold on, there is more.
    The best comes now.
    Ta-da:
    `,
  ),
  ...patternsIn(
    'calm',
    `
    And then there is this.
    A little further on:
    In its own time:
    Nothing more than this:
    And so it goes on.
    The rest, unhurried:
    After that:
    Bit by bit:
    `,
  ),
  ...patternsIn(
    'formal',
    `
    In addition:
    In detail:
    For your information:
    The particulars are as follows.
    Further to this:
    To summarise:
    It should be added:
    Please note:
    `,
  ),
];
