import X from 'lucide-react/icons/x';
import { useEffect, useMemo, useState } from 'react';
import { changeBook, getBrand, readMark } from '../../contract/brand-contracts.ts';
import type { BodyOf } from '../../contract/contract.ts';
import { call, sendFile } from '../ui/call.ts';
import { Button } from '../ui/Button.tsx';
import { iconButtonClasses } from '../ui/icon-button';

/** What a person adds by hand while a brand begins. */
export interface OwnPicks {
  /** `#rrggbb`. */
  readonly colours: readonly string[];
  /** Marks as PNG files: they are kept once the brand is there. */
  readonly marks: readonly File[];
}

export const nothingOwn: OwnPicks = { colours: [], marks: [] };
export const MAX_PICTURE_MARKS = 4;
const MAX_COLOURS = 12;

interface OwnPickProps {
  readonly own: OwnPicks;
  readonly onChange: (own: OwnPicks) => void;
}

/** Colours picked by hand, and marks as pictures. */
export function OwnPickFields({ own, onChange }: OwnPickProps) {
  const [hex, setHex] = useState('#2c6e63');
  return (
    <div className="space-y-4">
      <fieldset>
        <legend className="mb-2 text-sm font-semibold">Colours by hand</legend>
        <ul className="flex flex-wrap items-center gap-2">
          {own.colours.map((colour) => (
            <li key={colour} className="flex items-center gap-1.5 rounded-md border border-line bg-panel py-1 pr-1 pl-1.5 text-xs tabular-nums">
              <span aria-hidden style={{ background: colour }} className="size-5 rounded-sm border border-line" />
              {colour}
              <button type="button" aria-label={`Remove ${colour}`} onClick={() => onChange({ ...own, colours: own.colours.filter((each) => each !== colour) })} className={iconButtonClasses}>
                <X aria-hidden className="size-3.5" />
              </button>
            </li>
          ))}
          <li className="flex items-center gap-2">
            <input type="color" aria-label="Colour to add" value={hex} onChange={(event) => setHex(event.target.value)} className="h-8 w-12 cursor-pointer rounded-md border border-line bg-panel p-0.5" />
            <Button disabled={own.colours.includes(hex) || own.colours.length >= MAX_COLOURS} onClick={() => onChange({ ...own, colours: [...own.colours, hex] })}>
              Add this colour
            </Button>
          </li>
        </ul>
      </fieldset>
      {own.marks.length > 0 && (
        <fieldset>
          <legend className="mb-2 text-sm font-semibold">Marks as pictures</legend>
          <ul className="flex flex-wrap gap-3">
            {own.marks.map((file) => (
              <li key={`${file.name}${file.size}`} className="flex items-center gap-1 rounded-md border border-line bg-panel p-1.5">
                <FilePicture file={file} />
                <button type="button" aria-label={`Remove ${file.name}`} onClick={() => onChange({ ...own, marks: own.marks.filter((each) => each !== file) })} className={iconButtonClasses}>
                  <X aria-hidden className="size-3.5" />
                </button>
              </li>
            ))}
          </ul>
        </fieldset>
      )}
    </div>
  );
}

function FilePicture({ file }: { readonly file: File }) {
  const address = useMemo(() => URL.createObjectURL(file), [file]);
  useEffect(() => () => URL.revokeObjectURL(address), [address]);
  return <img src={address} alt={file.name} className="h-12 max-w-32 bg-sunk object-contain" />;
}

/** Puts marks that are pictures into the book of a brand that has just begun: before those it has, or in the place of the plain one. */
export async function addPictureMarks(brand: string, files: readonly File[], hasOwnMarks: boolean): Promise<void> {
  if (files.length === 0) return;
  const added = [];
  for (const file of files) added.push((await sendFile(readMark, { brand }, { name: file.name }, file)).mark);
  const { revision, book } = await call(getBrand, { params: { brand } });
  await call(changeBook, { params: { brand }, body: { revision, book: { ...book, marks: [...added, ...(hasOwnMarks ? book.marks : [])] } } as BodyOf<typeof changeBook> });
}
