import { useQuery } from '@tanstack/react-query';
import { suggestMoments } from '../../../contract/piece-plan-contracts.ts';
import { formatMoment } from '../../../core/time/wall-time.ts';
import type { Theme } from '../../../core/plan/plan.ts';
import { ThemeTile } from '../../plan/ThemeTile.tsx';
import { Button } from '../../ui/Button.tsx';
import { call } from '../../ui/call.ts';

interface GoodMomentsProps {
  readonly brand: { readonly slug: string; readonly zone: string };
  readonly channelIds: readonly string[];
  readonly theme: Theme | null;
  readonly mayChange: boolean;
  readonly onSlot: (slot: { readonly slotKey: string; readonly channelIds: readonly string[] }) => void;
  readonly onMoment: (wall: string) => void;
}

/** The next open slots of the rota, and the best few other moments with their reasons. */
export function GoodMoments({ brand, channelIds, theme, mayChange, onSlot, onMoment }: GoodMomentsProps) {
  const ids = [...channelIds].toSorted();
  const found = useQuery({
    queryKey: ['plan', brand.slug, 'suggestions', ids, theme?.id ?? null],
    enabled: ids.length > 0,
    queryFn: ({ signal }) => call(suggestMoments, { params: { brand: brand.slug }, body: { channelIds: ids, themeId: theme?.id ?? null }, signal }),
    placeholderData: (before) => before,
  });
  const short = (ms: number): string => formatMoment(ms, brand.zone).replace(/ \d{4},/, ',').replace(/ [^ ]+$/, '');
  return (
    <section aria-labelledby="good-moments">
      <h2 id="good-moments" className="text-base font-semibold">
        Good moments
      </h2>
      {ids.length === 0 && <p className="mt-1 text-sm text-quiet">Tick a place to see its open slots.</p>}
      {found.data && ids.length > 0 && (
        <>
          <h3 className="mt-2 text-sm font-semibold">Open slots</h3>
          {found.data.slots.length === 0 && <p className="text-sm text-quiet">{theme ? `The rota has no open slot for “${theme.name}” on these channels.` : 'The rota has no open slot that takes a piece without a theme.'}</p>}
          <ul className="mt-1 space-y-1">
            {found.data.slots.map((slot) => (
              <li key={slot.slotKey} className="flex items-center gap-2 text-sm">
                {theme && slot.themeId !== null && <ThemeTile theme={theme} />}
                <span className="min-w-0 flex-1 tabular-nums">
                  {short(slot.atMs)} <span className="text-xs text-quiet">{slot.channelIds.length} {slot.channelIds.length === 1 ? 'channel' : 'channels'}</span>
                </span>
                {mayChange && (
                  <Button size="small" aria-label={`Schedule in the slot of ${short(slot.atMs)}`} onClick={() => onSlot(slot)}>
                    Take it
                  </Button>
                )}
              </li>
            ))}
          </ul>
          <h3 className="mt-3 text-sm font-semibold">Suggestions</h3>
          <ul className="mt-1 space-y-1.5">
            {found.data.suggestions.map(({ wall, atMs, reasons }) => (
              <li key={wall} className="flex items-start gap-2 text-sm">
                <span className="min-w-0 flex-1">
                  <span className="block font-medium tabular-nums">{short(atMs)}</span>
                  <span className="block text-xs text-quiet">{reasons.join('; ')}</span>
                </span>
                <Button size="small" aria-label={`Use ${short(atMs)}`} onClick={() => onMoment(wall)}>
                  Use
                </Button>
              </li>
            ))}
          </ul>
          <p className="mt-1 text-xs text-quiet">By when people look, what else is out, and each network’s pace; by the brand’s own results once there are some.</p>
        </>
      )}
    </section>
  );
}
