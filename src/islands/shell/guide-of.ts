import type { View } from './Bar.tsx';

/** Where the guide tells of each view. */
const pages: Readonly<Record<View, string>> = {
  today: 'today',
  book: 'brand#book',
  facts: 'brand#facts',
  voice: 'brand#voice',
  templates: 'brand#templates',
  pieces: 'make#pieces',
  piece: 'make#a-piece',
  media: 'make#media',
  ideas: 'ideas',
  lanes: 'plan#lanes',
  month: 'plan#month-week-and-list',
  week: 'plan#month-week-and-list',
  list: 'plan#month-week-and-list',
  profile: 'plan#profile',
  rota: 'plan#rota',
  rotation: 'plan#rotation',
  campaigns: 'plan#campaigns',
  'sign-off': 'send#sign-off',
  outbox: 'send#outbox',
  'by-hand': 'send#by-hand',
  channels: 'send#channels',
  networks: 'send#networks',
  history: 'send#history',
  results: 'learn#results',
  replies: 'learn#replies',
  links: 'learn#links',
  archive: 'learn#archive',
  exchange: 'exchange',
  account: 'first-day',
};

/** The page of the guide for a view. */
export function guideOf(view: View | null): string {
  return `/guide/${view === null ? 'first-day' : pages[view]}`;
}
