import { useQuery } from '@tanstack/react-query';
import { getAudience } from '../../../contract/results-contracts.ts';
import type { AnswerOf } from '../../../contract/contract.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { call } from '../../ui/call.ts';
import { countOf } from '../figure-words.ts';
import { channelOf, type ResultsContext } from './results-context.ts';

type Account = AnswerOf<typeof getAudience>['accounts'][number];

/** Groups smaller than this stand together: they could name people. */
const MIN_GROUP = 10;
const MAX_GROUPS = 6;

/** Who follows each account: by country, language and age, and when they are there. */
export default function Audience({ context }: { readonly context: ResultsContext }) {
  const { brand, facets } = context;
  const audience = useQuery({ queryKey: ['results', brand.slug, 'audience'], queryFn: () => call(getAudience, { params: { brand: brand.slug } }) });
  if (audience.isError) return <p className="text-sm text-coral-ink">{audience.error.message}</p>;
  if (!audience.data) return <p className="text-sm text-quiet">Loading…</p>;
  const { accounts, tooFew } = audience.data;
  return (
    <div className="grid gap-6">
      {accounts.map((account) => {
        const channel = channelOf(facets, account.channelId);
        return (
          <section key={account.channelId} aria-label={channel?.name ?? ''} className="grid grid-cols-[13rem_repeat(3,minmax(0,1fr))_minmax(0,1.3fr)] gap-6 border-b border-line pb-5 max-xl:grid-cols-2">
            <div>
              <h2 className="flex items-center gap-2 text-sm font-semibold">
                {channel?.badge && <ChannelBadge badge={channel.badge} size={16} />}
                {channel?.networkName} <span className="font-normal text-quiet">{channel?.handle}</span>
              </h2>
              <p className="mt-1 font-heading text-xl font-semibold tabular-nums">{countOf(account.followers)}</p>
              <p className="text-xs text-quiet">followers</p>
            </div>
            <Groups title="Countries" figures={account.countries} name={(key) => regionName(key)} />
            <Groups title="Languages" figures={account.languages} name={(key) => languageName(key)} />
            <Groups title="Age" figures={account.ages} name={(key) => key} isByName />
            <Presence hours={account.hours} />
          </section>
        );
      })}
      {tooFew.length > 0 && (
        <p className="max-w-2xl text-sm text-quiet">
          {tooFew.map((id) => channelOf(facets, id)?.name ?? '').filter((name) => name !== '').join(', ')}: no audience is shown here. A network tells it from a hundred followers on, and some never do: smaller groups could name people.
        </p>
      )}
    </div>
  );
}

const regions = new Intl.DisplayNames('en', { type: 'region', fallback: 'code' });
const tongues = new Intl.DisplayNames('en', { type: 'language', fallback: 'code' });
const regionName = (key: string): string => (/^[A-Z]{2}$/.test(key) ? (regions.of(key) ?? key) : key);
const languageName = (key: string): string => (/^[a-z]{2,3}$/.test(key) ? (tongues.of(key) ?? key) : key);

function Groups({ title, figures, name, isByName = false }: { readonly title: string; readonly figures: Account['countries']; readonly name: (key: string) => string; readonly isByName?: boolean }) {
  const all = Object.entries(figures).flatMap(([key, value]) => (value === undefined ? [] : [[key, value] as const]));
  const total = all.reduce((sum, [, value]) => sum + value, 0);
  const large = all.filter(([, value]) => value >= MIN_GROUP).toSorted((a, b) => (isByName ? a[0].localeCompare(b[0]) : b[1] - a[1]));
  const shown = large.slice(0, MAX_GROUPS);
  const rest = total - shown.reduce((sum, [, value]) => sum + value, 0);
  if (total === 0) return <span />;
  return (
    <div>
      <h3 className="mb-1 text-xs font-semibold text-quiet">{title}</h3>
      <ul className="text-sm">
        {[...shown.map(([key, value]) => [name(key), value] as const), ...(rest > 0 ? [['Others', rest] as const] : [])].map(([label, value]) => (
          <li key={label} className="relative flex justify-between gap-2 py-0.5">
            <span className="absolute inset-y-0.5 left-0 rounded-sm bg-house-soft" style={{ width: `${(value / total) * 100}%` }} />
            <span className="relative truncate pl-1">{label}</span>
            <span className="relative text-quiet tabular-nums">{value / total < 0.005 ? 'below 1' : Math.round((value / total) * 100)}%</span>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** When followers are there, by hour of their network's day. */
function Presence({ hours }: { readonly hours: Account['hours'] }) {
  const values = Array.from({ length: 24 }, (_, hour) => hours[String(hour)] ?? 0);
  const most = Math.max(1, ...values);
  if (most === 1) return <span />;
  const busiest = values.indexOf(most);
  return (
    <div>
      <h3 className="mb-1 text-xs font-semibold text-quiet">There, by hour</h3>
      <div role="img" aria-label={`Most are there at ${busiest}:00`} className="flex h-20 items-end gap-px">
        {values.map((value, hour) => (
          <span key={hour} title={`${hour}:00: ${countOf(value)}`} className={`flex-1 rounded-t-[2px] ${hour === busiest ? 'bg-house' : 'bg-line'}`} style={{ height: `${(value / most) * 100}%` }} />
        ))}
      </div>
      <p className="flex justify-between text-[10px] text-quiet tabular-nums">
        <span>0</span>
        <span>6</span>
        <span>12</span>
        <span>18</span>
        <span>24</span>
      </p>
    </div>
  );
}
