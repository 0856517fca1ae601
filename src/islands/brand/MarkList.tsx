import Trash2 from 'lucide-react/icons/trash-2';
import Upload from 'lucide-react/icons/upload';
import { useState } from 'react';
import { readMark } from '../../contract/brand-contracts.ts';
import { bestGround } from '../../core/brand/best-ground.ts';
import { markGroupNames, markGroups, markName, type BrandMark } from '../../core/brand/brand-book.ts';
import { Button } from '../ui/Button.tsx';
import { sendFile } from '../ui/call.ts';
import { iconButtonClasses } from '../ui/icon-button';
import { FilePick } from '../ui/FilePick.tsx';
import { MarkPicture } from '../media/MarkPicture.tsx';
import type { MediaItem } from '../media/media-address.ts';
import { toast } from '../ui/toast.tsx';
import type { BookEdit } from './use-book.ts';

/** The brand's marks on the grounds they show best on, with the room and the size each needs. */
export function MarkList({ edit }: { readonly edit: BookEdit }) {
  const { book, mayChange, change, stored } = edit;
  const [fresh, setFresh] = useState<readonly MediaItem[]>([]);
  const set = (key: string, next: Partial<Pick<BrandMark, 'name' | 'group' | 'for' | 'clearSpace' | 'leastHeightPx'>>): void =>
    change((now) => ({ ...now, marks: now.marks.map((mark) => (mark.key === key ? { ...mark, ...next } : mark)) }));
  const [asked, setAsked] = useState<{ readonly mark: BrandMark; readonly notes: readonly string[] } | null>(null);
  const add = (mark: BrandMark, notes: readonly string[]): void => {
    change((now) => ({ ...now, marks: [...now.marks.filter((each) => each.key !== mark.key), mark] }));
    for (const note of notes) toast('problem', note);
    setAsked(null);
  };
  const bringIn = async (file: File): Promise<void> => {
    try {
      const { mark, notes, isPart, picture } = await sendFile(readMark, { brand: stored.slug }, { name: file.name }, file);
      if (picture) setFresh((now) => [...now, picture]);
      // What is left of a drawing may be no mark at all: that is for a person to say.
      if (isPart) setAsked({ mark, notes });
      else add(mark, notes);
    } catch (error) {
      toast('problem', error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <section aria-labelledby="marks">
      <div className="mb-2 flex items-center justify-between">
        <h2 id="marks" className="text-base font-semibold">
          Marks
        </h2>
        {mayChange && (
          <FilePick look="quiet" size="small" accept=".svg,.png" onFiles={([file]) => file && void bringIn(file)}>
            <Upload aria-hidden className="size-3.5" />
            Import a mark
          </FilePick>
        )}
      </div>
      <p className="mb-2 text-xs text-quiet">Each cut takes the mark that stands out most from what really lies behind it.</p>
      {asked && (
        <div role="alertdialog" aria-label="Part of the drawing is missing" className="mb-3 flex items-center gap-4 rounded-md border border-marigold bg-panel p-3">
          <span style={{ background: bestGround(book, asked.mark).hex }} className="grid h-16 w-20 shrink-0 place-items-center rounded-md border border-line">
            <MarkPicture mark={asked.mark} brand={stored.slug} pictures={[]} />
          </span>
          <div className="min-w-0 text-sm">
            <p className="font-medium">This is all that can be read of it.</p>
            <p className="text-quiet">{asked.notes.join(' ')}</p>
            <p className="mt-2 flex gap-2">
              <Button size="small" onClick={() => add(asked.mark, [])}>
                Add it like this
              </Button>
              <Button size="small" look="quiet" onClick={() => setAsked(null)}>
                Cancel
              </Button>
            </p>
          </div>
        </div>
      )}
      <ul className="space-y-3">
        {book.marks.map((mark) => (
          <li key={mark.key} className="flex flex-wrap items-center gap-x-4 gap-y-1.5">
            <span style={{ background: bestGround(book, mark).hex }} className="grid h-16 w-20 shrink-0 place-items-center rounded-md border border-line">
              <MarkPicture mark={mark} brand={stored.slug} pictures={[...stored.markPictures, ...fresh]} />
            </span>
            <label className="text-xs text-quiet">
              Name
              <input value={mark.name ?? ''} maxLength={60} placeholder={markName(mark)} readOnly={!mayChange} onChange={(event) => set(mark.key, { name: event.target.value })} className="mt-1 block h-8 w-40 rounded-md border border-line bg-panel px-2 text-sm text-ink" />
            </label>
            <label className="text-xs text-quiet">
              Kind
              <select value={mark.group ?? ''} disabled={!mayChange} onChange={(event) => set(mark.key, { group: markGroups.find((each) => each === event.target.value) })} className="mt-1 block h-8 rounded-md border border-line bg-panel px-1 text-sm text-ink">
                <option value="">not said</option>
                {markGroups.map((group) => (
                  <option key={group} value={group}>
                    {markGroupNames[group].toLowerCase()}
                  </option>
                ))}
              </select>
            </label>
            <label className="text-xs text-quiet">
              Drawn for
              <select value={mark.for} disabled={!mayChange} onChange={(event) => set(mark.key, { for: event.target.value as BrandMark['for'] })} className="mt-1 block h-8 rounded-md border border-line bg-panel px-1 text-sm text-ink">
                <option value="light">light grounds</option>
                <option value="dark">dark grounds</option>
              </select>
            </label>
            <label className="text-xs text-quiet">
              Clear space
              <span className="mt-1 flex items-center gap-1">
                <input type="number" min={0} max={100} step={5} value={Math.round(mark.clearSpace * 100)} readOnly={!mayChange} onChange={(event) => Number.isFinite(event.target.valueAsNumber) && set(mark.key, { clearSpace: Math.min(1, Math.max(0, event.target.valueAsNumber / 100)) })} className="h-8 w-14 rounded-md border border-line bg-panel px-1 text-sm text-ink tabular-nums" />% of its height
              </span>
            </label>
            <label className="text-xs text-quiet">
              Least height
              <span className="mt-1 flex items-center gap-1">
                <input type="number" min={16} max={400} step={4} value={mark.leastHeightPx} readOnly={!mayChange} onChange={(event) => event.target.valueAsNumber >= 16 && event.target.valueAsNumber <= 400 && set(mark.key, { leastHeightPx: event.target.valueAsNumber })} className="h-8 w-14 rounded-md border border-line bg-panel px-1 text-sm text-ink tabular-nums" />
                px at 1080
              </span>
            </label>
            {mayChange && book.marks.length > 1 && (
              <button type="button" aria-label={`Remove ${markName(mark)}`} onClick={() => change((now) => ({ ...now, marks: now.marks.filter((each) => each.key !== mark.key) }))} className={`ml-auto ${iconButtonClasses}`}>
                <Trash2 aria-hidden className="size-3.5" />
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
