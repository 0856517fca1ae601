import CircleCheck from 'lucide-react/icons/circle-check';
import { useMemo } from 'react';
import { preflight, type Finding } from '../../core/preflight/preflight.ts';
import type { Piece } from '../../core/piece/piece.ts';
import type { Template } from '../../core/template/template.ts';
import type { SheetKey } from './PieceHeader.tsx';
import type { Cuts } from './use-cuts.ts';

interface RailProps {
  readonly piece: Piece;
  readonly template: Template;
  readonly cuts: Cuts;
  readonly sheet: SheetKey;
  readonly onSheet: (sheet: SheetKey) => void;
}

/** What would stop or spoil the piece at sending, beside all three sheets. */
export function PreflightRail({ piece, template, cuts, sheet, onSheet }: RailProps) {
  const findings = useMemo(() => preflight(piece, template, cuts.toCheck), [piece, template, cuts.toCheck]);
  const stops = findings.filter((finding) => finding.severity === 'stops').length;
  return (
    <aside aria-label="Preflight" className="flex w-60 shrink-0 flex-col border-l border-line bg-panel">
      <div className="border-b border-line px-3.5 py-2.5">
        <h2 className="text-sm font-semibold">Preflight</h2>
        <p className="text-xs text-quiet" role="status">
          {findings.length === 0 ? 'Ready to go out' : stops === 0 ? 'Can go out as it is' : stops === 1 ? 'One thing stops it' : `${stops} things stop it`}
        </p>
      </div>
      {findings.length === 0 ? (
        <p className="flex gap-2 px-3.5 py-3 text-sm text-mint-ink">
          <CircleCheck aria-hidden className="mt-0.5 size-4 shrink-0" />
          Every cut fits and every network takes the words.
        </p>
      ) : (
        <ul className="min-h-0 flex-1 overflow-auto">
          {findings.map((finding) => (
            <FindingRow key={`${finding.cut ?? ''}${finding.sentence}`} finding={finding} here={finding.sheet === sheet} onSheet={onSheet} />
          ))}
        </ul>
      )}
    </aside>
  );
}

function FindingRow({ finding, here, onSheet }: { readonly finding: Finding; readonly here: boolean; readonly onSheet: (sheet: SheetKey) => void }) {
  const stops = finding.severity === 'stops';
  return (
    <li className="border-b border-line px-3.5 py-2.5 text-sm" data-severity={finding.severity}>
      <span className="flex gap-2">
        <svg viewBox="0 0 12 12" className="mt-1 size-3 shrink-0" aria-hidden>
          {stops ? <path d="M3.6.5h4.8l3.1 3.1v4.8l-3.1 3.1H3.6L.5 8.4V3.6Z" fill="var(--c-coral)" /> : <path d="M6 .8 11.6 11H.4Z" fill="var(--c-marigold)" />}
        </svg>
        <span>
          <span className="sr-only">{stops ? 'Stops: ' : 'Warns: '}</span>
          {finding.sentence}
          {!here && (
            <button type="button" onClick={() => onSheet(finding.sheet)} className="ml-1 font-medium text-house underline">
              Go to {finding.sheet === 'look' ? 'Look' : 'Words'}
            </button>
          )}
        </span>
      </span>
    </li>
  );
}
