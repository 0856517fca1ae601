import { roleMay } from '../../../core/access/access.ts';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { schedulePiece } from '../../../contract/send-contracts.ts';
import type { BodyOf } from '../../../contract/contract.ts';
import { formatMoment } from '../../../core/time/wall-time.ts';
import { ApiProblem, call } from '../../ui/call.ts';
import { Button } from '../../ui/Button.tsx';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { toast } from '../../ui/toast.tsx';
import { useNow } from '../../ui/use-now.ts';
import { useBadges } from '../../post/DeliveryRow.tsx';
import { MomentFields, nextQuarter, type ChosenMoment } from '../../post/MomentFields.tsx';
import { groupByPost, PostGroup } from '../../post/PostGroup.tsx';
import { useDeliveries } from '../../post/use-deliveries.ts';
import type { ViewProps } from '../view-props.ts';
import type { Cut } from '../use-cuts.ts';

interface TimesProps extends ViewProps {
  readonly nowMs: number;
}

type When = BodyOf<typeof schedulePiece>['when'];

const HOUR_MS = 3_600_000;

/** When and where: the cuts that go out, the moment in the brand's zone, and what of this piece is already on its way. */
export function TimesView(props: TimesProps) {
  const { brand, cuts, store, pieceId } = props;
  const nowMs = useNow(props.nowMs);
  const [chosen, setChosen] = useState<Readonly<Record<string, string | null>>>(() => usualChoice(cuts.list));
  const [moment, setMoment] = useState<ChosenMoment>(() => ({ wall: nextQuarter(nowMs + HOUR_MS, brand.zone) }));
  const [problem, setProblem] = useState<string | null>(null);
  const keys = Object.values(chosen).filter((key) => key !== null);
  const schedule = useMutation({
    mutationFn: async (when: When) => {
      await store.flush();
      const { revision } = store.getState();
      return call(schedulePiece, { params: { brand: brand.slug, piece: pieceId }, body: { revision, cuts: cuts.list.filter((cut) => keys.includes(cut.key)).map((cut) => ({ ...cut.ref })), when } });
    },
    onSuccess: ({ deliveries }, when) => {
      setProblem(null);
      const first = deliveries[0];
      const places = `${deliveries.length} ${deliveries.length === 1 ? 'place' : 'places'}`;
      toast('done', when.kind === 'now' ? `On its way to ${places}.` : `Scheduled in ${places} for ${formatMoment(first?.dueMs ?? nowMs, brand.zone)}.`);
    },
    onError: (error) => {
      if (!(error instanceof ApiProblem)) throw error;
      setProblem(error.message);
    },
  });
  const maySend = roleMay(brand.role, 'send');
  const disabled = !maySend || keys.length === 0 || schedule.isPending;
  return (
    <section aria-label="Times" className="min-w-0 flex-1 overflow-auto px-6 py-5">
      <div className="grid max-w-3xl grid-cols-2 gap-10">
        <CutChoice cuts={cuts.list} chosen={chosen} onChange={setChosen} />
        <div>
          <h2 className="mb-3 text-base font-semibold">When</h2>
          <MomentFields moment={moment} zone={brand.zone} nowMs={nowMs} onChange={setMoment} />
          {!maySend && <p className="mt-2 text-sm text-quiet">As {brand.role} you may look, but an owner or designer sends.</p>}
          {problem && (
            <p role="alert" className="mt-2 text-sm font-medium text-coral-ink">
              {problem}
            </p>
          )}
          <div className="mt-4 flex gap-2">
            <Button look="primary" disabled={disabled} onClick={() => schedule.mutate({ kind: 'at', ...moment })}>
              Schedule in {keys.length} {keys.length === 1 ? 'place' : 'places'}
            </Button>
            <Button disabled={disabled} onClick={() => schedule.mutate({ kind: 'now' })}>
              Send now
            </Button>
          </div>
        </div>
      </div>
      <OnItsWay {...props} nowMs={nowMs} />
    </section>
  );
}

/** Cuts that show in the same place of a channel are alternatives: one of them goes out, or none. */
function usualChoice(cuts: readonly Cut[]): Readonly<Record<string, string | null>> {
  const chosen: Record<string, string> = {};
  for (const cut of cuts) {
    const place = placeOf(cut);
    const before = cuts.find((each) => each.key === chosen[place]);
    // What shows more of a carousel goes first; of several shapes the tallest takes most of a reader's screen.
    const more = cut.slides.length - (before?.slides.length ?? 0);
    if (!before || more > 0 || (more === 0 && aspectOf(cut) < aspectOf(before))) chosen[place] = cut.key;
  }
  return chosen;
}

const placeOf = (cut: Cut): string => `${cut.channel.id}.${cut.placement.surface}`;
const aspectOf = (cut: Cut): number => cut.placement.exportPx.width / cut.placement.exportPx.height;

interface CutChoiceProps {
  readonly cuts: readonly Cut[];
  readonly chosen: Readonly<Record<string, string | null>>;
  readonly onChange: (chosen: Readonly<Record<string, string | null>>) => void;
}

function CutChoice({ cuts, chosen, onChange }: CutChoiceProps) {
  const places = [...new Set(cuts.map(placeOf))];
  return (
    <div>
      <h2 className="mb-3 text-base font-semibold">Where</h2>
      <ul className="border-t border-line">
        {places.map((place) => {
          const here = cuts.filter((cut) => placeOf(cut) === place);
          const first = here[0];
          if (!first) return null;
          return (
            <li key={place} className="border-b border-line py-2.5">
              <fieldset>
                <legend className="flex items-center gap-2 text-sm font-semibold">
                  <ChannelBadge badge={first.sheet.badge} size={16} />
                  {first.channel.name} <span className="font-normal text-quiet">{first.placement.surface}</span>
                </legend>
                <div className="mt-1 flex flex-wrap gap-x-4 gap-y-1 pl-6 text-sm">
                  {here.map((cut) => (
                    <label key={cut.key} className="flex items-center gap-1.5">
                      <input type="radio" name={place} checked={chosen[place] === cut.key} onChange={() => onChange({ ...chosen, [place]: cut.key })} className="accent-house" />
                      {cut.placement.name}
                    </label>
                  ))}
                  <label className="flex items-center gap-1.5 text-quiet">
                    <input type="radio" name={place} checked={chosen[place] === null} onChange={() => onChange({ ...chosen, [place]: null })} className="accent-house" />
                    leave out
                  </label>
                </div>
              </fieldset>
            </li>
          );
        })}
      </ul>
    </div>
  );
}

function OnItsWay({ brand, pieceId, nowMs }: TimesProps) {
  const badges = useBadges(brand.slug);
  const deliveries = useDeliveries(brand.slug, { piece: pieceId }, 20);
  const { items } = deliveries;
  if (items.length === 0) return null;
  return (
    <section aria-labelledby="on-its-way" className="mt-9 max-w-3xl">
      <h2 id="on-its-way" className="mb-2 text-base font-semibold">
        Posts of this piece
      </h2>
      <ul className="border-t border-line">
        {groupByPost(items).map((post) => (
          <li key={post.deliveries[0].id}>
            <PostGroup brand={brand} post={post} badges={badges} nowMs={nowMs} isBesidePiece />
          </li>
        ))}
      </ul>
      {deliveries.hasNextPage && (
        <div className="mt-3">
          <Button onClick={() => void deliveries.fetchNextPage()}>Show earlier ones</Button>
        </div>
      )}
    </section>
  );
}
