import EyeOff from 'lucide-react/icons/eye-off';
import Undo2 from 'lucide-react/icons/undo-2';
import type { Frame } from '../../core/piece/piece.ts';
import { leaveSlideOut, takeSlideIn } from '../../core/piece/adjust.ts';
import { ChannelBadge } from '../ui/ChannelBadge.tsx';
import { CutCanvas } from './CutCanvas.tsx';
import type { SheetProps } from './LookSheet.tsx';
import type { MediaItem } from './PieceEditor.tsx';
import { PicturesButton, PicturesDrop, usePictureSlides } from './PicturesToSlides.tsx';
import { SlideStrip } from './SlideStrip.tsx';
import { SlidesFromText } from './SlidesFromText.tsx';
import { TakeOut } from './TakeOut.tsx';
import type { Cut, CutSlide } from './use-cuts.ts';
import { WallScale } from './WallScale.tsx';

export interface ContactProps extends SheetProps {
  /** The slide at work. */
  readonly frame: Frame;
  /** Slides that are chosen together. */
  readonly chosen: ReadonlySet<string>;
  readonly onChosen: (ids: ReadonlySet<string>, last: string | null) => void;
  readonly onLook: (cutKey: string, frameId: string) => void;
  readonly onMedia: (item: MediaItem) => void;
}

const HEADER_PX = 116;
const GAP_PX = 10;
/** What stays behind takes little room. */
const MOST_LEFT_PX = 72;

/** All slides of all cuts: a row a cut, a column a slide. The strip on top is the piece's own order. */
export function ContactSheet(props: ContactProps) {
  const { piece, cuts, brand, pieceId, store, readOnly } = props;
  const pictures = usePictureSlides(props);
  const columnPx = Math.round(cuts.scaleOf(cuts.list[0] ?? noCut) * (cuts.list[0]?.placement.exportPx.width ?? 0)) || 132;
  const layout = { gridTemplateColumns: `${HEADER_PX}px repeat(${piece.frames.length}, ${columnPx}px)`, columnGap: GAP_PX };
  return (
    <section aria-label="Contact sheet" className="relative flex min-w-0 flex-1 flex-col">
      <div className="flex flex-wrap items-center gap-3 px-5 pt-4 pb-3">
        <p className="mr-auto text-xs text-quiet">
          Contact sheet: {piece.frames.length} slides, {cuts.list.length} cuts
        </p>
        <WallScale cuts={cuts} />
        {!readOnly && <SlidesFromText {...props} />}
        {!readOnly && <PicturesButton {...props} pictures={pictures} />}
        <TakeOut brand={brand.slug} pieceId={pieceId} store={store} cuts={cuts} />
      </div>
      {cuts.problem && (
        <p role="alert" className="px-5 pb-3 text-sm text-coral-ink">
          The cuts could not be painted: {cuts.problem}
        </p>
      )}
      <PicturesDrop {...props} pictures={pictures}>
        <div className="w-max">
          <SlideStrip {...props} columnPx={columnPx} headerPx={HEADER_PX} gapPx={GAP_PX} />
          {cuts.list.map((cut) => (
            <div key={cut.key} role="group" aria-label={`${cut.sheet.name} ${cut.placement.name}`} style={layout} className="grid items-start border-t border-line py-2.5">
              <RowHead cut={cut} total={piece.frames.length} />
              {piece.frames.map((frame, index) => (
                <SheetCell key={frame.id} {...props} cell={frame} cut={cut} number={index + 1} columnPx={columnPx} />
              ))}
            </div>
          ))}
        </div>
      </PicturesDrop>
    </section>
  );
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
      <p className={slides.length < total ? 'font-medium text-marigold-ink' : 'text-quiet'}>
        {rule ? `${slides.length} of ${total}${rule.as === 'document' ? ', one PDF' : ''}` : 'one picture'}
      </p>
    </div>
  );
}

interface CellProps extends ContactProps {
  readonly cut: Cut;
  readonly cell: Frame;
  readonly number: number;
  readonly columnPx: number;
}

function SheetCell(props: CellProps) {
  const { cut, cell } = props;
  const slide = cut.slides.find(({ frame }) => frame.id === cell.id);
  return slide ? <ShownCell {...props} slide={slide} /> : <LeftCell {...props} />;
}

function ShownCell({ cut, cell, number, columnPx, cuts, frame, slide, store, readOnly, onLook }: CellProps & { readonly slide: CutSlide }) {
  const { width, height } = cut.placement.exportPx;
  const report = cuts.reports.get(slide.key);
  const over = report?.texts.find((text) => text.kind === 'overflows');
  const name = `${cut.sheet.name} ${cut.placement.name}, slide ${number}`;
  return (
    <div className="group relative">
      <button type="button" onClick={() => onLook(cut.key, cell.id)} aria-label={`${name}: look at it large`} className={`block ${cell.id === frame.id ? 'outline-2 outline-offset-2 outline-house' : 'hover:outline-2 hover:outline-offset-2 hover:outline-edge'}`}>
        <CutCanvas wall={cuts.wall} cutKey={slide.key} widthPx={columnPx} heightPx={Math.round((columnPx * height) / width)} />
      </button>
      {over?.kind === 'overflows' && <p className="mt-1 text-xs font-medium text-coral-ink">too long by {over.overBy}</p>}
      {!readOnly && (
        <button
          type="button"
          aria-label={`Leave slide ${number} out of ${cut.sheet.name} ${cut.placement.name}`}
          title="Leave it out here"
          onClick={() => store.change(`without-${cut.key}`, (draft) => leaveSlideOut(draft, cut.key, cell.id, cut.left.map((each) => each.frame.id)))}
          className="absolute top-1 right-1 rounded-md border border-line bg-panel p-1 opacity-0 group-hover:opacity-100 focus-visible:opacity-100"
        >
          <EyeOff aria-hidden className="size-3.5" />
        </button>
      )}
    </div>
  );
}

const reasons = { chosen: 'left out', limit: 'no room', single: 'stays behind' } as const;

function LeftCell({ cut, cell, number, columnPx, store, readOnly }: CellProps) {
  const { width, height } = cut.placement.exportPx;
  const because = cut.left.find(({ frame }) => frame.id === cell.id)?.because ?? 'chosen';
  const takeIn = (): void =>
    store.change(`without-${cut.key}`, (draft) => takeSlideIn(draft, cut.key, cell.id, { left: cut.left.map((each) => each.frame.id), shown: cut.slides.map(({ frame }) => frame.id), most: cut.placement.carousel?.most ?? 1 }));
  return (
    <div style={{ width: columnPx, height: Math.min(MOST_LEFT_PX, Math.round((columnPx * height) / width)) }} className="flex flex-col items-center justify-center gap-1 rounded-md border border-dashed border-edge text-xs text-quiet">
      <span>{reasons[because]}</span>
      {!readOnly && (
        <button type="button" aria-label={`Take slide ${number} into ${cut.sheet.name} ${cut.placement.name}`} onClick={takeIn} className="flex items-center gap-1 rounded-md px-1 font-medium text-house hover:underline">
          <Undo2 aria-hidden className="size-3" />
          Take in
        </button>
      )}
    </div>
  );
}
