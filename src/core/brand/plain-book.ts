import { emptyVoice, usualMarkRoom, type BrandBook } from './brand-book.ts';

/** The brand book that a new brand starts with, until its own colours, type and marks are entered. */
export const plainBook: BrandBook = {
  version: 3,
  colours: [
    { key: 'paper', name: 'Paper', hex: '#FAFAF7' },
    { key: 'shade', name: 'Shade', hex: '#E4E2DB' },
    { key: 'night', name: 'Night', hex: '#1F2328' },
    { key: 'slate', name: 'Slate', hex: '#3A4048' },
    { key: 'spark', name: 'Spark', hex: '#C2452D' },
    { key: 'glow', name: 'Glow', hex: '#F2B84B' },
  ],
  schemes: [
    { key: 'light', name: 'Light', ground: 'paper', surface: 'shade', ink: 'night', accent: 'spark' },
    { key: 'dark', name: 'Dark', ground: 'night', surface: 'slate', ink: 'paper', accent: 'glow' },
    { key: 'bold', name: 'Bold', ground: 'glow', surface: 'paper', ink: 'night', accent: 'spark' },
  ],
  type: {
    display: { font: 'figtree-700', leading: 1.06, trackingEm: -0.015, capitals: 'as-written', scale: 1 },
    heading: { font: 'figtree-700', leading: 1.16, trackingEm: -0.01, capitals: 'as-written', scale: 1 },
    text: { font: 'figtree-500', leading: 1.34, trackingEm: 0, capitals: 'as-written', scale: 1 },
    label: { font: 'figtree-700', leading: 1.3, trackingEm: 0.075, capitals: 'all', scale: 1 },
  },
  typefaces: [],
  marks: [
    { kind: 'vector', key: 'dot-light', for: 'light', ...usualMarkRoom, viewBox: { width: 100, height: 100 }, paths: [{ d: 'M50 5A45 45 0 1 1 50 95A45 45 0 1 1 50 5Z', fill: '#1F2328' }] },
    { kind: 'vector', key: 'dot-dark', for: 'dark', ...usualMarkRoom, viewBox: { width: 100, height: 100 }, paths: [{ d: 'M50 5A45 45 0 1 1 50 95A45 45 0 1 1 50 5Z', fill: '#FAFAF7' }] },
  ],
  facts: [
    { key: 'site', name: 'Site', text: '' },
    { key: 'phone', name: 'Phone', text: '' },
    { key: 'handle', name: 'Handle', text: '' },
    { key: 'place', name: 'Place', text: '' },
    { key: 'hours', name: 'Hours', text: '' },
  ],
  voice: emptyVoice,
};
