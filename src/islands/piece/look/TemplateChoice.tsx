import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Button as AriaButton, Dialog, DialogTrigger, Heading, Modal, ModalOverlay } from 'react-aria-components';
import { listTemplates } from '../../../contract/template-contracts.ts';
import { arrange } from '../../../core/compose/arrange.ts';
import { resolveScheme } from '../../../core/brand/brand-book.ts';
import { linkedCut } from '../../../core/piece/adjustment.ts';
import { setScheme, turnTemplate } from '../../../core/piece/adjust.ts';
import { changeTemplateOfPiece } from '../../../core/piece/change-template.ts';
import { call } from '../../ui/call.ts';
import { Button, buttonClasses } from '../../ui/Button.tsx';
import { scrimClasses } from '../../ui/scrim-classes.ts';
import { toast } from '../../ui/toast.tsx';
import { CutCanvas } from '../../preview/CutCanvas.tsx';
import { templateQuery } from '../../preview/template-query.ts';
import { useTemplatesInView } from '../../preview/use-templates-in-view.ts';
import { useWall } from '../../preview/wall.ts';
import { singlePicture } from '../../preview/wanted-cut.ts';
import type { Cut } from '../use-cuts.ts';
import type { ContentProps } from '../view-props.ts';
import { SchemeChoice } from './SchemeChoice.tsx';
import { TemplateTurns } from './TemplateTurns.tsx';

/** The template and the scheme of the whole piece. */
export function TemplateChoice(props: ContentProps) {
  const { template, readOnly } = props;
  const [isOpen, setOpen] = useState(false);
  return (
    <div className="text-xs text-quiet">
      <div className="flex items-center gap-2">
        <span className="min-w-0 flex-1">
          Template <strong className="text-sm text-ink">{template.name}</strong>
        </span>
        {!readOnly && (
          <DialogTrigger isOpen={isOpen} onOpenChange={setOpen}>
            <AriaButton className={buttonClasses('plain', 'small')}>Change template</AriaButton>
            <ModalOverlay isDismissable className={`${scrimClasses} md:p-8`}>
              <Modal className="shadow-float flex max-h-full w-full max-w-5xl flex-col rounded-md border border-line bg-panel">
                <Dialog className="flex min-h-0 flex-col outline-none">
                  <div className="flex items-center justify-between gap-3 border-b border-line px-4 py-3">
                    <Heading slot="title" className="text-base font-semibold text-ink">
                      This piece in another template
                    </Heading>
                    <Button onClick={() => setOpen(false)}>Close</Button>
                  </div>
                  <TemplateTiles {...props} onClose={() => setOpen(false)} />
                </Dialog>
              </Modal>
            </ModalOverlay>
          </DialogTrigger>
        )}
      </div>
      <p className="mt-0.5">{template.purpose}</p>
      {!readOnly && <SchemeOfAll {...props} />}
      {!readOnly && <TurnsOfAll {...props} />}
    </div>
  );
}

/** One scheme for all cuts; none is chosen where they differ. */
function SchemeOfAll({ brandData, cuts, store, template }: ContentProps) {
  const keys = cuts.list.map(({ key }) => key);
  const schemes = new Set(cuts.list.map(({ adjustment }) => adjustment.scheme ?? template.scheme));
  return (
    <div role="radiogroup" aria-label="Scheme of all cuts" className="mt-2 flex flex-wrap items-center gap-1.5">
      <span>Scheme</span>
      {brandData.book.schemes.map(({ key, name }) => (
        <SchemeChoice
          key={key}
          name={name}
          colours={resolveScheme(brandData.book, key)}
          chosen={schemes.size === 1 && schemes.has(key)}
          onChoose={() => store.change('scheme', (draft) => setScheme(draft, keys, key === template.scheme ? undefined : key))}
        />
      ))}
      {schemes.size > 1 && <span>not the same in all cuts</span>}
    </div>
  );
}

/** The same turns in all cuts. */
function TurnsOfAll({ cuts, store, template }: ContentProps) {
  const keys = cuts.list.map(({ key }) => key);
  const used = new Set(cuts.list.map(({ placement: { exportPx }, adjustment }) => arrange(template, { widthPx: exportPx.width, heightPx: exportPx.height }, adjustment.arrangement)));
  return (
    <div role="group" aria-label="How the template is turned in all cuts" className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1.5">
      <TemplateTurns arrangements={[...used]} now={cuts.list.map(({ adjustment }) => adjustment)} onTurn={(field, value) => store.change(`turn-${field}`, (draft) => turnTemplate(draft, keys, field, value))} />
    </div>
  );
}

const SHOWN_HEIGHT_PX = 128;
const MAX_SHAPES = 3;

/** The piece's own content in every template of its kind; slots are matched, and what finds no place is kept. */
function TemplateTiles({ brand, template, piece, store, cuts, onClose }: ContentProps & { readonly onClose: () => void }) {
  const client = useQueryClient();
  const templates = useQuery({ queryKey: ['templates', brand.slug], queryFn: () => call(listTemplates, { params: { brand: brand.slug } }), staleTime: 60_000 });
  const items = templates.data?.items.filter(({ key, kind, archived }) => key === template.key || (kind === piece.kind && !archived)) ?? [];
  const inView = useTemplatesInView(brand.slug);
  const shapes = useMemo(() => shapesOf(cuts.list), [cuts.list]);
  const { content } = cuts;
  const request = useMemo(() => {
    const density = Math.min(2, globalThis.devicePixelRatio || 1);
    return {
      content,
      ghosts: true,
      cuts: inView.templates.flatMap((each) => {
        const [frame] = changeTemplateOfPiece(piece, template, each).frames;
        return shapes.map(({ key, placement }) => singlePicture({ key: `${each.key}.${key}`, template: each, frame, placement, adjustment: linkedCut, scale: (SHOWN_HEIGHT_PX / placement.exportPx.height) * density }));
      }),
    };
  }, [content, inView.templates, piece, template, shapes]);
  const { wall } = useWall(request);
  const choose = async (key: string): Promise<void> => {
    try {
      const { document } = await client.fetchQuery(templateQuery(brand.slug, key));
      store.change('template', (draft) => void Object.assign(draft, changeTemplateOfPiece(store.getState().history.document, template, document)));
      onClose();
    } catch (error) {
      toast('problem', error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <ul aria-label="Templates" className="grid min-h-64 grid-cols-[repeat(auto-fill,minmax(min(22rem,100%),1fr))] gap-3 overflow-auto p-4">
      {items.map((each) => (
        <li key={each.key} ref={inView.watch} data-template={each.key}>
          <button
            type="button"
            aria-current={each.key === template.key}
            onClick={() => void choose(each.key)}
            className={`block w-full rounded-md border bg-panel p-2.5 text-left ${each.key === template.key ? 'border-house ring-1 ring-house' : 'border-line hover:border-house'}`}
          >
            <span className="flex items-end gap-2 [&>canvas]:min-w-0" aria-hidden>
              {shapes.map(({ key, placement }) => (
                <CutCanvas key={key} wall={wall} cutKey={`${each.key}.${key}`} widthPx={(SHOWN_HEIGHT_PX * placement.exportPx.width) / placement.exportPx.height} heightPx={SHOWN_HEIGHT_PX} />
              ))}
            </span>
            <span className="mt-2 flex items-baseline gap-2">
              <span className="text-sm font-semibold text-ink">{each.name}</span>
              <span className="truncate text-xs text-quiet">{each.purpose}</span>
            </span>
          </button>
        </li>
      ))}
    </ul>
  );
}

/** The piece's different shapes, at most three. */
function shapesOf(list: readonly Cut[]): readonly Pick<Cut, 'key' | 'placement'>[] {
  const aspectOf = ({ placement }: Cut): string => (placement.exportPx.width / placement.exportPx.height).toFixed(1);
  return list.filter((each, index) => list.findIndex((other) => aspectOf(other) === aspectOf(each)) === index).slice(0, MAX_SHAPES);
}
