import { sheetOfAccount } from '../network/account-kind.ts';
import { placementsFor, type NetworkSheet } from '../network/network-sheet.ts';
import { MAX_CUTS, type CutRef, type Piece } from '../piece/piece.ts';
import type { CutChannel } from './resolve-cuts.ts';

/** Every placement of every channel that a kind of piece can be made for, in channel order. */
export function possibleCuts(channels: readonly Pick<CutChannel, 'id' | 'network' | 'kind'>[], sheets: readonly NetworkSheet[], kind: Piece['kind']): readonly CutRef[] {
  return channels.flatMap((channel) =>
    sheets.filter((sheet) => sheet.key === channel.network).flatMap((sheet) => placementsFor(sheetOfAccount(sheet, channel.kind), kind).map((placement) => ({ channelId: channel.id, placement: placement.key }))),
  );
}

/** The cuts that a piece could have and has not, as many as it may have: those of channels that were connected after it was made. */
export function cutsToAdd(piece: Pick<Piece, 'kind' | 'cuts'>, channels: Parameters<typeof possibleCuts>[0], sheets: readonly NetworkSheet[]): readonly CutRef[] {
  const isThere = (ref: CutRef): boolean => piece.cuts.some(({ channelId, placement }) => channelId === ref.channelId && placement === ref.placement);
  return possibleCuts(channels, sheets, piece.kind).filter((ref) => !isThere(ref)).slice(0, Math.max(0, MAX_CUTS - piece.cuts.length));
}
