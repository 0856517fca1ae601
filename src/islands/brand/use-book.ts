import { type Role, roleMay } from '../../core/access/access.ts';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { changeBook, getBrand } from '../../contract/brand-contracts.ts';
import type { AnswerOf, BodyOf } from '../../contract/contract.ts';
import type { BrandBook } from '../../core/brand/brand-book.ts';
import { call } from '../ui/call.ts';
import { toast } from '../ui/toast.tsx';

export type StoredBrand = AnswerOf<typeof getBrand>;

export interface BrandProps {
  readonly brand: { readonly slug: string; readonly name: string; readonly role: Role };
}

/** A brand book under edit: as it is kept, as it stands on the page, and how it is saved. */
export interface BookEdit {
  readonly stored: StoredBrand;
  readonly book: BrandBook;
  readonly mayChange: boolean;
  readonly changed: boolean;
  readonly saving: boolean;
  readonly change: (recipe: (book: BrandBook) => BrandBook) => void;
  readonly save: () => void;
  readonly leave: () => void;
}

export function useBrand({ brand }: BrandProps) {
  return useQuery({ queryKey: ['brand', brand.slug], queryFn: () => call(getBrand, { params: { brand: brand.slug } }) });
}

/** The edit starts afresh when another revision is kept: the caller keys its component by it. */
export function useBookEdit({ brand }: BrandProps, stored: StoredBrand): BookEdit {
  const client = useQueryClient();
  const [book, setBook] = useState<BrandBook>(stored.book);
  const save = useMutation({
    mutationFn: () => call(changeBook, { params: { brand: brand.slug }, body: { revision: stored.revision, book } as BodyOf<typeof changeBook> }),
    onSuccess: () => {
      toast('done', 'The book is saved. New cuts follow it; scheduled posts stay as they were.');
      return client.invalidateQueries({ queryKey: ['brand', brand.slug] });
    },
    onError: (error) => toast('problem', error.message),
  });
  return {
    stored,
    book,
    mayChange: roleMay(brand.role, 'brand'),
    changed: book !== stored.book,
    saving: save.isPending,
    change: setBook,
    save: () => save.mutate(),
    leave: () => setBook(stored.book),
  };
}
