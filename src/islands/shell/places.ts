/** The places, in the order of the job; the one we are in shows its views behind it. */
export const places = [
  { name: 'Brand', views: [
    { key: 'book', name: 'Book', path: 'brand/book' },
    { key: 'facts', name: 'Facts', path: 'brand/facts' },
    { key: 'voice', name: 'Voice', path: 'brand/voice' },
    { key: 'templates', name: 'Templates', path: 'brand/templates' },
  ] },
  { name: 'Make', views: [{ key: 'pieces', name: 'Pieces', path: 'make/pieces' }, { key: 'media', name: 'Media', path: 'make/media' }, { key: 'ideas', name: 'Ideas', path: 'make/ideas' }] },
  { name: 'Plan', views: [
    { key: 'lanes', name: 'Lanes', path: 'plan/lanes' },
    { key: 'month', name: 'Month', path: 'plan/month' },
    { key: 'week', name: 'Week', path: 'plan/week' },
    { key: 'list', name: 'List', path: 'plan/list' },
    { key: 'profile', name: 'Profile', path: 'plan/profile' },
    { key: 'rota', name: 'Rota', path: 'plan/rota' },
    { key: 'rotation', name: 'Rotation', path: 'plan/rotation' },
    { key: 'campaigns', name: 'Campaigns', path: 'plan/campaigns' },
  ] },
  { name: 'Send', views: [
    { key: 'sign-off', name: 'Sign-off', path: 'send/sign-off' },
    { key: 'outbox', name: 'Outbox', path: 'send/outbox' },
    { key: 'by-hand', name: 'By hand', path: 'send/by-hand' },
    { key: 'channels', name: 'Channels', path: 'send/channels' },
    { key: 'networks', name: 'Networks', path: 'send/networks' },
    { key: 'history', name: 'History', path: 'send/history' },
  ] },
  { name: 'Learn', views: [
    { key: 'results', name: 'Results', path: 'learn/results' },
    { key: 'replies', name: 'Replies', path: 'learn/replies' },
    { key: 'links', name: 'Links', path: 'learn/links' },
    { key: 'archive', name: 'Archive', path: 'learn/archive' },
  ] },
] as const;

/** The path of the first view of the place that an address names without a view; null where there is no such place. */
export function firstViewOf(place: string): string | null {
  return places.find(({ name }) => name.toLowerCase() === place)?.views[0].path ?? null;
}
