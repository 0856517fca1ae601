import type { AnswerOf } from '../../contract/contract.ts';
import type { getPackage } from '../../contract/exchange-contracts.ts';
import { recordKinds } from '../../contract/package-format.ts';
import { Button, buttonClasses } from '../ui/Button.tsx';
import { kindWord, shownOutcomes } from './package-words.ts';

type Brands = NonNullable<AnswerOf<typeof getPackage>['report']>['brands'];

/** The result of an import: counts by kind, and notes. */
export function CameIn({ brands, onAnother }: { readonly brands: Brands; readonly onAnother: () => void }) {
  return (
    <>
      {brands.map(({ slug, name, isNew, counts, notes }) => {
        const columns = shownOutcomes.filter(({ key }) => Object.values(counts).some((of) => (of?.[key] ?? 0) > 0));
        return (
          <div key={slug} className="mb-4">
            <p role="status" className="font-medium">
              {name} {isNew ? 'was imported as a new brand' : 'is up to date'}
            </p>
            {notes.length > 0 && (
              <ul className="mt-2 list-disc space-y-1 pl-4">
                {notes.map((sentence) => (
                  <li key={sentence}>{sentence}</li>
                ))}
              </ul>
            )}
            <div className="mt-3 overflow-x-auto">
              <table className="w-full text-left">
                <thead>
                  <tr className="border-b border-line text-quiet">
                    <th scope="col" className="py-1 pr-3 font-normal">
                      <span className="sr-only">Kind</span>
                    </th>
                    {columns.map(({ key, name: word }) => (
                      <th key={key} scope="col" className="py-1 pl-3 text-right font-normal">
                        {word}
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {recordKinds
                    .filter((kind) => kind !== 'brand' && counts[kind])
                    .map((kind) => (
                      <tr key={kind} className="border-b border-line last:border-0">
                        <th scope="row" className="py-1 pr-3 font-normal">
                          {kindWord(kind)}
                        </th>
                        {columns.map(({ key }) => (
                          <td key={key} className="py-1 pl-3 text-right tabular-nums">
                            {counts[kind]?.[key] ?? ''}
                          </td>
                        ))}
                      </tr>
                    ))}
                </tbody>
              </table>
            </div>
            <a href={`/b/${slug}/make/pieces`} className={`${buttonClasses('plain')} mt-3`}>
              Open {name}
            </a>
          </div>
        );
      })}
      <Button onClick={onAnother}>Import another</Button>
    </>
  );
}
