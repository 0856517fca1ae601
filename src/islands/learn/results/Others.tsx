import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { addOther, listOthers, removeOther, searchOthers } from '../../../contract/comparison-contracts.ts';
import type { AnswerOf } from '../../../contract/contract.ts';
import { roleMay } from '../../../core/access/access.ts';
import { shortDay } from '../../../core/time/wall-time.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { call } from '../../ui/call.ts';
import { Button, buttonClasses } from '../../ui/Button.tsx';
import { inputClasses } from '../../ui/Field.tsx';
import { toast } from '../../ui/toast.tsx';
import { countOf } from '../figure-words.ts';
import { formatWords, type ResultsContext } from './results-context.ts';

type Other = AnswerOf<typeof listOthers>['others'][number];
type Post = Other['best'][number];

/** Public accounts that one looks at beside one's own, and a search of public posts. Looking, not copying. */
export default function Others({ context }: { readonly context: ResultsContext }) {
  const { brand } = context;
  const client = useQueryClient();
  const params = { brand: brand.slug };
  const others = useQuery({ queryKey: ['results', brand.slug, 'others'], staleTime: 120_000, queryFn: () => call(listOthers, { params }) });
  const [network, setNetwork] = useState('');
  const [handle, setHandle] = useState('');
  const mayMake = roleMay(brand.role, 'make');
  const refresh = (): Promise<void> => client.invalidateQueries({ queryKey: ['results', brand.slug, 'others'] });
  const onError = (error: Error): void => toast('problem', error.message);
  const add = useMutation({
    mutationFn: () => call(addOther, { params, body: { network: chosen, handle: handle.trim() } }),
    onSuccess: () => {
      setHandle('');
      return refresh();
    },
    onError,
  });
  const remove = useMutation({ mutationFn: (other: Other) => call(removeOther, { params, body: { network: other.network, handle: other.handle } }), onSuccess: refresh, onError });
  const networks = others.data?.networks ?? [];
  const chosen = network === '' ? (networks[0]?.key ?? '') : network;
  return (
    <div className="grid grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)] gap-10 max-xl:grid-cols-1">
      <section aria-label="Accounts beside one’s own">
        {others.isError && <p className="text-sm text-coral-ink">{others.error.message}</p>}
        {mayMake && (
          <form
            className="mb-4 flex flex-wrap gap-1.5"
            onSubmit={(event) => {
              event.preventDefault();
              add.mutate();
            }}
          >
            <select aria-label="Network" value={chosen} onChange={(event) => setNetwork(event.target.value)} className="h-8 rounded-md border border-line bg-panel px-1.5 text-sm">
              {networks.map(({ key, name }) => (
                <option key={key} value={key}>
                  {name}
                </option>
              ))}
            </select>
            <span className="w-56">
              <input aria-label="Handle of a public account" placeholder="@handle" value={handle} onChange={(event) => setHandle(event.target.value)} className={`${inputClasses} h-8`} />
            </span>
            <button type="submit" disabled={handle.trim() === '' || add.isPending} className={buttonClasses('primary')}>
              Look at it
            </button>
          </form>
        )}
        {others.isPending && <p className="text-sm text-quiet">Asking the networks…</p>}
        {others.data?.others.length === 0 && <p className="max-w-xl text-sm text-quiet">No account yet. Name a public account of a network that you are on: how often it posts, in which formats, with which hashtags, and what did well stands here beside your own.</p>}
        {others.data?.others.map((other) => (
          <article key={`${other.network}${other.handle}`} className="border-b border-line py-4">
            <div className="flex items-center gap-2">
              <Badge network={other.network} context={context} />
              <h2 className="mr-auto text-base font-semibold">
                {other.name} <span className="text-sm font-normal text-quiet">{other.handle}</span>
              </h2>
              {mayMake && (
                <Button size="small" look="quiet" disabled={remove.isPending} onClick={() => remove.mutate(other)}>
                  Remove
                </Button>
              )}
            </div>
            {other.problem !== null ? (
              <p className="mt-1 text-sm text-marigold-ink">{other.problem}</p>
            ) : (
              <>
                <p className="mt-1 text-sm text-quiet tabular-nums">
                  {countOf(other.followers)} followers · {other.postsAWeek?.toFixed(1)} posts a week{other.ownPostsAWeek !== null && `, you ${other.ownPostsAWeek.toFixed(1)}`} · {other.kinds.map(({ kind, share }) => `${Math.round(share * 100)}% ${formatWords[kind] ?? kind}`).join(', ')}
                </p>
                <p className="mt-1 text-sm">{other.tags.map(({ tag, posts }) => `${tag} ${posts}`).join(' · ')}</p>
                <h3 className="mt-2 text-xs font-semibold text-quiet">Did best in two months</h3>
                <Posts posts={other.best} context={context} />
              </>
            )}
          </article>
        ))}
      </section>
      <Search networks={networks} context={context} />
    </div>
  );
}

function Badge({ network, context: { facets } }: { readonly network: string; readonly context: ResultsContext }) {
  const channel = facets?.channels.find((each) => each.network === network);
  return channel?.badge ? <ChannelBadge badge={channel.badge} name={channel.networkName} size={16} /> : null;
}

function Posts({ posts, context }: { readonly posts: readonly Post[]; readonly context: ResultsContext }) {
  const { brand, nowMs } = context;
  return (
    <ul className="text-sm">
      {posts.map((post) => (
        <li key={post.id} className="flex items-baseline gap-3 py-1">
          <span className="min-w-0 flex-1">
            <a href={post.address} target="_blank" rel="noreferrer" className="[overflow-wrap:anywhere] hover:underline">
              {post.text}
            </a>
            <span className="block text-xs text-quiet" suppressHydrationWarning>
              {post.name}, {shortDay(post.publishedMs, nowMs, brand.zone)}
            </span>
          </span>
          <span className="shrink-0 text-xs text-quiet tabular-nums">
            {countOf(post.reactions)} reactions, {countOf(post.comments)} comments
          </span>
        </li>
      ))}
    </ul>
  );
}

function Search({ networks, context }: { readonly networks: readonly { readonly key: string; readonly name: string }[]; readonly context: ResultsContext }) {
  const { brand } = context;
  const [network, setNetwork] = useState('');
  const [typed, setTyped] = useState('');
  const [words, setWords] = useState('');
  const chosen = network === '' ? (networks[0]?.key ?? '') : network;
  const found = useQuery({ queryKey: ['others-search', brand.slug, chosen, words], enabled: words !== '' && chosen !== '', queryFn: () => call(searchOthers, { params: { brand: brand.slug }, query: { network: chosen, words } }) });
  return (
    <section aria-label="Public posts">
      <h2 className="mb-2 text-sm font-semibold">
        Public posts <span className="font-normal text-quiet">of the last month, by words</span>
      </h2>
      <form
        className="mb-2 flex gap-1.5"
        role="search"
        onSubmit={(event) => {
          event.preventDefault();
          setWords(typed.trim());
        }}
      >
        <select aria-label="Network to search" value={chosen} onChange={(event) => setNetwork(event.target.value)} className="h-8 rounded-md border border-line bg-panel px-1.5 text-sm">
          {networks.map(({ key, name }) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </select>
        <input type="search" aria-label="Words" placeholder="market morning" minLength={2} value={typed} onChange={(event) => setTyped(event.target.value)} className={`${inputClasses} h-8`} />
        <button type="submit" disabled={typed.trim().length < 2} className={buttonClasses('plain')}>
          Search
        </button>
      </form>
      {found.isError && <p className="text-sm text-coral-ink">{found.error.message}</p>}
      {found.data?.posts.length === 0 && <p className="text-sm text-quiet">No public post of the last month has all these words.</p>}
      {found.data && <Posts posts={found.data.posts} context={context} />}
      <p className="mt-2 text-xs text-quiet">Open a post to answer it or to share it with a comment. Nothing is taken over into a piece.</p>
    </section>
  );
}
