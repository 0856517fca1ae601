import { entriesIn, type CollectionEntry } from './entry.ts';

/** Things to say when nothing comes to mind: each asks for something that only the brand can tell. */
export const prompts: readonly CollectionEntry[] = [
  ...entriesIn('prompt', 'behind', `
    Show the first hour of a working day, before anybody has come in.
    Show the tool that is used most, and what it looks like after a year.
    Show one thing three times: as raw material, half done, done.
    Show what went wrong this week, and what you did about it.
    Show the table, bench or desk exactly as it is now.
    Show the oldest thing in the room, and say why it is still there.
    Show the drawer that nobody else may open.
    Show how something is packed, from the empty box to the label.
    Show the note on the wall that everybody walks past.
    Show hands at work, and nothing else.
    Show the list of what has to be done today.
    Show the place where new things are tried out.
    Show what is thrown away, and what is kept instead.
    Show the last five minutes before closing.
  `),
  ...entriesIn('prompt', 'product', `
    Explain one detail that nobody notices until it is missing.
    Name the three questions that are asked most about it, with the answers.
    Tell what it is not made for.
    Compare the first version with the one of today.
    Tell what it costs, and what the price pays for.
    Show it in use by somebody who has had it for years.
    Show everything that comes with it, laid out side by side.
    Show it next to something of a known size.
    Tell how to look after it in three steps.
    Tell which one you would choose yourself, and for whom.
    Show the colour that sells least, and make its case.
    Tell what was left out on purpose.
    Show what it looks like after a hard year.
    Tell which one is the right one to begin with.
  `),
  ...entriesIn('prompt', 'people', `
    Introduce somebody who has not been shown yet: three questions, three answers.
    Tell who taught you the thing you do best.
    Ask somebody of the team for the best day of this month.
    Show a portrait of a regular, with their leave.
    Tell what a customer taught you.
    Let the newest person say what surprised them.
    Let the one who has been here longest say what has changed.
    Show two people who work on the same thing, one beside the other.
    Tell who does the work that nobody sees.
    Share the words of a customer, with their name and their leave.
  `),
  ...entriesIn('prompt', 'place', `
    Show the way to {workshop} as one walks it.
    Show the street at the hour when you open.
    Recommend three neighbours that are worth a visit.
    Show what can be seen from the window today.
    Tell how the place got its name.
    Show the corner that everybody photographs.
    Show where visitors can leave a bicycle, a dog or a pram.
    Tell what stood here before.
    Show the place at night.
    Tell the one thing that a visitor should not miss.
  `),
  ...entriesIn('prompt', 'learn', `
    Explain a word of the trade that outsiders get wrong.
    Give a tip that takes less than a minute.
    Clear up a mistake that you hear every week.
    Teach one step that beginners leave out.
    Show two ways of doing it, and when each is right.
    Tell what you would do differently if you began today.
    Make a list of five things to have ready before one starts.
    Explain how to tell good from cheap.
    Answer a question that came in this week.
    Recommend one book, film or page about your subject.
    Show how to mend something instead of replacing it.
    Explain a number that matters in your work.
  `),
  ...entriesIn('prompt', 'ask', `
    Let people choose between two: which one would they take?
    Ask what they would like to see made next.
    Ask for the worst advice that they were ever given about it.
    Ask for a photograph of theirs, and say what happens with it.
    Ask for a name for something new.
    Ask who they would bring along.
    Ask what keeps them from trying it.
    Let them guess what a close-up shows.
    Ask for one word about it.
    Ask where they first heard of you.
    Ask for their best place to use it.
  `),
  ...entriesIn('prompt', 'news', `
    Announce what is new, in one sentence and one picture.
    Tell what changes next month, and what stays.
    Count down the days to what is coming.
    Say what is nearly gone, and whether it comes back.
    Remind people how to book: {booking}.
    Tell the hours of the coming week.
    Tell where you can be met in the next weeks.
    Look back at what was promised a year ago.
    Say thank you for a number: visitors, pieces made, years.
    Tell what somebody else has written about you, with a link.
    Put what is on {site} into five lines.
  `),
  ...entriesIn('prompt', 'season', `
    spring: Show the first sign of spring at your door.
    spring: Show what leaves storage now.
    spring: Make a list of what to do before the first warm weekend.
    spring: Show the first thing made this spring.
    summer: Show how work changes when it is hot.
    summer: Tell when you are on holiday, and what to do meanwhile.
    summer: Show it outdoors, in the longest light.
    summer: Name three things to take along on a day out.
    autumn: Show what the wind has brought.
    autumn: Make a list for rainy afternoons.
    autumn: Tell what has to be done before the first frost.
    autumn: Begin the list of presents before everybody else does.
    winter: Show the window lit up from outside.
    winter: Tell until when to order, so that it arrives in time.
    winter: Name five presents for people who have everything.
    winter: Look back at the year in nine pictures.
    winter: Tell what you look forward to in the new year.
    winter: Show what keeps everybody warm at work.
  `),
  ...entriesIn('prompt', 'thanks', `
    Thank the suppliers by name, one picture each.
    Thank the first customer of all.
    Thank somebody who helped without being asked.
    Show the letter or card that hangs on the wall.
    Thank people for their patience, and say what they waited for.
    Tell what became of something that was bought years ago.
  `),
  ...entriesIn('prompt', 'together', `
    Invite people to something small: when, where, what to bring.
    Show what other people have made of it.
    Look back at an afternoon with guests, in five pictures.
    Work with a neighbour for a day, and show it.
    Tell which good cause gets something of what is sold.
    Ask for helping hands, and say what they get for it.
    Show the mess after a good party.
    Tell people how to join in: {site}.
  `),
  ...entriesIn('prompt', 'weather', `
    Show what the weather does to your work today.
    Say what is best done on a day like this.
    Show the sky above {workshop}.
    Tell what is done when it rains for a week.
    summer: Show the coolest place in the house.
    winter: Show what frost does, and what helps against it.
    autumn: Show the first storm from indoors.
  `),
];
