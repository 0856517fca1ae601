import type { NetworkSheet } from '../../core/network/network-sheet.ts';

type Badge = NetworkSheet['badge'];

const outlines: Readonly<Record<Badge['shape'], string>> = {
  circle: 'M12 1.5a10.5 10.5 0 1 1 0 21a10.5 10.5 0 0 1 0-21Z',
  square: 'M3 2.5h18v19H3Z',
  triangle: 'M12 1.5L23 22H1Z',
  hexagon: 'M6.2 2.2h11.6L23.4 12l-5.6 9.8H6.2L.6 12Z',
  ring: 'M12 1.5a10.5 10.5 0 1 1 0 21a10.5 10.5 0 0 1 0-21Zm0 2.2a8.3 8.3 0 1 0 0 16.6a8.3 8.3 0 0 0 0-16.6Z',
  diamond: 'M12 .5L23.5 12L12 23.5L.5 12Z',
  pentagon: 'M12 1L23.2 9.3L19 22.5H5L.8 9.3Z',
  bar: 'M4 5.5h16a3.5 3.5 0 0 1 3.5 3.5v6a3.5 3.5 0 0 1-3.5 3.5H4A3.5 3.5 0 0 1 .5 15V9A3.5 3.5 0 0 1 4 5.5Z',
  arch: 'M3 22.5V11a9 9 0 0 1 18 0v11.5Z',
};
/** Where the letter sits so that it looks centred in its shape. */
const letterY: Partial<Record<Badge['shape'], number>> = { triangle: 19.8, arch: 18.4, pentagon: 17.4 };

/** A network's sign: a shape with a letter in it, told apart without colour. */
export function ChannelBadge({ badge, name, size = 20 }: { readonly badge: Badge; readonly name?: string; readonly size?: number }) {
  const hollow = badge.shape === 'ring';
  return (
    <svg viewBox="0 0 24 24" width={size} height={size} className="shrink-0" {...(name ? { role: 'img', 'aria-label': name } : { 'aria-hidden': true })}>
      <path d={outlines[badge.shape]} fill="var(--c-ink)" fillRule="evenodd" />
      <text x="12" y={letterY[badge.shape] ?? 16.4} textAnchor="middle" fontSize={badge.shape === 'triangle' ? 11.5 : 13} fontWeight="800" fill={hollow ? 'var(--c-ink)' : 'var(--c-panel)'}>
        {badge.letter}
      </text>
    </svg>
  );
}
