import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useEffect, useRef, useState } from 'react';
import { quickPost } from '../../contract/begin-contracts.ts';
import { roleMay } from '../../core/access/access.ts';
import { formatMoment } from '../../core/time/wall-time.ts';
import { countCharacters } from '../../core/words/count-characters.ts';
import { countingOf } from '../../core/wording/compose.ts';
import { ChannelPick } from '../ideas/ChannelPick.tsx';
import type { IdeasContext } from '../ideas/ideas-context.ts';
import type { MediaItem } from '../media/media-address.ts';
import { PictureChoice } from '../media/PictureChoice.tsx';
import { call } from '../ui/call.ts';
import { Button } from '../ui/Button.tsx';
import { Field, inputClasses } from '../ui/Field.tsx';
import { ModalFrame } from '../ui/ModalFrame.tsx';
import { toast } from '../ui/toast.tsx';

type When = 'now' | 'next-slot' | 'draft';

interface QuickPostProps {
  readonly context: Pick<IdeasContext, 'brand' | 'channels' | 'sheets'>;
  readonly onClose: () => void;
}

/** A post from a few words and a picture or none; everything else is one step away. */
export function QuickPostDialog({ context, onClose }: QuickPostProps) {
  const { brand, channels, sheets } = context;
  const maySend = roleMay(brand.role, 'send');
  const [words, setWords] = useState('');
  const [picture, setPicture] = useState<MediaItem | null>(null);
  const [channelIds, setChannelIds] = useState<readonly string[]>([]);
  const [when, setWhen] = useState<When>(maySend ? 'next-slot' : 'draft');
  const request = useRef(nanoid(16));
  // Another post is another request; the same one, pressed twice or sent again, goes out once.
  useEffect(() => {
    request.current = nanoid(16);
  }, [words, picture, channelIds, when]);
  const post = useMutation({
    mutationFn: () => call(quickPost, { params: { brand: brand.slug }, body: { request: request.current, words: words.trim(), mediaId: picture?.id ?? null, channelIds: [...channelIds], when } }),
    onSuccess: ({ pieceId, kind, dueMs, sentence }) => {
      const edit = { label: 'Edit it in full', run: () => location.assign(`/b/${brand.slug}/make/pieces/${pieceId}`) };
      if (sentence !== null) toast('problem', `It is kept and does not go out: ${sentence}`, edit);
      else toast('done', kind === 'post' && dueMs !== null ? (when === 'now' ? 'It goes out now' : `Scheduled for ${formatMoment(dueMs, brand.zone)}`) : 'Kept as a piece', edit);
      onClose();
    },
    onError: (error) => toast('problem', error.message),
  });
  // How much room each chosen channel leaves.
  const rooms = channels
    .filter(({ id }) => channelIds.includes(id))
    .flatMap(({ name, network }) => {
      const sheet = sheets.get(network);
      const rule = sheet?.words.fields.find(({ key }) => key === 'caption');
      return sheet && rule && rule.max !== null ? [{ name: `${sheet.name} ${name}`, left: rule.max - countCharacters(words.trim(), countingOf(rule, sheet)) }] : [];
    });
  const over = rooms.filter(({ left }) => left < 0);
  const tightest = rooms.toSorted((a, b) => a.left - b.left)[0];
  return (
    <ModalFrame title="A quick post" onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (words.trim() !== '' && channelIds.length > 0 && over.length === 0) post.mutate();
        }}
      >
        <Field label="Words" {...(over[0] ? { problem: `${-over[0].left} over on ${over[0].name}` } : tightest ? { hint: `${tightest.left} left on ${tightest.name}` } : {})}>
          {({ id, describedBy, invalid }) => (
            // The dialog opens to write; what one came for has the focus.
            <textarea id={id} autoFocus aria-describedby={describedBy} aria-invalid={invalid} rows={5} value={words} onChange={(event) => setWords(event.target.value)} className={inputClasses} />
          )}
        </Field>
        <PictureChoice brand={brand.slug} picture={picture} onChoose={setPicture}>
          Without one, how the words begin is set in type.
        </PictureChoice>
        <ChannelPick context={context} chosen={channelIds} onChoose={setChannelIds} />
        <fieldset className="flex flex-wrap gap-x-4 gap-y-1 text-sm">
          <legend className="mb-1 font-semibold">When</legend>
          {([['now', 'Now'], ['next-slot', 'In the next open slot'], ['draft', 'Not yet']] as const).map(([key, label]) => (
            <label key={key} className={`flex items-center gap-1.5 ${key !== 'draft' && !maySend ? 'opacity-50' : ''}`}>
              <input type="radio" name="when" disabled={key !== 'draft' && !maySend} checked={when === key} onChange={() => setWhen(key)} className="size-4 accent-house" />
              {label}
            </label>
          ))}
        </fieldset>
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="primary" disabled={post.isPending || words.trim() === '' || channelIds.length === 0 || over.length > 0}>
            {when === 'now' ? 'Post now' : when === 'next-slot' ? 'Schedule' : 'Keep'}
          </Button>
        </div>
      </form>
    </ModalFrame>
  );
}
