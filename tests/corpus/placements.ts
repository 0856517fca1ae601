import type { Placement } from '../../src/core/network/network-sheet.ts';
import { shippedSheets } from '../../src/core/network/shipped-sheets.ts';

const place = (key: string, width: number, height: number, [top, right, bottom, left]: readonly [number, number, number, number]): Placement => ({ key, name: key, surface: key, exportPx: { width, height }, safePercent: { top, right, bottom, left } });

/** Sizes and safe zones of placements whose sheets come with what sends to them: videos, and a site of one's own. */
const others: readonly Placement[] = [
  place('petalry-vertical', 1080, 1920, [12, 12, 22, 6]),
  place('whirlo-clip', 1080, 1920, [10, 14, 24, 6]),
  place('longhall-film', 1920, 1080, [4, 4, 8, 4]),
  place('longhall-short', 1080, 1920, [12, 14, 24, 6]),
  place('openweb-article', 1600, 900, [3, 3, 3, 3]),
];

/** Every different size and safe zone there is; networks that share one share its cut. */
export const corpusPlacements: readonly Placement[] = [
  ...new Map([...shippedSheets.flatMap((sheet) => sheet.placements.map((placement) => ({ ...placement, key: `${sheet.key}-${placement.key}` }))), ...others].toReversed().map((each) => [JSON.stringify([each.exportPx, each.safePercent]), each])).values(),
].toReversed();
