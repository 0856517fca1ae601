import { accountKindOf, sheetOfAccount } from '../network/account-kind.ts';
import { placementsFor, type NetworkSheet } from '../network/network-sheet.ts';
import type { CutRef, PieceKind } from '../piece/piece.ts';
import type { CutChannel } from './resolve-cuts.ts';

/** Why a piece does not go out on a channel, and the way out; both as a sentence. */
export interface NotThere {
  readonly channelId: string;
  readonly reason: string;
  /** Where it is mended: the piece's look, the channels, or nowhere: another kind of piece is needed. */
  readonly way: 'look' | 'channels' | 'none';
}

const kindNames: Readonly<Record<PieceKind, string>> = { graphic: 'single pictures', carousel: 'carousels', video: 'videos' };

/** The channels of a brand that a piece cannot go to as it is, each with its reason. */
export function notThere(piece: { readonly kind: PieceKind; readonly cuts: readonly CutRef[] }, channels: readonly (CutChannel & { readonly state?: 'connected' | 'paused' | 'ended' })[], sheets: readonly NetworkSheet[]): readonly NotThere[] {
  return channels.flatMap((channel): NotThere[] => {
    const network = sheets.find(({ key }) => key === channel.network);
    if (!network) return [];
    if (channel.state === 'ended') return [{ channelId: channel.id, reason: `The access to ${channel.name} has ended. Connect it again in Send > Channels.`, way: 'channels' }];
    if (piece.cuts.some(({ channelId }) => channelId === channel.id)) return [];
    const sheet = sheetOfAccount(network, channel.kind);
    if (placementsFor(sheet, piece.kind).length > 0) return [{ channelId: channel.id, reason: `This piece has no cut for ${channel.name}. Add one in Look.`, way: 'look' }];
    const account = placementsFor(network, piece.kind).length > 0 ? `A ${accountKindOf(network, channel.kind).name.toLowerCase()} on ${network.name}` : network.name;
    const instead = piece.kind === 'video' ? 'Make a graphic of its best moment instead.' : 'Make a video of it instead.';
    return [{ channelId: channel.id, reason: `${account} takes no ${kindNames[piece.kind]}. ${instead}`, way: 'none' }];
  });
}
