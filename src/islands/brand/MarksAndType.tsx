import type { BrandBook } from '../../core/brand/brand-book.ts';
import { bestGround } from '../../core/brand/best-ground.ts';
import { getShelfFont } from '../../core/text/font-shelf.ts';

const roleWords = { display: 'Display', heading: 'Heading', text: 'Text', label: 'Label' } as const;

/** The brand's marks on the grounds they are drawn for, and the typefaces of its roles. */
export function MarksAndType({ book }: { readonly book: BrandBook }) {
  return (
    <section aria-labelledby="marks">
      <h2 id="marks" className="mb-2 text-base font-semibold">
        Marks and type
      </h2>
      <ul className="mb-4 flex gap-3">
        {book.marks.map((mark) => (
          <li key={mark.key} className="text-center text-xs text-quiet">
            <span style={{ background: bestGround(book, mark).hex }} className="grid h-20 w-24 place-items-center rounded-md border border-line">
              <svg viewBox={`0 0 ${mark.viewBox.width} ${mark.viewBox.height}`} className="h-14" role="img" aria-label={`Mark ${mark.key}`}>
                {mark.paths.map((path) => (
                  <path key={path.d} d={path.d} fill={path.fill} />
                ))}
              </svg>
            </span>
            on {bestGround(book, mark).name}
          </li>
        ))}
      </ul>
      <dl className="border-t border-line text-sm">
        {(Object.keys(roleWords) as (keyof typeof roleWords)[]).map((role) => {
          const font = getShelfFont(book.type[role].font);
          return (
            <div key={role} className="flex items-baseline gap-3 border-b border-line py-1.5">
              <dt className="w-20 text-quiet">{roleWords[role]}</dt>
              <dd className="font-medium">
                {font.family} {font.weight}
              </dd>
              <dd className="ml-auto text-xs text-quiet tabular-nums">
                leading {book.type[role].leading}, tracking {Math.round(book.type[role].trackingEm * 1000) / 10}%
              </dd>
            </div>
          );
        })}
      </dl>
    </section>
  );
}
