import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { AnswerOf } from '../../../contract/contract.ts';
import { endBoost, handOffs } from '../../../contract/outbox-contracts.ts';
import { roleMay, type Role } from '../../../core/access/access.ts';
import { formatMoment } from '../../../core/time/wall-time.ts';
import { useChanges } from '../../shell/change-events.ts';
import { call } from '../../ui/call.ts';
import { Button } from '../../ui/Button.tsx';
import { Queries } from '../../ui/Queries.tsx';
import { EmptyBox } from '../../ui/EmptyBox.tsx';
import { toast } from '../../ui/toast.tsx';
import { useNow } from '../../ui/use-now.ts';
import { HandOff } from './HandOff.tsx';

interface ByHandProps {
  readonly brand: { readonly slug: string; readonly name: string; readonly zone: string; readonly role: Role };
  readonly nowMs: number;
}

export type ShownHandOff = AnswerOf<typeof handOffs>['items'][number];
type ShownBoost = AnswerOf<typeof handOffs>['boosts'][number];

export default function ByHandView(props: ByHandProps) {
  return (
    <Queries>
      <ByHand {...props} />
    </Queries>
  );
}

function ByHand({ brand, nowMs: serverNowMs }: ByHandProps) {
  const client = useQueryClient();
  const nowMs = useNow(serverNowMs);
  const found = useQuery({ queryKey: ['hand-offs', brand.slug], queryFn: () => call(handOffs, { params: { brand: brand.slug } }) });
  const refresh = (): Promise<void> => client.invalidateQueries({ queryKey: ['hand-offs', brand.slug] });
  useChanges(brand.slug, { onChange: (kind) => void (kind === 'delivery' || kind === 'post' || kind === 'clock' ? refresh() : undefined) });
  const { items = [], boosts = [] } = found.data ?? {};
  const isSnoozed = ({ snoozedUntilMs }: ShownHandOff): boolean => snoozedUntilMs !== null && snoozedUntilMs > nowMs;
  const due = items.filter((item) => !isSnoozed(item));
  const later = items.filter(isSnoozed);
  return (
    <main className="min-h-0 flex-1 overflow-auto px-4 py-5 md:px-6">
      <div className="max-w-5xl">
        <h1 className="text-xl font-semibold">By hand</h1>
        <p className="mt-1 mb-4 text-sm text-quiet">Some accounts let no program in. At its time a post stands here: save its pictures, copy its texts, place it, and say that it is done.</p>
        {found.isError && <p className="text-coral-ink">{found.error.message}</p>}
        {found.isSuccess && items.length === 0 && boosts.length === 0 && (
          <EmptyBox title="Nothing to place by hand" words="Posts to personal profiles, and boosts that somebody has to set up, stand here when their time has come." view="by-hand" />
        )}
        {due.map((item) => (
          <HandOff key={item.deliveryId} item={item} brand={brand} nowMs={nowMs} onDone={refresh} />
        ))}
        {later.length > 0 && (
          <section aria-labelledby="later" className="mt-6">
            <h2 id="later" className="border-b border-line pb-1.5 text-base font-semibold">
              Put off
            </h2>
            <ul>
              {later.map((item) => (
                <li key={item.deliveryId} className="border-b border-line py-2 text-sm">
                  <span className="font-semibold">{item.pieceName}</span> <span className="text-quiet">{item.channelName}, back {formatMoment(item.snoozedUntilMs ?? 0, brand.zone)}</span>
                </li>
              ))}
            </ul>
          </section>
        )}
        {boosts.length > 0 && (
          <section aria-labelledby="boosts" className="mt-6">
            <h2 id="boosts" className="border-b border-line pb-1.5 text-base font-semibold">
              Boosts to set up
            </h2>
            <ul>
              {boosts.map((boost) => (
                <Boost key={boost.postId} boost={boost} brand={brand} onDone={refresh} />
              ))}
            </ul>
          </section>
        )}
      </div>
    </main>
  );
}

function Boost({ boost, brand, onDone }: { readonly boost: ShownBoost; readonly brand: ByHandProps['brand']; readonly onDone: () => Promise<void> }) {
  const end = useMutation({ mutationFn: (action: 'done' | 'remove') => call(endBoost, { params: { brand: brand.slug, post: boost.postId, action }, body: {} }), onSuccess: onDone, onError: (error) => toast('problem', error.message) });
  const details = [`${boost.budget.toLocaleString('en-GB')} ${boost.currency} over ${boost.days} ${boost.days === 1 ? 'day' : 'days'}`, boost.audience, boost.aim].filter((part) => part !== '').join(', ');
  return (
    <li className="flex items-center gap-4 border-b border-line py-2.5 max-md:flex-wrap">
      <div className="min-w-0 flex-1 text-sm">
        <p className="font-semibold">{boost.pieceName}</p>
        <p className="text-quiet">{details}</p>
        <p className="text-xs text-quiet">{boost.isOut ? 'The post is out: the boost can be set up now.' : `The post goes out ${formatMoment(boost.dueMs, brand.zone)}.`}</p>
      </div>
      {roleMay(brand.role, 'send') && (
        <div className="flex gap-1.5">
          <Button look={boost.isOut ? 'primary' : 'plain'} disabled={!boost.isOut || end.isPending} onClick={() => end.mutate('done')}>
            It is set up
          </Button>
          <Button look="stop" disabled={end.isPending} onClick={() => end.mutate('remove')}>
            Remove
          </Button>
        </div>
      )}
    </li>
  );
}
