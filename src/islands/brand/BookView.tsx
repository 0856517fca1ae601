import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { changeBook, getBrand } from '../../contract/brand-contracts.ts';
import type { AnswerOf, BodyOf } from '../../contract/contract.ts';
import type { BrandBook } from '../../core/brand/brand-book.ts';
import { takeColour } from '../../core/brand/take-colour.ts';
import { call } from '../ui/call.ts';
import { Button } from '../ui/Button.tsx';
import { Queries } from '../ui/Queries.tsx';
import { toast } from '../ui/toast.tsx';
import { BookPreview } from './BookPreview.tsx';
import { ColourList } from './ColourList.tsx';
import { ContrastTable } from './ContrastTable.tsx';
import { MarksAndType } from './MarksAndType.tsx';

interface BrandProps {
  readonly brand: { readonly slug: string; readonly name: string; readonly role: string };
}

export default function BookView(props: BrandProps) {
  return (
    <Queries>
      <BookLoader {...props} />
    </Queries>
  );
}

function BookLoader({ brand }: BrandProps) {
  const data = useQuery({ queryKey: ['brand', brand.slug], queryFn: () => call(getBrand, { params: { brand: brand.slug } }) });
  if (data.isError) return <main className="flex-1 p-6 text-coral-ink">{data.error.message}</main>;
  if (!data.data) return <main className="flex-1" aria-busy="true" />;
  return <Book key={data.data.revision} brand={brand} stored={data.data} />;
}

function Book({ brand, stored }: BrandProps & { readonly stored: AnswerOf<typeof getBrand> }) {
  const client = useQueryClient();
  const [book, setBook] = useState<BrandBook>(stored.book);
  const mayChange = brand.role === 'owner' || brand.role === 'designer';
  const changed = book !== stored.book;
  const save = useMutation({
    mutationFn: () => call(changeBook, { params: { brand: brand.slug }, body: { revision: stored.revision, book } as BodyOf<typeof changeBook> }),
    onSuccess: () => {
      toast('done', 'The book is saved. New cuts follow it; scheduled posts stay as they were.');
      return client.invalidateQueries({ queryKey: ['brand', brand.slug] });
    },
    onError: (error) => toast('problem', error.message),
  });
  const setColour = (key: string, hex: string): void => setBook((now) => ({ ...now, colours: now.colours.map((colour) => (colour.key === key ? { ...colour, hex } : colour)) }));
  return (
    <main className="min-h-0 flex-1 overflow-auto px-6 py-5">
      <div className="mb-5 flex items-center gap-4">
        <h1 className="mr-auto text-xl font-semibold">Brand book</h1>
        {changed && (
          <>
            <span className="text-sm text-quiet">Not saved yet</span>
            <Button onClick={() => setBook(stored.book)}>Leave as it was</Button>
            <Button look="primary" disabled={save.isPending} onClick={() => save.mutate()}>
              Save the book
            </Button>
          </>
        )}
      </div>
      <div className="grid grid-cols-[minmax(20rem,5fr)_minmax(26rem,7fr)] items-start gap-x-10">
        <div className="space-y-8">
          <ColourList book={book} readOnly={!mayChange} onChange={setColour} />
          <MarksAndType book={book} />
        </div>
        <div className="space-y-8">
          <BookPreview brand={{ ...stored, book }} />
          <ContrastTable book={book} onTake={mayChange ? ({ scheme, role }, hex) => setBook((now) => takeColour(now, scheme, role, hex)) : null} />
        </div>
      </div>
    </main>
  );
}
