import { patternsIn, type Pattern } from './pattern.ts';

/** What a text may ask its readers to do. A pattern with a fact in it is used where the brand has that fact. */
export const calls: readonly Pattern[] = [
  ...patternsIn(
    'plain',
    `
    More at {site}.
    Book at {booking}.
    Ring {phone}.
    Find us: {workshop}.
    Write to us at {email}.
    All there is to know: {site}.
    Save this for later.
    Send it to somebody who should see it.
    Tell us what you think.
    What would you ask us?
    Which part would you try first?
    Questions? Ask below.
    `,
  ),
  ...patternsIn(
    'warm',
    `
    Come by: {workshop}.
    Ring us on {phone}, we like to talk.
    Have a look round at {site}.
    Keep a place at {booking}.
    Bring somebody you like.
    Send this to a friend who would enjoy it.
    Tell us yours below.
    We would love to hear from you.
    Keep it for a rainy day.
    Who would you bring along?
    What is your story?
    Who comes to your mind?
    `,
  ),
  ...patternsIn(
    'bright',
    `
    Off you go: {site}.
    Grab a place: {booking}.
    Ring {phone}, quick!
    See you here: {workshop}.
    Tag the friend who needs this.
    Save it, share it, do it.
    Tell us everything!
    Go on, try it.
    Pass it on!
    Are you in?
    Who is first?
    What are you waiting for?
    `,
  ),
  ...patternsIn(
    'calm',
    `
    When you are ready: {site}.
    There is room at {booking}.
    We are there on {phone}.
    You will find us here: {workshop}.
    Keep it for when you need it.
    Take your time with it.
    Share it if it helps.
    Leave a word below, if you like.
    Read it again when it is quiet.
    What comes to your mind?
    How do you do it?
    What would you add?
    `,
  ),
  ...patternsIn(
    'formal',
    `
    Further information: {site}.
    Please book at {booking}.
    Please call {phone}.
    Our address: {workshop}.
    Please write to {email}.
    We look forward to your questions.
    Please share this with whom it may concern.
    We are pleased to answer your questions below.
    Please keep this for your records.
    May we hear your opinion?
    How may we help?
    Which question may we answer?
    `,
  ),
];
