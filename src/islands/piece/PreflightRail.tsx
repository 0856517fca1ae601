import CircleCheck from 'lucide-react/icons/circle-check';
import { useQuery } from '@tanstack/react-query';
import { memo, useDeferredValue, useMemo } from 'react';
import type { AnswerOf } from '../../contract/contract.ts';
import { listVideoExports } from '../../contract/video-contracts.ts';
import type { Finding } from '../../core/preflight/finding.ts';
import { applyFix } from '../../core/preflight/fix.ts';
import { groupFindings } from '../../core/preflight/group-findings.ts';
import { measureProblems } from '../../core/preflight/measure-problems.ts';
import { preflight } from '../../core/preflight/preflight.ts';
import { cutKey, type Piece } from '../../core/piece/piece.ts';
import type { Template } from '../../core/template/template.ts';
import type { BrandBook } from '../../core/brand/brand-book.ts';
import { call } from '../ui/call.ts';
import { Button } from '../ui/Button.tsx';
import { useNow } from '../ui/use-now.ts';
import { useSettled } from '../ui/use-settled.ts';
import type { MediaItem } from '../media/media-address.ts';
import type { PieceStore } from './piece-store.ts';
import { useCare } from './use-care.ts';
import type { ViewKey } from './PieceHeader.tsx';
import type { Cuts } from './use-cuts.ts';

interface RailProps {
  readonly brand: { readonly slug: string; readonly zone: string };
  readonly book: BrandBook;
  readonly media: ReadonlyMap<string, MediaItem>;
  readonly store: PieceStore;
  readonly pieceId: string;
  readonly readOnly: boolean;
  readonly nowMs: number;
  readonly piece: Piece;
  readonly template: Template;
  readonly toCheck: Cuts['toCheck'];
  readonly hasNoCuts: boolean;
  readonly view: ViewKey;
  readonly onView: (view: ViewKey) => void;
}

const HOUR_MS = 3_600_000;

/** A pause in typing after which the piece is looked at again. */
const PAUSE_MS = 150;

/** What would stop or spoil the piece at sending, beside all three views. It follows in the pauses of typing. */
export function PreflightRail({ cuts, piece, ...props }: Omit<RailProps, 'toCheck' | 'hasNoCuts'> & { readonly cuts: Pick<Cuts, 'toCheck' | 'list'> }) {
  return <Findings {...props} hasNoCuts={cuts.list.length === 0} piece={useDeferredValue(useSettled(piece, PAUSE_MS))} toCheck={useDeferredValue(useSettled(cuts.toCheck, PAUSE_MS))} />;
}

const Findings = memo(function Findings(props: RailProps) {
  const { brand, book, media, store, piece, template, toCheck, hasNoCuts } = props;
  // Licences end with a day; a check an hour is often enough.
  const atMs = Math.floor(useNow(props.nowMs) / HOUR_MS) * HOUR_MS;
  const found = useMemo(
    () => preflight({ piece, template, book, cuts: toCheck, pictures: [...media.values()], atMs, zone: brand.zone }),
    [piece, template, book, toCheck, media, atMs, brand.zone],
  );
  const videoExports = useQuery({ queryKey: ['video-exports', brand.slug, props.pieceId], queryFn: () => call(listVideoExports, { params: { brand: brand.slug, piece: props.pieceId } }), enabled: piece.kind === 'video' });
  const care = useCare({ brand, pieceId: props.pieceId, piece, book, cuts: toCheck, nowMs: atMs });
  const findings = useMemo(() => [...found, ...videoFindings(videoExports.data?.exports ?? [], toCheck), ...care], [found, videoExports.data, toCheck, care]);
  const groups = useMemo(() => groupFindings(findings, toCheck), [findings, toCheck]);
  const mend = (mended: readonly Finding[]): void =>
    store.change(`fix-${mended[0]?.sentence ?? ''}`, (draft) => {
      for (const { fix } of mended) if (fix) applyFix(draft, fix.change);
    });
  const stops = findings.filter((finding) => finding.severity === 'stops').length;
  return (
    <aside aria-label="Preflight" className="flex w-60 shrink-0 flex-col border-l border-line bg-panel max-md:w-full max-md:border-t max-md:border-l-0">
      <div className="border-b border-line px-3.5 py-2.5">
        <h2 className="text-sm font-semibold">Preflight</h2>
        <p className="text-xs text-quiet" role="status">
          {hasNoCuts ? 'Nothing to send yet' : findings.length === 0 ? 'Ready to go out' : stops === 0 ? 'Can go out as it is' : stops === 1 ? 'One thing stops it' : `${stops} things stop it`}
        </p>
      </div>
      {hasNoCuts && findings.length === 0 ? (
        <p className="px-3.5 py-3 text-sm text-quiet">The piece has no cuts, and nothing goes out without one.</p>
      ) : findings.length === 0 ? (
        <p className="flex gap-2 px-3.5 py-3 text-sm text-mint-ink">
          <CircleCheck aria-hidden className="mt-0.5 size-4 shrink-0" />
          Every cut fits and every network takes the words.
        </p>
      ) : (
        <ul className="min-h-0 flex-1 overflow-auto">
          {groups.map(({ lead, others }) => (
            <FindingRow key={`${lead.cut ?? ''}${lead.sentence}`} {...props} finding={lead} others={others} onFix={() => mend([lead, ...others])} />
          ))}
        </ul>
      )}
    </aside>
  );
});

/** What is wrong with the last made that was made of each cut, by what was measured on it. */
function videoFindings(videoExports: AnswerOf<typeof listVideoExports>['exports'], cuts: Cuts['toCheck']): readonly Finding[] {
  return cuts.flatMap(({ ref, sheet, placement }) => {
    const made = videoExports.find(({ channelId, placement: place, measures }) => channelId === ref.channelId && place === ref.placement && measures !== null);
    return made?.measures ? measureProblems(made.measures).map((problem): Finding => ({ severity: 'warns', sentence: `The video made for ${sheet.name} ${placement.name}: ${problem}`, cut: cutKey(ref), view: 'look', fix: null })) : [];
  });
}

const placeNames: Readonly<Record<Finding['view'], string>> = { look: 'Look', words: 'Words', facts: 'Facts', media: 'Media' };

/** One group of findings: the first in full, the others in a list that opens. */
function FindingRow({ finding, others, brand, view, readOnly, onView, onFix }: RailProps & { readonly finding: Finding; readonly others: readonly Finding[]; readonly onFix: () => void }) {
  const stops = finding.severity === 'stops';
  const { view: place } = finding;
  return (
    <li className="border-b border-line px-3.5 py-2.5 text-sm" data-severity={finding.severity}>
      <span className="flex gap-2">
        <svg viewBox="0 0 12 12" className="mt-1 size-3 shrink-0" aria-hidden>
          {stops ? <path d="M3.6.5h4.8l3.1 3.1v4.8l-3.1 3.1H3.6L.5 8.4V3.6Z" fill="var(--c-coral)" /> : <path d="M6 .8 11.6 11H.4Z" fill="var(--c-marigold)" />}
        </svg>
        <span>
          <span className="sr-only">{stops ? 'Stops: ' : 'Warns: '}</span>
          {finding.sentence}{' '}
          {place === 'look' || place === 'words' ? (
            place !== view && (
              <button type="button" onClick={() => onView(place)} className="font-medium text-house underline">
                Go to {placeNames[place]}
              </button>
            )
          ) : (
            <a href={place === 'facts' ? `/b/${brand.slug}/brand/facts` : `/b/${brand.slug}/make/media`} className="font-medium text-house underline">
              Go to {placeNames[place]}
            </a>
          )}
          {others.length > 0 && (
            <details className="mt-1 text-xs text-quiet">
              <summary>
                The same {others.length === 1 ? 'once more' : `${others.length} more times`}
              </summary>
              <ul className="mt-1 space-y-1">
                {others.map((other) => (
                  <li key={`${other.cut ?? ''}${other.sentence}`}>{other.sentence}</li>
                ))}
              </ul>
            </details>
          )}
          {finding.fix && !readOnly && (
            <Button size="small" className="mt-1.5 block" onClick={onFix}>
              {finding.fix.label}
              {others.length > 0 ? `, all ${others.length + 1}` : ''}
            </Button>
          )}
        </span>
      </span>
    </li>
  );
}
