import type { Tone } from '../../core/plan/plan.ts';

const grounds: Readonly<Record<Tone, string>> = {
  blue: 'bg-tone-blue',
  red: 'bg-tone-red',
  olive: 'bg-tone-olive',
  violet: 'bg-tone-violet',
  umber: 'bg-tone-umber',
  teal: 'bg-tone-teal',
  pink: 'bg-tone-pink',
  slate: 'bg-tone-slate',
};

/** A theme's or campaign's sign: its colour and its letter, so that neither is needed alone. */
export function ThemeTile({ theme, size = 'small' }: { readonly theme: { readonly name: string; readonly letter: string; readonly tone: Tone }; readonly size?: 'small' | 'large' }) {
  return (
    <span title={theme.name} className={`inline-grid shrink-0 place-items-center rounded-sm font-bold text-tone-ink ${grounds[theme.tone]} ${size === 'small' ? 'size-4 text-[10px] leading-none' : 'size-5 text-xs'}`}>
      <span aria-hidden>{theme.letter}</span>
      <span className="sr-only">{theme.name}</span>
    </span>
  );
}

export function toneGround(tone: Tone): string {
  return grounds[tone];
}
