import { patternsIn, type Pattern } from './pattern.ts';

/** What a text may begin with. */
export const openings: readonly Pattern[] = [
  ...patternsIn(
    'plain',
    `
    This one is about {thing}.
    A word on {thing}.
    {Thing}, in short.
    {Thing}: what to know.
    Here is how it goes with {thing}.
    What we mean when we say {thing}.
    {Thing}, as it is.
    Some notes on {thing}.
    On the table this time: {thing}.
    Filed under {thing}.
    Looking into {thing}?
    What is it about {thing}?
    `,
  ),
  ...patternsIn(
    'warm',
    `
    For everybody who likes {thing}.
    If you like {thing}, this is for you.
    We keep coming back to {thing}.
    {Thing}, and everybody who cares about it.
    There is a soft spot here for {thing}.
    Pull up a chair: {thing}.
    Put the kettle on and let us talk about {thing}.
    You asked us about {thing}.
    A little something about {thing}.
    Between you and us: {thing}.
    Who else likes {thing}?
    Do you like {thing} as much as we do?
    `,
  ),
  ...patternsIn(
    'bright',
    `
    {Thing}! Yes, really.
    Hello, {thing}.
    Make room for {thing}.
    Guess what: {thing}.
    {Thing}, here we come.
    Clear the table for {thing}.
    Ready, steady, {thing}.
    Somebody said {thing}?
    Hands up for {thing}.
    Stop scrolling: {thing}.
    Say it with us: {thing}.
    Did somebody mention {thing}?
    `,
  ),
  ...patternsIn(
    'calm',
    `
    Quietly, {thing}.
    Slowly, and with care: {thing}.
    A quiet word about {thing}.
    {Thing}, without any hurry.
    Take a breath. {Thing}.
    Some things take their time. {Thing}, for instance.
    Nothing loud here: {thing}.
    Only this: {thing}.
    A moment for {thing}.
    It begins with {thing}.
    Have you thought about {thing}?
    What would you do with {thing}?
    `,
  ),
  ...patternsIn(
    'formal',
    `
    A note concerning {thing}.
    We should like to draw your attention to {thing}.
    With regard to {thing}.
    {Thing}: a short overview.
    The following concerns {thing}.
    Please note what follows about {thing}.
    Today we turn to {thing}.
    In brief, on {thing}.
    An introduction to {thing}.
    Our subject is {thing}.
    What should be said about {thing}?
    Which part of {thing} matters to you?
    `,
  ),
];
