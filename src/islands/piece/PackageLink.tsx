import { getBrandPackage } from '../../contract/exchange-contracts.ts';
import { addressOf } from '../ui/call.ts';
import { toast } from '../ui/toast.tsx';
import type { PieceStore } from './piece-store.ts';

/** Exports the piece for another Confetti: its document, its media, its place in the plan. */
export function PackageLink({ brand, pieceId, store }: { readonly brand: string; readonly pieceId: string; readonly store: PieceStore }) {
  const take = async (): Promise<void> => {
    if (!(await isSaved(store))) return;
    location.assign(addressOf(getBrandPackage, { brand }, { scope: 'piece', piece: pieceId }));
  };
  return (
    <p className="text-xs text-quiet">
      For another Confetti:{' '}
      <button type="button" className="text-house underline" onClick={() => void take()}>
        export the piece as a package
      </button>
    </p>
  );
}

/** Saves what is not saved yet: a file holds what is saved, and unsaved words would be missing from it. Says so where it cannot. */
export async function isSaved(store: PieceStore): Promise<boolean> {
  await store.flush();
  if (!store.hasUnsaved()) return true;
  toast('problem', 'The latest changes are not saved yet, so they cannot be in the file. Try again in a moment.');
  return false;
}
