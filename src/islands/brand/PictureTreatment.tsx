import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { listMediaDetails } from '../../contract/media-contracts.ts';
import type { BrandBook, PictureTreatment as Chosen, TreatmentKind } from '../../core/brand/brand-book.ts';
import { resolveTreatment } from '../../core/scene/resolve-treatment.ts';
import { applyTreatment, type Treatment } from '../../core/scene/treatment.ts';
import { mediaAddress } from '../media/media-address.ts';
import { SAMPLE_MEDIA, sampleMedia } from '../media/sample-media.ts';
import { SelectField } from '../ui/SelectField.tsx';
import { call } from '../ui/call.ts';
import { BookChoice } from './BookChoice.tsx';
import type { BookEdit } from './use-book.ts';

const looks = [
  { kind: null, name: 'As taken' },
  { kind: 'mono', name: 'Black and white' },
  { kind: 'duotone', name: 'Duotone' },
  { kind: 'tint', name: 'Tint' },
  { kind: 'warm', name: 'Warm' },
  { kind: 'faded', name: 'Faded' },
  { kind: 'grain', name: 'Grain' },
  { kind: 'halftone', name: 'Halftone' },
] as const satisfies readonly { readonly kind: TreatmentKind | null; readonly name: string }[];

const colourFields: Readonly<Partial<Record<TreatmentKind, readonly (readonly ['dark' | 'light' | 'colour', string])[]>>> = {
  duotone: [['dark', 'Shadows'], ['light', 'Lights']],
  halftone: [['dark', 'Dots'], ['light', 'Paper']],
  tint: [['colour', 'Colour']],
};

/** How strong each is at first: as much as a designer would dare. */
const usualStrength: Readonly<Record<TreatmentKind, number>> = { mono: 1, duotone: 1, tint: 0.4, warm: 0.7, faded: 0.7, grain: 0.4, halftone: 0.8 };
const TILE = { widthPx: 208, heightPx: 156, /** A tile shows a detail: pixels of it a pixel of a cut. */ scale: 0.5 } as const;

/** What the brand does to its photographs in every cut and video, shown on one of its own. */
export function PictureTreatment({ edit }: { readonly edit: BookEdit }) {
  const { book, mayChange, change, stored } = edit;
  const media = useQuery({ queryKey: ['media', stored.slug, 'latest'], queryFn: () => call(listMediaDetails, { params: { brand: stored.slug }, query: { latest: SAMPLE_MEDIA } }) });
  const sample = media.data && sampleMedia(media.data.items);
  const photo = sample?.items.find(({ id }) => id === sample.pictures.photos[0]);
  const pixels = usePixels(photo ? mediaAddress(stored.slug, photo, 640) : null);
  const { treatment } = book;
  const choose = (next: Chosen | undefined): void => change(({ treatment: _, ...rest }) => ({ ...rest, treatment: next }) as BrandBook);
  const fields = treatment ? (colourFields[treatment.kind] ?? []) : [];
  return (
    <section aria-labelledby="photographs">
      <h2 id="photographs" className="text-base font-semibold">
        Photographs
      </h2>
      <p className="mb-2 text-sm text-quiet">One look for all pictures and clips. A single picture can stay as it was taken: in its piece, beside the picture.{media.data && !photo && ' The looks are shown here once the brand has a photograph.'}</p>
      <div role="radiogroup" aria-label="What is done to photographs" className="grid grid-cols-4 gap-2">
        {looks.map(({ kind, name }) => (
          <BookChoice key={name} group="treatment" name={name} isChosen={(treatment?.kind ?? null) === kind} isDisabled={!mayChange} onChoose={() => choose(kind === null ? undefined : { ...treatment, kind, strength: usualStrength[kind] })}>
            <Tile pixels={pixels} treatment={kind === null ? undefined : resolveTreatment({ ...book, treatment: { ...treatment, kind, strength: treatment?.kind === kind ? treatment.strength : usualStrength[kind] } })} />
          </BookChoice>
        ))}
      </div>
      {treatment && (
        <div className="mt-3 flex flex-wrap items-end gap-x-4 gap-y-2">
          <label className="block text-sm">
            <span className="mb-1 block font-semibold">
              Strength <span className="font-normal text-quiet tabular-nums">{Math.round(treatment.strength * 100)}%</span>
            </span>
            <input type="range" min={10} max={100} step={5} disabled={!mayChange} value={Math.round(treatment.strength * 100)} onChange={(event) => choose({ ...treatment, strength: Number(event.target.value) / 100 })} className="h-8.5 w-40 accent-house" />
          </label>
          {fields.map(([field, label]) => (
            <div key={field} className="w-36">
              <SelectField label={label} none="From the book" isDisabled={!mayChange} value={treatment[field] ?? ''} options={book.colours.map(({ key, name }) => [key, name] as const)} onChange={(key) => choose(withColour(treatment, field, key))} />
            </div>
          ))}
        </div>
      )}
    </section>
  );
}

function withColour(treatment: Chosen, field: 'dark' | 'light' | 'colour', key: string): Chosen {
  const { [field]: _, ...others } = treatment;
  return { ...others, ...(key === '' ? {} : { [field]: key }) };
}

/** The pixels of a picture's middle, as large as a tile. */
function usePixels(address: string | null): ImageData | null {
  const [pixels, setPixels] = useState<ImageData | null>(null);
  useEffect(() => {
    if (address === null) return;
    const image = new Image();
    let isWanted = true;
    image.onload = () => {
      if (!isWanted) return;
      const canvas = new OffscreenCanvas(TILE.widthPx, TILE.heightPx);
      const context = canvas.getContext('2d');
      if (!context) return;
      const scale = Math.max(TILE.widthPx / image.naturalWidth, TILE.heightPx / image.naturalHeight);
      const [widthPx, heightPx] = [image.naturalWidth * scale, image.naturalHeight * scale];
      context.drawImage(image, (TILE.widthPx - widthPx) / 2, (TILE.heightPx - heightPx) / 2, widthPx, heightPx);
      setPixels(context.getImageData(0, 0, TILE.widthPx, TILE.heightPx));
    };
    image.src = address;
    return () => {
      isWanted = false;
    };
  }, [address]);
  return pixels;
}

function Tile({ pixels, treatment }: { readonly pixels: ImageData | null; readonly treatment: Treatment | undefined }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  // A treatment is made anew with every render; its text says whether it is another one.
  const look = JSON.stringify(treatment);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || !pixels) return;
    const own = new ImageData(new Uint8ClampedArray(pixels.data), pixels.width, pixels.height);
    const wanted = look === undefined ? undefined : (JSON.parse(look) as Treatment);
    if (wanted) applyTreatment(own.data, wanted, { ...TILE });
    context.putImageData(own, 0, 0);
  }, [pixels, look]);
  return <canvas ref={canvas} width={TILE.widthPx} height={TILE.heightPx} aria-hidden data-look={treatment?.kind ?? 'none'} className="block aspect-4/3 w-full bg-sunk" />;
}
