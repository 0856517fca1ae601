import type { DemoPiece } from './pieces.ts';

/** A slide as its maker would enter it; the first one is the cover. */
export interface DemoSlide {
  readonly slide?: string;
  readonly photo?: string;
  /** A picture that runs through all slides; it lies on the cover. */
  readonly panorama?: string;
  readonly texts: Readonly<Record<string, string>>;
}

/** A carousel of the demo. */
export interface DemoCarousel extends Pick<DemoPiece, 'template' | 'caption' | 'own' | 'out'> {
  readonly slides: readonly [DemoSlide, ...DemoSlide[]];
}

const point = (heading: string, text: string): DemoSlide => ({ slide: 'point', texts: { heading, text } });
const picture = (photo: string, heading: string, text: string): DemoSlide => ({ slide: 'picture', photo, texts: { heading, text } });

/** Three of different construction: a list, one picture through all slides, and a series of photographs. */
export const gullwickCarousels: readonly DemoCarousel[] = [
  {
    template: 'strand',
    slides: [
      { texts: { label: 'Worth knowing', headline: 'Five winds and the kite for each', line: 'From a breath to a blow' } },
      point('A breath: sled kites', 'No sticks, no fuss. Up before you have finished your tea.'),
      point('A light breeze: the diamond', 'Our first shape, and still the one we teach on Saturdays.'),
      point('A steady wind: deltas', 'They climb on their own and forgive a clumsy landing.'),
      point('A stiff one: box kites', 'Four cells, two people, gloves on. Worth it.'),
      point('A blow: stay in', 'Mend tails, drink tea, tell lies about last year.'),
      { slide: 'closing', texts: { headline: 'The wind is free. The rest is knots.', call: 'Book an afternoon' } },
    ],
    caption: 'Which kite for which wind? Swipe before you drive out to the dunes. Book an afternoon at {site}. #GullwickKites #BuildAKite',
    own: { kerbside: 'Which kite for which wind? Come by the loft and ask.' },
    out: { kind: 'now' },
  },
  {
    template: 'shoreline',
    slides: [
      { panorama: 'festival-sky.jpg', texts: { label: 'Big Blow', headline: 'One sky, end to end' } },
      point('The north end', 'Sleds and first kites. Somebody will hold the reel for you.'),
      point('The middle', 'The judges pretend not to have favourites.'),
      { slide: 'closing', texts: { headline: 'Late May, whatever the weather', call: 'Save the weekend' } },
    ],
    caption: 'The whole of last year’s Big Blow in one line of sky. Swipe along it. #BigBlow #GullwickKites',
    own: { kerbside: 'The Big Blow kite weekend is in late May.' },
    out: { kind: 'at', inDays: 2, time: '18:30' },
  },
  {
    template: 'sheaf',
    slides: [
      { photo: 'delta-backlit.jpg', texts: { label: 'Owners’ skies', headline: 'Six kites, one good week' } },
      picture('red-diamond-dunes.jpg', 'The diamond', 'Over the dunes at Penny Head, sent in on Monday.'),
      picture('box-kite-sunset.jpg', 'The box kite', 'Tuesday, ten minutes before the sea took the sun.'),
      picture('clip-figure-of-eight.mp4', 'Figure of eight', 'Wednesday, three tails and not one crash.'),
      picture('long-shadow.jpg', 'Its own shadow', 'Thursday, low sun, long lines.'),
      picture('misty-day.jpg', 'A grey Friday', 'It flew all the same.'),
      picture('beach-hut-shop.jpg', 'Home', 'Where all of them started.'),
      { slide: 'closing', texts: { headline: 'Send us yours', call: 'Tag us' } },
    ],
    caption: 'Your kites, your skies. Tag us and we show the best of the week. #GullwickKites',
    own: { kerbside: 'Your kites, your skies: send us a picture.' },
    out: { kind: 'at', inDays: 3, time: '17:00' },
  },
];

/** A walk through the night market, shed by shed. */
export const lanternfallCarousels: readonly DemoCarousel[] = [
  {
    template: 'sheaf',
    slides: [
      { photo: 'lanterns-over-stalls.jpg', texts: { label: 'Tonight', headline: 'An evening in five sheds', line: 'Follow the lanterns from left to right' } },
      picture('bamboo-steamers.jpg', 'Shed 3, five o’clock', 'The first lids go up. Stand where the steam goes.'),
      picture('noodle-bowl.jpg', 'Shed 4, six', 'Stall 14 takes its time. So should you.'),
      picture('lantern-close-up.jpg', 'Shed 5, seven', 'Fold a lantern; it hangs by eight.'),
      picture('harbour-lanterns.jpg', 'The jetty, nine', 'High water, and all of them twice.'),
      { slide: 'closing', texts: { headline: 'Fridays and Saturdays', call: 'From five till late' } },
    ],
    caption: 'An evening at Lanternfall, shed by shed. Fridays and Saturdays from five. #Lanternfall #NightMarket',
    own: {},
    out: { kind: 'draft' },
  },
];
