import type { BrandBook } from '../../src/core/brand/brand-book.ts';

/** A bow-tail kite: four panels, a spar gap between them, a tail with two bows. The first path is the main colour. */
function kiteMark(main: string, panel: string, accent: string): BrandBook['marks'][number]['paths'] {
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
  version: 1,
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
    display: { font: 'unbounded-700', leading: 1.06, trackingEm: -0.025, capitals: 'as-written' },
    heading: { font: 'unbounded-500', leading: 1.16, trackingEm: -0.02, capitals: 'as-written' },
    text: { font: 'figtree-500', leading: 1.34, trackingEm: 0, capitals: 'as-written' },
    label: { font: 'figtree-700', leading: 1.3, trackingEm: 0.075, capitals: 'all' },
  },
  marks: [
    { key: 'kite-light', for: 'light', viewBox: { width: 92, height: 121 }, paths: kiteMark('#12355B', '#D7263D', '#F9B233') },
    { key: 'kite-dark', for: 'dark', viewBox: { width: 92, height: 121 }, paths: kiteMark('#F4F7F5', '#D7263D', '#F9B233') },
    { key: 'kite-yellow', for: 'light', viewBox: { width: 92, height: 121 }, paths: kiteMark('#12355B', '#D7263D', '#F4F7F5') },
  ],
};
