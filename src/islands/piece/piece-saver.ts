import type { BodyOf } from '../../contract/contract.ts';
import { changePiece, replacePiece } from '../../contract/piece-contracts.ts';
import { call } from '../ui/call.ts';
import type { PieceSaver } from './piece-store.ts';

/** Saves a piece of a brand over HTTP. */
export function httpSaver(brand: string, piece: string): PieceSaver {
  const params = { brand, piece };
  return {
    saveChanges: (revision, patches) => call(changePiece, { params, body: { revision, patches } as unknown as BodyOf<typeof changePiece> }),
    replace: (revision, document) => call(replacePiece, { params, body: { revision, document } as BodyOf<typeof replacePiece> }),
  };
}
