import ImageIcon from 'lucide-react/icons/image';
import { memo, useState } from 'react';
import type { Fact } from '../../../core/brand/brand-book.ts';
import { textsKeptAside } from '../../../core/piece/change-template.ts';
import { slotText, type Frame } from '../../../core/piece/piece.ts';
import { ownSlots } from '../../../core/piece/slides-of-cut.ts';
import { slideTemplate } from '../../../core/template/slide-template.ts';
import type { Slot } from '../../../core/template/template.ts';
import { Button } from '../../ui/Button.tsx';
import { Field, inputClasses } from '../../ui/Field.tsx';
import { useRefocus } from '../../ui/use-refocus.ts';
import { CoverFields } from '../video/CoverFields.tsx';
import { draftFrame } from '../draft-frame.ts';
import { FactMenu, WITH_FACTS } from '../FactMenu.tsx';
import type { ContentProps } from '../view-props.ts';
import { DropFiles } from '../../media/DropFiles.tsx';
import { putInSlot } from './use-picture-slots.ts';
import { TemplateChoice } from './TemplateChoice.tsx';
import { MarkSlot } from './MarkSlot.tsx';
import { MediaPicker } from '../../media/MediaPicker.tsx';
import { ShotFields } from '../video/ShotFields.tsx';
import { TrackFields } from '../video/TrackFields.tsx';
import { SlideAltText, SlideKind } from '../slides/SlideFields.tsx';
import type { PieceStore } from '../piece-store.ts';
import type { Cuts } from '../use-cuts.ts';
import { keepAsTaken } from '../../../core/piece/keep-as-taken.ts';
import { mediaAddress, type MediaItem } from '../../media/media-address.ts';
import { UploadList } from '../../media/UploadList.tsx';
import { useUploads } from '../../media/use-uploads.ts';

function KeptAside({ template, frame }: ContentProps) {
  const kept = textsKeptAside(frame, slideTemplate(template, frame.slide));
  if (kept.length === 0) return null;
  return (
    <div className="border-t border-line pt-3 text-xs text-quiet">
      <p className="font-semibold">Kept aside: {template.name} has no place for it</p>
      <ul className="mt-1 space-y-1">
        {kept.map((each) => (
          <li key={each.slot} className="truncate">
            “{each.text}”
          </li>
        ))}
      </ul>
    </div>
  );
}

/** A field a slot: texts and pictures, entered once for all cuts, each with how it fits. */
export function ContentSheet(props: ContentProps) {
  const { piece, template, frame } = props;
  const slots = piece.kind === 'graphic' ? template.slots : ownSlots(template, frame.slide);
  return (
    <section aria-label="Content" className="w-80 shrink-0 max-md:w-full max-md:border-r-0 max-md:border-b space-y-5 overflow-auto border-r border-line bg-panel px-4 py-4">
      <TemplateChoice {...props} />
      {piece.kind !== 'graphic' && <SlideKind {...props} />}
      {piece.kind === 'video' && <ShotFields {...props} />}
      {slots.map((slot) => {
        if (slot.kind === 'picture') return <PictureSlot key={slot.key} {...props} slot={slot} />;
        if (slot.kind === 'mark') return <MarkSlot key={slot.key} {...props} slot={slot} />;
        return <TextSlot key={slot.key} slot={slot} frameId={frame.id} store={props.store} facts={props.brandData.book.facts} readOnly={props.readOnly} text={slotText(frame, slot.key)} {...describeFit(slot.key, frame, props.cuts)} />;
      })}
      {piece.kind === 'carousel' && <SlideAltText {...props} />}
      {piece.kind === 'video' && <TrackFields {...props} />}
      {piece.kind === 'video' && <CoverFields {...props} />}
      <KeptAside {...props} />
    </section>
  );
}

interface TextSlotProps extends Fit, Pick<ContentProps, 'store' | 'readOnly'> {
  readonly slot: Slot;
  readonly frameId: string;
  readonly text: string;
  readonly facts: readonly Fact[];
}

function writeSlot(store: PieceStore, frameId: string, key: string, text: string): void {
  store.change(`slot-${frameId}-${key}`, (draft) => {
    const frame = draftFrame(draft, frameId);
    if (text === '') delete frame.slots[key];
    else frame.slots[key] = { kind: 'text', text };
  });
}

/** A field of a text. Of all of them a keystroke changes one. */
const TextSlot = memo(function TextSlot({ slot, frameId, text, store, facts, readOnly, fit, fitWord }: TextSlotProps) {
  const aside = (
    <span className="flex items-center gap-1.5">
      <span className={`text-right text-xs ${fit === 'over' ? 'font-medium text-coral-ink' : fit === 'fits' ? 'text-mint-ink' : 'text-quiet'}`}>{fitWord}</span>
      {!readOnly && <SlotFacts facts={facts} store={store} frameId={frameId} slotKey={slot.key} />}
    </span>
  );
  return (
    <div {...WITH_FACTS}>
      <Field label={slot.label} hint={slot.hint} aside={aside}>
        {({ id, describedBy }) => (
          <textarea
            id={id}
            aria-describedby={describedBy}
            rows={Math.min(8, Math.max(slot.kind === 'list' ? 4 : slot.softLimit && slot.softLimit > 40 ? 3 : 1, text.split('\n').length))}
            value={text}
            readOnly={readOnly}
            maxLength={5_000}
            onChange={(event) => writeSlot(store, frameId, slot.key, event.target.value)}
            className={`${inputClasses} resize-y`}
          />
        )}
      </Field>
    </div>
  );
});

/** The menu of facts of a field: it need not change while somebody types there. */
const SlotFacts = memo(function SlotFacts({ facts, store, frameId, slotKey }: Pick<TextSlotProps, 'facts' | 'store' | 'frameId'> & { readonly slotKey: string }) {
  return <FactMenu facts={facts} onText={(text) => writeSlot(store, frameId, slotKey, text)} />;
});

interface Fit {
  readonly fit: 'empty' | 'fits' | 'over';
  readonly fitWord: string;
}

/** What the field says beside its label, from the reports of all cuts. */
function describeFit(slot: string, frame: Frame, cuts: Cuts): Fit {
  if (slotText(frame, slot).trim() === '') return { fit: 'empty', fitWord: '' };
  const found = cuts.list.flatMap((cut) => {
    const slide = cut.slides.find((each) => each.frame.id === frame.id);
    const text = slide && cuts.reports.get(slide.key)?.texts.find((each) => each.slot === slot);
    return text ? [{ cut, text }] : [];
  });
  const over = found.flatMap(({ cut, text }) => (text.kind === 'overflows' ? [{ name: cut.placement.name, by: text.overBy }] : []));
  const worst = over.toSorted((a, b) => b.by - a.by)[0];
  if (worst) return { fit: 'over', fitWord: `too long for ${worst.name} by ${worst.by}${over.length > 1 ? `, and ${over.length - 1} more` : ''}` };
  return found.length === 0 ? { fit: 'empty', fitWord: '' } : { fit: 'fits', fitWord: `fits all ${found.length} cuts` };
}

function PictureSlot({ slot, frame, store, media, onMedia, brand, brandData, readOnly }: ContentProps & { readonly slot: Slot }) {
  const [picking, setPicking] = useState(false);
  const value = frame.slots[slot.key];
  const item = value?.kind === 'picture' ? media.get(value.mediaId) : undefined;
  const isTreated = brandData.book.treatment !== undefined;
  const isUntreated = value?.kind === 'picture' && value.untreated === true;
  const [controls, refocus] = useRefocus();
  const choose = (chosen: MediaItem): void => {
    setPicking(false);
    putInSlot({ store, media, onMedia }, frame, slot.key, chosen);
    refocus();
  };
  const remove = (): void => {
    store.change(`slot-${frame.id}-${slot.key}`, (draft) => void delete draftFrame(draft, frame.id).slots[slot.key]);
    refocus();
  };
  const uploads = useUploads(brand.slug, choose);
  return (
    <DropFiles isOpen={!readOnly} onFiles={(files) => uploads.add(files.slice(0, 1))} className="rounded-md">
      <p className="mb-1 text-sm font-semibold">{slot.label}</p>
      <UploadList uploads={uploads} />
      <div ref={controls}>
        {item ? (
          <div className="flex items-center gap-3">
            <img src={mediaAddress(brand.slug, item, 240)} alt={item.altText} className="h-16 w-24 rounded-md bg-sunk object-cover" />
            <div className="min-w-0 flex-1">
              <p className="truncate text-sm font-medium">{item.name}</p>
              {!readOnly && (
                <div className="mt-1 flex gap-1.5">
                  <Button size="small" onClick={() => setPicking(true)}>
                    Change
                  </Button>
                  <Button look="quiet" size="small" onClick={remove}>
                    Remove
                  </Button>
                </div>
              )}
              {isTreated && (
                <label className="mt-1.5 flex items-center gap-1.5 text-sm text-quiet">
                  <input type="checkbox" disabled={readOnly} checked={isUntreated} onChange={(event) => store.change(`taken-${frame.id}-${slot.key}`, (draft) => keepAsTaken(draftFrame(draft, frame.id), slot.key, event.target.checked))} className="accent-house" />
                  As it was taken
                </label>
              )}
            </div>
          </div>
        ) : (
          <button
            type="button"
            disabled={readOnly}
            onClick={() => setPicking(true)}
            className="flex h-16 w-full items-center gap-3 rounded-md border border-dashed border-edge px-3 text-left text-sm text-quiet hover:border-house hover:text-ink"
          >
            <ImageIcon aria-hidden className="size-5 shrink-0" />
            <span>
              <span className="block font-medium text-ink">Choose a picture</span>
              {slot.hint}
            </span>
          </button>
        )}
      </div>
      {picking && <MediaPicker brand={brand.slug} onChoose={choose} onClose={() => setPicking(false)} />}
    </DropFiles>
  );
}
