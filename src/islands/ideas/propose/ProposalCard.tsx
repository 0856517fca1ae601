import { useState } from 'react';
import type { AnswerOf } from '../../../contract/contract.ts';
import type { propose } from '../../../contract/propose-contracts.ts';
import type { Variant } from '../../../core/ideas/propose/propose.ts';
import type { Trace } from '../../../core/ideas/propose/trace.ts';
import { ThemeTile } from '../../plan/ThemeTile.tsx';
import type { Wall } from '../../preview/wall.ts';
import { Button } from '../../ui/Button.tsx';
import { DraftPaintings } from '../DraftPaintings.tsx';
import type { DraftCut } from '../use-draft-wall.ts';
import type { IdeasContext } from '../ideas-context.ts';

type Proposal = AnswerOf<typeof propose>['proposals'][number];

/** A proposal on the screen, with its place in a series. */
export interface ProposalItem {
  readonly id: string;
  readonly proposal: Proposal;
  readonly does: 'announces' | 'tells' | 'sums-up' | null;
  readonly slot: { readonly key: string; readonly wall: string; readonly channelIds: readonly string[] } | null;
}

interface ProposalCardProps {
  readonly item: ProposalItem;
  readonly context: IdeasContext;
  readonly wall: Wall | null;
  readonly cuts: readonly DraftCut[];
  readonly isBusy: boolean;
  readonly onAgain: (variant: Variant) => void;
  readonly onKeep: () => void;
  readonly onDrop: () => void;
}

const doesWords = { announces: 'announces', tells: 'tells', 'sums-up': 'sums up' } as const;
const howWords: Readonly<Record<Trace['how'], string>> = { whole: 'as it stands', shortened: 'shortened by leaving words out', part: 'a part of it', heading: 'a heading of the text', fact: 'a fact of the brand', frame: 'a line of the desk’s that claims nothing' };

/** One proposal: its paintings, its caption, what can be changed, and where each of its texts comes from. */
export function ProposalCard({ item, context, wall, cuts, isBusy, onAgain, onKeep, onDrop }: ProposalCardProps) {
  const [isTracing, setTracing] = useState(false);
  const { proposal, does, slot } = item;
  const { variant } = proposal;
  const theme = proposal.themeId === null ? undefined : context.themes.get(proposal.themeId);
  const changes: readonly (readonly [string, Variant])[] = [
    ['Shorter', { ...variant, shorter: Math.min(4, variant.shorter + 1) }],
    [variant.asList ? 'Not as a list' : 'As a list', { ...variant, asList: !variant.asList, template: 0 }],
    ['Another template', { ...variant, template: variant.template + 1 }],
    ['Another picture', { ...variant, picture: variant.picture + 1 }],
    ['Other words', { ...variant, wording: variant.wording + 1 }],
  ];
  const traced = new Set<string>();
  return (
    <article className="rounded-md border border-line bg-panel p-3.5" aria-label={`Proposal, ${proposal.why[0] ?? proposal.form}`}>
      <div className="grid grid-cols-[auto_minmax(0,1fr)] gap-5 max-md:grid-cols-1">
        <DraftPaintings wall={wall} cuts={cuts} label={proposal.traces.find(({ place }) => place === 'headline' || place === 'quote')?.text ?? 'The proposed piece'} />
        <div className="flex min-w-0 flex-col text-sm">
          <p className="mb-1.5 flex flex-wrap items-center gap-2 text-xs text-quiet">
            {does && <span className="rounded-sm bg-sunk px-1.5 py-px font-semibold text-ink">{doesWords[does]}</span>}
            {slot && <span className="tabular-nums">{slot.wall.replace('T', ', ')}</span>}
            {does && !slot && <span className="text-marigold-ink">no open slot</span>}
            {theme && (
              <span className="flex items-center gap-1">
                <ThemeTile theme={theme} /> {theme.name}
              </span>
            )}
            <span className="ml-auto">{proposal.kind}</span>
          </p>
          <p dir="auto" className="whitespace-pre-wrap [overflow-wrap:anywhere]">
            {proposal.words.caption}
          </p>
          {proposal.words.hashtags !== '' && <p className="mt-1 text-quiet">{proposal.words.hashtags}</p>}
          <p className="mt-2 text-xs text-quiet">{proposal.why.join(' ')}</p>
          <div className="mt-auto flex flex-wrap items-center gap-1.5 pt-3">
            <Button size="small" look="primary" disabled={isBusy} onClick={onKeep}>
              Keep
            </Button>
            {changes.map(([label, next]) => (
              <Button key={label} size="small" disabled={isBusy} onClick={() => onAgain(next)}>
                {label}
              </Button>
            ))}
            <Button size="small" look="quiet" onClick={onDrop}>
              Drop
            </Button>
            <Button size="small" look="quiet" aria-expanded={isTracing} onClick={() => setTracing(!isTracing)}>
              Where from
            </Button>
          </div>
        </div>
      </div>
      {isTracing && (
        <table className="mt-3 w-full border-collapse border-t border-line text-xs">
          <caption className="sr-only">Where each text comes from</caption>
          <thead>
            <tr className="text-left text-quiet">
              <th scope="col" className="py-1 pr-3 font-medium">Text</th>
              <th scope="col" className="py-1 pr-3 font-medium">How</th>
              <th scope="col" className="py-1 font-medium">The source says</th>
            </tr>
          </thead>
          <tbody>
            {proposal.traces.filter(({ place, text }) => !traced.has(`${place} ${text}`) && traced.add(`${place} ${text}`)).map(({ place, text, how, sentence, original }) => (
              <tr key={`${place} ${text}`} className="border-t border-line align-top">
                <td className="py-1 pr-3">
                  <span className="text-quiet">{place}: </span>
                  {text}
                </td>
                <td className="py-1 pr-3 text-quiet">{howWords[how]}</td>
                <td className="py-1 text-quiet">{original === '' ? '—' : how === 'whole' ? `sentence ${sentence}` : `${sentence > 0 ? `sentence ${sentence}: ` : ''}${original}`}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </article>
  );
}
