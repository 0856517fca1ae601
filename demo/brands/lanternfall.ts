import { emptyVoice, usualMarkRoom, type BrandBook, type VectorMark } from '../../src/core/brand/brand-book.ts';

/** A paper lantern on its string, ribs left open. The first path is the main colour. */
function lanternMark(main: string, glow: string): VectorMark['paths'] {
  return [
    { d: 'M26 22C8 32 6 72 26 86H31C17 70 17 38 31 22ZM74 22C92 32 94 72 74 86H69C83 70 83 38 69 22Z', fill: main },
    { d: 'M38 22C28 40 28 68 38 86H62C72 68 72 40 62 22Z', fill: glow },
    { d: 'M30 14H70V19H30ZM30 89H70V94H30ZM48 0H52V14H48ZM46 94H49V112H46ZM51 94H54V106H51Z', fill: main },
  ];
}

/** Lanternfall Night Market: a dark brand, lit from inside. */
export const lanternfallBook: BrandBook = {
  version: 3,
  colours: [
    { key: 'plum-night', name: 'Plum Night', hex: '#1E1222' },
    { key: 'plum-dusk', name: 'Plum Dusk', hex: '#3A2440' },
    { key: 'lantern', name: 'Lantern', hex: '#FF8A3D' },
    { key: 'jade', name: 'Jade', hex: '#3FB68B' },
    { key: 'rice', name: 'Rice White', hex: '#FBF3E6' },
  ],
  schemes: [
    { key: 'light', name: 'Light', ground: 'rice', surface: 'lantern', ink: 'plum-night', accent: 'plum-dusk' },
    { key: 'dark', name: 'Dark', ground: 'plum-night', surface: 'plum-dusk', ink: 'rice', accent: 'lantern' },
    { key: 'bold', name: 'Bold', ground: 'plum-night', surface: 'jade', ink: 'rice', accent: 'lantern' },
  ],
  type: {
    display: { font: 'gloock-400', leading: 1.02, trackingEm: -0.01, capitals: 'as-written', scale: 1 },
    heading: { font: 'gloock-400', leading: 1.1, trackingEm: 0, capitals: 'as-written', scale: 1 },
    text: { font: 'familjen-grotesk-500', leading: 1.32, trackingEm: 0, capitals: 'as-written', scale: 1 },
    label: { font: 'familjen-grotesk-700', leading: 1.3, trackingEm: 0.075, capitals: 'all', scale: 1 },
  },
  typefaces: [],
  motif: 'arcs',
  video: { manner: 'brisk', subtitles: 'label', coloursSaidWord: true },
  marks: [
    { kind: 'vector', key: 'lantern-dark', for: 'dark', ...usualMarkRoom, viewBox: { width: 100, height: 112 }, paths: lanternMark('#FBF3E6', '#FF8A3D') },
    { kind: 'vector', key: 'lantern-light', for: 'light', ...usualMarkRoom, viewBox: { width: 100, height: 112 }, paths: lanternMark('#1E1222', '#FF8A3D') },
  ],
  facts: [
    { key: 'site', name: 'Site', text: 'lanternfall.example' },
    { key: 'place', name: 'Place', text: 'Wharf Sheds 3 to 7, Lanternfall Harbour' },
    { key: 'handle', name: 'Handle', text: '@lanternfall' },
    { key: 'hours', name: 'Hours', text: 'Fridays and Saturdays, 5 till late' },
    { key: 'phone', name: 'Phone', text: '' },
  ],
  voice: {
    ...emptyVoice,
    guidance: 'Start with a smell, a sound or a light. Stalls have names; use them.',
    tone: 'Warm, low, unhurried, as if it were getting dark.',
    words: [
      { avoid: 'foodies', prefer: 'hungry people' },
      { avoid: 'vibes', prefer: '' },
    ],
    hashtags: ['#Lanternfall', '#NightMarket'],
    firstComment: '',
    link: 'https://lanternfall.example',
  },
};
