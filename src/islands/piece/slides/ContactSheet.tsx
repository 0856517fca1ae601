import { useDeferredValue } from 'react';
import { gatherSlides } from '../../../core/piece/adjust.ts';
import type { Frame } from '../../../core/piece/piece.ts';
import { plural } from '../../../core/preflight/finding.ts';
import { SUM_ID } from '../../../core/piece/slides-of-cut.ts';
import { sumSlide } from '../../../core/template/slide-template.ts';
import type { Template } from '../../../core/template/template.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { CutCanvas } from '../../preview/CutCanvas.tsx';
import { NoCuts } from '../NoCuts.tsx';
import type { ContactProps } from '../view-props.ts';
import { PicturesButton, PicturesDrop, usePictureSlides } from './PicturesToSlides.tsx';
import { joinIds, LeftCell, ShownCell } from './SlideCell.tsx';
import { SlideStrip } from './SlideStrip.tsx';
import { SlidesFromText } from './SlidesFromText.tsx';
import { ExportCuts } from '../look/ExportCuts.tsx';
import type { Cut } from '../use-cuts.ts';
import { WallScale } from '../../preview/WallScale.tsx';

const HEADER_PX = 116;
const GAP_PX = 10;

/** All slides of all cuts: a row a cut, a column a slide. The strip on top is the piece's own order. */
export function ContactSheet(props: ContactProps) {
  const { piece, cuts, brand, pieceId, store, readOnly, template, frame, chosen, onChosen } = props;
  // The strip follows once the cuts are on their way.
  const frames = useDeferredValue(piece.frames);
  const pictures = usePictureSlides(props);
  const columnPx = Math.round(cuts.scaleOf(cuts.list[0] ?? noCut) * (cuts.list[0]?.placement.exportPx.width ?? 0)) || 132;
  const layout = { gridTemplateColumns: `${HEADER_PX}px repeat(${piece.frames.length}, ${columnPx}px)`, columnGap: GAP_PX };
  return (
    <section aria-label="Contact sheet" className="relative flex min-w-0 flex-1 flex-col">
      <div className="flex flex-wrap items-center gap-3 px-5 pt-4 pb-3">
        <p className="mr-auto text-xs text-quiet">
          Contact sheet: {plural(piece.frames.length, 'slide')}, {plural(cuts.list.length, 'cut')}
        </p>
        <WallScale cuts={cuts} />
        {!readOnly && <SlidesFromText {...props} />}
        {!readOnly && <PicturesButton {...props} pictures={pictures} />}
        {cuts.list.length > 0 && <ExportCuts brand={brand.slug} pieceId={pieceId} store={store} cuts={cuts} />}
      </div>
      {cuts.problem && (
        <p role="alert" className="px-5 pb-3 text-sm text-coral-ink">
          The cuts could not be painted: {cuts.problem}
        </p>
      )}
      <PicturesDrop {...props} pictures={pictures}>
        <div className="w-max">
          <SlideStrip frames={frames} template={template} store={store} frameId={frame.id} chosen={chosen} onChosen={onChosen} readOnly={readOnly} columnPx={columnPx} headerPx={HEADER_PX} gapPx={GAP_PX} />
          {cuts.list.map((cut) => (
            <div key={cut.key} role="group" aria-label={`${cut.sheet.name} ${cut.placement.name}`} style={layout} className="grid items-start border-t border-line py-2.5">
              <RowHead cut={cut} total={piece.frames.length} />
              {isGathered(cut) && <GatheredCell {...props} cut={cut} columnPx={columnPx} />}
              {!isGathered(cut) && piece.frames.map((frame, index) => (
                <SlideCell key={frame.id} {...props} cell={frame} cut={cut} number={index + 1} columnPx={columnPx} />
              ))}
              {!readOnly && canGather(cut, template) && <GatherButton cut={cut} store={store} />}
            </div>
          ))}
        </div>
        {cuts.list.length === 0 && (
          <div className="sticky left-0 mt-5">
            <NoCuts brand={brand.slug} kind={piece.kind} />
          </div>
        )}
      </PicturesDrop>
    </section>
  );
}

/** Whether all slides go out in one picture here. */
function isGathered(cut: Cut): boolean {
  return cut.slides[0]?.frame.id === SUM_ID;
}

function canGather(cut: Cut, template: Template): boolean {
  return !cut.placement.carousel && !isGathered(cut) && cut.left.length > 0 && sumSlide(template) !== null;
}

/** Stands in for the first cut of a piece without any. */
const noCut = { placement: { exportPx: { width: 1, height: 1 } } } as Cut;

function RowHead({ cut, total }: { readonly cut: Cut; readonly total: number }) {
  const { sheet, placement, slides } = cut;
  const rule = placement.carousel;
  return (
    <div className="sticky left-0 z-10 bg-wall pr-2 text-xs">
      <p className="flex items-center gap-1.5 font-semibold">
        <ChannelBadge badge={sheet.badge} />
        {sheet.name}
      </p>
      <p>{placement.name}</p>
      <p className="text-quiet tabular-nums">
        {placement.exportPx.width} × {placement.exportPx.height}
      </p>
      <p className={slides.length < total && !isGathered(cut) ? 'font-medium text-marigold-ink' : 'text-quiet'}>
        {rule ? `${slides.length} of ${total}${rule.as === 'document' ? ', one PDF' : ''}` : isGathered(cut) ? 'all in one' : 'one picture'}
      </p>
    </div>
  );
}

type OfCut = Pick<ContactProps, 'store'> & { readonly cut: Cut };

function GatherButton({ cut, store }: OfCut) {
  return (
    <button type="button" onClick={() => store.change(`gather-${cut.key}`, (draft) => gatherSlides(draft, cut.key, true))} className="col-start-2 col-end-[-1] mt-1.5 justify-self-start text-xs font-medium text-house hover:underline">
      Gather all in one picture
    </button>
  );
}

/** The one picture that stands for all slides, where a place takes no more. */
function GatheredCell({ cut, columnPx, cuts, store, readOnly, frame, onLook }: ContactProps & { readonly cut: Cut; readonly columnPx: number }) {
  const [slide] = cut.slides;
  if (!slide) return null;
  const { width, height } = cut.placement.exportPx;
  return (
    <div className="col-start-2 col-end-[-1] flex items-start gap-3">
      <button type="button" data-look={cut.key} data-frame={SUM_ID} onClick={() => onLook(cut.key, SUM_ID)} aria-label={`${cut.sheet.name} ${cut.placement.name}, all in one: look at it large`} className={`block ${frame.id === SUM_ID ? 'outline-2 outline-offset-2 outline-house' : 'hover:outline-2 hover:outline-offset-2 hover:outline-edge'}`}>
        <CutCanvas wall={cuts.wall} cutKey={slide.key} widthPx={columnPx} heightPx={Math.round((columnPx * height) / width)} />
      </button>
      <div className="text-xs">
        <p>All slides gathered in one picture.</p>
        {!readOnly && (
          <button type="button" onClick={() => store.change(`gather-${cut.key}`, (draft) => gatherSlides(draft, cut.key, false))} className="mt-1 font-medium text-house hover:underline">
            Send the first slide alone
          </button>
        )}
      </div>
    </div>
  );
}

interface SheetCellProps extends ContactProps {
  readonly cut: Cut;
  readonly cell: Frame;
  readonly number: number;
  readonly columnPx: number;
}

function SlideCell({ cut, cell, number, columnPx, cuts, frame, store, readOnly, onLook }: SheetCellProps) {
  const { sheet, placement, slides, left } = cut;
  const shared = {
    store,
    readOnly,
    cutKey: cut.key,
    cutName: `${sheet.name} ${placement.name}`,
    frameId: cell.id,
    number,
    widthPx: columnPx,
    heightPx: Math.round((columnPx * placement.exportPx.height) / placement.exportPx.width),
    left: joinIds(left.map((each) => each.frame.id)),
  };
  const slide = slides.find((each) => each.frame.id === cell.id);
  if (!slide) {
    const because = left.find((each) => each.frame.id === cell.id)?.because ?? 'chosen';
    return <LeftCell {...shared} because={because} shown={joinIds(slides.map((each) => each.frame.id))} most={placement.carousel?.most ?? 1} />;
  }
  const over = cuts.reports.get(slide.key)?.texts.find((text) => text.kind === 'overflows');
  return <ShownCell {...shared} wall={cuts.wall} slideKey={slide.key} isAtWork={cell.id === frame.id} overBy={over?.kind === 'overflows' ? over.overBy : null} onLook={onLook} />;
}
