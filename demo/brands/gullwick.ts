import { usualMarkRoom, type BrandBook, type VectorMark } from '../../src/core/brand/brand-book.ts';

/** A bow-tail kite: four panels, a spar gap between them, a tail with two bows. The first path is the main colour. */
function kiteMark(main: string, panel: string, accent: string): VectorMark['paths'] {
  return [
    { d: 'M45 2L9 39H45ZM47 42V97L82 42Z', fill: main },
    { d: 'M48 2L84 39H48Z', fill: panel },
    { d: 'M44 42V97L9 42Z', fill: accent },
    { d: 'M45 97C44 108 52 113 61 110C70 107 75 112 77 119L80 118C78 108 70 104 60 107C53 109 47 106 48 97Z', fill: main },
    { d: 'M60 108L52 117L50 104ZM62 108L71 100L72 113Z', fill: panel },
  ];
}

/** Gullwick Kite Works: bright, precise, a little salty. */
export const gullwickBook: BrandBook = {
  version: 3,
  colours: [
    { key: 'signal-red', name: 'Signal Red', hex: '#D7263D' },
    { key: 'sail-yellow', name: 'Sail Yellow', hex: '#F9B233' },
    { key: 'sea-ink', name: 'Sea Ink', hex: '#12355B' },
    { key: 'deep-ink', name: 'Deep Ink', hex: '#1D4470' },
    { key: 'foam', name: 'Foam', hex: '#F4F7F5' },
    { key: 'dune', name: 'Dune', hex: '#E3C9A0' },
    { key: 'kelp', name: 'Kelp', hex: '#2F6B5B' },
  ],
  schemes: [
    { key: 'light', name: 'Light', ground: 'foam', surface: 'dune', ink: 'sea-ink', accent: 'signal-red' },
    { key: 'dark', name: 'Dark', ground: 'sea-ink', surface: 'deep-ink', ink: 'foam', accent: 'sail-yellow' },
    { key: 'bold', name: 'Bold', ground: 'sail-yellow', surface: 'foam', ink: 'sea-ink', accent: 'signal-red' },
  ],
  type: {
    display: { font: 'unbounded-700', leading: 1.06, trackingEm: -0.025, capitals: 'as-written', scale: 1 },
    heading: { font: 'unbounded-500', leading: 1.16, trackingEm: -0.02, capitals: 'as-written', scale: 1 },
    text: { font: 'figtree-500', leading: 1.34, trackingEm: 0, capitals: 'as-written', scale: 1 },
    label: { font: 'figtree-700', leading: 1.3, trackingEm: 0.075, capitals: 'all', scale: 1 },
  },
  typefaces: [],
  motif: 'tail',
  video: { manner: 'playful', coloursSaidWord: true },
  marks: [
    { kind: 'vector', key: 'kite-light', for: 'light', ...usualMarkRoom, viewBox: { width: 92, height: 121 }, paths: kiteMark('#12355B', '#D7263D', '#F9B233') },
    { kind: 'vector', key: 'kite-dark', for: 'dark', ...usualMarkRoom, viewBox: { width: 92, height: 121 }, paths: kiteMark('#F4F7F5', '#D7263D', '#F9B233') },
    { kind: 'vector', key: 'kite-yellow', for: 'light', ...usualMarkRoom, viewBox: { width: 92, height: 121 }, paths: kiteMark('#12355B', '#D7263D', '#F4F7F5') },
  ],
  facts: [
    { key: 'site', name: 'Site', text: 'gullwickkites.example' },
    { key: 'phone', name: 'Phone', text: '01632 960 184' },
    { key: 'workshop', name: 'Workshop', text: 'The Old Net Loft, Gullwick Quay' },
    { key: 'handle', name: 'Handle', text: '@gullwickkites' },
    { key: 'booking', name: 'Booking link', text: 'https://gullwickkites.example/afternoons' },
    { key: 'hours-mon', name: 'Hours Monday', text: 'closed' },
    { key: 'hours-tue', name: 'Hours Tuesday', text: '10 to 5' },
    { key: 'hours-wed', name: 'Hours Wednesday', text: '10 to 5' },
    { key: 'hours-thu', name: 'Hours Thursday', text: '10 to 5' },
    { key: 'hours-fri', name: 'Hours Friday', text: '10 to 6' },
    { key: 'hours-sat', name: 'Hours Saturday', text: '9 to 6' },
    { key: 'hours-sun', name: 'Hours Sunday', text: '11 to 4' },
  ],
  voice: {
    guidance: 'Say what it is, then what the wind does to it. Numbers where we have them. One joke at most, and never about the weather forecast.',
    tone: 'Bright, precise, a little salty; someone with sand in their shoes.',
    words: [
      { avoid: 'content', prefer: '' },
      { avoid: 'unleash', prefer: 'let go' },
      { avoid: 'elevate', prefer: 'lift' },
      { avoid: 'customers', prefer: 'fliers' },
    ],
    hashtags: ['#GullwickKites', '#BuildAKite', '#BigBlow'],
    firstComment: '',
    link: 'https://gullwickkites.example',
    snippets: [
      { key: 'book-a-bench', name: 'Book a bench', text: 'Benches are free until they are not: {site}, or ring {phone}.' },
      { key: 'where-we-are', name: 'Where we are', text: '{workshop}. Up the outside stairs.' },
      { key: 'wind-line', name: 'Wind line', text: 'Wind on the quay: [force], from the [direction].' },
    ],
    hashtagSets: [
      { key: 'saturday-workshop', name: 'Saturday workshop', tags: ['#BuildAKite', '#KiteMaking', '#SaturdayWorkshop', '#MadeByHand'], theme: 'Workshops', networks: [] },
      { key: 'new-kites', name: 'New kites', tags: ['#GullwickKites', '#KiteDesign', '#Ripstop'], theme: 'New kites', networks: [] },
      { key: 'big-blow', name: 'Big Blow', tags: ['#BigBlow', '#KiteFestival', '#KiteWeekend'], theme: 'Big Blow', networks: ['petalry', 'hearthside'] },
    ],
    hashtagsAvoided: ['#kite', '#instakite'],
    maxHashtags: 12,
    emoji: 'few',
    people: [
      { key: 'marlow', name: 'Marlow Tregear', handles: { petalry: '@marlow.flies', quipline: '@marlowflies', hearthside: '@marlow.tregear' } },
      { key: 'quaymuseum', name: 'Gullwick Quay Museum', handles: { petalry: '@quaymuseum', hearthside: '@gullwickquaymuseum', guildrow: '@gullwick.quay.museum' } },
    ],
    networks: {
      petalry: { order: ['caption', 'hashtags'], hashtagsIn: 'firstComment', firstComment: '', link: '' },
      guildrow: { order: ['caption', 'link', 'hashtags'], hashtagsIn: 'caption', firstComment: '', link: '' },
    },
    readingEase: 60,
    campaign: 'utm_source={network}&utm_medium=post&utm_campaign={piece}',
  },
};
