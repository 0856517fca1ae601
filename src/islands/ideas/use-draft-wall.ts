import { keepPreviousData, useQueries, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { listMediaDetails } from '../../contract/media-contracts.ts';
import { placementsFor, type Placement } from '../../core/network/network-sheet.ts';
import { linkedCut } from '../../core/piece/adjustment.ts';
import type { Frame } from '../../core/piece/piece.ts';
import { filledSlide, placesOf } from '../../core/piece/slides-of-cut.ts';
import { slideTemplate } from '../../core/template/slide-template.ts';
import { COVER, type Template } from '../../core/template/template.ts';
import type { WantedCut } from '../../workers/wall-protocol.ts';
import { brandContent } from '../preview/brand-content.ts';
import { templateQuery } from '../preview/template-query.ts';
import { useWall, type Wall } from '../preview/wall.ts';
import { singlePicture } from '../preview/wanted-cut.ts';
import { call } from '../ui/call.ts';
import type { BrandData } from './ideas-context.ts';

/** A piece that is not kept yet. */
export interface Draft {
  readonly key: string;
  readonly template: string;
  readonly frames: readonly Frame[];
}

/** One painting of a draft, with the room that it takes. */
export interface DraftCut {
  readonly cutKey: string;
  readonly widthPx: number;
  readonly heightPx: number;
}

interface DraftWallOptions {
  readonly heightPx: number;
  /** Shapes of a graphic, slides of a carousel, at most so many. */
  readonly most: number;
}

const MAX_DETAILS = 60;

/** Paints pieces that nobody has kept yet, as the wall paints those that are: a graphic in some shapes, of a carousel its first slides. */
export function useDraftWall(data: BrandData | null, drafts: readonly Draft[], { heightPx, most }: DraftWallOptions): { readonly wall: Wall | null; readonly cutsOf: (key: string) => readonly DraftCut[] } {
  const brand = data?.slug ?? '';
  const keys = useMemo(() => [...new Set(drafts.map(({ template }) => template))].toSorted(), [drafts]);
  const templates = useQueries({ queries: keys.map((key) => ({ ...templateQuery(brand, key), enabled: brand !== '' })), combine: documentsOf });
  const ids = useMemo(() => [...new Set(drafts.flatMap(({ frames }) => frames.flatMap(({ slots }) => Object.values(slots).flatMap((value) => (value.kind === 'picture' ? [value.mediaId] : [])))))].slice(0, MAX_DETAILS).join(','), [drafts]);
  const media = useQuery({ queryKey: ['media', brand, 'details', ids], enabled: brand !== '' && ids !== '', placeholderData: keepPreviousData, queryFn: () => call(listMediaDetails, { params: { brand }, query: { ids } }) });
  const items = ids === '' ? NO_ITEMS : media.data?.items;
  const shapes = useMemo(() => (data ? shapesOf(data, most) : []), [data, most]);
  const made = useMemo(() => {
    const density = Math.min(2, globalThis.devicePixelRatio || 1);
    const wanted: WantedCut[] = [];
    const rooms = new Map<string, DraftCut[]>();
    for (const draft of drafts) {
      const template = templates.find(({ key }) => key === draft.template);
      if (!template) continue;
      const cuts = cutsOfDraft(draft, template, shapes, heightPx, density, most);
      wanted.push(...cuts.map(({ cut }) => cut));
      rooms.set(draft.key, cuts.map(({ room }) => room));
    }
    return { wanted, rooms };
  }, [drafts, templates, shapes, heightPx, most]);
  const request = useMemo(() => (data && items ? { content: brandContent(data, data.book, items), ghosts: false, cuts: made.wanted } : null), [data, items, made]);
  const { wall } = useWall(request);
  return { wall, cutsOf: (key) => made.rooms.get(key) ?? NO_CUTS };
}

const NO_ITEMS: never[] = [];
const NO_CUTS: never[] = [];

/** Outside of the component, so that the same answers make the same list. */
function documentsOf(results: readonly { readonly data?: { readonly document: Template } | undefined }[]): readonly Template[] {
  return results.flatMap(({ data }) => (data ? [data.document] : []));
}

function cutsOfDraft({ key, frames }: Draft, template: Template, shapes: readonly Placement[], heightPx: number, density: number, most: number): readonly { readonly cut: WantedCut; readonly room: DraftCut }[] {
  const roomOf = (cutKey: string, placement: Placement): DraftCut => ({ cutKey, heightPx, widthPx: (heightPx * placement.exportPx.width) / placement.exportPx.height });
  const [cover] = frames;
  if (!cover) return [];
  if (template.kind === 'graphic') {
    return shapes.map((placement) => {
      const cutKey = `${key}.${placement.key}.${placement.exportPx.width}`;
      return { room: roomOf(cutKey, placement), cut: singlePicture({ key: cutKey, template, frame: cover, placement, adjustment: linkedCut, scale: (heightPx / placement.exportPx.height) * density }) };
    });
  }
  const upright = shapes.find(({ exportPx }) => exportPx.width / exportPx.height < 0.9 && exportPx.width / exportPx.height > 0.7) ?? shapes[0];
  if (!upright) return [];
  const places = placesOf(frames, template);
  return frames.slice(0, most).flatMap((frame, index) => {
    const place = places[index];
    if (!place) return [];
    const cutKey = `${key}.${frame.id}`;
    return [{ room: roomOf(cutKey, upright), cut: { key: cutKey, template: slideTemplate(template, frame.slide), frame: filledSlide(frame, cover, template, place), placement: upright, adjustment: linkedCut, scale: (heightPx / upright.exportPx.height) * density, run: key, place, family: frame.slide ?? COVER } }];
  });
}

/** The shapes that the brand's channels ask for, each once: the upright ones first, as most people see those. */
function shapesOf(brand: BrandData, most: number): readonly Placement[] {
  const all = brand.sheets.flatMap((sheet) => placementsFor(sheet, 'graphic'));
  const aspectOf = ({ exportPx }: Placement): string => (exportPx.width / exportPx.height).toFixed(1);
  const each = all.filter((placement, index) => all.findIndex((other) => aspectOf(other) === aspectOf(placement)) === index);
  return each.toSorted((a, b) => Math.abs(Number(aspectOf(a)) - 0.8) - Math.abs(Number(aspectOf(b)) - 0.8)).slice(0, most);
}
