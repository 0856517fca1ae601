import { useId } from 'react';
import { changeSlide } from '../../../core/piece/change-template.ts';
import { slideKinds } from '../../../core/template/slide-template.ts';
import { COVER } from '../../../core/template/template.ts';
import { Field, inputClasses } from '../../ui/Field.tsx';
import type { ContentProps } from '../view-props.ts';
import { draftFrame } from '../draft-frame.ts';
import { slideWords } from './slide-words.ts';

/** Which slide is at work, and of which kind it is; its content moves along to another kind. */
export function SlideKind({ piece, frame, template, store, readOnly }: ContentProps) {
  const id = useId();
  const number = piece.frames.findIndex((each) => each.id === frame.id) + 1;
  const words = slideWords(piece.kind);
  const choose = (key: string): void =>
    store.change(`kind-${frame.id}`, (draft) => {
      const changed = changeSlide(frame, template, template, key === COVER ? undefined : key);
      const written = draftFrame(draft, frame.id);
      written.slots = { ...changed.slots };
      if (changed.slide === undefined) delete written.slide;
      else written.slide = changed.slide;
    });
  return (
    <div className="flex items-center justify-between gap-2 border-y border-line py-2">
      <p className="text-sm font-semibold">
        {words.One} {number} of {piece.frames.length}
      </p>
      <label htmlFor={id} className="sr-only">
        Kind of {words.one} {number}
      </label>
      <select id={id} value={frame.slide ?? COVER} disabled={readOnly} onChange={(event) => choose(event.target.value)} className="h-7 rounded-md border border-line bg-panel px-1.5 text-sm">
        <option value={COVER}>{words.cover}</option>
        {slideKinds(template).map((slide) => (
          <option key={slide.key} value={slide.key}>
            {slide.name}
          </option>
        ))}
      </select>
    </div>
  );
}

export function SlideAltText({ frame, store, readOnly }: ContentProps) {
  return (
    <Field label="Alt text of this slide" hint="What somebody who cannot see it should know.">
      {({ id, describedBy }) => (
        <textarea
          id={id}
          aria-describedby={describedBy}
          rows={2}
          value={frame.altText ?? ''}
          readOnly={readOnly}
          maxLength={5_000}
          onChange={(event) => store.change(`alt-${frame.id}`, (draft) => void (draftFrame(draft, frame.id).altText = event.target.value))}
          className={`${inputClasses} resize-y`}
        />
      )}
    </Field>
  );
}
