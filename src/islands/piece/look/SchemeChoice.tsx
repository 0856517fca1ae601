import type { resolveScheme } from '../../../core/brand/brand-book.ts';

interface SchemeProps {
  readonly name: string;
  readonly colours: ReturnType<typeof resolveScheme>;
  readonly chosen: boolean;
  readonly onChoose: () => void;
}

/** A scheme by its colours: ground, ink and accent. */
export function SchemeChoice({ name, colours, chosen, onChoose }: SchemeProps) {
  return (
    <button type="button" role="radio" aria-checked={chosen} aria-label={name} title={name} onClick={onChoose} className={`flex h-6 overflow-hidden rounded-md border ${chosen ? 'border-house ring-1 ring-house' : 'border-line hover:border-edge'}`}>
      {[colours.ground, colours.ink, colours.accent].map((colour) => (
        <span key={colour} style={{ background: colour }} className="w-3" />
      ))}
    </button>
  );
}
