import { formatMoment } from '../../../core/time/wall-time.ts';
import type { Check } from './NetworksView.tsx';

/** Which scheduled posts would not pass a sheet, and where each is mended. */
export function Failing({ check, brand }: { readonly check: Check; readonly brand: { readonly slug: string; readonly zone: string } }) {
  const { failing, checked, scheduled } = check;
  return (
    <section aria-label="What is scheduled" className={`mb-5 rounded-md border bg-panel px-4 py-3 ${failing.length > 0 ? 'border-coral' : 'border-line'}`}>
      <h3 className="text-sm font-semibold">{failing.length === 0 ? `All ${checked} scheduled cuts there pass this sheet.` : `${failing.length} of ${checked} scheduled cuts there would not pass.`}</h3>
      {checked < scheduled && <p className="text-xs text-quiet">The soonest {checked} of {scheduled} were looked at.</p>}
      <ul className="mt-1 text-sm">
        {failing.map((each) => (
          <li key={`${each.postId}${each.channelName}${each.placementName}`} className="flex flex-wrap items-baseline gap-x-3 border-t border-line py-1.5">
            <span className="min-w-0 flex-1">
              <span className="font-medium">{each.pieceName}</span>{' '}
              <span className="text-quiet tabular-nums">
                {each.channelName}, {each.placementName}, {formatMoment(each.dueMs, brand.zone)}
              </span>
              <span className="block text-coral-ink">{each.sentence}</span>
            </span>
            <a href={`/b/${brand.slug}/make/pieces/${each.pieceId}`} className="font-medium text-house underline">
              Mend the piece
            </a>
          </li>
        ))}
      </ul>
      {failing.length > 0 && <p className="mt-1 text-xs text-quiet">They stay as they were scheduled. After mending a piece, update its posts in Plan or in the outbox.</p>}
    </section>
  );
}
