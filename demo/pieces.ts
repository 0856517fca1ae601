/** A piece of the demo as its maker would enter it. */
export interface DemoPiece {
  readonly template: string;
  readonly photo: string | null;
  /** A second picture, for templates that show two. */
  readonly second?: string;
  readonly texts: Readonly<Record<string, string>>;
  readonly caption: string;
  /** A shorter or other caption for the channel on one network. */
  readonly own: Readonly<Record<string, string>>;
  /** Captions that take turns with its own. */
  readonly variants?: readonly string[];
  /** When it goes out: at once, at a wall time so many days from the demo's start, or not yet. */
  readonly out: { readonly kind: 'now' } | { readonly kind: 'at'; readonly inDays: number; readonly time: string } | { readonly kind: 'draft' };
}

export const gullwickPieces: readonly DemoPiece[] = [
  {
    template: 'door',
    photo: null,
    texts: { headline: 'The loft is open', day: 'Saturday', line: 'Closed on the 25th, back on the 27th', place: '{workshop}' },
    caption: 'Come up the outside stairs; the kettle is behind the glue. Ring {phone} if the tide is in. #GullwickKites',
    own: {},
    out: { kind: 'draft' },
  },
  {
    template: 'counter',
    photo: 'cutout-sled-kite.png',
    texts: { price: '£24', headline: 'Sled kite, ready to fly', first: 'Ripstop, no spars', second: 'Packs to a fist' },
    caption: 'No spars, nothing to snap, and it goes in a coat pocket. At the hut and at {site}. #GullwickKites',
    own: {},
    out: { kind: 'draft' },
  },
  {
    template: 'turn',
    photo: 'workbench-flat-lay.jpg',
    second: 'red-diamond-dunes.jpg',
    texts: { first: 'Two o’clock', then: 'Five o’clock', headline: 'What an afternoon at the bench turns into' },
    caption: 'Same pieces, three hours apart. Book a bench at {site}. #BuildAKite',
    own: {},
    out: { kind: 'draft' },
  },
  {
    template: 'headland',
    photo: 'misty-day.jpg',
    texts: { label: 'Wind report', headline: 'No wind to speak of until Thursday', line: 'A good day to mend tails and wax line.' },
    caption: 'Flat calm on the quay, and the fog is staying for lunch. We are in the loft mending tails; the kettle is on if you bring your own mug. #GullwickKites',
    own: {},
    out: { kind: 'draft' },
  },
  {
    template: 'tally',
    photo: null,
    texts: { number: '312', headline: 'kites left the loft this year, each with its number under the spar', line: 'Counted on Friday' },
    caption: 'Three hundred and twelve, and we remember most of them. #GullwickKites',
    own: {},
    out: { kind: 'draft' },
  },
  {
    template: 'ledger',
    photo: null,
    texts: { headline: 'Before your first flight', points: 'Check the wind: 8 to 14 knots\nStand with your back to it\nLet the line run, then stop it\nWalk, do not run', line: 'Ask us at the hut' },
    caption: 'Four things, in this order. The rest you learn with the line in your hand. #BuildAKite',
    own: {},
    out: { kind: 'draft' },
  },
  {
    template: 'arch',
    photo: 'delta-backlit.jpg',
    texts: { label: 'New in the loft', headline: 'The rainbow delta, sewn by hand', line: 'Twenty of them, numbered under the spar.' },
    caption: 'Held against the sun it tells you exactly how it was made. Twenty rainbow deltas, ready to go. #GullwickKites',
    own: {},
    out: { kind: 'draft' },
  },
  {
    template: 'bill',
    photo: null,
    texts: { day: '5', label: 'December', headline: 'Night flight on the dunes', line: 'From five, bring a torch' },
    caption: 'Lights on the lines, soup in the hut. 5 December, from five in the evening. #GullwickKites #BigBlow',
    own: {},
    out: { kind: 'at', inDays: 6, time: '18:00' },
  },
  {
    template: 'headland',
    photo: 'beach-hut-shop.jpg',
    texts: { label: 'The hut', headline: 'The hatch is open again', line: 'Weekends until dusk, behind the second dune.' },
    caption: 'Bunting up, hatch open. Kits, line and spare spars at the hut every weekend until the light goes. #GullwickKites',
    own: {},
    out: { kind: 'draft' },
  },
  {
    template: 'headland',
    photo: 'box-kite-sunset.jpg',
    texts: { label: 'New kites', headline: 'The Box Kite is back', line: 'Forty of them, sewn in the loft this month.' },
    caption:
      'It hangs on almost no wind and looks like a lit lantern doing it. Forty box kites, sewn in the loft this month, each with its own number under the spar. Come and pick yours, or write and we will put one by. #GullwickKites #BuildAKite',
    own: { quipline: 'Forty box kites, sewn in the loft this month. They hang on almost no wind. #GullwickKites' },
    variants: ['Four longerons, two cells and hardly any wind: the Box Kite goes up when the others stay in the bag. Forty of them, each with its number under the spar. #GullwickKites', 'It looks like a lit lantern and flies like one that has made up its mind. The Box Kite is back in the loft. #GullwickKites #BuildAKite'],
    out: { kind: 'at', inDays: 2, time: '17:30' },
  },
  {
    template: 'aside',
    photo: null,
    texts: { headline: 'You hold the line, and the whole sky pulls back.', line: 'Ottoline Brack, kite maker' },
    caption: 'Ottoline, asked why she still does this after thirty years. #GullwickKites',
    own: {},
    out: { kind: 'now' },
  },
  {
    template: 'headland',
    photo: 'red-diamond-dunes.jpg',
    texts: { label: 'Saturday on the quay', headline: 'Build your own kite in an afternoon', line: 'The Old Net Loft, from 2 pm. Sails and string included.' },
    caption:
      'Come with empty hands, go home with a kite. Build-a-kite afternoon this Saturday from 2 pm in the Old Net Loft on Gullwick Quay. Sails, spars and string are there; bring somebody who will not mind holding the other end.\n\nBook a bench: 01632 960 184\n\n#GullwickKites #BuildAKite',
    own: { quipline: 'Come with empty hands, go home with a kite. Saturday, 2 pm, the Old Net Loft on Gullwick Quay. Sails and string included. #BuildAKite' },
    out: { kind: 'at', inDays: 1, time: '09:30' },
  },
];

export const lanternfallPieces: readonly DemoPiece[] = [
  {
    template: 'aside',
    photo: null,
    texts: { headline: 'The harbour goes quiet, and then the first wok lights.', line: 'Stall 14, every Friday' },
    caption: 'Friday, from dusk. #Lanternfall',
    own: {},
    out: { kind: 'draft' },
  },
  {
    template: 'lull',
    photo: 'harbour-lanterns.jpg',
    texts: { label: 'This Friday', headline: 'Sixty lanterns, one tide table', line: 'High water at nine. Come before it.' },
    caption: 'Sixty lanterns go up along the jetty on Friday, and the tide comes in under them at nine. Sheds 3 to 7 are open from five. #Lanternfall',
    own: { quipline: 'Sixty lanterns, one tide table. Friday, high water at nine. #Lanternfall' },
    out: { kind: 'at', inDays: 2, time: '12:00' },
  },
  {
    template: 'porthole',
    photo: 'noodle-bowl.jpg',
    texts: { label: 'Stall 14', headline: 'The late bowl', line: 'Broth since noon, eggs at the end.' },
    caption: 'The late bowl at stall 14: broth since noon, two eggs, and a queue that knows why. #Lanternfall #NightMarket',
    own: {},
    out: { kind: 'at', inDays: 4, time: '17:30' },
  },
  {
    template: 'plaque',
    photo: 'lanterns-over-stalls.jpg',
    texts: { label: 'First Fridays', offer: '2 for 1', headline: 'Dumplings, until the steamers are empty', until: 'Before seven, all summer' },
    caption: 'Come before seven on a first Friday: two dumplings for the price of one, until the steamers are empty. #Lanternfall',
    own: {},
    out: { kind: 'at', inDays: 6, time: '16:30' },
  },
  {
    template: 'shade',
    photo: 'bamboo-steamers.jpg',
    texts: { headline: 'You hear the lids before you see the steam.', line: 'Moana at stall 9' },
    caption: 'Ask Moana when they are ready. She listens. #Lanternfall',
    own: {},
    out: { kind: 'draft' },
  },
  {
    template: 'corner',
    photo: 'lantern-close-up.jpg',
    texts: { label: 'Look closer', headline: 'Rice paper, bamboo, one bulb', line: 'Folded in shed 5 by whoever is early.' },
    caption: 'Every lantern is folded in shed 5. If you are early, you fold one too. #Lanternfall',
    own: {},
    out: { kind: 'draft' },
  },
  {
    template: 'season',
    photo: 'paper-lanterns-row.jpg',
    texts: { headline: 'The longest evening', line: 'Nine lanterns, nine stalls, no hurry.' },
    caption: 'The longest evening of the year is ours. Nine lanterns, nine stalls, no hurry. #Lanternfall',
    own: {},
    out: { kind: 'draft' },
  },
  {
    template: 'either',
    photo: 'noodle-bowl.jpg',
    second: 'bamboo-steamers.jpg',
    texts: { headline: 'Cold night. What is it?', first: 'Bowl', then: 'Basket', line: 'Say it below; we count at nine.' },
    caption: 'Bowl or basket? We count your answers at nine and light the winner’s stall first. #Lanternfall',
    own: {},
    out: { kind: 'draft' },
  },
  {
    template: 'answer',
    photo: null,
    texts: { question: 'Is it on when it rains?', headline: 'The sheds have roofs. So yes.', line: 'Bring a coat for the jetty.' },
    caption: 'The question of every wet Friday, answered. #Lanternfall',
    own: {},
    out: { kind: 'draft' },
  },
  {
    template: 'ledger',
    photo: null,
    texts: { headline: 'Tonight, shed by shed', points: 'Shed 3: dumplings and hot lemon\nShed 4: noodles, stall 14\nShed 5: lanterns to fold\nShed 6: fish off the boats\nShed 7: sweet things, late', line: 'From five, until the last bowl is gone' },
    caption: 'What is where tonight. Save it; the jetty has no signal. #Lanternfall',
    own: {},
    out: { kind: 'draft' },
  },
  {
    template: 'volume',
    photo: null,
    texts: { label: 'People of the sheds', number: 'No. 4', headline: 'Moana, who hears when they are done' },
    caption: 'No. 4 of people of the sheds: Moana, stall 9. #Lanternfall',
    own: {},
    out: { kind: 'draft' },
  },
  {
    template: 'kit',
    photo: 'noodle-bowl.jpg',
    texts: { headline: 'The broth, for those who asked', time: '4 hours', amount: 'For six', points: 'Bones: 1.5 kg\nGinger: a thumb\nSpring onion: one bunch\nPatience: all of it' },
    caption: 'Stall 14 tells how it starts. How it ends, you have to taste. #Lanternfall',
    own: {},
    out: { kind: 'draft' },
  },
  {
    template: 'cutting',
    photo: null,
    texts: { headline: '“Come hungry, leave smelling of smoke and oranges.”', line: 'The Harbour Gazette', date: '20 November 2026' },
    caption: 'The Harbour Gazette came by. #Lanternfall',
    own: {},
    out: { kind: 'draft' },
  },
  {
    template: 'tally',
    photo: null,
    texts: { number: '1,140', headline: 'bowls went over the counter of stall 14 last month', line: 'Counted by the washing-up' },
    caption: 'One thousand one hundred and forty. The washing-up counted. #Lanternfall',
    own: {},
    out: { kind: 'draft' },
  },
];
