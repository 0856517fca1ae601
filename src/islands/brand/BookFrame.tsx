import type { ReactNode } from 'react';
import type { Path } from '../../core/document/merge.ts';
import { ConflictNote } from '../editor/ConflictNote.tsx';
import { HistoryButtons } from '../editor/HistoryButtons.tsx';
import { Button } from '../ui/Button.tsx';
import { Queries } from '../ui/Queries.tsx';
import { useBookEdit, useBrand, type BookEdit, type BrandProps, type StoredBrand } from './use-book.ts';

interface FrameProps extends BrandProps {
  readonly title: string;
  readonly aside?: ReactNode;
  readonly children: (edit: BookEdit) => ReactNode;
}

/** A view of the brand book with its title and, once something has changed, the way to keep it. */
export function BookFrame(props: FrameProps) {
  return (
    <Queries>
      <Loader {...props} />
    </Queries>
  );
}

function Loader(props: FrameProps) {
  const data = useBrand(props);
  if (data.isError) return <main className="flex-1 p-6 text-coral-ink">{data.error.message}</main>;
  if (!data.data) return <main className="flex-1" aria-busy="true" />;
  return <Frame {...props} stored={data.data} />;
}

function Frame({ stored, title, aside, children, brand }: FrameProps & { readonly stored: StoredBrand }) {
  const edit = useBookEdit({ brand }, stored);
  const { changed, store, state } = edit;
  return (
    <main className="min-h-0 flex-1 overflow-auto px-6 py-5">
      {state.save.kind === 'conflict' && (
        <div className="-mx-6 -mt-5 mb-5">
          <ConflictNote by={state.save.by} conflicts={state.save.conflicts} nameOf={bookPlace} onResolve={(decide) => void store.resolve(decide).then(edit.save)} />
        </div>
      )}
      {/* It stays in sight: what is changed far down is saved from there. */}
      <div className="sticky -top-5 z-20 -mx-6 -mt-5 mb-3 flex min-h-8 flex-wrap items-center gap-x-4 gap-y-2 bg-wall px-6 pt-5 pb-2">
        <h1 className="mr-auto text-xl font-semibold">{title}</h1>
        {changed ? (
          <>
            <span role="status" className={`text-sm ${state.save.kind === 'refused' || state.save.kind === 'offline' ? 'text-coral-ink' : 'text-quiet'}`}>
              {state.save.kind === 'refused' || state.save.kind === 'offline' ? state.save.sentence : 'Not saved yet'}
            </span>
            <HistoryButtons store={store} state={state} />
            <Button onClick={() => store.discard()}>Discard changes</Button>
            <Button look="primary" disabled={state.save.kind === 'saving' || state.save.kind === 'conflict'} onClick={edit.save}>
              Save the book
            </Button>
          </>
        ) : (
          aside
        )}
      </div>
      {children(edit)}
    </main>
  );
}

const areas: Readonly<Record<string, string>> = { colours: 'Colour', schemes: 'Scheme', type: 'Typeface', typefaces: 'Typeface', marks: 'Mark', facts: 'Fact', voice: 'Voice' };

/** A place of the book by the words that its views have for it. */
function bookPlace([area = '', name]: Path): string {
  return [areas[String(area)] ?? 'The book', String(name ?? '').replace(/^#/, '')].filter((word) => word !== '').join(': ');
}
