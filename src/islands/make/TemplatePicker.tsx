import { useMutation, useQuery } from '@tanstack/react-query';
import X from 'lucide-react/icons/x';
import { useMemo } from 'react';
import { getBrand, listTemplates } from '../../contract/brand-contracts.ts';
import { createPiece } from '../../contract/piece-contracts.ts';
import type { Template } from '../../core/template/template.ts';
import type { AnswerOf } from '../../contract/contract.ts';
import { call } from '../ui/call.ts';
import { CutCanvas } from '../piece/CutCanvas.tsx';
import { useWall } from '../piece/wall.ts';
import { toast } from '../ui/toast.tsx';

type BrandData = AnswerOf<typeof getBrand>;

const SHOWN_HEIGHT_PX = 150;

/** The templates, each painted in the brand's own colours and type in every shape it would take. */
export function TemplatePicker({ brand, onClose }: { readonly brand: string; readonly onClose: (() => void) | null }) {
  const brandData = useQuery({ queryKey: ['brand', brand], queryFn: () => call(getBrand, { params: { brand } }) });
  const templates = useQuery({ queryKey: ['templates', brand], queryFn: () => call(listTemplates, { params: { brand } }) });
  const start = useMutation({
    mutationFn: (template: string) => call(createPiece, { params: { brand }, body: { template } }),
    onSuccess: ({ id }) => location.assign(`/b/${brand}/make/pieces/${id}`),
    onError: (error) => toast('problem', error.message),
  });
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
        {brandData.data &&
          templates.data?.templates.map((template) => (
            <li key={template.key}>
              <button
                type="button"
                disabled={start.isPending}
                onClick={() => start.mutate(template.key)}
                className="block w-full rounded-md border border-line bg-panel p-3 text-left hover:border-house disabled:opacity-60"
              >
                <TemplatePreview template={template} brand={brandData.data} />
                <span className="mt-2.5 flex items-baseline gap-2">
                  <span className="font-heading text-base font-semibold">{template.name}</span>
                  <span className="text-sm text-quiet">{template.purpose}</span>
                </span>
              </button>
            </li>
          ))}
      </ul>
    </section>
  );
}

function TemplatePreview({ template, brand }: { readonly template: Template; readonly brand: BrandData }) {
  const placements = useMemo(() => {
    const all = brand.sheets.flatMap((sheet) => sheet.placements.map((placement) => ({ key: `${template.key}.${sheet.key}.${placement.key}`, placement })));
    const aspect = ({ placement }: (typeof all)[number]): string => (placement.exportPx.width / placement.exportPx.height).toFixed(2);
    return all.filter((each, index) => all.findIndex((other) => aspect(other) === aspect(each)) === index).slice(0, 5);
  }, [brand, template]);
  const request = useMemo(() => {
    const density = Math.min(2, globalThis.devicePixelRatio || 1);
    return {
      template,
      frame: { id: 'preview', slots: {} },
      book: brand.book,
      pictures: [],
      ghosts: true,
      cuts: placements.map(({ key, placement }) => ({ key, placement, scale: (SHOWN_HEIGHT_PX / placement.exportPx.height) * density })),
    };
  }, [template, brand, placements]);
  const { wall } = useWall(request);
  return (
    <span className="flex items-end gap-2.5 overflow-hidden" aria-hidden>
      {placements.map(({ key, placement }) => (
        <CutCanvas key={key} wall={wall} cutKey={key} widthPx={(SHOWN_HEIGHT_PX * placement.exportPx.width) / placement.exportPx.height} heightPx={SHOWN_HEIGHT_PX} />
      ))}
    </span>
  );
}
