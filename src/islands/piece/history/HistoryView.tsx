import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { getPieceRevision, listPieceRevisions } from '../../../contract/piece-contracts.ts';
import type { AnswerOf } from '../../../contract/contract.ts';
import { differencesOf } from '../../../core/document/differences.ts';
import { placeName, valueInWords } from '../../../core/piece/place-name.ts';
import { formatMoment } from '../../../core/time/wall-time.ts';
import type { MediaItem } from '../../media/media-address.ts';
import { Button } from '../../ui/Button.tsx';
import { call } from '../../ui/call.ts';
import { toast } from '../../ui/toast.tsx';
import { templateQuery } from '../../preview/template-query.ts';
import type { ViewProps } from '../view-props.ts';
import { RevisionPreview } from './RevisionPreview.tsx';

interface HistoryProps extends ViewProps {
  readonly onMedia: (item: MediaItem) => void;
  readonly onClose: () => void;
}

type Revision = AnswerOf<typeof listPieceRevisions>['items'][number];

/** Every saved state of a piece with who saved it and when: each can be looked at, and restored. */
export function HistoryView(props: HistoryProps) {
  const { brand, pieceId } = props;
  const params = { brand: brand.slug, piece: pieceId };
  const [chosen, setChosen] = useState<number | null>(null);
  const pages = useInfiniteQuery({
    queryKey: ['revisions', brand.slug, pieceId],
    queryFn: ({ pageParam }) => call(listPieceRevisions, { params, query: pageParam === null ? {} : { before: pageParam } }),
    initialPageParam: null as number | null,
    getNextPageParam: (last) => last.next,
  });
  const items = pages.data?.pages.flatMap((page) => page.items) ?? [];
  const revision = chosen ?? items[0]?.revision ?? null;
  return (
    <>
      <section aria-label="Saved states" className="w-80 shrink-0 max-md:w-full max-md:border-r-0 max-md:border-b overflow-auto border-r border-line bg-panel">
        <div className="flex items-center justify-between border-b border-line px-4 py-2.5">
          <h2 className="text-base font-semibold">History</h2>
          <Button size="small" onClick={props.onClose}>
            Close
          </Button>
        </div>
        {pages.error && <p className="p-4 text-sm text-coral-ink">{pages.error.message}</p>}
        <ol>
          {items.map((item, index) => (
            <li key={item.revision}>
              <button type="button" aria-pressed={item.revision === revision} onClick={() => setChosen(item.revision)} className={`block w-full border-b border-line px-4 py-2 text-left text-sm ${item.revision === revision ? 'bg-house-soft' : 'hover:bg-sunk'}`}>
                <span className="block font-medium tabular-nums">{formatMoment(item.savedMs, brand.zone)}</span>
                <span className="block text-xs text-quiet">
                  {item.personName}
                  {index === 0 ? ', the latest' : ''}
                </span>
              </button>
            </li>
          ))}
        </ol>
        {pages.hasNextPage && (
          <div className="p-3 text-center">
            <Button size="small" onClick={() => void pages.fetchNextPage()}>
              Show older ones
            </Button>
          </div>
        )}
      </section>
      {revision !== null && <RevisionDetail key={revision} {...props} revision={items.find((each) => each.revision === revision) ?? null} number={revision} />}
    </>
  );
}

interface DetailProps extends HistoryProps {
  readonly revision: Revision | null;
  readonly number: number;
}

function RevisionDetail({ brand, brandData, pieceId, piece, template, store, readOnly, onMedia, onClose, revision, number }: DetailProps) {
  const saved = useQuery({ queryKey: ['revision', brand.slug, pieceId, number], queryFn: () => call(getPieceRevision, { params: { brand: brand.slug, piece: pieceId, revision: String(number) } }), staleTime: Infinity });
  const context = useMemo(() => ({ piece, template, channels: brandData.channels, sheets: brandData.sheets }), [piece, template, brandData]);
  const own = useQuery({ ...templateQuery(brand.slug, saved.data?.document.template.key ?? template.key), enabled: saved.data !== undefined });
  if (saved.error) return <p className="p-6 text-sm text-coral-ink">{saved.error.message}</p>;
  if (!saved.data || !own.data) return <div className="flex-1" aria-busy="true" />;
  const { document, media } = saved.data;
  const differences = differencesOf(document, piece);
  const restore = (): void => {
    for (const item of media) onMedia(item);
    store.replace(document);
    toast('done', 'Restored. Undo brings back what you had.');
    onClose();
  };
  return (
    <section aria-label="Saved state" className="min-w-0 flex-1 overflow-auto px-6 py-4">
      <div className="mb-3 flex items-center justify-between gap-4">
        <p className="text-sm text-quiet">
          {revision ? `As ${revision.personName} saved it on ${formatMoment(revision.savedMs, brand.zone)}` : 'A saved state'}
        </p>
        {!readOnly && (
          <Button look="primary" disabled={differences.length === 0} onClick={restore}>
            Restore this state
          </Button>
        )}
      </div>
      <RevisionPreview brandData={brandData} document={document} template={own.data.document} media={media} />
      <h3 className="mt-5 mb-1.5 text-sm font-semibold">{differences.length === 0 ? 'This is what the piece is now.' : 'What has changed since'}</h3>
      {differences.length > 0 && (
        <table className="w-full max-w-4xl table-fixed text-left text-sm">
          <thead className="text-xs text-quiet">
            <tr>
              <th scope="col" className="w-48 font-medium">Place</th>
              <th scope="col" className="font-medium">Then</th>
              <th scope="col" className="font-medium">Now</th>
            </tr>
          </thead>
          <tbody>
            {differences.slice(0, MAX_SHOWN).map(({ path, before, after }) => (
              <tr key={JSON.stringify(path)} className="border-t border-line align-top">
                <th scope="row" className="py-1 pr-3 font-medium">{placeName(path, context)}</th>
                <td className="py-1 pr-3 break-words whitespace-pre-wrap">{valueInWords(before)}</td>
                <td className="py-1 break-words whitespace-pre-wrap">{valueInWords(after)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {differences.length > MAX_SHOWN && <p className="mt-1 text-xs text-quiet">And {differences.length - MAX_SHOWN} more places.</p>}
    </section>
  );
}

const MAX_SHOWN = 30;
