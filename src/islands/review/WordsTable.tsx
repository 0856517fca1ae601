import type { RemarkPlace } from '../../core/post/remark-place.ts';
import { ChannelBadge } from '../channel/ChannelBadge.tsx';
import { numbered, type ReviewCut, type ShownReview } from './review-types.ts';

interface WordsTableProps {
  readonly review: ShownReview;
  readonly onPlace: ((place: RemarkPlace) => void) | null;
}

/** Cuts that go out with the same words on one channel stand in one row. */
function rowsOf(cuts: readonly ReviewCut[]): readonly (readonly [ReviewCut, readonly ReviewCut[]])[] {
  const rows = new Map<string, ReviewCut[]>();
  for (const cut of cuts) {
    const key = JSON.stringify([cut.channelName, cut.fields.filter((field) => field.key !== 'altText')]);
    rows.set(key, [...(rows.get(key) ?? []), cut]);
  }
  return [...rows.values()].flatMap((members) => (members[0] ? [[members[0], members] as const] : []));
}

/** The words of every channel exactly as they go out, with what preflight finds. */
export function WordsTable({ review, onPlace }: WordsTableProps) {
  const marks = numbered(review.remarks).filter(({ remark }) => remark.place?.kind === 'field' && !remark.isResolved);
  return (
    <table className="w-full border-collapse border border-line bg-panel text-sm max-sm:block">
      <thead className="max-sm:hidden">
        <tr className="border-b border-line text-left">
          <th className="w-44 px-3 py-2 font-semibold">Channel</th>
          <th className="px-3 py-2 font-semibold">Words as they go out</th>
          <th className="w-52 px-3 py-2 font-semibold">Preflight</th>
        </tr>
      </thead>
      <tbody className="max-sm:block">
        {rowsOf(review.cuts).map(([cut, members]) => (
          <tr key={cut.deliveryId} className="border-b border-line align-top max-sm:block max-sm:py-2">
            <th scope="row" className="px-3 py-2 text-left font-normal max-sm:block">
              <span className="flex items-center gap-2 font-medium">
                {cut.badge && <ChannelBadge badge={cut.badge} size={16} />}
                {cut.channelName}
              </span>
              <span className="mt-0.5 block text-xs text-quiet">{members.map(({ placementName }) => placementName).join(', ')}</span>
            </th>
            <td className="px-3 py-2 max-sm:block">
              {cut.fields.length === 0 && <span className="text-quiet">No words</span>}
              {cut.fields.map((field) => (
                <div key={field.key} className="mb-1.5 last:mb-0">
                  {field.key !== 'caption' && <span className="block text-xs text-quiet">{field.label}</span>}
                  <span className="break-words whitespace-pre-wrap">{field.text}</span>
                  {marks
                    .filter(({ remark }) => remark.place?.field === field.key && members.some(({ deliveryId }) => deliveryId === remark.place?.deliveryId))
                    .map(({ remark, number }) => (
                      <span key={remark.id} className="ml-1.5 inline-grid size-5 place-items-center rounded-full rounded-bl-none bg-house text-xs font-bold text-house-ink">
                        {number}
                      </span>
                    ))}
                  {onPlace && (
                    <button type="button" className="ml-2 text-xs text-house underline" aria-label={`Remark on ${field.label} of ${cut.channelName}`} onClick={() => onPlace({ kind: 'field', deliveryId: cut.deliveryId, field: field.key } as RemarkPlace)}>
                      Remark
                    </button>
                  )}
                </div>
              ))}
            </td>
            <td className="px-3 py-2 max-sm:block">
              <Findings cuts={members} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Findings({ cuts }: { readonly cuts: readonly ReviewCut[] }) {
  const findings = [...new Map(cuts.flatMap(({ findings: own }) => own).map((finding) => [finding.sentence, finding])).values()];
  if (findings.length === 0) {
    return (
      <span className="inline-flex items-center gap-1.5 text-mint-ink">
        <svg viewBox="0 0 16 16" width="11" height="11" aria-hidden>
          <circle cx="8" cy="8" r="7" fill="var(--c-mint)" />
        </svg>
        ready
      </span>
    );
  }
  return (
    <ul className="space-y-1">
      {findings.map(({ severity, sentence }) => (
        <li key={sentence} className={`flex gap-1.5 text-xs ${severity === 'stops' ? 'text-coral-ink' : ''}`}>
          <svg viewBox="0 0 16 16" className="mt-0.5 size-3 shrink-0" role="img" aria-label={severity === 'stops' ? 'Stops it:' : 'Note:'}>
            <path d={severity === 'stops' ? 'M8 1L15 8L8 15L1 8Z' : 'M8 1.5L15 14.5H1Z'} fill={severity === 'stops' ? 'var(--c-coral)' : 'var(--c-marigold)'} />
          </svg>
          {sentence}
        </li>
      ))}
    </ul>
  );
}
