import { WordDiff } from '../ui/WordDiff.tsx';
import type { ShownReview } from './review-types.ts';

/** What differs from what was approved, word by word. */
export function ChangesSince({ changes }: Pick<ShownReview, 'changes'>) {
  if (changes.length === 0) return null;
  return (
    <section aria-label="What has changed since it was approved" className="mb-5 rounded-md border border-marigold bg-panel px-4 py-3">
      <h2 className="text-sm font-semibold">Changed since it was approved</h2>
      <ul className="mt-1.5 space-y-1.5 text-sm">
        {changes.map(({ place, before, now }) => (
          <li key={`${place}${before}${now}`}>
            <span className="block text-xs text-quiet">{place}</span>
            <WordDiff before={before} now={now} />
          </li>
        ))}
      </ul>
    </section>
  );
}
