import { useMemo } from 'react';
import type { BrandBook } from '../../core/brand/brand-book.ts';
import type { Placement } from '../../core/network/network-sheet.ts';
import { linkedCut } from '../../core/piece/adjustment.ts';
import type { SlotValue } from '../../core/piece/piece.ts';
import aside from '../../core/template/shipped/aside.json' with { type: 'json' };
import ledger from '../../core/template/shipped/ledger.json' with { type: 'json' };
import tally from '../../core/template/shipped/tally.json' with { type: 'json' };
import type { Template } from '../../core/template/template.ts';
import { brandContent } from '../preview/brand-content.ts';
import { CutCanvas } from '../preview/CutCanvas.tsx';
import { useSampleWords } from '../preview/use-sample-words.ts';
import { useWall } from '../preview/wall.ts';
import type { StoredBrand } from './use-book.ts';
import { singlePicture } from '../preview/wanted-cut.ts';

/** Templates without pictures show best what colours and type do; each in the scheme it is made for. */
const shown = [aside, tally, ledger] as unknown as readonly Template[];
const HEIGHT_PX = 190;
const PLACEMENT: Placement = { key: 'card', name: 'Card', surface: 'card', exportPx: { width: 1080, height: 1350 }, safePercent: { top: 4, right: 4, bottom: 4, left: 4 } };

interface PreviewProps {
  readonly brand: Pick<StoredBrand, 'slug' | 'markPictures'> & { readonly book: BrandBook };
}

/** What the book as it stands does to cuts, repainted with every change. */
export function BookPreview({ brand }: PreviewProps) {
  const words = useSampleWords(brand.book.language);
  const request = useMemo(() => {
    if (!words) return null;
    const density = Math.min(2, globalThis.devicePixelRatio || 1);
    return {
      content: brandContent(brand, brand.book, []),
      ghosts: true,
      cuts: shown.map((template) => singlePicture({
        key: template.key,
        template,
        frame: { id: template.key, slots: Object.fromEntries(template.slots.flatMap((slot): [string, SlotValue][] => (slot.sample === undefined ? [] : [[slot.key, { kind: 'text', text: words(slot.sample) }]]))) },
        placement: PLACEMENT,
        adjustment: linkedCut,
        scale: (HEIGHT_PX / PLACEMENT.exportPx.height) * density,
      })),
    };
  }, [brand, words]);
  const { wall } = useWall(request);
  return (
    <section aria-labelledby="in-use">
      <h2 id="in-use" className="mb-2 text-base font-semibold">
        In use
      </h2>
      <div className="flex flex-wrap gap-3">
        {shown.map((template) => (
          <CutCanvas key={template.key} wall={wall} cutKey={template.key} widthPx={(HEIGHT_PX * PLACEMENT.exportPx.width) / PLACEMENT.exportPx.height} heightPx={HEIGHT_PX} label={`${template.name} in this brand’s colours and type`} />
        ))}
      </div>
    </section>
  );
}
