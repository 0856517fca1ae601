import { useMutation, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useRef, useState } from 'react';
import { addIdea, MAX_IDEA_TITLE } from '../../../contract/idea-contracts.ts';
import type { MediaItem } from '../../media/media-address.ts';
import { PictureChoice } from '../../media/PictureChoice.tsx';
import { call } from '../../ui/call.ts';
import { DayField } from '../../ui/DayField.tsx';
import { Field, inputClasses } from '../../ui/Field.tsx';
import { FormActions } from '../../ui/FormActions.tsx';
import { ModalFrame } from '../../ui/ModalFrame.tsx';
import { SelectField } from '../../ui/SelectField.tsx';
import { toast } from '../../ui/toast.tsx';
import type { IdeasContext } from '../ideas-context.ts';

interface NoteDialogProps {
  readonly context: Pick<IdeasContext, 'brand' | 'themes'>;
  readonly begun?: { readonly title: string; readonly text: string; readonly link: string };
  readonly conversationId?: string | null;
  readonly onClose: () => void;
}

/** A note for the shelf: what it is, and what belongs to it. */
export function NoteDialog({ context: { brand, themes }, begun, conversationId = null, onClose }: NoteDialogProps) {
  const client = useQueryClient();
  const [title, setTitle] = useState(begun?.title ?? '');
  const [text, setText] = useState(begun?.text ?? '');
  const [link, setLink] = useState(begun?.link ?? '');
  const [day, setDay] = useState('');
  const [themeId, setThemeId] = useState('');
  const [picture, setPicture] = useState<MediaItem | null>(null);
  const request = useRef(nanoid(16));
  const keep = useMutation({
    mutationFn: () => call(addIdea, { params: { brand: brand.slug }, body: { request: request.current, title: title.trim(), text: text.trim(), link: link.trim(), mediaId: picture?.id ?? null, day: day === '' ? null : day, themeId: themeId === '' ? null : themeId, conversationId } }),
    onSuccess: async () => {
      toast('done', 'On the shelf', { label: 'Open the shelf', run: () => location.assign(`/b/${brand.slug}/make/ideas`) });
      await client.invalidateQueries({ queryKey: ['ideas', brand.slug] });
      onClose();
    },
    onError: (error) => toast('problem', error.message),
  });
  return (
    <ModalFrame title="A note for the shelf" onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (title.trim() !== '') keep.mutate();
        }}
      >
        {/* The dialog opens to write; what one came for has the focus. */}
        <Field label="What is the idea?">{({ id }) => <input id={id} autoFocus value={title} maxLength={MAX_IDEA_TITLE} onChange={(event) => setTitle(event.target.value)} className={inputClasses} />}</Field>
        <Field label="More about it">{({ id }) => <textarea id={id} rows={4} value={text} onChange={(event) => setText(event.target.value)} className={inputClasses} />}</Field>
        <Field label="Link">{({ id }) => <input id={id} inputMode="url" value={link} onChange={(event) => setLink(event.target.value)} className={inputClasses} />}</Field>
        <div className="grid grid-cols-2 gap-3 max-md:grid-cols-1">
          <SelectField label="Theme" none="None" value={themeId} options={[...themes.values()].map(({ id, name }) => [id, name] as const)} onChange={setThemeId} />
          <DayField label="For the day" day={day} onChange={setDay} />
        </div>
        <PictureChoice brand={brand.slug} picture={picture} onChoose={setPicture} />
        <FormActions isBusy={keep.isPending || title.trim() === ''} onCancel={onClose} />
      </form>
    </ModalFrame>
  );
}
