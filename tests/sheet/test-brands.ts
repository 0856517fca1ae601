import { gullwickBook } from '../../demo/brands/gullwick.ts';
import { emptyVoice, markRoomOf, type BrandBook } from '../../src/core/brand/brand-book.ts';

/** Black, white and one typeface in two weights; its mark is a wordmark six times as wide as it is high. */
export const plainBook: BrandBook = {
  ...gullwickBook,
  colours: [
    { key: 'black', name: 'Black', hex: '#0A0A0A' },
    { key: 'white', name: 'White', hex: '#FFFFFF' },
    { key: 'grey', name: 'Grey', hex: '#E4E4E2' },
  ],
  schemes: [
    { key: 'light', name: 'Light', ground: 'white', surface: 'grey', ink: 'black', accent: 'black' },
    { key: 'dark', name: 'Dark', ground: 'black', surface: 'grey', ink: 'white', accent: 'white' },
    { key: 'bold', name: 'Bold', ground: 'grey', surface: 'white', ink: 'black', accent: 'black' },
  ],
  type: {
    display: { font: 'inter-700', leading: 1, trackingEm: -0.02, capitals: 'as-written', scale: 1 },
    heading: { font: 'inter-700', leading: 1.08, trackingEm: -0.01, capitals: 'as-written', scale: 1 },
    text: { font: 'inter-500', leading: 1.35, trackingEm: 0, capitals: 'as-written', scale: 1 },
    label: { font: 'inter-700', leading: 1.3, trackingEm: 0.06, capitals: 'all', scale: 1 },
  },
  typefaces: [],
  marks: (['light', 'dark'] as const).map((ground) => ({
    kind: 'vector',
    key: `bars-${ground}`,
    for: ground,
    ...markRoomOf({ width: 240, height: 40 }),
    viewBox: { width: 240, height: 40 },
    paths: [{ d: 'M0 0H40V40H0ZM52 0H66V40H52ZM78 0H118V14H92V26H118V40H78ZM130 0H144V26H170V40H130ZM182 0H240V14H182ZM182 26H240V40H182Z', fill: ground === 'light' ? '#0A0A0A' : '#FFFFFF' }],
  })),
  voice: emptyVoice,
};

/** Soft pastels with a light serif; its mark is tall and thin-lined. */
export const pastelBook: BrandBook = {
  ...plainBook,
  colours: [
    { key: 'petal', name: 'Petal', hex: '#F7E3E4' },
    { key: 'mist', name: 'Mist', hex: '#DDE7EE' },
    { key: 'sage', name: 'Sage', hex: '#CFDCCB' },
    { key: 'plum', name: 'Plum', hex: '#5B4157' },
    { key: 'clay', name: 'Clay', hex: '#8C4534' },
  ],
  schemes: [
    { key: 'light', name: 'Light', ground: 'petal', surface: 'mist', ink: 'plum', accent: 'clay' },
    { key: 'dark', name: 'Dark', ground: 'plum', surface: 'sage', ink: 'petal', accent: 'mist' },
    { key: 'bold', name: 'Bold', ground: 'sage', surface: 'petal', ink: 'plum', accent: 'clay' },
  ],
  type: {
    display: { font: 'lora-500', leading: 1.04, trackingEm: -0.01, capitals: 'as-written', scale: 1 },
    heading: { font: 'lora-500', leading: 1.14, trackingEm: 0, capitals: 'as-written', scale: 1 },
    text: { font: 'lora-500', leading: 1.4, trackingEm: 0, capitals: 'as-written', scale: 1 },
    label: { font: 'lora-700', leading: 1.3, trackingEm: 0.07, capitals: 'all', scale: 1 },
  },
  marks: (['light', 'dark'] as const).map((ground) => ({
    kind: 'vector',
    key: `stem-${ground}`,
    for: ground,
    ...markRoomOf({ width: 60, height: 110 }),
    viewBox: { width: 60, height: 110 },
    paths: [{ d: 'M28 110V44H32V110ZM30 50C4 46 2 20 8 2C28 8 36 26 30 50ZM30 50C56 46 58 22 52 6C34 12 24 28 30 50Z', fill: ground === 'light' ? '#5B4157' : '#F7E3E4' }],
  })),
};
