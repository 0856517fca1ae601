import { useMutation, useQuery } from '@tanstack/react-query';
import X from 'lucide-react/icons/x';
import { useMemo } from 'react';
import { getBrand } from '../../contract/brand-contracts.ts';
import { listTemplates } from '../../contract/template-contracts.ts';
import { createPiece } from '../../contract/piece-contracts.ts';
import { placementsFor, type Placement } from '../../core/network/network-sheet.ts';
import { COVER, type Template } from '../../core/template/template.ts';
import type { WantedCut } from '../../workers/wall-protocol.ts';
import type { AnswerOf } from '../../contract/contract.ts';
import { linkedCut } from '../../core/piece/adjustment.ts';
import { listMediaDetails } from '../../contract/media-contracts.ts';
import type { Frame } from '../../core/piece/piece.ts';
import { sampleFrame, type SamplePictures } from '../../core/piece/sample-frame.ts';
import { filledSlide, placesOf } from '../../core/piece/slides-of-cut.ts';
import { slideTemplate } from '../../core/template/slide-template.ts';
import { SAMPLE_MEDIA, sampleMedia } from '../media/sample-media.ts';
import { call } from '../ui/call.ts';
import { CutCanvas } from '../preview/CutCanvas.tsx';
import { useWall } from '../preview/wall.ts';
import { toast } from '../ui/toast.tsx';
import { brandContent } from '../preview/brand-content.ts';
import { singlePicture } from '../preview/wanted-cut.ts';

type BrandData = AnswerOf<typeof getBrand>;

const SHOWN_HEIGHT_PX = 128;
const MAX_SHAPES = 4;

/** The templates, each painted in the brand's own colours and type in every shape it would take. */
export function TemplatePicker({ brand, onClose }: { readonly brand: string; readonly onClose: (() => void) | null }) {
  const brandData = useQuery({ queryKey: ['brand', brand], queryFn: () => call(getBrand, { params: { brand } }) });
  const templates = useQuery({ queryKey: ['templates', brand], queryFn: () => call(listTemplates, { params: { brand } }) });
  const media = useQuery({ queryKey: ['media', brand, 'latest'], queryFn: () => call(listMediaDetails, { params: { brand }, query: { latest: SAMPLE_MEDIA } }) });
  const start = useMutation({
    mutationFn: (template: string) => call(createPiece, { params: { brand }, body: { template } }),
    onSuccess: ({ id }) => location.assign(`/b/${brand}/make/pieces/${id}`),
    onError: (error) => toast('problem', error.message),
  });
  const shown = useMemo(
    () => (brandData.data && templates.data && media.data ? previews(offered(templates.data), brandData.data) : []),
    [brandData.data, templates.data, media.data],
  );
  const request = useMemo(() => {
    if (!brandData.data || !media.data) return null;
    const sample = sampleMedia(media.data.items);
    const density = Math.min(2, globalThis.devicePixelRatio || 1);
    return {
      content: brandContent(brandData.data, brandData.data.book, sample.items),
      ghosts: true,
      cuts: shown.flatMap(({ template, cuts }) => {
        if (template.kind !== 'graphic') return carouselPreview(template, cuts, sample.pictures, density);
        const frame = sampleFrame(template, 'usual', sample.pictures);
        return cuts.map(({ key, placement }) => singlePicture({ key, template, frame, placement, adjustment: linkedCut, scale: (SHOWN_HEIGHT_PX / placement.exportPx.height) * density }));
      }),
    };
  }, [brandData.data, media.data, shown]);
  const { wall } = useWall(request);
  return (
    <section aria-labelledby="pick" className="mb-7 border-b border-line pb-6">
      <div className="mb-3 flex items-center justify-between">
        <h2 id="pick" className="text-base font-semibold">
          Start from a template
        </h2>
        {onClose && (
          <button type="button" aria-label="Close the templates" onClick={onClose} className="rounded-md p-1 text-quiet hover:bg-sunk hover:text-ink">
            <X aria-hidden className="size-4" />
          </button>
        )}
      </div>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(32rem,1fr))] gap-4">
        {shown.map(({ template, cuts }) => (
          <li key={template.key}>
            <button type="button" disabled={start.isPending} onClick={() => start.mutate(template.key)} className="block w-full rounded-md border border-line bg-panel p-3 text-left hover:border-house disabled:opacity-60">
              <span className="flex items-end gap-2.5 overflow-hidden" aria-hidden>
                {cuts.map(({ key, placement }) => (
                  <CutCanvas key={key} wall={wall} cutKey={key} widthPx={(SHOWN_HEIGHT_PX * placement.exportPx.width) / placement.exportPx.height} heightPx={SHOWN_HEIGHT_PX} />
                ))}
              </span>
              <span className="mt-2.5 flex items-baseline gap-2">
                <span className="font-heading text-base font-semibold">{template.name}</span>
                <span className="text-sm text-quiet">{template.purpose}</span>
                {template.kind !== 'graphic' && <span className="ml-auto rounded-md bg-sunk px-1.5 py-0.5 text-xs font-medium">{template.kind}</span>}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Some slides of a carousel in one shape, filled with the template's samples. */
function carouselPreview(template: Template, cuts: Preview['cuts'], pictures: SamplePictures, density: number): readonly WantedCut[] {
  const kinds = previewSlides(template);
  const frames = kinds.map((slide, index): Frame => ({ ...sampleFrame(slideTemplate(template, slide), 'usual', pictures), id: String(index), ...(slide === undefined ? {} : { slide }) }));
  const places = placesOf(frames, template);
  const [cover] = frames;
  return cuts.flatMap(({ key, placement }, index): WantedCut[] => {
    const [frame, place] = [frames[index], places[index]];
    if (!frame || !place || !cover) return [];
    const scale = (SHOWN_HEIGHT_PX / placement.exportPx.height) * density;
    return [{ key, template: slideTemplate(template, frame.slide), frame: filledSlide(frame, cover, template, place), placement, adjustment: linkedCut, scale, run: template.key, place, family: frame.slide ?? COVER }];
  });
}

/** Cover, two of the first kind, and the closing card. */
function previewSlides({ slides }: Template): readonly (string | undefined)[] {
  const first = slides?.find((slide) => slide.use !== 'closing')?.key;
  const closing = slides?.find((slide) => slide.use === 'closing')?.key;
  return [undefined, first, first, closing ?? first];
}

interface Preview {
  readonly template: Template;
  readonly cuts: readonly { readonly key: string; readonly placement: Placement }[];
}

/** Templates that are archived are not offered. */
function offered({ templates, own }: AnswerOf<typeof listTemplates>): readonly Template[] {
  return templates.filter((template) => !own.some((each) => each.archived && each.document.key === template.key));
}

/** Each template in every different shape that the brand's channels ask for. */
function previews(templates: readonly Template[], brand: BrandData): readonly Preview[] {
  const placements = brand.sheets.flatMap((sheet) => placementsFor(sheet, 'graphic').map((placement) => ({ name: `${sheet.key}.${placement.key}`, placement })));
  const aspect = ({ placement }: (typeof placements)[number]): string => (placement.exportPx.width / placement.exportPx.height).toFixed(1);
  const shapes = placements.filter((each, index) => placements.findIndex((other) => aspect(other) === aspect(each)) === index).slice(0, MAX_SHAPES);
  const portrait = shapes.find((each) => aspect(each) === '0.8') ?? shapes[0];
  return templates.map((template) => {
    if (template.kind !== 'graphic' && portrait) return { template, cuts: previewSlides(template).map((_, index) => ({ key: `${template.key}.${index}`, placement: portrait.placement })) };
    return { template, cuts: shapes.map(({ name, placement }) => ({ key: `${template.key}.${name}`, placement })) };
  });
}
