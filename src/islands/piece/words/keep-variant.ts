import { nanoid } from 'nanoid';
import { toast } from '../../ui/toast.tsx';
import type { PieceStore } from '../piece-store.ts';

const MAX_VARIANTS = 40;

/** Keeps a caption beside the one in use; one that is there already is not kept twice. */
export function keepVariant(store: PieceStore, text: string): void {
  const kept = store.getState().history.document.variants ?? [];
  if (text.trim() === '' || kept.some((variant) => variant.text === text)) return;
  if (kept.length >= MAX_VARIANTS) return toast('problem', `A piece keeps ${MAX_VARIANTS} variants. Remove one first.`);
  store.change('keep-variant', (draft) => void (draft.variants ??= []).push({ id: nanoid(8), text }));
}
