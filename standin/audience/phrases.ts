/** What people of the stand-in networks write. `question` gets a thank-you once it is answered. */
export interface Phrase {
  readonly text: string;
  readonly question?: true;
}

const say = (...texts: readonly string[]): readonly Phrase[] => texts.map((text) => ({ text }));
const ask = (...texts: readonly string[]): readonly Phrase[] => texts.map((text) => ({ text, question: true }));

export const commentPhrases: readonly Phrase[] = [
  ...say(
    'This made my Monday.', 'Look at that light!', 'My daughter wants one in every colour.', 'We were there on Saturday, best afternoon in months.', 'That red against the sky, goodness.', 'Sharing this with my whole street.',
    'I have had mine for nine years and it still goes up first time.', 'Saving this for the spring.', 'So well made.', 'You can tell somebody cares about the seams.', 'This is the good kind of post.', 'Wish I lived nearer.', 'The second picture is my new wallpaper.',
    'Wunderschön, viele Grüße aus Krumme Gasse!', 'Mine came on Tuesday and the box alone was a joy.', 'Proper craft, this.', 'Reminds me of my grandfather’s shed.', '😍😍😍', 'More of these please.', 'Tried it, failed, tried again, it works!', 'The tide table on the wall is a nice touch.',
  ),
  ...ask(
    'Is there still room this Saturday?', 'How much is it with postage?', 'Can a six-year-old join in?', 'Do you ship to the islands?', 'Which one would you take for light wind?', 'What time do you open on Sundays?', 'Is there parking close by?', 'Do you repair old ones too?', 'Will there be another one before the holidays?',
    'Can I bring a dog?', 'Habt ihr auch Gutscheine?', 'What happens if it rains?', 'Is the blue one coming back?', 'Could you do this for a school class of 24?',
  ),
];

export const complaintPhrases: readonly Phrase[] = ask('Ordered twelve days ago and nothing has come. Can somebody look, please?', 'We stood before a closed door on Sunday although the page says open.', 'One of the two spars in my kit is split. What now?', 'The link in your last post leads nowhere.');

export const spamPhrases: readonly Phrase[] = say('Want 5,000 new followers by Friday? See my page 🔥', 'You have been chosen! Claim your prize on my profile', 'Make 400 a day from home, ask me how');

export const messagePhrases: readonly Phrase[] = [
  ...ask(
    'Hello! We would like to come with eleven people on a weekday. Is that possible, and what would it cost?', 'Hi, I lost the sheet with the order of the knots. Could you send it as a picture?', 'Good evening, do you sell the line on its own, fifty metres?', 'Is the workshop reachable with a wheelchair?',
    'I write for a small paper about the coast and would like to visit. When would suit you?', 'Guten Tag, kann man bei Ihnen auch mit Karte bezahlen?', 'My order says delivered but our neighbour has not got it either.', 'Could I change my place from the 5th to the 12th?', 'Do you lend kites for a day?', 'May we use your picture of the harbour for our notice board, with your name?',
  ),
  ...say('Just to say thank you for Saturday. The boys have not stopped talking about it.', 'I left a grey scarf in the loft. If it turns up, keep it for me?'),
];

export const mentionPhrases: readonly Phrase[] = say('Afternoon well spent with {handle}, and we only lost one.', 'If you are near the quay, go and see {handle}.', 'Present bought, at {handle}, where else.', 'Third time with {handle} this year and the wind finally played along.', 'Has anybody been to {handle}? Worth the drive?');

export const thanksPhrases: readonly Phrase[] = say('Thank you, that helps!', 'Perfect, see you then.', 'Brilliant, thanks for answering so quickly.', 'Danke!', 'Oh good. And is that every week?', 'Lovely, I will tell the others.');

/** What accounts post by themselves, without a program. */
export const ownPostPhrases: readonly string[] = ['Somebody left these on the step. Whoever you are: thank you.', 'Found behind the cupboard: the first price list we ever made.', 'Back in ten minutes. Probably fifteen.', 'The new kettle has arrived and it whistles in two notes.', 'First frost on the railing this morning.', 'Two hours of rain, then this.'];

/** First and last names of people who write. */
export const firstNames: readonly string[] = ['Alba', 'Bram', 'Cerys', 'Dario', 'Elspeth', 'Farid', 'Greta', 'Hugo', 'Imogen', 'Jarek', 'Keziah', 'Luc', 'Maren', 'Nils', 'Oona', 'Priya', 'Quentin', 'Rosa', 'Sanne', 'Tobias', 'Una', 'Viggo', 'Willa', 'Yusuf', 'Zelda'];
export const lastNames: readonly string[] = ['Achterberg', 'Bellweather', 'Crosthwaite', 'Dunmore', 'Ekholm', 'Fairbrass', 'Gillow', 'Hartigan', 'Ibsley', 'Jessop', 'Kerrich', 'Lowther', 'Mossgrave', 'Nettlefold', 'Okonjo', 'Pellew', 'Quillan', 'Ravenhill', 'Stannard', 'Tremlett', 'Umber', 'Vasey', 'Wolfenden', 'Yarwood'];
