import { useMemo } from 'react';
import { resolveCuts } from '../../../core/cut/resolve-cuts.ts';
import type { Piece } from '../../../core/piece/piece.ts';
import type { Template } from '../../../core/template/template.ts';
import type { WantedCut } from '../../../workers/wall-protocol.ts';
import type { MediaItem } from '../../media/media-address.ts';
import { brandContent, type BrandData } from '../../preview/brand-content.ts';
import { CutCanvas } from '../../preview/CutCanvas.tsx';
import { useWall } from '../../preview/wall.ts';

interface PreviewProps {
  readonly brandData: BrandData;
  readonly document: Piece;
  readonly template: Template;
  readonly media: readonly MediaItem[];
}

const HEIGHT_PX = 190;
/** Shapes that tell a state from another; every cut would only repeat them. */
const MAX_CUTS = 5;

/** A saved state in a few of its shapes, the first slide of each. */
export function RevisionPreview({ brandData, document, template, media }: PreviewProps) {
  const cuts = useMemo(() => {
    const all = resolveCuts({ piece: document, template, channels: brandData.channels, sheets: brandData.sheets }, document.cuts);
    const byShape = new Map(all.map((cut) => [(cut.placement.exportPx.width / cut.placement.exportPx.height).toFixed(2), cut]));
    return [...byShape.values()].slice(0, MAX_CUTS);
  }, [document, template, brandData]);
  const request = useMemo(() => {
    const density = Math.min(2, globalThis.devicePixelRatio || 1);
    const wanted = cuts.flatMap(({ key, placement, slides: [first] }): WantedCut[] =>
      first ? [{ key, run: key, template: first.template, frame: first.filled, placement, adjustment: first.adjustment, place: first.place, family: first.family, scale: (HEIGHT_PX / placement.exportPx.height) * density }] : [],
    );
    return { content: brandContent(brandData, brandData.book, media), ghosts: false, cuts: wanted };
  }, [cuts, brandData, media]);
  const { wall } = useWall(request);
  return (
    <ul className="flex flex-wrap items-end gap-3">
      {cuts.map(({ key, channel, placement }) => (
        <li key={key}>
          <CutCanvas wall={wall} cutKey={key} widthPx={(HEIGHT_PX * placement.exportPx.width) / placement.exportPx.height} heightPx={HEIGHT_PX} label={`${channel.name}, ${placement.name}, as it was`} />
        </li>
      ))}
    </ul>
  );
}
