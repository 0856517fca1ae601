import { getPlacement } from '../../core/network/network-sheet.ts';
import type { CutRef } from '../../core/piece/piece.ts';
import type { Snapshot } from '../../core/post/snapshot.ts';
import { preflight, type CutToCheck, type Finding } from '../../core/preflight/preflight.ts';
import { listChannels, type Brand } from '../db/brand-repository.ts';
import { cutSourceOf } from '../render/cut-source.ts';
import type { Services } from '../services.ts';

/** Composes the given cuts without painting them and answers all findings. */
export async function preflightSnapshot(services: Services, brand: Brand, snapshot: Snapshot, cuts: readonly CutRef[]): Promise<readonly Finding[]> {
  const channels = await listChannels(services.db, brand.id);
  const known = cuts.flatMap((ref) => {
    const channel = channels.find((each) => each.id === ref.channelId);
    const sheet = snapshot.sheets.find((each) => each.key === channel?.network);
    return channel && sheet ? [{ ref, channel, sheet, placement: getPlacement(sheet, ref.placement) }] : [];
  });
  const reports = await services.render.reports({
    kind: 'report',
    sources: known.map(({ channel, ref }) => cutSourceOf(snapshot, channel.network, ref, services.media)),
  });
  const toCheck = known.flatMap(({ ref, channel, sheet, placement }, index): CutToCheck[] => {
    const report = reports[index];
    return report ? [{ ref, channelName: channel.name, sheet, placement, report }] : [];
  });
  return preflight(snapshot.piece, snapshot.template, toCheck);
}
