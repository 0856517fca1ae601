import { kindNames, type IdeaKind } from '../../../core/ideas/idea.ts';
import { Button } from '../../ui/Button.tsx';
import { PieceThumbnail } from '../../ui/PieceThumbnail.tsx';
import { ThemeTile } from '../ThemeTile.tsx';
import type { PlanContext } from '../use-plan.ts';
import { dayWords } from './LaneHead.tsx';
import type { ChosenPlacing, PlanCandidate, PlanProposal } from './use-plan-proposal.ts';

const spans = [7, 14, 28, 56] as const;

/** What a candidate is, in a word. */
export function candidateWord({ kind, ideaKind }: PlanCandidate): string {
  if (kind === 'piece') return 'Ready piece';
  if (kind === 'revival') return 'Again';
  return kindNames[ideaKind as IdeaKind] ?? 'Idea';
}

/** Beside the lanes: what could go into the open slots, and why. Nothing is kept until it is taken. */
export function ProposalPane({ context, proposal }: { readonly context: PlanContext; readonly proposal: PlanProposal }) {
  const { placings, empty, isBusy, days } = proposal;
  const isEmpty = !isBusy && placings.length === 0 && empty === 0;
  const hasRota = (context.plan?.plan.rota.rules.length ?? 0) > 0;
  const taken = placings.filter(({ isTaken }) => isTaken).length;
  return (
    <aside aria-label="Proposal for the open slots" className="flex w-84 shrink-0 flex-col rounded-md border border-house bg-panel max-lg:w-full">
      <div className="border-b border-line p-3">
        <div className="mb-1 flex items-baseline justify-between gap-2">
          <h2 className="font-heading text-base font-semibold">Fill open slots</h2>
          <Button size="small" look="quiet" onClick={proposal.close}>
            Close
          </Button>
        </div>
        <p className="text-xs text-quiet" role="status">
          {isBusy ? 'Looking for what fits…' : isEmpty ? 'There is nothing to fill.' : `${placings.length} of ${placings.length + empty} open ${placings.length + empty === 1 ? 'slot' : 'slots'} can be filled. Nothing is kept until you take it.`}
        </p>
        <div role="group" aria-label="How far ahead" className="mt-2 flex gap-1">
          {spans.map((span) => (
            <button key={span} type="button" aria-pressed={days === span} onClick={() => proposal.propose(span)} className={`rounded-md px-2 py-1 text-xs ${days === span ? 'bg-sunk font-semibold' : 'text-quiet hover:text-ink'}`}>
              {span === 7 ? '1 week' : `${span / 7} weeks`}
            </button>
          ))}
        </div>
      </div>
      <ol className="min-h-0 flex-1 divide-y divide-line overflow-auto">
        {placings.map((placing) => (
          <Placing key={placing.slotKey} placing={placing} context={context} proposal={proposal} />
        ))}
        {!isBusy && placings.length === 0 && <li className="p-4 text-sm text-quiet">{isEmpty ? (hasRota ? 'No slot of the rota is open in these weeks.' : 'Slots come from the rota, and it has none yet.') : 'Nothing that waits, no idea and no post of before fits these slots. Write notes on the shelf, or make pieces.'} {isEmpty && <a href={`/b/${context.brand.slug}/plan/rota`} className="font-medium text-house underline">{hasRota ? 'Look at the rota' : 'Make the rota'}</a>}</li>}
      </ol>
      <div className="border-t border-line p-3">
        <Button look="primary" disabled={isBusy || taken === 0} onClick={proposal.take}>
          {taken === placings.length && taken > 1 ? `Put all ${taken} in the plan` : `Put ${taken} in the plan`}
        </Button>
      </div>
    </aside>
  );
}

function Placing({ placing, context, proposal }: { readonly placing: ChosenPlacing; readonly context: PlanContext; readonly proposal: PlanProposal }) {
  const { chosen, wall, themeId, channelIds, why, others, slotKey, isTaken, candidate } = placing;
  const theme = themeId === null ? undefined : context.themes.get(themeId);
  const [day, time] = [wall.slice(0, 10), wall.slice(11)];
  return (
    <li className={`p-3 ${isTaken ? '' : 'opacity-60'}`}>
      <div className="flex items-center gap-2 text-xs text-quiet">
        <input type="checkbox" id={`placing ${slotKey}`} aria-label={`Take ${chosen.name}, ${day} ${time}`} checked={isTaken} onChange={() => proposal.toggle(slotKey)} className="size-4 accent-house" />
        <span className="tabular-nums">
          {dayWords(day, true)}, {time}
        </span>
        {theme && <ThemeTile theme={theme} />}
        <span className="ml-auto">
          {channelIds.length} {channelIds.length === 1 ? 'channel' : 'channels'}
        </span>
      </div>
      <div className="mt-1.5 flex gap-2.5">
        {chosen.pieceId !== null && <PieceThumbnail brand={context.brand.slug} piece={chosen.pieceId} className="size-11 shrink-0 rounded-md border border-line object-cover" />}
        <div className="min-w-0 flex-1">
          <p className="text-sm leading-snug font-semibold [overflow-wrap:anywhere]">{chosen.name}</p>
          <p className="mt-0.5 text-xs text-quiet">
            <span className="mr-1.5 rounded-sm bg-sunk px-1 py-px font-semibold text-ink">{candidateWord(chosen)}</span>
            {chosen.id === candidate.id ? why.slice(0, 3).join(' ') : 'You chose it.'}
          </p>
        </div>
      </div>
      <div className="mt-1.5 flex items-center gap-1">
        {others.length > 0 && (
          <select aria-label={`Another for ${day} ${time}`} value="" onChange={(event) => proposal.swap(slotKey, event.target.value)} className="h-7 min-w-0 flex-1 rounded-md border border-line bg-panel px-1.5 text-xs">
            <option value="">Next best…</option>
            {others.map((other) => (
              <option key={other.id} value={other.id}>
                {other.name} ({candidateWord(other)})
              </option>
            ))}
          </select>
        )}
        <Button size="small" look="quiet" onClick={() => proposal.drop(chosen.id)}>
          Not this
        </Button>
      </div>
    </li>
  );
}
