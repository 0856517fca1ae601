import { useMutation, useQuery } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useEffect, useRef, useState } from 'react';
import { makeFromFiles, MAX_FILES_AT_ONCE } from '../../../contract/begin-contracts.ts';
import { listTemplates } from '../../../contract/template-contracts.ts';
import { roleMay } from '../../../core/access/access.ts';
import { filePatternFields } from '../../../core/ideas/many-files.ts';
import { DropFiles } from '../../media/DropFiles.tsx';
import { MediaPicker } from '../../media/MediaPicker.tsx';
import { mediaAddress, type MediaItem } from '../../media/media-address.ts';
import { UploadList } from '../../media/UploadList.tsx';
import { useUploads } from '../../media/use-uploads.ts';
import { call } from '../../ui/call.ts';
import { Button } from '../../ui/Button.tsx';
import { Field, inputClasses } from '../../ui/Field.tsx';
import { FilePick } from '../../ui/FilePick.tsx';
import { SelectField } from '../../ui/SelectField.tsx';
import { toast } from '../../ui/toast.tsx';
import { ChannelPick } from '../ChannelPick.tsx';
import type { IdeasContext } from '../ideas-context.ts';

type As = 'each' | 'carousel' | 'video';
type Spread = 'none' | 'queue' | 'slots';
const USUAL_CAPTION = '[name]\n\n[alt text]';
const NO_TEMPLATES: never[] = [];

/** Many pictures and clips at once: a piece each, one carousel, or one video. */
export default function ManyFiles({ context }: { readonly context: IdeasContext }) {
  const { brand, themes, hasRota } = context;
  const [items, setItems] = useState<readonly MediaItem[]>([]);
  const [isPicking, setPicking] = useState(false);
  const [as, setAs] = useState<As>('each');
  const [templates, setTemplates] = useState<readonly string[]>(['band', 'headland', 'arch']);
  const [caption, setCaption] = useState(USUAL_CAPTION);
  const [themeId, setThemeId] = useState('');
  const [channelIds, setChannelIds] = useState<readonly string[]>([]);
  const [wish, setWish] = useState<Spread | null>(null);
  // Without a rota there is no slot to spread over.
  const spread = wish ?? (hasRota === false ? 'none' : 'slots');
  const request = useRef(nanoid(16));
  const maySend = roleMay(brand.role, 'send');
  const add = (item: MediaItem): void => setItems((now) => (now.some(({ id }) => id === item.id) || now.length >= MAX_FILES_AT_ONCE || item.recording?.kind === 'sound' ? now : [...now, item]));
  const uploads = useUploads(brand.slug, add);
  // Another set of wishes is another request; the same one, pressed twice, makes once.
  useEffect(() => {
    request.current = nanoid(16);
  }, [items, as, templates, caption, themeId, channelIds, spread]);
  const all = useQuery({ queryKey: ['templates', brand.slug], queryFn: () => call(listTemplates, { params: { brand: brand.slug } }) }).data?.items ?? NO_TEMPLATES;
  const offered = all.filter(({ archived, kind, takesPictures }) => !archived && (as === 'each' ? kind === 'graphic' && takesPictures : kind === as));
  const chosen = templates.filter((key) => offered.some((each) => each.key === key));
  const make = useMutation({
    mutationFn: () => call(makeFromFiles, { params: { brand: brand.slug }, body: { request: request.current, mediaIds: items.map(({ id }) => id), as, templates: chosen.length > 0 ? [...chosen] : offered.slice(0, 1).map(({ key }) => key), caption, themeId: themeId === '' ? null : themeId, channelIds: [...channelIds], spread: maySend ? spread : 'none' } }),
    onSuccess: ({ pieceIds, planned, notes }) => {
      for (const note of notes) toast('problem', note);
      const [first] = pieceIds;
      toast('done', `${pieceIds.length} ${pieceIds.length === 1 ? 'piece' : 'pieces'} made${planned > 0 ? `, ${planned} planned` : ''}`, { label: pieceIds.length === 1 ? 'Open it' : 'Open the pieces', run: () => location.assign(`/b/${brand.slug}/make/pieces${pieceIds.length === 1 && first ? `/${first}` : ''}`) });
      setItems([]);
    },
    onError: (error) => toast('problem', error.message),
  });
  return (
    <DropFiles as="div" isOpen={roleMay(brand.role, 'make')} onFiles={uploads.add} className="relative grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_21rem] gap-6 max-lg:grid-cols-1 max-lg:overflow-auto">
      <section aria-label="Files" className="min-h-0 overflow-auto pb-5 max-lg:overflow-visible">
        <div className="mb-3 flex flex-wrap items-center gap-2">
          <FilePick multiple accept="image/*,video/*" onFiles={uploads.add}>
            Choose files
          </FilePick>
          <Button onClick={() => setPicking(true)}>From the media</Button>
          <span className="text-sm text-quiet">{items.length === 0 ? `Drop up to ${MAX_FILES_AT_ONCE} photos or clips here` : `${items.length} of at most ${MAX_FILES_AT_ONCE}`}</span>
          {items.length > 0 && (
            <Button size="small" look="quiet" onClick={() => setItems([])}>
              Clear
            </Button>
          )}
        </div>
        <UploadList uploads={uploads} />
        {items.length === 0 && <p className="grid h-64 place-items-center rounded-md border border-dashed border-edge text-sm text-quiet">Forty photographs of a day out: forty posts, one carousel or one video.</p>}
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(8rem,1fr))] gap-2.5">
          {items.map((item, index) => (
            <li key={item.id} className="relative rounded-md border border-line bg-panel">
              <img src={mediaAddress(brand.slug, item, 240)} alt={item.altText} className="aspect-square w-full rounded-t-md bg-sunk object-contain" />
              <span className="block truncate px-2 py-1 text-xs">
                <span className="text-quiet tabular-nums">{index + 1}.</span> {item.name}
              </span>
              <button type="button" aria-label={`Leave out ${item.name}`} onClick={() => setItems(items.filter(({ id }) => id !== item.id))} className="absolute top-1 right-1 rounded-md bg-panel px-1.5 text-sm leading-6 hover:bg-sunk">
                ×
              </button>
            </li>
          ))}
        </ul>
      </section>
      <form
        className="grid min-h-0 content-start gap-3 overflow-auto pb-5 max-lg:overflow-visible"
        onSubmit={(event) => {
          event.preventDefault();
          make.mutate();
        }}
      >
        <fieldset className="grid gap-1 text-sm">
          <legend className="mb-1 font-semibold">What they become</legend>
          {([['each', 'A piece each'], ['carousel', 'One carousel'], ['video', 'One video']] as const).map(([key, label]) => (
            <label key={key} className="flex items-center gap-2">
              <input type="radio" name="as" checked={as === key} onChange={() => setAs(key)} className="size-4 accent-house" />
              {label}
            </label>
          ))}
        </fieldset>
        <fieldset className="text-sm">
          <legend className="mb-1 font-semibold">{as === 'each' ? 'Templates: each file gets the one that crops it least' : 'Template'}</legend>
          <ul className="grid max-h-40 grid-cols-2 overflow-auto">
            {offered.map(({ key, name }) => (
              <li key={key}>
                <label className="flex items-center gap-2 py-0.5">
                  <input type={as === 'each' ? 'checkbox' : 'radio'} name="template" checked={chosen.includes(key)} disabled={as === 'each' && !chosen.includes(key) && chosen.length >= 3} onChange={() => setTemplates(as !== 'each' ? [key] : chosen.includes(key) ? chosen.filter((each) => each !== key) : [...chosen, key])} className="size-4 accent-house" />
                  {name}
                </label>
              </li>
            ))}
          </ul>
        </fieldset>
        <Field label="Caption" hint={`Fill-ins: ${filePatternFields.map((field) => `[${field}]`).join(' ')}, and facts like {site}`}>{({ id, describedBy }) => <textarea id={id} aria-describedby={describedBy} rows={4} value={caption} onChange={(event) => setCaption(event.target.value)} className={inputClasses} />}</Field>
        <SelectField label="Theme" none="None" value={themeId} options={[...themes.values()].map(({ id, name }) => [id, name] as const)} onChange={setThemeId} />
        <details className="text-sm">
          <summary className="cursor-pointer font-semibold">{channelIds.length === 0 ? 'For all channels' : `For ${channelIds.length} ${channelIds.length === 1 ? 'channel' : 'channels'}`}</summary>
          <div className="mt-2">
            <ChannelPick context={context} chosen={channelIds} onChoose={setChannelIds} />
          </div>
        </details>
        {maySend && <SelectField label="When" value={spread} options={[['slots', 'Over the open slots of the rota, as drafts'], ['queue', 'In the queue of their channels'], ['none', 'Not planned']]} onChange={(key) => setWish(key as Spread)} />}
        <Button type="submit" look="primary" disabled={items.length === 0 || make.isPending || offered.length === 0}>
          {make.isPending ? 'Making…' : as === 'each' ? (items.length < 2 ? 'Make the piece' : `Make ${items.length} pieces`) : as === 'carousel' ? 'Make the carousel' : 'Make the video'}
        </Button>
      </form>
      {isPicking && (
        <MediaPicker
          brand={brand.slug}
          onChoose={(item) => {
            add(item);
            setPicking(false);
          }}
          onClose={() => setPicking(false)}
        />
      )}
    </DropFiles>
  );
}
