import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { getPieceThumbnail, listPieces } from '../../contract/piece-contracts.ts';
import { addressOf, call } from '../ui/call.ts';
import { inputClasses } from '../ui/Field.tsx';
import { PictureWithFallback } from '../ui/PictureWithFallback.tsx';

/** Pieces of the brand to choose from: those that are nowhere in the plan yet first, or those that a search finds. */
export function PiecePick({ brand, onPick }: { readonly brand: string; readonly onPick: (piece: { readonly id: string; readonly name: string }) => void }) {
  const [words, setWords] = useState('');
  const search = words.trim();
  const found = useQuery({
    queryKey: ['pieces', brand, 'pick', search],
    queryFn: ({ signal }) => call(listPieces, { params: { brand }, query: { limit: 12, ...(search === '' ? { status: 'draft' as const } : { words: search }) }, signal }),
    placeholderData: (before) => before,
  });
  const items = found.data?.items ?? [];
  return (
    <div>
      <input type="search" aria-label="Search pieces" placeholder="Search all pieces" value={words} onChange={(event) => setWords(event.target.value)} className={inputClasses} />
      <ul aria-label="Pieces to choose from" className="mt-2 max-h-64 overflow-auto">
        {items.map((piece) => (
          <li key={piece.id}>
            <button type="button" onClick={() => onPick(piece)} className="flex w-full items-center gap-2.5 rounded-md px-1.5 py-1 text-left text-sm hover:bg-sunk">
              <PictureWithFallback src={addressOf(getPieceThumbnail, { brand, piece: piece.id }, { revision: piece.revision })} alt="" className="size-9 shrink-0 rounded-sm object-contain" />
              <span className="min-w-0">
                <span className="line-clamp-1 font-medium">{piece.name}</span>
                <span className="block text-xs text-quiet">{piece.scheduled > 0 ? `${piece.scheduled} scheduled` : piece.sent > 0 ? `${piece.sent} sent` : 'not planned yet'}</span>
              </span>
            </button>
          </li>
        ))}
      </ul>
      {found.isSuccess && items.length === 0 && <p className="py-4 text-center text-sm text-quiet">{search === '' ? 'Every piece is planned or out. Search to use one again.' : 'No piece has these words.'}</p>}
    </div>
  );
}
