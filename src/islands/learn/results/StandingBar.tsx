import { standingOf, type Usual } from '../../../core/results/usual.ts';

interface Standing {
  readonly value: number;
  readonly hours: number;
  readonly usual: Usual;
}

const words = { above: 'above what is usual', within: 'as usual', below: 'below what is usual' } as const;

/** How a post stands in what is usual: the band of the middle four fifths of earlier posts, and the post as a stroke. */
export function StandingBar({ standing }: { readonly standing: Standing | null }) {
  if (!standing) return <span className="text-xs text-quiet">—</span>;
  const { value, usual } = standing;
  if (usual.kind === 'too-few') return <span className="text-xs text-quiet">Too few to say ({usual.count})</span>;
  const top = Math.max(usual.high * 1.5, value * 1.06);
  const at = (each: number): number => (each / top) * 100;
  const says = standingOf(value, usual) ?? 'within';
  const sentence = `${(value * 100).toFixed(1)}% after ${ageWords(standing.hours)}: ${words[says]}, ${(usual.low * 100).toFixed(1)} to ${(usual.high * 100).toFixed(1)}%, of ${usual.count} earlier posts`;
  return (
    <span role="img" aria-label={sentence} title={sentence} className="relative block h-2 w-full min-w-24 rounded-full border border-line">
      <span className="absolute inset-y-0 bg-line" style={{ left: `${at(usual.low)}%`, width: `${at(usual.high) - at(usual.low)}%` }} />
      <span className={`absolute -inset-y-[5px] w-1 rounded-full ${says === 'below' ? 'bg-coral' : says === 'above' ? 'bg-house' : 'bg-edge'}`} style={{ left: `calc(${Math.min(98, at(value))}% - 2px)` }} />
    </span>
  );
}

export function ageWords(hours: number): string {
  return hours === 24 ? 'a day' : `${hours / 24} days`;
}
