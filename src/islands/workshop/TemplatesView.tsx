import { type Role, roleMay } from '../../core/access/access.ts';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import Upload from 'lucide-react/icons/upload';
import PenLine from 'lucide-react/icons/pen-line';
import { lazy, Suspense, useMemo, useState } from 'react';
import { getBrand } from '../../contract/brand-contracts.ts';
import { listMediaDetails } from '../../contract/media-contracts.ts';
import type { AnswerOf } from '../../contract/contract.ts';
import { createTemplate, listTemplates, archiveTemplate } from '../../contract/template-contracts.ts';
import { linkedCut } from '../../core/piece/adjustment.ts';
import { sampleFrame } from '../../core/piece/sample-frame.ts';
import { SAMPLE_MEDIA, sampleMedia } from '../media/sample-media.ts';
import type { Template } from '../../core/template/template.ts';
import { CutCanvas } from '../preview/CutCanvas.tsx';
import { brandContent } from '../preview/brand-content.ts';
import { templateQuery } from '../preview/template-query.ts';
import { useSampleWords } from '../preview/use-sample-words.ts';
import { useTemplatesInView, type TemplatesInView } from '../preview/use-templates-in-view.ts';
import { useWall, type Wall } from '../preview/wall.ts';
import { Button, buttonClasses } from '../ui/Button.tsx';
import { call } from '../ui/call.ts';
import { FilePick } from '../ui/FilePick.tsx';
import { saveTextFile } from '../ui/save-file.ts';
import { Queries } from '../ui/Queries.tsx';
import { toast } from '../ui/toast.tsx';
import { workshopShapes } from './shapes.ts';
import { singlePicture } from '../preview/wanted-cut.ts';

interface TemplatesProps {
  readonly brand: { readonly slug: string; readonly role: Role };
}

const SketchDialog = lazy(() => import('./SketchDialog.tsx'));

const HEIGHT_PX = 120;
const shown = [workshopShapes[0], workshopShapes[1], workshopShapes[4]].flatMap((shape) => (shape ? [shape] : []));

/** The brand's own templates and those that ship, each painted in the brand's look; a copy of any can be changed. */
export default function TemplatesView(props: TemplatesProps) {
  return (
    <Queries>
      <Templates {...props} />
    </Queries>
  );
}

function Templates({ brand }: TemplatesProps) {
  const client = useQueryClient();
  const data = useQuery({ queryKey: ['templates', brand.slug], queryFn: () => call(listTemplates, { params: { brand: brand.slug } }) });
  const brandData = useQuery({ queryKey: ['brand', brand.slug], queryFn: () => call(getBrand, { params: { brand: brand.slug } }) });
  const media = useQuery({ queryKey: ['media', brand.slug, 'latest'], queryFn: () => call(listMediaDetails, { params: { brand: brand.slug }, query: { latest: SAMPLE_MEDIA } }) });
  const create = useMutation({
    mutationFn: async (document: Template | Promise<Template>) => call(createTemplate, { params: { brand: brand.slug }, body: { document: await document } }),
    onSuccess: ({ document }) => location.assign(`/b/${brand.slug}/brand/templates/${document.key}`),
    onError: problem,
  });
  // The page goes on to the new template: until it has gone, a second press would make a second one.
  const isCreating = create.isPending || create.isSuccess;
  const archive = useMutation({
    mutationFn: ({ key, archived }: { readonly key: string; readonly archived: boolean }) => call(archiveTemplate, { params: { brand: brand.slug, template: key }, body: { archived } }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['templates', brand.slug] }),
    onError: problem,
  });
  const inView = useTemplatesInView(brand.slug);
  const [isSketching, setSketching] = useState(false);
  const look = useMemo(() => {
    if (!brandData.data || !media.data) return null;
    const sample = sampleMedia(media.data.items);
    return { content: brandContent(brandData.data, brandData.data.book, sample.items), pictures: sample.pictures };
  }, [brandData.data, media.data]);
  const words = useSampleWords(look?.content.book.language);
  const request = useMemo(() => {
    if (!look || !words) return null;
    const density = Math.min(2, globalThis.devicePixelRatio || 1);
    return {
      content: look.content,
      ghosts: true,
      cuts: inView.templates.flatMap((template) => {
        const frame = sampleFrame(template, 'usual', look.pictures, words);
        return shown.map((placement) => singlePicture({ key: `${template.key}.${placement.key}`, template, frame, placement, adjustment: linkedCut, scale: (HEIGHT_PX / placement.exportPx.height) * density }));
      }),
    };
  }, [look, inView.templates, words]);
  const { wall } = useWall(request);
  const mayChange = roleMay(brand.role, 'brand');
  const own = data.data?.items.filter(({ isOwn }) => isOwn) ?? [];
  const shipped = data.data?.items.filter(({ isOwn }) => !isOwn) ?? [];
  const documentOf = async (key: string): Promise<Template> => (await client.fetchQuery(templateQuery(brand.slug, key))).document;
  const exportJson = async (key: string): Promise<void> => saveTextFile(`${key}.json`, `${JSON.stringify(await documentOf(key), null, 2)}\n`, 'application/json');
  const importJson = async (file: File): Promise<void> => {
    try {
      create.mutate(JSON.parse(await file.text()) as Template);
    } catch {
      toast('problem', `“${file.name}” is not valid JSON.`);
    }
  };
  return (
    <main className="min-h-0 flex-1 overflow-auto px-6 py-5">
      <div className="mb-5 flex items-center justify-between gap-4">
        <div>
          <h1 className="text-xl font-semibold">Templates</h1>
          <p className="text-sm text-quiet">A template lays the same content out again for every shape. Duplicate any of them and change it in the workshop, or begin with a sketch.</p>
        </div>
        {mayChange && (
          <div className="flex flex-wrap justify-end gap-2">
            <Button disabled={!look} onClick={() => setSketching(true)}>
              <PenLine aria-hidden className="size-4" />
              New from a sketch
            </Button>
            <FilePick accept=".json" onFiles={([file]) => file && void importJson(file)}>
              <Upload aria-hidden className="size-4" />
              Import a template
            </FilePick>
          </div>
        )}
      </div>
      {isSketching && look && (
        <Suspense fallback={null}>
          <SketchDialog content={look.content} pictures={look.pictures} isBusy={isCreating} onMake={(document) => create.mutate(document)} onClose={() => setSketching(false)} />
        </Suspense>
      )}
      {data.isError && <p className="text-coral-ink">{data.error.message}</p>}
      {own.length > 0 && (
        <section aria-labelledby="own" className="mb-8">
          <h2 id="own" className="mb-2 text-base font-semibold">
            The brand’s own
          </h2>
          <ul className="grid grid-cols-[repeat(auto-fill,minmax(min(26rem,100%),1fr))] gap-4">
            {own.map((template) => (
              <TemplateTile key={template.key} template={template} wall={wall} watch={inView.watch}>
                <a href={`/b/${brand.slug}/brand/templates/${template.key}`} className={buttonClasses('plain', 'small')}>
                  {mayChange ? 'Open in the workshop' : 'Look at it'}
                </a>
                {mayChange && (
                  <Button size="small" look="quiet" onClick={() => archive.mutate({ key: template.key, archived: !template.archived })}>
                    {template.archived ? 'Restore' : 'Archive'}
                  </Button>
                )}
                <ExportButton onPress={() => exportJson(template.key)} />
              </TemplateTile>
            ))}
          </ul>
        </section>
      )}
      <section aria-labelledby="shipped">
        <h2 id="shipped" className="mb-2 text-base font-semibold">
          To start from
        </h2>
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(min(26rem,100%),1fr))] gap-4">
          {shipped.map((template) => (
            <TemplateTile key={template.key} template={template} wall={wall} watch={inView.watch}>
              {mayChange && (
                <Button size="small" disabled={isCreating} onClick={() => create.mutate(documentOf(template.key).then((document) => ({ ...document, name: `${document.name} copy` })))}>
                  Duplicate
                </Button>
              )}
              <ExportButton onPress={() => exportJson(template.key)} />
            </TemplateTile>
          ))}
        </ul>
      </section>
    </main>
  );
}

const problem = (error: Error): void => toast('problem', error.message);

function ExportButton({ onPress }: { readonly onPress: () => Promise<void> }) {
  return (
    <Button size="small" look="quiet" onClick={() => void onPress().catch(problem)}>
      Export
    </Button>
  );
}

interface TileProps {
  readonly template: AnswerOf<typeof listTemplates>['items'][number];
  readonly wall: Wall | null;
  readonly watch: TemplatesInView['watch'];
  readonly children: React.ReactNode;
}

function TemplateTile({ template, wall, watch, children }: TileProps) {
  return (
    <li ref={watch} className={`rounded-md border border-line bg-panel p-3 ${template.archived ? 'opacity-60' : ''}`} data-template={template.key}>
      <div className="flex items-end gap-2.5 [&>canvas]:min-w-0" aria-hidden>
        {shown.map((placement) => (
          <CutCanvas key={placement.key} wall={wall} cutKey={`${template.key}.${placement.key}`} widthPx={(HEIGHT_PX * placement.exportPx.width) / placement.exportPx.height} heightPx={HEIGHT_PX} />
        ))}
      </div>
      <div className="mt-2.5 flex items-center gap-2">
        <span className="font-heading text-base font-semibold">{template.name}</span>
        <span className="min-w-0 truncate text-sm text-quiet">{template.purpose}</span>
        <span className="ml-auto flex shrink-0 gap-1">{children}</span>
      </div>
    </li>
  );
}
