import { type Role, roleMay } from '../../core/access/access.ts';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { getBrand } from '../../contract/brand-contracts.ts';
import type { AnswerOf } from '../../contract/contract.ts';
import { listMediaDetails } from '../../contract/media-contracts.ts';
import { changeTemplate, getOwnTemplate } from '../../contract/template-contracts.ts';
import { changeArrangement, changeSlideView, slideView, type PartPath } from '../../core/template/edit-template.ts';
import type { StackPart } from '../../core/template/parts.ts';
import { COVER, type Template } from '../../core/template/template.ts';
import type { Path } from '../../core/document/merge.ts';
import { ConflictNote } from '../editor/ConflictNote.tsx';
import { DocumentStore, type DocumentSaver } from '../editor/document-store.ts';
import { HistoryButtons } from '../editor/HistoryButtons.tsx';
import { useDocument } from '../editor/use-document.ts';
import { Button } from '../ui/Button.tsx';
import { ChoiceRow } from '../ui/ChoiceRow.tsx';
import { call } from '../ui/call.ts';
import { Queries } from '../ui/Queries.tsx';
import { SAMPLE_MEDIA } from '../media/sample-media.ts';
import { toast } from '../ui/toast.tsx';
import type { MediaItem } from '../media/media-address.ts';
import type { BrandData } from '../preview/brand-content.ts';
import { ArrangementBar } from './ArrangementBar.tsx';
import { PartFields } from './PartFields.tsx';
import { PartOutline, type DrawnParts } from './PartOutline.tsx';
import { TemplateFields } from './TemplateFields.tsx';
import { TemplateWall } from './TemplateWall.tsx';

interface WorkshopProps {
  readonly brand: { readonly slug: string; readonly role: Role };
  readonly templateKey: string;
}

/** A template taken apart: its parts by arrangement, what each of them is, and how it carries short, usual and cruel texts. */
export default function Workshop(props: WorkshopProps) {
  return (
    <Queries>
      <Loader {...props} />
    </Queries>
  );
}

function Loader({ brand, templateKey }: WorkshopProps) {
  const own = useQuery({ queryKey: ['template', brand.slug, templateKey], queryFn: () => call(getOwnTemplate, { params: { brand: brand.slug, template: templateKey } }), staleTime: Infinity });
  const brandData = useQuery({ queryKey: ['brand', brand.slug], queryFn: () => call(getBrand, { params: { brand: brand.slug } }) });
  const media = useQuery({ queryKey: ['media', brand.slug, 'latest'], queryFn: () => call(listMediaDetails, { params: { brand: brand.slug }, query: { latest: SAMPLE_MEDIA } }) });
  const error = own.error ?? brandData.error ?? media.error;
  if (error) return <main className="flex-1 p-6 text-coral-ink">{error.message}</main>;
  if (!own.data || !brandData.data || !media.data) return <main className="flex-1" aria-busy="true" />;
  return <Bench brand={brand} stored={own.data} brandData={brandData.data} photos={media.data.items} />;
}

interface BenchProps {
  readonly brand: WorkshopProps['brand'];
  readonly stored: AnswerOf<typeof getOwnTemplate>;
  readonly brandData: BrandData;
  readonly photos: readonly MediaItem[];
}

function templateSaver(brand: string, key: string, onSaved: () => void): DocumentSaver<Template> {
  return {
    async save(revision, _patches, document) {
      const saved = await call(changeTemplate, { params: { brand, template: key }, body: { revision, document } });
      onSaved();
      return saved;
    },
  };
}

function Bench({ brand, stored, brandData, photos }: BenchProps) {
  const client = useQueryClient();
  const [store] = useState(
    () =>
      new DocumentStore<Template>(
        stored,
        templateSaver(brand.slug, stored.document.key, () => {
          toast('done', 'Saved. Pieces with this template follow; scheduled posts stay as they were.');
          void client.invalidateQueries({ queryKey: ['templates', brand.slug] });
        }),
        'by-hand',
      ),
  );
  const state = useDocument(store);
  const whole = state.history.document;
  const { save } = state;
  const [slide, setSlide] = useState<string>(COVER);
  const template = useMemo(() => slideView(whole, slide), [whole, slide]);
  const [arrangementKey, setArrangementKey] = useState(template.arrangements[1]?.key ?? template.arrangements[0]?.key ?? '');
  const [path, setPath] = useState<PartPath>([]);
  const saved = store.saved();
  const savedView = useMemo(() => slideView(saved, slide), [saved, slide]);
  const [pointed, setPointed] = useState<PartPath | null>(null);
  const [drawn, setDrawn] = useState<DrawnParts | null>(null);
  const arrangement = template.arrangements.find((each) => each.key === arrangementKey) ?? template.arrangements[0];
  const readOnly = !roleMay(brand.role, 'brand');
  const change = (recipe: (template: Template) => Template): void => store.replace(changeSlideView(store.getState().history.document, slide, recipe));
  const isChanged = store.hasUnsaved();
  const chooseSlide = (key: string): void => {
    setSlide(key);
    setPath([]);
    setArrangementKey((now) => (slideView(whole, key).arrangements.some((each) => each.key === now) ? now : ''));
  };
  const root = arrangement?.root;
  if (!arrangement || !root) return null;
  const changeRoot = (recipe: (current: StackPart) => StackPart): void => change((now) => changeArrangement(now, arrangement.key, (each) => ({ ...each, root: recipe(each.root) })));
  return (
    <main className="flex min-h-0 flex-1 flex-col">
      <div className="flex min-h-12 shrink-0 flex-wrap items-center gap-x-3 gap-y-1 border-b border-line bg-panel px-4 py-1.5">
        <a href={`/b/${brand.slug}/brand/templates`} className="text-sm text-quiet hover:text-ink">
          Templates
        </a>
        <h1 className="font-heading text-base font-semibold">{whole.name}</h1>
        {whole.slides && <ChoiceRow label="Kinds of slides" className="border-l border-line pl-3" items={[{ key: COVER, name: 'Cover' }, ...whole.slides]} chosen={slide} onChoose={chooseSlide} />}
        <span role="status" className={`ml-auto text-sm ${save.kind === 'refused' || save.kind === 'offline' ? 'text-coral-ink' : 'text-quiet'}`}>{save.kind === 'refused' || save.kind === 'offline' ? save.sentence : isChanged ? 'Not saved yet' : 'Saved'}</span>
        <HistoryButtons store={store} state={state} />
        {!readOnly && (
          <Button look="primary" disabled={!isChanged || save.kind === 'saving' || save.kind === 'conflict'} onClick={() => void store.flush()}>
            Save the template
          </Button>
        )}
      </div>
      {save.kind === 'conflict' && <ConflictNote by={save.by} conflicts={save.conflicts} nameOf={templatePlace} onResolve={(decide) => void store.resolve(decide)} />}
      <fieldset disabled={readOnly} className="flex min-h-0 min-w-0 flex-1 max-md:flex-col max-md:overflow-auto">
        <legend className="sr-only">The template</legend>
        <section aria-label="Parts" className="flex w-72 shrink-0 flex-col overflow-auto border-r border-line bg-panel max-md:w-full max-md:border-r-0 max-md:border-b">
          <TemplateFields key={slide} template={template} book={brandData.book} isSlide={slide !== COVER} onChange={change} />
          <ArrangementBar template={template} chosen={arrangement.key} onChoose={(key) => { setArrangementKey(key); setPath([]); }} onChange={change} />
          <PartOutline template={template} root={root} path={path} drawn={drawn} onSelect={setPath} onPoint={setPointed} onChange={changeRoot} brand={brand.slug} />
        </section>
        <TemplateWall
          template={template}
          saved={isChanged ? savedView : null}
          arrangement={arrangement}
          shown={pointed ?? path}
          brandData={brandData}
          photos={photos}
          onDrawn={setDrawn}
          onPick={(key, picked) => {
            setArrangementKey(key);
            setPath(picked);
          }}
        />
        <PartFields brand={brand.slug} template={template} root={root} path={path} onChange={changeRoot} />
      </fieldset>
    </main>
  );
}

/** A place of a template by the words of the workshop. */
function templatePlace([area = '', name]: Path): string {
  const words: Readonly<Record<string, string>> = { slots: 'Slot', arrangements: 'Arrangement', slides: 'Kind of slide', name: 'Name', purpose: 'Purpose', scheme: 'Scheme', drop: 'Left out first' };
  return [words[String(area)] ?? 'The template', String(name ?? '').replace(/^#/, '')].filter((word) => word !== '').join(': ');
}
