import { useEffect, type ReactNode } from 'react';
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
  return <Frame key={data.data.revision} {...props} stored={data.data} />;
}

function Frame({ stored, title, aside, children, brand }: FrameProps & { readonly stored: StoredBrand }) {
  const edit = useBookEdit({ brand }, stored);
  const { changed } = edit;
  useEffect(() => {
    if (!changed) return;
    const warn = (event: BeforeUnloadEvent): void => event.preventDefault();
    addEventListener('beforeunload', warn);
    return () => removeEventListener('beforeunload', warn);
  }, [changed]);
  return (
    <main className="min-h-0 flex-1 overflow-auto px-6 py-5">
      <div className="mb-5 flex min-h-8 items-center gap-4">
        <h1 className="mr-auto text-xl font-semibold">{title}</h1>
        {changed ? (
          <>
            <span className="text-sm text-quiet">Not saved yet</span>
            <Button onClick={edit.leave}>Leave as it was</Button>
            <Button look="primary" disabled={edit.saving} onClick={edit.save}>
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
