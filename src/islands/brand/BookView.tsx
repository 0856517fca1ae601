import { takeColour } from '../../core/brand/take-colour.ts';
import { BrandDetails } from './BrandDetails.tsx';
import { BookFrame } from './BookFrame.tsx';
import { BookPreview } from './BookPreview.tsx';
import { BookTransfer } from './BookTransfer.tsx';
import { ColourList } from './ColourList.tsx';
import { ContrastTable } from './ContrastTable.tsx';
import { MarkList } from './MarkList.tsx';
import { PeopleList } from './PeopleList.tsx';
import { MotifChoice } from './MotifChoice.tsx';
import { PictureTreatment } from './PictureTreatment.tsx';
import { SchemeList } from './SchemeList.tsx';
import { TypeRoles } from './TypeRoles.tsx';
import { VideoStyle } from './VideoStyle.tsx';
import type { BrandProps } from './use-book.ts';

/** Colours, schemes, type and marks, with what they do to cuts and what each pair of colours can carry. */
export default function BookView({ brand }: BrandProps) {
  return (
    <BookFrame brand={brand} title="Brand book" aside={<BookTransfer brand={brand.slug} />}>
      {(edit) => (
        <div className="grid items-start gap-x-10 gap-y-8 max-lg:grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(22rem,6fr)_minmax(26rem,7fr)]">
          <div className="space-y-8">
            <ColourList edit={edit} />
            <SchemeList edit={edit} />
            <TypeRoles edit={edit} />
            <MarkList edit={edit} />
            <PictureTreatment edit={edit} />
            <MotifChoice edit={edit} />
            <VideoStyle edit={edit} />
          </div>
          <div className="space-y-8 self-stretch">
            {/* It stays in sight as well: what a change far down does to cuts is seen at once. */}
            <div className="z-10 bg-wall pb-3 lg:sticky lg:top-10">
              <BookPreview brand={{ ...edit.stored, book: edit.book }} />
            </div>
            <ContrastTable book={edit.book} onTake={edit.mayChange ? ({ scheme, role }, hex) => edit.change((now) => takeColour(now, scheme, role, hex)) : null} />
            <BrandDetails brand={brand} stored={edit.stored} language={edit.book.language} onLanguage={edit.mayChange ? (language) => edit.change(({ language: _, ...book }) => (language === undefined ? book : { ...book, language })) : null} />
            <PeopleList brand={brand} />
          </div>
        </div>
      )}
    </BookFrame>
  );
}
