import { NoteDialog } from '../ideas/shelf/NoteDialog.tsx';
import { useBrandOfIdeas, type IdeasBrand } from '../ideas/ideas-context.ts';
import { Queries } from '../ui/Queries.tsx';
import { BeginDialog } from './BeginDialog.tsx';
import { KeysDialog } from './KeysDialog.tsx';
import { QuickPostDialog } from './QuickPostDialog.tsx';

/** What can be begun from anywhere. */
export type QuickKind = 'note' | 'post' | 'boilerplate' | 'keys';

interface QuickDialogsProps {
  readonly kind: QuickKind;
  readonly brand: IdeasBrand;
  readonly onClose: () => void;
}

/** The dialogs that open from any view; they are fetched when the first one is asked for. */
export default function QuickDialogs(props: QuickDialogsProps) {
  return (
    <Queries>
      <Shown {...props} />
    </Queries>
  );
}

function Shown({ kind, brand, onClose }: QuickDialogsProps) {
  const context = { brand, ...useBrandOfIdeas(brand.slug) };
  switch (kind) {
    case 'note':
      return <NoteDialog context={context} onClose={onClose} />;
    case 'post':
      return context.data ? <QuickPostDialog context={context} onClose={onClose} /> : null;
    case 'boilerplate':
      return <BeginDialog brand={brand} onClose={onClose} />;
    case 'keys':
      return <KeysDialog onClose={onClose} />;
  }
}
