import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { AnswerOf } from '../../../contract/contract.ts';
import { keepRotation, listRotations } from '../../../contract/piece-plan-contracts.ts';
import { roleMay } from '../../../core/access/access.ts';
import { formatMoment } from '../../../core/time/wall-time.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { call } from '../../ui/call.ts';
import { Button } from '../../ui/Button.tsx';
import { PieceThumbnail } from '../../ui/PieceThumbnail.tsx';
import { Queries } from '../../ui/Queries.tsx';
import { EmptyBox } from '../../ui/EmptyBox.tsx';
import { toast } from '../../ui/toast.tsx';
import { ThemeTile } from '../ThemeTile.tsx';
import { usePlanContext, type PlanContext, type PlanProps } from '../use-plan.ts';

type Item = AnswerOf<typeof listRotations>['items'][number];

export default function RotationView(props: PlanProps) {
  return (
    <Queries>
      <RotationOf {...props} />
    </Queries>
  );
}

function RotationOf(props: PlanProps) {
  const context = usePlanContext(props);
  const { brand } = context;
  const rotations = useQuery({ queryKey: ['plan', brand.slug, 'rotations'], queryFn: () => call(listRotations, { params: { brand: brand.slug } }) });
  const items = rotations.data?.items ?? [];
  return (
    <main className="min-h-0 flex-1 overflow-auto px-4 py-4 md:px-6">
      <h1 className="text-xl font-semibold">Rotation</h1>
      <p className="mt-1 mb-4 max-w-2xl text-sm text-quiet">Evergreen pieces come round by themselves where a slot of the rota has nothing waiting: each wording with each picture, the pair that rested longest first.</p>
      {rotations.isError && <p className="text-sm text-coral-ink">{rotations.error.message}</p>}
      {rotations.isSuccess && items.length === 0 && (
        <EmptyBox title="Nothing is in rotation yet" words="Open a piece that stays true for months, and put it into rotation in its Times. Three wordings with seven pictures are 21 different posts." view="rotation">
          <a href={`/b/${brand.slug}/make/pieces`} className="text-house underline">
            Choose a piece
          </a>
        </EmptyBox>
      )}
      <ul className="max-w-5xl border-t border-line">
        {items.map((item) => (
          <li key={item.pieceId} className="border-b border-line py-3">
            <RotationRow item={item} context={context} />
          </li>
        ))}
      </ul>
    </main>
  );
}

function RotationRow({ item, context: { brand, themes, channels, sheets } }: { readonly item: Item; readonly context: PlanContext }) {
  const client = useQueryClient();
  const theme = item.themeId === null ? undefined : themes.get(item.themeId);
  const set = useMutation({
    mutationFn: (isOn: boolean) => call(keepRotation, { params: { brand: brand.slug, piece: item.pieceId }, body: { settings: item.settings as never, isOn } }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['plan', brand.slug] }),
    onError: (error) => toast('problem', error.message),
  });
  const { wordings, pictures, pairDays, restDays, lastDay, maxRuns, season } = item.settings;
  const networks = [...new Set(item.settings.cuts.map(({ channelId }) => channels.find(({ id }) => id === channelId)?.network ?? ''))];
  return (
    <div className="flex flex-wrap items-start gap-4">
      <PieceThumbnail brand={brand.slug} piece={item.pieceId} className="size-16 rounded-md border border-line object-contain" />
      <div className="min-w-52 flex-1">
        <p className="flex items-center gap-2">
          <a href={`/b/${brand.slug}/make/pieces/${item.pieceId}#times`} className="font-semibold hover:underline">
            {item.pieceName}
          </a>
          {theme && <ThemeTile theme={theme} />}
          {networks.map((key) => {
            const sheet = sheets.get(key);
            return sheet && <ChannelBadge key={key} badge={sheet.badge} name={sheet.name} size={15} />;
          })}
        </p>
        <p className="mt-0.5 text-sm tabular-nums">
          {wordings.length} {wordings.length === 1 ? 'wording' : 'wordings'} × {pictures.length} {pictures.length === 1 ? 'picture' : 'pictures'} = <span className="font-semibold">{item.distinct} different posts</span>
          {item.slotsAWeek > 0 && `: about ${Math.max(1, Math.round(item.distinct / item.slotsAWeek))} weeks at ${item.slotsAWeek} a week`}
        </p>
        <p className="text-xs text-quiet">
          The same pair after {pairDays} days, the piece after {restDays}
          {season ? `; in season from ${season.from} to ${season.until}` : ''}
          {lastDay ? `; until ${lastDay}` : ''}
          {maxRuns ? `; ${maxRuns} times at most` : ''}
        </p>
      </div>
      <div className="w-60 text-sm tabular-nums">
        <p>{item.nextMs === null ? (item.isOn ? 'No slot ahead takes it' : 'Paused') : `Next ${formatMoment(item.nextMs, brand.zone)}`}</p>
        <p className="text-xs text-quiet">{item.ran === 0 ? 'Has not run yet' : `Ran ${item.ran} ${item.ran === 1 ? 'time' : 'times'}, last on ${item.lastDay ?? ''}`}</p>
      </div>
      {roleMay(brand.role, 'send') && (
        <Button disabled={set.isPending} onClick={() => set.mutate(!item.isOn)}>
          {item.isOn ? 'Pause' : 'Go on'}
        </Button>
      )}
    </div>
  );
}
