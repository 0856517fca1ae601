import { markName } from '../../../core/brand/brand-book.ts';
import { bestGround } from '../../../core/brand/best-ground.ts';
import type { Frame } from '../../../core/piece/piece.ts';
import type { Slot } from '../../../core/template/template.ts';
import { MarkPicture } from '../../media/MarkPicture.tsx';
import { draftFrame } from '../draft-frame.ts';
import type { ViewProps } from '../view-props.ts';

/** Which of the brand's marks stands in a slot; unless a person says so, each cut takes the one that shows best there. */
export function MarkSlot({ slot, frame, store, brandData, readOnly }: ViewProps & { readonly slot: Slot; readonly frame: Frame }) {
  const value = frame.slots[slot.key];
  const chosen = value?.kind === 'mark' ? value.mark : null;
  const { book, slug, markPictures } = brandData;
  const choose = (mark: string | null): void =>
    store.change(`slot-${frame.id}-${slot.key}`, (draft) => {
      const { slots } = draftFrame(draft, frame.id);
      if (mark === null) delete slots[slot.key];
      else slots[slot.key] = { kind: 'mark', mark };
    });
  const tile = 'grid h-14 w-16 place-items-center rounded-md border border-line has-checked:outline-2 has-checked:outline-house has-focus-visible:outline-2 has-focus-visible:outline-offset-2';
  return (
    <fieldset disabled={readOnly}>
      <legend className="mb-1 text-sm font-semibold">{slot.label}</legend>
      <div className="flex flex-wrap gap-2">
        <label className={`${tile} bg-panel text-center text-xs text-quiet`}>
          <input type="radio" name={slot.key} checked={chosen === null} onChange={() => choose(null)} className="sr-only" />
          By its ground
        </label>
        {book.marks.map((mark) => (
          <label key={mark.key} className={tile} style={{ background: bestGround(book, mark).hex }}>
            <input type="radio" name={slot.key} aria-label={markName(mark)} title={markName(mark)} checked={chosen === mark.key} onChange={() => choose(mark.key)} className="sr-only" />
            <MarkPicture mark={mark} brand={slug} pictures={markPictures} />
          </label>
        ))}
      </div>
      <p className="mt-1 text-xs text-quiet">{slot.hint}</p>
    </fieldset>
  );
}
