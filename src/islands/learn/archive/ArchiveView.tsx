import { useInfiniteQuery, useMutation, useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { archiveStates, listArchive, pieceOfDelivery, type ArchiveState } from '../../../contract/archive-contracts.ts';
import type { AnswerOf } from '../../../contract/contract.ts';
import { getFacets } from '../../../contract/results-contracts.ts';
import { getDeliveryPicture } from '../../../contract/send-contracts.ts';
import { roleMay, type Role } from '../../../core/access/access.ts';
import { formatMoment } from '../../../core/time/wall-time.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { ChannelFilter } from '../../plan/ChannelFilter.tsx';
import { Choice } from '../../plan/PlanBar.tsx';
import { addressOf, call } from '../../ui/call.ts';
import { Button, buttonClasses } from '../../ui/Button.tsx';
import { EndlessList } from '../../ui/EndlessList.tsx';
import { inputClasses } from '../../ui/Field.tsx';
import { UntilReady } from '../../ui/UntilReady.tsx';
import { PictureWithFallback } from '../../ui/PictureWithFallback.tsx';
import { Queries } from '../../ui/Queries.tsx';
import { GuideLink } from '../../ui/GuideLink.tsx';
import { toast } from '../../ui/toast.tsx';
import type { Facets } from '../results/results-context.ts';

interface ArchiveProps {
  readonly brand: { readonly slug: string; readonly name: string; readonly zone: string; readonly role: Role };
}

type Item = AnswerOf<typeof listArchive>['items'][number];

const stateNames: Readonly<Record<ArchiveState, string>> = { sent: 'Out', removed: 'Taken down', failed: 'Failed', cancelled: 'Cancelled' };
const kinds = [['graphic', 'Graphics'], ['carousel', 'Carousels'], ['video', 'Videos']] as const;

export default function ArchiveView(props: ArchiveProps) {
  return (
    <Queries>
      <Archive {...props} />
    </Queries>
  );
}

/** Everything that went out, with its words and pictures as they were. */
function Archive({ brand }: ArchiveProps) {
  const [words, setWords] = useState('');
  const [asked, setAsked] = useState('');
  const [state, setState] = useState<string | undefined>('sent');
  const [kind, setKind] = useState<string | undefined>(undefined);
  const [channels, setChannels] = useState<string | undefined>(undefined);
  const scroller = useRef<HTMLElement>(null);
  useEffect(() => {
    const timer = setTimeout(() => setAsked(words.trim()), 250);
    return () => clearTimeout(timer);
  }, [words]);
  const params = { brand: brand.slug };
  const facets = useQuery({ queryKey: ['results-facets', brand.slug], staleTime: 60_000, queryFn: () => call(getFacets, { params }) });
  const known = archiveStates.find((each) => each === state);
  const ofKind = kinds.find(([key]) => key === kind)?.[0];
  const pages = useInfiniteQuery({
    queryKey: ['archive', brand.slug, asked, known, ofKind, channels],
    initialPageParam: null as string | null,
    queryFn: ({ pageParam }) => call(listArchive, { params, query: { ...(asked === '' ? {} : { words: asked }), ...(known ? { state: known } : {}), ...(ofKind ? { kind: ofKind } : {}), ...(channels ? { channels } : {}), ...(pageParam === null ? {} : { before: pageParam }) } }),
    getNextPageParam: ({ next }) => next,
  });
  const posts = byPost(pages.data?.pages.flatMap((page) => page.items) ?? []);
  const all = facets.data?.channels ?? [];
  const sheets = new Map(all.flatMap(({ network, networkName, badge }) => (badge ? [[network, { name: networkName, badge }] as const] : [])));
  return (
    <main ref={scroller} className="min-h-0 flex-1 overflow-auto px-6 py-4 max-md:px-4">
      <div className="mb-4 flex flex-wrap items-center gap-2">
        <h1 className="mr-2 text-xl font-semibold">Archive</h1>
        <UntilReady>
          <div role="search" aria-label="Archive" className="flex flex-wrap items-center gap-1.5">
            <span className="w-64">
              <input type="search" aria-label="Search in what went out" placeholder="Words that went out" value={words} onChange={(event) => setWords(event.target.value)} className={`${inputClasses} h-8`} />
            </span>
            <ChannelFilter context={{ channels: all, sheets }} chosen={channels} onChoose={setChannels} />
            <Choice label="Status" all="Any status" value={state} options={archiveStates.map((key) => [key, stateNames[key]] as const)} onChoose={setState} />
            <Choice label="Kind" all="All kinds" value={kind} options={kinds} onChoose={setKind} />
          </div>
        </UntilReady>
      </div>
      {pages.isError && <p className="text-sm text-coral-ink">{pages.error.message}</p>}
      {pages.isSuccess && posts.length === 0 && <p className="py-16 text-center text-sm text-quiet">{asked === '' && state === 'sent' && !kind && !channels ? 'Nothing has gone out yet. What does stands here for good, with its words and pictures as they were.' : 'Nothing like that went out.'} <GuideLink view="archive" /></p>}
      <EndlessList label="What went out" items={posts} keyOf={([{ deliveryId }]) => deliveryId} pages={pages} scroller={scroller} minColumnPx={250} gapPx={{ x: 20, y: 24 }} estimatedRowPx={360}>
        {(post) => <Card post={post} brand={brand} channels={all} />}
      </EndlessList>
    </main>
  );
}

type PostItems = readonly [Item, ...Item[]];

/** Cuts of one post stand together, where the first of them stood. */
function byPost(items: readonly Item[]): readonly PostItems[] {
  const found = new Map<string, [Item, ...Item[]]>();
  for (const item of items) {
    const known = found.get(item.postId);
    if (known) known.push(item);
    else found.set(item.postId, [item]);
  }
  return [...found.values()];
}

function Card({ post, brand, channels }: { readonly post: PostItems; readonly brand: ArchiveProps['brand']; readonly channels: Facets['channels'] }) {
  const [item] = post;
  const make = useMutation({
    mutationFn: () => call(pieceOfDelivery, { params: { brand: brand.slug, delivery: item.deliveryId }, body: {} }),
    onSuccess: ({ pieceId }) => location.assign(`/b/${brand.slug}/make/pieces/${pieceId}`),
    onError: (error) => toast('problem', error.message),
  });
  const mayMake = roleMay(brand.role, 'make');
  return (
    <article>
      <PictureWithFallback src={addressOf(getDeliveryPicture, { brand: brand.slug, delivery: item.deliveryId })} alt="" className="aspect-square w-full rounded-md border border-line object-contain" />
      <h2 className="mt-1.5 flex items-center gap-1.5 text-sm font-semibold">
        <span className="truncate">{item.pieceName}</span>
      </h2>
      <p className="text-xs text-quiet" suppressHydrationWarning>
        {formatMoment(item.atMs, brand.zone)}
        {item.state !== 'sent' && <span className={item.state === 'failed' ? 'text-coral-ink' : 'text-marigold-ink'}> · {stateNames[item.state].toLowerCase()}</span>}
      </p>
      <ul aria-label="Where" className="mt-1 flex flex-wrap gap-1.5">
        {post.map(({ deliveryId, channelId, placementName, address, state }) => {
          const channel = channels.find(({ id }) => id === channelId);
          const sign = channel?.badge && <ChannelBadge badge={channel.badge} name={`${channel.networkName}, ${placementName}`} size={16} />;
          return <li key={deliveryId} className="grid h-6 place-items-center">{address !== null && state === 'sent' ? <a href={address} target="_blank" rel="noreferrer" className="grid size-6 place-items-center rounded-md hover:bg-sunk" title={`Open in ${channel?.networkName ?? ''}, ${placementName}`}>{sign}</a> : sign}</li>;
        })}
      </ul>
      <p className="mt-1 line-clamp-3 text-sm whitespace-pre-wrap [overflow-wrap:anywhere]">{item.caption}</p>
      <p className="mt-2 flex flex-wrap gap-1">
        {mayMake && (
          <Button size="small" disabled={make.isPending} onClick={() => make.mutate()}>
            New piece of it
          </Button>
        )}
        {mayMake && (
          <a href={`/b/${brand.slug}/make/pieces/${item.pieceId}?sheet=times`} className={buttonClasses('plain', 'small')}>
            Into rotation
          </a>
        )}
        {item.publicationId !== null && (
          <a href={`/b/${brand.slug}/learn/results?show=posts&span=365&post=${item.publicationId}`} className={buttonClasses('quiet', 'small')}>
            Results
          </a>
        )}
      </p>
    </article>
  );
}
