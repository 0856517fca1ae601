import Download from 'lucide-react/icons/download';
import { useState } from 'react';
import { Button as AriaButton, Dialog, DialogTrigger, Popover } from 'react-aria-components';
import { fileFormats, getCutsArchive, type FileFormat } from '../../../contract/piece-contracts.ts';
import { slugOf } from '../../../core/words/slug.ts';
import { fileNames, namePlaceholders, unknownPlaceholders, USUAL_NAME_PATTERN } from '../../../core/export/file-names.ts';
import { pieceName } from '../../../core/piece/piece.ts';
import { Button, buttonClasses } from '../../ui/Button.tsx';
import { addressOf } from '../../ui/call.ts';
import { Field, inputClasses } from '../../ui/Field.tsx';
import { isSaved, PackageLink } from '../PackageLink.tsx';
import type { PieceStore } from '../piece-store.ts';
import type { Cuts } from '../use-cuts.ts';

const formatNames: Readonly<Record<FileFormat, string>> = { png: 'PNG, lossless', jpeg: 'JPEG', webp: 'WebP', avif: 'AVIF, smallest', svg: 'SVG, vectors', pdf: 'PDF, vectors' };

interface TakeOutProps {
  readonly brand: string;
  readonly pieceId: string;
  readonly store: PieceStore;
  readonly cuts: Cuts;
}

/** All cuts in one file: as what, how large, and called what. */
export function ExportCuts({ brand, pieceId, store, cuts }: TakeOutProps) {
  const [format, setFormat] = useState<FileFormat>('png');
  const [scale, setScale] = useState<1 | 2>(1);
  const [pattern, setPattern] = useState(USUAL_NAME_PATTERN);
  const isVector = format === 'svg' || format === 'pdf';
  const [unknown] = unknownPlaceholders(pattern);
  const take = async (close: () => void): Promise<void> => {
    if (!(await isSaved(store))) return;
    close();
    location.assign(addressOf(getCutsArchive, { brand, piece: pieceId }, { as: format, ...(isVector ? {} : { scale }), ...(pattern === USUAL_NAME_PATTERN ? {} : { names: pattern }) }));
  };
  const [first] = cuts.list;
  const slides = cuts.list.reduce((sum, cut) => sum + cut.slides.length, 0);
  const size = first?.placement.exportPx ?? { width: 0, height: 0 };
  const factor = isVector ? 1 : scale;
  const example = first
    ? fileNames(pattern, [{ piece: slugOf(pieceName(store.getState().history.document)), network: first.sheet.key, placement: first.placement.key, width: String(size.width * factor), height: String(size.height * factor), date: '2026-11-25', number: '01' }], format === 'jpeg' ? 'jpg' : format)[0]
    : '';
  return (
    <DialogTrigger>
      <AriaButton className={buttonClasses('plain')}>
        <Download aria-hidden className="size-4" />
        Download all
      </AriaButton>
      <Popover className="shadow-float w-96 rounded-md border border-line bg-panel" placement="bottom end">
        <Dialog aria-label="Download all cuts" className="space-y-4 p-4 outline-none">
          {({ close }) => (
            <>
              <fieldset>
                <legend className="mb-1 text-sm font-semibold">As</legend>
                <div className="grid grid-cols-2 gap-1">
                  {fileFormats.map((each) => (
                    <label key={each} className="flex items-center gap-2 text-sm">
                      <input type="radio" name="format" checked={format === each} onChange={() => setFormat(each)} className="accent-house" />
                      {formatNames[each]}
                    </label>
                  ))}
                </div>
              </fieldset>
              <fieldset disabled={isVector} className={isVector ? 'opacity-50' : ''}>
                <legend className="mb-1 text-sm font-semibold">Size</legend>
                <div className="flex gap-4 text-sm">
                  {([1, 2] as const).map((each) => (
                    <label key={each} className="flex items-center gap-2">
                      <input type="radio" name="scale" checked={scale === each} onChange={() => setScale(each)} className="accent-house" />
                      {each}x{each === 1 ? ', as the networks ask' : ''}
                    </label>
                  ))}
                </div>
              </fieldset>
              <Field label="File names" hint={`e.g. ${example ?? ''}`} problem={unknown === undefined ? undefined : `{${unknown}} stands for nothing here. There are ${namePlaceholders.map((name) => `{${name}}`).join(' ')}.`}>
                {({ id, describedBy, invalid }) => <input id={id} aria-describedby={describedBy} aria-invalid={invalid} value={pattern} maxLength={120} onChange={(event) => setPattern(event.target.value)} className={inputClasses} />}
              </Field>
              <p className="text-xs text-quiet">Each file stays below its network’s size limit and carries title, alt text, credit and licence.</p>
              <Button look="primary" disabled={unknown !== undefined || pattern.trim() === ''} onClick={() => void take(close)}>
                Download {cuts.list.length} cuts{slides > cuts.list.length && format !== 'pdf' ? `, ${slides} files` : ''}
              </Button>
              <PackageLink brand={brand} pieceId={pieceId} store={store} />
            </>
          )}
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}
