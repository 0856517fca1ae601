import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { changeBook, getBrand } from '../../contract/brand-contracts.ts';
import type { AnswerOf, BodyOf } from '../../contract/contract.ts';
import { roleMay, type Role } from '../../core/access/access.ts';
import type { BrandBook } from '../../core/brand/brand-book.ts';
import { DocumentStore, type DocumentSaver, type DocumentState } from '../editor/document-store.ts';
import { useDocument } from '../editor/use-document.ts';
import { ApiProblem, call } from '../ui/call.ts';
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
  readonly change: (recipe: (book: BrandBook) => BrandBook) => void;
  readonly store: DocumentStore<BrandBook>;
  readonly state: DocumentState<BrandBook>;
  readonly save: () => void;
}

export function useBrand({ brand }: BrandProps) {
  return useQuery({ queryKey: ['brand', brand.slug], queryFn: () => call(getBrand, { params: { brand: brand.slug } }) });
}

/** Saves a whole book; where somebody else has saved meanwhile, their book comes back. */
function bookSaver(brand: string, onSaved: () => void): DocumentSaver<BrandBook> {
  return {
    async save(revision, _patches, book) {
      try {
        const saved = await call(changeBook, { params: { brand }, body: { revision, book } as BodyOf<typeof changeBook> });
        onSaved();
        return { revision: saved.revision, document: saved.book };
      } catch (error) {
        const current = error instanceof ApiProblem ? (error.details['current'] as { revision: number; book: BrandBook } | undefined) : undefined;
        if (!(error instanceof ApiProblem) || !current) throw error;
        throw new ApiProblem(error.status, error.code, error.message, { ...error.details, current: { revision: current.revision, document: current.book } });
      }
    },
  };
}

export function useBookEdit({ brand }: BrandProps, stored: StoredBrand): BookEdit {
  const client = useQueryClient();
  const [store] = useState(
    () =>
      new DocumentStore<BrandBook>(
        { document: stored.book, revision: stored.revision },
        bookSaver(brand.slug, () => {
          toast('done', 'The book is saved. New cuts follow it; scheduled posts stay as they were.');
          void client.invalidateQueries({ queryKey: ['brand', brand.slug] });
        }),
        'by-hand',
      ),
  );
  const state = useDocument(store);
  return {
    stored,
    book: state.history.document,
    mayChange: roleMay(brand.role, 'brand'),
    changed: store.hasUnsaved(),
    change: (recipe) => store.replace(recipe(store.getState().history.document)),
    store,
    state,
    // What somebody else has saved in other places is taken in, and saved on top of.
    save: () => void store.flush().then(() => (store.getState().save.kind === 'waiting' ? store.flush() : undefined)),
  };
}
