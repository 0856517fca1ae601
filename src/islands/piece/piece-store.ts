import type { BodyOf } from '../../contract/contract.ts';
import { changePiece } from '../../contract/piece-contracts.ts';
import type { Piece } from '../../core/piece/piece.ts';
import type { DocumentSaver, DocumentState, DocumentStore } from '../editor/document-store.ts';
import { call } from '../ui/call.ts';

export type PieceStore = DocumentStore<Piece>;
export type PieceState = DocumentState<Piece>;

/** Saves a piece of a brand over HTTP. */
export function pieceSaver(brand: string, piece: string): DocumentSaver<Piece> {
  return {
    save: (revision, patches, _document, isLast) => call(changePiece, { params: { brand, piece }, body: { revision, patches } as BodyOf<typeof changePiece>, keepalive: isLast }),
  };
}
