import { type Role, roleMay } from '../../core/access/access.ts';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import Redo2 from 'lucide-react/icons/redo-2';
import Undo2 from 'lucide-react/icons/undo-2';
import { useEffect, useMemo, useState } from 'react';
import { getBrand } from '../../contract/brand-contracts.ts';
import type { AnswerOf } from '../../contract/contract.ts';
import { listMediaDetails } from '../../contract/media-contracts.ts';
import { changeTemplate, getOwnTemplate } from '../../contract/template-contracts.ts';
import { changeArrangement, changeSlideView, slideView, type PartPath } from '../../core/template/edit-template.ts';
import type { StackPart } from '../../core/template/parts.ts';
import { COVER, type Template } from '../../core/template/template.ts';
import { Button } from '../ui/Button.tsx';
import { call } from '../ui/call.ts';
import { Queries } from '../ui/Queries.tsx';
import { SAMPLE_MEDIA } from '../media/sample-media.ts';
import { toast } from '../ui/toast.tsx';
import { ArrangementBar } from './ArrangementBar.tsx';
import { PartFields } from './PartFields.tsx';
import { PartOutline } from './PartOutline.tsx';
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

export type BrandData = AnswerOf<typeof getBrand>;
export type Photos = AnswerOf<typeof listMediaDetails>['items'];

interface BenchProps {
  readonly brand: WorkshopProps['brand'];
  readonly stored: AnswerOf<typeof getOwnTemplate>;
  readonly brandData: BrandData;
  readonly photos: Photos;
}

/** Every state that the template has had on this page, so that each step can be undone. */
interface History {
  readonly past: readonly Template[];
  readonly present: Template;
  readonly future: readonly Template[];
}

const MAX_STEPS = 200;

function Bench({ brand, stored, brandData, photos }: BenchProps) {
  const client = useQueryClient();
  const [history, setHistory] = useState<History>({ past: [], present: stored.document, future: [] });
  const [kept, setKept] = useState({ revision: stored.revision, document: stored.document });
  const whole = history.present;
  const [slide, setSlide] = useState<string>(COVER);
  const template = useMemo(() => slideView(whole, slide), [whole, slide]);
  const [arrangementKey, setArrangementKey] = useState(template.arrangements[1]?.key ?? template.arrangements[0]?.key ?? '');
  const [path, setPath] = useState<PartPath>([]);
  const arrangement = template.arrangements.find((each) => each.key === arrangementKey) ?? template.arrangements[0];
  const readOnly = !roleMay(brand.role, 'brand');
  const change = (recipe: (template: Template) => Template): void =>
    setHistory((now) => {
      const next = changeSlideView(now.present, slide, recipe);
      return next === now.present ? now : { past: [...now.past, now.present].slice(-MAX_STEPS), present: next, future: [] };
    });
  const undo = (): void => setHistory((now) => (now.past.length === 0 ? now : { past: now.past.slice(0, -1), present: now.past.at(-1) ?? now.present, future: [now.present, ...now.future] }));
  const redo = (): void => setHistory((now) => (now.future.length === 0 ? now : { past: [...now.past, now.present], present: now.future[0] ?? now.present, future: now.future.slice(1) }));
  const save = useMutation({
    mutationFn: (document: Template) => call(changeTemplate, { params: { brand: brand.slug, template: stored.document.key }, body: { revision: kept.revision, document } }),
    onSuccess: ({ revision, document }) => {
      setKept({ revision, document: whole });
      setHistory((now) => (now.present === whole ? now : { ...now, present: { ...now.present, key: document.key } }));
      toast('done', 'Saved. Pieces with this template follow; scheduled posts stay as they were.');
      void client.invalidateQueries({ queryKey: ['templates', brand.slug] });
    },
    onError: (error) => toast('problem', error.message),
  });
  const isChanged = whole !== kept.document;
  useEffect(() => {
    if (!isChanged) return;
    const warn = (event: BeforeUnloadEvent): void => event.preventDefault();
    addEventListener('beforeunload', warn);
    return () => removeEventListener('beforeunload', warn);
  }, [isChanged]);
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
      <div className="flex h-12 shrink-0 items-center gap-3 border-b border-line bg-panel px-4">
        <a href={`/b/${brand.slug}/brand/templates`} className="text-sm text-quiet hover:text-ink">
          Templates
        </a>
        <h1 className="font-heading text-base font-semibold">{whole.name}</h1>
        {whole.slides && <SlideChoice template={whole} chosen={slide} onChoose={chooseSlide} />}
        <span className="ml-auto text-sm text-quiet">{isChanged ? 'Not saved yet' : 'Saved'}</span>
        <Button size="icon" look="quiet" aria-label="Undo" disabled={history.past.length === 0} onClick={undo}>
          <Undo2 aria-hidden className="size-4" />
        </Button>
        <Button size="icon" look="quiet" aria-label="Redo" disabled={history.future.length === 0} onClick={redo}>
          <Redo2 aria-hidden className="size-4" />
        </Button>
        {!readOnly && (
          <Button look="primary" disabled={!isChanged || save.isPending} onClick={() => save.mutate(whole)}>
            Save the template
          </Button>
        )}
      </div>
      <fieldset disabled={readOnly} className="flex min-h-0 flex-1">
        <legend className="sr-only">The template</legend>
        <section aria-label="Parts" className="flex w-72 shrink-0 flex-col overflow-auto border-r border-line bg-panel">
          <TemplateFields key={slide} template={template} book={brandData.book} isSlide={slide !== COVER} onChange={change} />
          <ArrangementBar template={template} chosen={arrangement.key} onChoose={(key) => { setArrangementKey(key); setPath([]); }} onChange={change} />
          <PartOutline template={template} root={root} path={path} onSelect={setPath} onChange={changeRoot} brand={brand.slug} />
        </section>
        <TemplateWall template={template} arrangement={arrangement} brandData={brandData} photos={photos} />
        <PartFields template={template} root={root} path={path} onChange={changeRoot} />
      </fieldset>
    </main>
  );
}

interface SlideChoiceProps {
  readonly template: Template;
  readonly chosen: string;
  readonly onChoose: (key: string) => void;
}

/** Which kind of slide of a carousel is on the bench. */
function SlideChoice({ template, chosen, onChoose }: SlideChoiceProps) {
  return (
    <div role="tablist" aria-label="Kinds of slides" className="flex gap-1 border-l border-line pl-3">
      {[{ key: COVER, name: 'Cover' }, ...(template.slides ?? [])].map(({ key, name }) => (
        <button key={key} type="button" role="tab" aria-selected={key === chosen} onClick={() => onChoose(key)} className={`rounded-md px-2 py-0.5 text-sm ${key === chosen ? 'bg-house-soft font-semibold text-house' : 'text-quiet hover:bg-sunk'}`}>
          {name}
        </button>
      ))}
    </div>
  );
}
