import { useMutation, useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { createBrand, listStandinNetworks, readBrandSource } from '../../contract/brand-contracts.ts';
import type { AnswerOf, BodyOf } from '../../contract/contract.ts';
import { colourWord } from '../../core/colour/colour-word.ts';
import { languageOf, type Language } from '../../core/words/language.ts';
import { draftBook, keyFrom } from '../../core/brand/exchange/draft-book.ts';
import { call } from '../ui/call.ts';
import { Button } from '../ui/Button.tsx';
import { Field, inputClasses } from '../ui/Field.tsx';
import { Queries } from '../ui/Queries.tsx';
import { toast } from '../ui/toast.tsx';
import { UntilReady } from '../ui/UntilReady.tsx';
import { DropFiles } from '../media/DropFiles.tsx';
import { LanguageField, ZoneField } from './LocaleFields.tsx';
import { addPictureMarks, MAX_PICTURE_MARKS, nothingOwn, OwnPickFields, type OwnPicks } from './OwnPicks.tsx';
import { BookPreview } from './BookPreview.tsx';
import { SourcePicks, type Picks } from './SourcePicks.tsx';

type Source = AnswerOf<typeof readBrandSource>;

/** A brand from what there is already: a web page, saved files, tokens, or nothing but a name. */
export default function NewBrand() {
  return (
    <Queries>
      <UntilReady>
        <Beginning />
      </UntilReady>
    </Queries>
  );
}

const nothingPicked: Picks = { colours: new Set(), displayFont: null, textFont: null, marks: new Set() };

function Beginning() {
  const [source, setSource] = useState<Source | null>(null);
  const [picks, setPicks] = useState<Picks>(nothingPicked);
  const [own, setOwn] = useState<OwnPicks>(nothingOwn);
  const [name, setName] = useState('');
  const [handle, setHandle] = useState('');
  const [language, setLanguage] = useState<Language | null>(null);
  const [zone, setZone] = useState('UTC');
  // Where a person is, only the browser knows: the server's page would say something else.
  useEffect(() => {
    setZone(Intl.DateTimeFormat().resolvedOptions().timeZone);
    setLanguage(languageOf(navigator.language) ?? null);
  }, []);
  const [address, setAddress] = useState('');
  const networks = useQuery({ queryKey: ['standin-networks'], queryFn: () => call(listStandinNetworks) });
  const [without, setWithout] = useState<ReadonlySet<string>>(new Set());
  const read = useMutation({
    mutationFn: (body: BodyOf<typeof readBrandSource>) => call(readBrandSource, { body }),
    onSuccess: (found) => {
      setSource(found);
      setName((now) => now || found.title);
      setLanguage((now) => found.language ?? now);
      setHandle((now) => now || (found.title === '' ? '' : `@${keyFrom(found.title, 'brand').replaceAll('-', '')}`));
      // The heaviest colours and the first drawing are most likely right; the rest is a click away.
      setPicks({
        colours: new Set(found.colours.slice(0, 6).map((colour) => colour.hex)),
        displayFont: (found.families.find((family) => family.forHeadings) ?? found.families[0])?.displayFont ?? null,
        textFont: (found.families.find((family) => !family.forHeadings) ?? found.families[0])?.textFont ?? null,
        marks: new Set(found.marks.slice(0, 1).map((_, index) => index)),
      });
      for (const note of found.notes) toast('problem', note);
    },
    onError: (error) => toast('problem', error.message),
  });
  const book = useMemo(
    () =>
      source?.book ??
      draftBook({
        colours: [...own.colours.map((hex) => ({ name: colourWord(hex), hex })), ...(source?.colours ?? []).filter((colour) => picks.colours.has(colour.hex) && !own.colours.includes(colour.hex))],
        displayFont: picks.displayFont,
        textFont: picks.textFont,
        marks: (source?.marks ?? []).filter((_, index) => picks.marks.has(index)).map((mark, index) => ({ ...mark, key: `mark-${index + 1}` })),
        site: source?.site ?? '',
        handle,
        guidance: source?.description ?? '',
        language,
      }),
    [source, picks, own.colours, handle, language],
  );
  const preview = useMemo(() => ({ slug: '', markPictures: [], book }), [book]);
  const [made, setMade] = useState<{ readonly slug: string; readonly problem: string } | null>(null);
  const chosenNetworks = (networks.data?.networks ?? []).filter((network) => !without.has(network.key));
  const create = useMutation({
    mutationFn: () => call(createBrand, { body: { name, zone, handle: handle || `@${keyFrom(name, 'brand').replaceAll('-', '')}`, book, networks: chosenNetworks.map((network) => network.key) } as BodyOf<typeof createBrand> }),
    onSuccess: async ({ slug }) => {
      try {
        await addPictureMarks(slug, own.marks, picks.marks.size > 0 || (source?.book ?? null) !== null);
      } catch (error) {
        // The brand is there, and can be gone on with.
        setMade({ slug, problem: error instanceof Error ? error.message : String(error) });
        return;
      }
      location.assign(`/b/${slug}/make/pieces?new`);
    },
    onError: (error) => toast('problem', error.message),
  });
  const bringFiles = async (all: readonly File[]): Promise<void> => {
    const isPng = ({ name: file }: File): boolean => /\.png$/i.test(file);
    setOwn((now) => ({ ...now, marks: [...now.marks, ...all.filter(isPng)].slice(0, MAX_PICTURE_MARKS) }));
    const files = all.filter((file) => !isPng(file));
    if (files.length === 0) return;
    read.mutate({ files: await Promise.all(files.map(async (file) => ({ name: file.name, text: await file.text() }))) });
  };
  return (
    <main className="min-h-0 flex-1 overflow-auto px-4 py-7 md:px-8">
      <h1 className="text-xl font-semibold">New brand</h1>
      <p className="mt-1 max-w-2xl text-sm text-quiet">Begin with what there is: the brand’s own page says its colours, type, mark and description. You pick what is right; all of it can be changed later in the brand book. A brand that comes from another Confetti is <a href="/exchange" className="text-house underline">imported as a package</a>.</p>
      <div className="mt-6 grid items-start gap-x-12 gap-y-6 max-lg:grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(24rem,6fr)_minmax(26rem,5fr)]">
        <div className="space-y-6">
          <form
            className="flex items-end gap-2"
            onSubmit={(event) => {
              event.preventDefault();
              if (address.trim() !== '') read.mutate({ address });
            }}
          >
            <div className="flex-1">
              <Field label="The brand’s web page">
                {({ id }) => <input id={id} value={address} onChange={(event) => setAddress(event.target.value)} placeholder="https://" className={inputClasses} />}
              </Field>
            </div>
            <Button type="submit" disabled={read.isPending || address.trim() === ''}>
              {read.isPending ? 'Reading…' : 'Read the page'}
            </Button>
          </form>
          <DropFiles isOpen={!read.isPending} onFiles={(files) => void bringFiles(files)}>
            <label className="relative block cursor-pointer rounded-md border border-dashed border-edge px-4 py-3 text-sm text-quiet focus-within:outline-2 focus-within:outline-house hover:border-house">
              <span className="font-medium text-ink">Or drop or choose files:</span> a saved page (HTML, CSS), design tokens (JSON), a GIMP palette, SVG or PNG marks
              <input
                type="file"
                multiple
                accept=".html,.htm,.css,.json,.gpl,.svg,.png"
                className="sr-only"
                onChange={(event) => {
                  const files = [...(event.target.files ?? [])];
                  event.target.value = '';
                  if (files.length > 0) void bringFiles(files);
                }}
              />
            </label>
          </DropFiles>
          {(source?.book ?? null) === null && <OwnPickFields own={own} onChange={setOwn} />}
          {source && source.book === null && <SourcePicks source={source} picks={picks} onChange={setPicks} />}
          {source?.book && <p className="rounded-md bg-mint-soft px-3 py-2 text-sm">This file holds a whole brand book: colours, schemes, type, marks, facts and voice come with it.</p>}
        </div>
        <div className="space-y-5">
          <BookPreview brand={preview} />
          <div className="grid grid-cols-2 gap-4">
            <Field label="Name">{({ id }) => <input id={id} value={name} maxLength={60} onChange={(event) => setName(event.target.value)} className={inputClasses} />}</Field>
            <Field label="Handle">{({ id }) => <input id={id} value={handle} placeholder="@name" onChange={(event) => setHandle(event.target.value.toLowerCase())} className={inputClasses} />}</Field>
          </div>
          <LanguageField language={language} onChange={setLanguage} />
          <ZoneField zone={zone} hint="Every time of this brand is shown and kept in it." onChange={setZone} />
          {networks.isError && (
            <p role="alert" className="text-sm text-coral-ink">
              The stand-in networks could not be listed, so the brand begins without channels: {networks.error.message}
            </p>
          )}
          {networks.data && networks.data.networks.length > 0 && (
            <fieldset>
              <legend className="mb-1 text-sm font-semibold">Open an account on these stand-in networks</legend>
              <div className="grid grid-cols-3 gap-x-4 gap-y-1">
                {networks.data.networks.map((network) => (
                  <label key={network.key} className="flex items-center gap-2 text-sm">
                    <input
                      type="checkbox"
                      checked={!without.has(network.key)}
                      onChange={(event) => setWithout((now) => new Set(event.target.checked ? [...now].filter((key) => key !== network.key) : [...now, network.key]))}
                      className="size-4 accent-house"
                    />
                    {network.name}
                    <span className="text-xs text-quiet">{network.placements}</span>
                  </label>
                ))}
              </div>
              <p className="mt-1 text-xs text-quiet">{chosenNetworks.reduce((sum, network) => sum + network.placements, 0)} cuts of every piece</p>
            </fieldset>
          )}
          {made ? (
            <p role="alert" className="rounded-md border border-coral bg-panel px-3 py-2 text-sm">
              {name} is there, but a mark could not be added: {made.problem}{' '}
              <a href={`/b/${made.slug}/brand/book`} className="font-medium text-house underline">
                Go to its brand book
              </a>
            </p>
          ) : (
            <Button look="primary" disabled={create.isPending || read.isPending || networks.isPending || name.trim().length < 2} onClick={() => create.mutate()}>
              Begin this brand
            </Button>
          )}
        </div>
      </div>
    </main>
  );
}
