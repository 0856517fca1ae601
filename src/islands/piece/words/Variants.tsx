import { Button } from '../../ui/Button.tsx';
import type { Piece } from '../../../core/piece/piece.ts';
import type { PieceStore } from '../piece-store.ts';
import { keepVariant } from './keep-variant.ts';

interface VariantsProps {
  readonly piece: Piece;
  readonly store: PieceStore;
  readonly readOnly: boolean;
  readonly current: string;
  readonly onUse: (text: string) => void;
}

/** Captions that are kept beside the one in use. Using one puts the present text in its place. */
export function Variants({ piece, store, readOnly, current, onUse }: VariantsProps) {
  const variants = piece.variants ?? [];
  const remove = (id: string): void =>
    store.change('remove-variant', (draft) => {
      draft.variants = (draft.variants ?? []).filter((variant) => variant.id !== id);
    });
  return (
    <details className="mb-2 text-xs">
      <summary className="text-quiet">
        {variants.length === 0 ? 'Variants of this caption' : `${variants.length} ${variants.length === 1 ? 'variant' : 'variants'} of this caption`}
      </summary>
      <ul className="mt-1 space-y-1.5">
        {variants.map(({ id, text }) => (
          <li key={id} className="rounded-md border border-line px-2 py-1.5">
            <p className="line-clamp-4 break-words whitespace-pre-wrap">{text}</p>
            {!readOnly && (
              <div className="mt-1 flex gap-1.5">
                <Button
                  size="small"
                  onClick={() => {
                    store.change('swap-variant', (draft) => {
                      const variant = (draft.variants ?? []).find((each) => each.id === id);
                      if (variant) variant.text = current === '' ? text : current;
                    });
                    onUse(text);
                  }}
                >
                  Use
                </Button>
                <Button size="small" look="quiet" onClick={() => remove(id)}>
                  Remove
                </Button>
              </div>
            )}
          </li>
        ))}
      </ul>
      {!readOnly && (
        <Button size="small" look="quiet" className="mt-1" disabled={current.trim() === ''} onClick={() => keepVariant(store, current)}>
          Keep the present caption as a variant
        </Button>
      )}
    </details>
  );
}
