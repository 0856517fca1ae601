import { useMutation, useQuery } from '@tanstack/react-query';
import X from 'lucide-react/icons/x';
import { useMemo, useState } from 'react';
import { getBrand } from '../../contract/brand-contracts.ts';
import { listTemplates } from '../../contract/template-contracts.ts';
import { createPiece } from '../../contract/piece-contracts.ts';
import { placementsFor, type Placement } from '../../core/network/network-sheet.ts';
import { isCutOut } from '../../core/crop/picture-facts.ts';
import { bySuitability, lackFor, type BrandHolds, type PictureWant } from '../../core/template/suits-brand.ts';
import type { MediaItem } from '../media/media-address.ts';
import { COVER, templateFamilies, type Template, type TemplateFamily } from '../../core/template/template.ts';
import type { WantedCut } from '../../workers/wall-protocol.ts';
import type { AnswerOf } from '../../contract/contract.ts';
import { linkedCut } from '../../core/piece/adjustment.ts';
import { listMediaDetails } from '../../contract/media-contracts.ts';
import type { Frame } from '../../core/piece/piece.ts';
import type { SampleWords } from '../../core/template/samples/sample-words.ts';
import { sampleFrame, type SamplePictures } from '../../core/piece/sample-frame.ts';
import { filledSlide, placesOf } from '../../core/piece/slides-of-cut.ts';
import { slideTemplate } from '../../core/template/slide-template.ts';
import { SAMPLE_MEDIA, sampleMedia } from '../media/sample-media.ts';
import { call } from '../ui/call.ts';
import { CutCanvas } from '../preview/CutCanvas.tsx';
import { useWall } from '../preview/wall.ts';
import { toast } from '../ui/toast.tsx';
import { brandContent } from '../preview/brand-content.ts';
import { useTemplatesInView } from '../preview/use-templates-in-view.ts';
import { useSampleWords } from '../preview/use-sample-words.ts';
import { singlePicture } from '../preview/wanted-cut.ts';
import { workshopShapes } from '../workshop/shapes.ts';

type BrandData = AnswerOf<typeof getBrand>;

const SHOWN_HEIGHT_PX = 128;
const MAX_SHAPES = 4;

type Choice = TemplateFamily | 'all' | 'own';
const choiceNames: Readonly<Record<Choice, string>> = { all: 'All', own: 'Yours', announce: 'Announce', quote: 'Quote', offer: 'Offer', list: 'List and steps', event: 'Event', ask: 'Ask', people: 'People and thanks' };

const lackWords: Readonly<Record<PictureWant, string>> = { photo: 'takes a photograph, and there is none yet', 'cut-out': 'best with a picture that is cut out', clip: 'takes a clip or a photograph, and there is none yet' };

/** What there is of each kind among the latest media. */
function countOf(items: readonly MediaItem[]): BrandHolds {
  const [pictures, cutOuts] = [items.filter(({ recording, tags }) => recording === null && !tags.includes('mark')), items.filter(({ facts }) => isCutOut(facts))];
  return { photo: pictures.filter(({ facts }) => !isCutOut(facts)).length, 'cut-out': cutOuts.length, clip: items.filter(({ recording }) => recording !== null).length };
}

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
  const shapes = useMemo(() => (brandData.data ? shapesOf(brandData.data) : []), [brandData.data]);
  const [choice, setChoice] = useState<Choice>('all');
  const inView = useTemplatesInView(brand);
  const words = useSampleWords(brandData.data?.book.language);
  const request = useMemo(() => {
    if (!brandData.data || !media.data || !words) return null;
    const sample = sampleMedia(media.data.items);
    const density = Math.min(2, globalThis.devicePixelRatio || 1);
    return {
      content: brandContent(brandData.data, brandData.data.book, sample.items),
      ghosts: true,
      cuts: inView.templates.flatMap((template) => {
        const cuts = previewCuts(template, shapes);
        if (template.kind !== 'graphic') return carouselPreview(template, cuts, sample.pictures, words, density);
        const frame = sampleFrame(template, 'usual', sample.pictures, words);
        return cuts.map(({ key, placement }) => singlePicture({ key, template, frame, placement, adjustment: linkedCut, scale: (SHOWN_HEIGHT_PX / placement.exportPx.height) * density }));
      }),
    };
  }, [brandData.data, media.data, shapes, inView.templates, words]);
  const { wall } = useWall(request);
  // Archived ones stay with the pieces that have them. Tiles get their height from the brand's shapes.
  const holds = useMemo(() => countOf(media.data?.items ?? []), [media.data]);
  const usable = useMemo(() => {
    const items = templates.data?.items.filter(({ archived }) => !archived) ?? [];
    // Those that suit the brand stand first, before anything is painted; without its pictures nobody knows which do.
    return brandData.data && media.data ? bySuitability(items, brandData.data.book, holds) : items;
  }, [templates.data, brandData.data, media.data, holds]);
  const belongs = ({ family, isOwn }: (typeof usable)[number], to: Choice): boolean => to === 'all' || (to === 'own' ? isOwn : family === to);
  const lackOf = ({ wants }: (typeof usable)[number]): string | null => {
    const lack = media.data ? lackFor(wants, holds) : null;
    return lack && lackWords[lack];
  };
  const choices = (['all', 'own', ...templateFamilies] as const).filter((each) => usable.some((template) => belongs(template, each)));
  const offered = shapes.length === 0 || media.isPending ? [] : usable.filter((template) => belongs(template, choice));
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
      {brandData.isError || templates.isError ? <p className="text-sm text-coral-ink">{(brandData.error ?? templates.error)?.message}</p> : offered.length === 0 && <p className="py-6 text-sm text-quiet">Loading the templates…</p>}
      {choices.length > 2 && (
        <div role="group" aria-label="What it is for" className="mb-3 flex flex-wrap gap-1.5">
          {choices.map((each) => (
            <button key={each} type="button" aria-pressed={choice === each} onClick={() => setChoice(each)} className={`rounded-md border px-2.5 py-1 text-sm ${choice === each ? 'border-house bg-house-soft font-semibold text-house' : 'border-line bg-panel text-quiet hover:text-ink'}`}>
              {choiceNames[each]} <span className="text-quiet tabular-nums">{usable.filter((template) => belongs(template, each)).length}</span>
            </button>
          ))}
        </div>
      )}
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(min(29rem,100%),1fr))] gap-4">
        {offered.map((template) => (
          <li key={template.key} ref={inView.watch} data-template={template.key}>
            <button type="button" disabled={start.isPending} onClick={() => start.mutate(template.key)} className="block w-full rounded-md border border-line bg-panel p-3 text-left hover:border-house disabled:opacity-60">
              <span className="flex items-end gap-2.5 [&>canvas]:min-w-0" aria-hidden>
                {previewCuts(template, shapes).map(({ key, placement }) => (
                  <CutCanvas key={key} wall={wall} cutKey={key} widthPx={(SHOWN_HEIGHT_PX * placement.exportPx.width) / placement.exportPx.height} heightPx={SHOWN_HEIGHT_PX} />
                ))}
              </span>
              <span className="mt-2.5 flex items-baseline gap-2">
                <span className="font-heading text-base font-semibold">{template.name}</span>
                <span className="text-sm text-quiet">
                  {template.purpose}
                  {lackOf(template) && ` · ${lackOf(template)}`}
                </span>
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
function carouselPreview(template: Template, cuts: readonly PreviewCut[], pictures: SamplePictures, words: SampleWords, density: number): readonly WantedCut[] {
  const frames = previewSlides(template).map((slide, index): Frame => ({ ...sampleFrame(slideTemplate(template, slide), 'usual', pictures, words), id: String(index), ...(slide === undefined ? {} : { slide }) }));
  const places = placesOf(frames, template);
  const [cover] = frames;
  return cuts.flatMap(({ key, placement }, index): WantedCut[] => {
    const [frame, place] = [frames[index], places[index]];
    if (!frame || !place || !cover) return [];
    const scale = (SHOWN_HEIGHT_PX / placement.exportPx.height) * density;
    return [{ key, template: slideTemplate(template, frame.slide), frame: filledSlide(frame, cover, template, place), placement, adjustment: linkedCut, scale, run: template.key, place, family: frame.slide ?? COVER }];
  });
}

const PREVIEW_SLIDES = 4;

/** Cover, two of the first kind, and the closing card: `PREVIEW_SLIDES` of them. */
function previewSlides({ slides }: Template): readonly (string | undefined)[] {
  const first = slides?.find((slide) => slide.use !== 'closing')?.key;
  const closing = slides?.find((slide) => slide.use === 'closing')?.key;
  return [undefined, first, first, closing ?? first];
}

interface PreviewCut {
  readonly key: string;
  readonly placement: Placement;
}

/** The different shapes that the brand's channels ask for; before one is connected, those that a template is judged in. */
function shapesOf(brand: BrandData): readonly PreviewCut[] {
  if (brand.sheets.length === 0) return workshopShapes.slice(0, MAX_SHAPES).map((placement) => ({ key: placement.key, placement }));
  const all = brand.sheets.flatMap((sheet) => placementsFor(sheet, 'graphic').map((placement) => ({ key: `${sheet.key}.${placement.key}`, placement })));
  return all.filter((each, index) => all.findIndex((other) => aspectOf(other) === aspectOf(each)) === index).slice(0, MAX_SHAPES);
}

const aspectOf = ({ placement }: PreviewCut): string => (placement.exportPx.width / placement.exportPx.height).toFixed(1);

/** A graphic in every shape; slides and shots side by side in an upright one. */
function previewCuts({ key, kind }: Pick<Template, 'key' | 'kind'>, shapes: readonly PreviewCut[]): readonly PreviewCut[] {
  const upright = shapes.find((each) => aspectOf(each) === '0.8') ?? shapes[0];
  if (kind === 'graphic' || !upright) return shapes.map((shape) => ({ key: `${key}.${shape.key}`, placement: shape.placement }));
  return Array.from({ length: PREVIEW_SLIDES }, (_, index) => ({ key: `${key}.${index}`, placement: upright.placement }));
}
