import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { listTemplates, type getBrand } from '../../contract/brand-contracts.ts';
import type { AnswerOf } from '../../contract/contract.ts';
import { linkedCut } from '../../core/piece/adjustment.ts';
import type { SlotValue } from '../../core/piece/piece.ts';
import { call } from '../ui/call.ts';
import { CutCanvas } from '../piece/CutCanvas.tsx';
import { useWall } from '../piece/wall.ts';

/** Templates without pictures show best what colours and type do; each in the scheme it is made for. */
const SHOWN = ['aside', 'tally', 'ledger'] as const;
const HEIGHT_PX = 190;

/** What the book as it stands does to cuts, repainted with every change. */
export function BookPreview({ brand }: { readonly brand: AnswerOf<typeof getBrand> }) {
  const templates = useQuery({ queryKey: ['templates', brand.slug], queryFn: () => call(listTemplates, { params: { brand: brand.slug } }), staleTime: Infinity });
  const placement = brand.sheets[0]?.placements.find((each) => each.exportPx.height > each.exportPx.width) ?? brand.sheets[0]?.placements[0];
  const shown = useMemo(() => (templates.data?.templates ?? []).filter((template) => SHOWN.some((key) => key === template.key)), [templates.data]);
  const request = useMemo(() => {
    if (!placement) return null;
    const density = Math.min(2, globalThis.devicePixelRatio || 1);
    return {
      book: brand.book,
      pictures: [],
      ghosts: true,
      cuts: shown.map((template) => ({
        key: template.key,
        template,
        frame: { id: template.key, slots: Object.fromEntries(template.slots.flatMap((slot): [string, SlotValue][] => (slot.sample === undefined ? [] : [[slot.key, { kind: 'text', text: slot.sample }]]))) },
        placement,
        adjustment: linkedCut,
        scale: (HEIGHT_PX / placement.exportPx.height) * density,
      })),
    };
  }, [brand.book, shown, placement]);
  const { wall } = useWall(request);
  return (
    <section aria-labelledby="in-use">
      <h2 id="in-use" className="mb-2 text-base font-semibold">
        In use
      </h2>
      <div className="flex gap-3">
        {placement &&
          shown.map((template) => (
            <CutCanvas key={template.key} wall={wall} cutKey={template.key} widthPx={(HEIGHT_PX * placement.exportPx.width) / placement.exportPx.height} heightPx={HEIGHT_PX} label={`${template.name} in this brand’s colours and type`} />
          ))}
      </div>
    </section>
  );
}
