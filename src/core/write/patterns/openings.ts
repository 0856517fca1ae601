import { patternsIn, type Pattern } from './pattern.ts';

/** What a text may begin with. */
export const openings: readonly Pattern[] = [
  ...patternsIn(
    'plain',
    `
    This one is about {the thing}.
    A word on {the thing}.
    {Thing}, in short.
    {Thing}: what to know.
    Here is how it goes with {the thing}.
    What we mean when we say {thing}.
    {Thing}, as it is.
    Some notes on {the thing}.
    On the table this time: {thing}.
    Filed under {thing}.
    Looking into {the thing}?
    What is it about {the thing}?
    `,
  ),
  ...patternsIn(
    'warm',
    `
    For everybody who likes {the thing}.
    If you like {the thing}, this is for you.
    We keep coming back to {the thing}.
    {Thing}, and everybody who cares.
    There is a soft spot here for {the thing}.
    Pull up a chair: {thing}.
    Put the kettle on and let us talk about {the thing}.
    You asked us about {the thing}.
    A little something about {the thing}.
    Between you and us: {thing}.
    Who else likes {the thing}?
    Do you like {the thing} as much as we do?
    `,
  ),
  ...patternsIn(
    'bright',
    `
    {Thing}! Yes, really.
    Hello, {thing}.
    Make room for {the thing}.
    Guess what: {thing}.
    {Thing}, here we come.
    Clear the table for {the thing}.
    Ready, steady, {thing}.
    Somebody said {thing}?
    Hands up for {the thing}.
    Stop scrolling: {thing}.
    Say it with us: {thing}.
    Did somebody mention {the thing}?
    `,
  ),
  ...patternsIn(
    'calm',
    `
    Quietly, {thing}.
    Slowly, and with care: {thing}.
    A quiet word about {the thing}.
    {Thing}, without any hurry.
    Take a breath. {Thing}.
    Some things take their time. {Thing}, for instance.
    Nothing loud here: {thing}.
    Only this: {thing}.
    A moment for {the thing}.
    It begins with {the thing}.
    Have you thought about {the thing}?
    What would you do with {the thing}?
    `,
  ),
  ...patternsIn(
    'formal',
    `
    A note concerning {the thing}.
    We should like to draw your attention to {the thing}.
    With regard to {the thing}.
    {Thing}: a short overview.
    The following concerns {the thing}.
    Please note what follows about {the thing}.
    Today we turn to {the thing}.
    In brief, on {the thing}.
    An introduction to {the thing}.
    Our subject is {thing}.
    What should be said about {the thing}?
    Which part of {the thing} matters to you?
    `,
  ),
];
