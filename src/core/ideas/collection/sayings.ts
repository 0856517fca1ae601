import { entriesIn, type CollectionEntry } from './entry.ts';

/** Sayings of our own, for a quote piece: no living or dead person said them. */
export const sayings: readonly CollectionEntry[] = [
  ...entriesIn('saying', 'work', `
    Good work is quiet until somebody needs it.
    Measure with care, then cut with courage.
    The second try is where the learning lives.
    A sharp tool forgives a tired hand.
    What is made slowly is seldom returned.
    The best shortcut is the way you know.
    Nobody sees the seam, and that is the point.
    Begin untidy, end exact.
    A mended thing has twice the story.
    Skill is patience that has been practised.
    Make it once as if you had to keep it.
    The last touch takes as long as the first half.
    An honest price is the shortest speech.
    Hands remember what heads forget.
    Details are promises.
    What you leave out shows what you meant.
    A workshop is a library of mistakes.
    Do less, and finish it.
    The work explains itself, if you let it.
    First make it hold, then make it shine.
    Every tool was somebody’s idea of help.
    You cannot rush glue.
    The plan is a friend, the material has the last word.
    Good enough is a place, not a hurry.
    Sweep the floor, and the next idea has room.
    Old hands ask new questions.
    The bench knows who sat there.
    Nothing is so practical as a good habit.
    Work that sings needs no sign.
    Half of making is choosing what not to make.
  `),
  ...entriesIn('saying', 'patience', `
    Some things are ready when they are ready.
    Slow is a direction.
    Waiting is part of the recipe.
    A day too early is as wrong as a day too late.
    Let it rest, and rest beside it.
    Whoever waits well has half of it already.
    The kettle boils for those who stay.
    Trees do not answer letters.
    Do not pull at what is growing.
    Tomorrow is also a tool.
    Every knot gives way to calm fingers.
    Time is the cheapest ingredient and the hardest to find.
    Quiet days build loud results.
    The tide does not hurry, and is never late.
    Small steps wear the smoothest path.
    Leave a little for next time.
    The long way has the better view.
    Who counts minutes misses hours.
    Nothing good was ever finished in a huff.
    Begin before you are ready, end after you are sure.
  `),
  ...entriesIn('saying', 'weather', `
    There is a job for every weather.
    Wind is only weather looking for company.
    Rain makes the inside bigger.
    A grey sky is a good listener.
    Fog teaches you the street by heart.
    The wind has no opinion, only a direction.
    Sun on the table is free furniture.
    A storm is a reason to stay and talk.
    First the boots, then the plans.
    Clouds are the sky’s rough drafts.
    Still air, busy hands.
    A good coat ends every argument with the rain.
    Dress for the wind, plan for the sun.
    summer: Shade is a luxury that grows on trees.
    summer: Long light, short to-do list.
    summer: Sand in the shoe is a good day’s receipt.
    summer: In the heat, ideas move first and people later.
    summer: An open window is half a holiday.
    winter: Frost draws better than we do.
    winter: A lit window is an invitation.
    winter: Cold hands, warm soup, good talk.
    winter: Snow is silence you can shovel.
    winter: The shortest day leaves the most room for lamps.
    autumn: Leaves know when to let go.
    autumn: Autumn puts the colours away one by one.
    autumn: The wind sorts out what was loose.
    autumn: A pocket with a chestnut is a calendar.
    spring: Every spring is somebody’s first.
    spring: The first warm day forgives the whole winter.
    spring: Seeds are plans with patience.
    spring: Open the shutters, count the birds, begin.
  `),
  ...entriesIn('saying', 'together', `
    A table is as long as you make room.
    Two see the crooked line sooner.
    Bring a friend, double the story.
    Good neighbours are a kind of tool.
    Shared bread needs no butter.
    Many small lights make one long evening.
    Ask, and half the town knows somebody.
    What we build together nobody has to carry alone.
    The best seat is beside somebody.
    Guests make a house tidy and a day bright.
    A hand lent comes back with friends.
    Laughter is the cheapest way to fill a room.
    Company shortens every queue.
    The door is the best part of the house.
    Nobody remembers the food; everybody remembers the table.
    An invitation is a gift in advance.
    Tell it twice, and it is a tradition.
    Old friends, new plans.
    Where people mend together, they come back.
    Leave the chair as you would like to find it.
  `),
  ...entriesIn('saying', 'people', `
    Ask the quiet one; she has been watching.
    Everybody is a beginner at something.
    Curiosity is good manners for the mind.
    A question is a compliment.
    You grow into what you practise.
    Courage is mostly starting.
    The kindest critic holds the ladder.
    Be the person your tools think you are.
    Children see the thing; we see the price.
    Old recipes, new hands.
    Listen first; the answer is often in the question.
    Nobody is too busy for a good reason.
    Praise out loud, correct in a whisper.
    Trust grows at the speed of small promises.
    You are allowed to change your mind in the middle.
    The best teacher is one page ahead.
    Give people the good scissors.
    A name remembered is a door opened.
    Say thank you while the tea is hot.
    Pride is a job done when nobody looked.
  `),
  ...entriesIn('saying', 'learn', `
    Read the instructions, then read the room.
    A mistake you can name is half a lesson.
    Notes are letters to your later self.
    Know why, and the how gets lighter.
    A rule is an answer that forgot its question.
    Try it small.
    Drawing is thinking that leaves a trace.
    The map is for leaving the house, not for walking.
    Learn one thing well, and others come to sit beside it.
    Nobody knows it all, and that keeps the kettle busy.
    The dictionary is the cheapest holiday.
    If it is simple to explain, somebody worked hard.
    What you can teach you own twice.
    Look again; the second look is free.
    A good example saves a page.
    The right question weighs more than ten answers.
  `),
  ...entriesIn('saying', 'place', `
    Home is where the tools hang in the right order.
    Every street has its hour.
    A small shop is a large conversation.
    The best view is the one you sweep in front of.
    Stay long enough, and the place says your name.
    Doors remember who held them.
    There is a map in every pair of worn shoes.
    The corner you know is a country of its own.
    You arrive when somebody puts the kettle on.
    A harbour is a promise with walls.
    Local is not a distance but a habit.
    The nearest adventure is one street further.
  `),
  ...entriesIn('saying', 'thanks', `
    Thank you is a whole sentence.
    Gratitude needs no occasion, but likes a card.
    Every regular was once a stranger with a question.
    We are here because you came back.
    A year is made of people who dropped by.
    winter: The year was long, and you were in it.
    winter: Before the last page, one word: thanks.
    Good customers make good makers.
  `),
];
