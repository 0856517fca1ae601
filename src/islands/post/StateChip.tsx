import type { DeliveryState } from '../../core/post/delivery-state.ts';

/** Each state has a colour, a shape and a word, so that none rests on colour alone. */
const looks: Readonly<Record<DeliveryState, { readonly word: string; readonly path: string; readonly tone: string; readonly fill: string }>> = {
  'in review': { word: 'In review', path: 'M8 3C4.5 3 2 6 1 8c1 2 3.5 5 7 5s6-3 7-5c-1-2-3.5-5-7-5Zm0 2.2a2.8 2.8 0 1 1 0 5.6a2.8 2.8 0 0 1 0-5.6Z', tone: 'text-house', fill: 'var(--c-house)' },
  scheduled: { word: 'Scheduled', path: 'M8 1.5a6.5 6.5 0 1 1 0 13a6.5 6.5 0 0 1 0-13Zm0 1.8a4.7 4.7 0 1 0 0 9.4a4.7 4.7 0 0 0 0-9.4Z', tone: 'text-sky-ink', fill: 'var(--c-sky)' },
  held: { word: 'Held', path: 'M3 2h3.6v12H3Zm6.4 0H13v12H9.4Z', tone: 'text-marigold-ink', fill: 'var(--c-marigold)' },
  sending: { word: 'Sending', path: 'M2 2.5l12.5 5.5L2 13.5l2.6-5.5Z', tone: 'text-marigold-ink', fill: 'var(--c-marigold)' },
  'by hand': { word: 'By hand', path: 'M2 2h5v5H2Zm7 0h5v5H9ZM2 9h5v5H2Zm8.5 0h2v2h2v2h-2v2h-2v-2h-2v-2h2Z', tone: 'text-marigold-ink', fill: 'var(--c-marigold)' },
  sent: { word: 'Sent', path: 'M6.2 13.2L1.4 8.4l1.9-1.9l2.9 2.9l6.5-6.6l1.9 1.9Z', tone: 'text-mint-ink', fill: 'var(--c-mint)' },
  failed: { word: 'Failed', path: 'M4.8 1.2h6.4l3.6 3.6v6.4l-3.6 3.6H4.8L1.2 11.2V4.8Zm2.3 2.6v5h1.8v-5Zm0 6.4v1.9h1.8v-1.9Z', tone: 'text-coral-ink', fill: 'var(--c-coral)' },
  cancelled: { word: 'Cancelled', path: 'M2 7h12v2H2Z', tone: 'text-quiet', fill: 'var(--c-edge)' },
  removed: { word: 'Taken down', path: 'M7 2h2v6.5l2.5-2.5L13 7.5L8 12.5L3 7.5L4.500 6L7 8.5ZM2 13h12v1.5H2Z', tone: 'text-quiet', fill: 'var(--c-edge)' },
};

export function stateWord(state: DeliveryState): string {
  return looks[state].word;
}

export function StateChip({ state }: { readonly state: DeliveryState }) {
  const { word, path, tone, fill } = looks[state];
  return (
    <span className={`inline-flex items-center gap-1.5 text-sm font-medium ${tone}`}>
      <svg viewBox="0 0 16 16" width="12" height="12" aria-hidden>
        <path d={path} fill={fill} fillRule="evenodd" />
      </svg>
      {word}
    </span>
  );
}
