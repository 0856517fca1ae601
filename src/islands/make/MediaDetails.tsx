import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { countWords, type BodyOf } from '../../contract/contract.ts';
import { deleteMedia, getMediaUses, replaceMediaFile, type changeMedia } from '../../contract/media-contracts.ts';
import { call, sendFile } from '../ui/call.ts';
import { Button } from '../ui/Button.tsx';
import { DayField } from '../ui/DayField.tsx';
import { Field, inputClasses } from '../ui/Field.tsx';
import { FilePick } from '../ui/FilePick.tsx';
import type { MediaItem } from '../media/media-address.ts';
import { toast } from '../ui/toast.tsx';

type Change = Omit<BodyOf<typeof changeMedia>, 'revision'>;

interface DetailsProps {
  readonly brand: string;
  readonly item: MediaItem;
  readonly revision: () => number;
  readonly onChange: (change: Change) => void;
  readonly onReplaced: () => void;
}

/** What is known of a picture beside its pixels: credit, licence, tags, where it is used; and what can be done with it. */
export function MediaDetails({ brand, item, revision, onChange, onReplaced }: DetailsProps) {
  const client = useQueryClient();
  const uses = useQuery({ queryKey: ['media-uses', brand, item.id], queryFn: () => call(getMediaUses, { params: { brand, media: item.id } }) });
  const refresh = (): Promise<void> => client.invalidateQueries({ queryKey: ['media', brand] });
  const replace = useMutation({
    mutationFn: (file: File) => sendFile(replaceMediaFile, { brand, media: item.id }, { revision: revision(), name: file.name }, file),
    onSuccess: async () => {
      toast('done', 'The file is replaced. Pieces follow; posts that are scheduled keep what they had.');
      await refresh();
      onReplaced();
    },
    onError: (error) => toast('problem', error.message),
  });
  const remove = useMutation({
    mutationFn: () => call(deleteMedia, { params: { brand, media: item.id } }),
    onSuccess: async () => {
      await refresh();
      onReplaced();
    },
    onError: (error) => toast('problem', error.message),
  });
  const isUsed = uses.data !== undefined && (uses.data.pieces.length + uses.data.scheduled + uses.data.sent > 0 || uses.data.inBook);
  return (
    <div className="mt-5 space-y-4">
      <div className="grid grid-cols-2 gap-3">
        <Kept label="Credit" value={item.credit} onKeep={(credit) => onChange({ credit })} />
        <Kept label="Licence" value={item.licence} onKeep={(licence) => onChange({ licence })} />
        <LicenceEnd day={item.licenceUntil} onKeep={(licenceUntil) => onChange({ licenceUntil })} />
        <Kept label="Tags" value={item.tags.join(', ')} onKeep={(tags) => onChange({ tags: tags.split(',').map((tag) => tag.trim().toLowerCase().slice(0, 40)).filter((tag) => tag !== '') })} />
      </div>
      {item.sourceAddress !== null && <p className="truncate text-xs text-quiet">From {item.sourceAddress}</p>}
      <section aria-label="Where it is used" className="text-sm">
        <h3 className="mb-1 font-semibold">Where it is used</h3>
        {uses.data && !isUsed && <p className="text-quiet">Nowhere yet.</p>}
        {uses.data && isUsed && (
          <ul className="space-y-0.5">
            {uses.data.pieces.map((piece) => (
              <li key={piece.id} className="truncate">
                <a href={`/b/${brand}/make/pieces/${piece.id}`} className="inline-flex min-h-6 items-center text-house underline">
                  {piece.name}
                </a>
              </li>
            ))}
            {uses.data.pieceCount > uses.data.pieces.length && <li className="text-quiet">and {countWords(uses.data.pieceCount - uses.data.pieces.length)} more</li>}
            {uses.data.scheduled > 0 && <li className="text-quiet">{countWords(uses.data.scheduled)} scheduled</li>}
            {uses.data.sent > 0 && <li className="text-quiet">{countWords(uses.data.sent)} gone out</li>}
            {uses.data.inBook && <li className="text-quiet">a mark of the brand book</li>}
          </ul>
        )}
      </section>
      <div className="flex flex-wrap gap-2 border-t border-line pt-3">
        <FilePick size="small" accept="image/jpeg,image/png,image/webp" onFiles={([file]) => file && replace.mutate(file)}>
          Replace the file
        </FilePick>
        <Button size="small" onClick={() => onChange({ archived: !item.archived })}>
          {item.archived ? 'Restore' : 'Archive'}
        </Button>
        {uses.data && !isUsed && (
          <Button size="small" look="stop" disabled={remove.isPending} onClick={() => remove.mutate()}>
            Delete
          </Button>
        )}
      </div>
    </div>
  );
}

interface KeptProps {
  readonly label: string;
  readonly value: string;
  readonly onKeep: (value: string) => void;
}

/** The last day that a licence allows, kept when one leaves it; without a day it does not end. */
function LicenceEnd({ day, onKeep }: { readonly day: string | null; readonly onKeep: (day: string | null) => void }) {
  const [chosen, setChosen] = useState(day ?? '');
  return (
    <div onBlur={(event) => !event.currentTarget.contains(event.relatedTarget) && chosen !== (day ?? '') && onKeep(chosen === '' ? null : chosen)}>
      <DayField label="Licence ends" day={chosen} onChange={setChosen} />
    </div>
  );
}

/** A field that is kept when one leaves it. */
function Kept({ label, value, onKeep }: KeptProps) {
  const [text, setText] = useState(value);
  return (
    <Field label={label}>
      {({ id }) => <input id={id} value={text} maxLength={200} onChange={(event) => setText(event.target.value)} onBlur={() => text !== value && onKeep(text)} className={inputClasses} />}
    </Field>
  );
}
