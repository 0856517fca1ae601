import { getPlacement } from '../../core/network/network-sheet.ts';
import type { Snapshot } from '../../core/post/snapshot.ts';
import type { CutToCheck, Finding } from '../../core/preflight/finding.ts';
import { preflight } from '../../core/preflight/preflight.ts';
import { adjustmentOf, mediaOfPiece, type CutRef } from '../../core/piece/piece.ts';
import { slidesOfCut } from '../../core/piece/slides-of-cut.ts';
import { findMediaByIds } from '../db/media-repository.ts';
import { listChannels, type Brand } from '../db/brand-repository.ts';
import { cutSourceOf, slidesIn } from '../render/cut-source.ts';
import type { Services } from '../services.ts';

/**
 * Composes the given cuts without painting them and answers all findings.
 * @param atMs when it would go out: licences may end before
 */
export async function preflightSnapshot(services: Services, brand: Brand, snapshot: Snapshot, cuts: readonly CutRef[], atMs: number): Promise<readonly Finding[]> {
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
  const toCheck = known.map(({ ref, channel, sheet, placement }, index): CutToCheck => {
    const { left } = slidesOfCut(snapshot.piece, snapshot.template, placement.carousel, adjustmentOf(snapshot.piece, ref));
    const slides = slidesIn(snapshot, channel.network, ref).flatMap((frame, at) => {
      const report = reports[index]?.[at];
      return report ? [{ frame, report }] : [];
    });
    return { ref, channelName: channel.name, sheet, placement, slides, left };
  });
  const { piece, template, book } = snapshot;
  const items = await findMediaByIds(services.db, brand.id, mediaOfPiece(piece));
  const pictures = items.map(({ id, name, altText, widthPx, heightPx, recording, terms }) => ({ id, name, altText, widthPx, heightPx, recording, licence: terms.licence, licenceUntil: terms.licenceUntil }));
  return preflight({ piece, template, book, cuts: toCheck, pictures, atMs, zone: brand.zone });
}
