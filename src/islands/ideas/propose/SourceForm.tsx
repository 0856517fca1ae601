import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { MAX_SOURCE_TEXT, readSourceAddress, readSourceFile } from '../../../contract/propose-contracts.ts';
import type { Piece } from '../../../core/piece/piece.ts';
import { DropFiles } from '../../media/DropFiles.tsx';
import { call, sendFile } from '../../ui/call.ts';
import { NumberBox } from '../../ui/NumberBox.tsx';
import { Button } from '../../ui/Button.tsx';
import { Field, inputClasses } from '../../ui/Field.tsx';
import { FilePick } from '../../ui/FilePick.tsx';
import { SelectField } from '../../ui/SelectField.tsx';
import { toast } from '../../ui/toast.tsx';
import { ChannelPick } from '../ChannelPick.tsx';
import type { IdeasContext } from '../ideas-context.ts';

/** What is asked of the proposer. */
export interface Wish {
  readonly source: { readonly name: string; readonly text: string; readonly link: string };
  readonly topic: string;
  readonly kinds: readonly Piece['kind'][];
  readonly themeId: string | null;
  readonly count: number;
  /** A series over so many days; null: pieces that stand alone. */
  readonly days: number | null;
  readonly channelIds: readonly string[];
}

const kinds: readonly (readonly [Piece['kind'], string])[] = [['graphic', 'Graphics'], ['carousel', 'Carousels'], ['video', 'Videos']];
const ACCEPT = '.docx,.pdf,.md,.markdown,.txt,.srt,.vtt,text/plain,text/markdown,application/pdf';

/** What the proposals are made from, and what is wished of them. */
export function SourceForm({ context, isBusy, onAsk }: { readonly context: IdeasContext; readonly isBusy: boolean; readonly onAsk: (wish: Wish) => void }) {
  const { brand, themes } = context;
  const [text, setText] = useState('');
  const [name, setName] = useState('the text');
  const [link, setLink] = useState('');
  const [address, setAddress] = useState('');
  const [topic, setTopic] = useState('');
  const [chosenKinds, setKinds] = useState<readonly Piece['kind'][]>(['graphic', 'carousel']);
  const [themeId, setThemeId] = useState('');
  const [count, setCount] = useState(5);
  const [as, setAs] = useState<'pieces' | 'series'>('pieces');
  const [days, setDays] = useState(5);
  const [channelIds, setChannelIds] = useState<readonly string[]>([]);
  const params = { brand: brand.slug };
  const onError = (error: Error): void => toast('problem', error.message);
  const take = (source: { readonly name: string; readonly text: string; readonly link?: string }): void => {
    setName(source.name);
    setText(source.text);
    setLink(source.link ?? '');
  };
  const file = useMutation({ mutationFn: (given: File) => sendFile(readSourceFile, params, { name: given.name }, given), onSuccess: take, onError });
  const page = useMutation({ mutationFn: () => call(readSourceAddress, { params, body: { address: address.trim() } }), onSuccess: take, onError });
  const isReading = file.isPending || page.isPending;
  const words = text.trim() === '' ? 0 : text.trim().split(/\s+/u).length;
  return (
    <DropFiles as="div" isOpen onFiles={([first]) => first && file.mutate(first)} className="relative">
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          onAsk({ source: { name: name.slice(0, 120), text: text.trim() || topic, link }, topic: topic.trim(), kinds: chosenKinds, themeId: themeId === '' ? null : themeId, count, days: as === 'series' ? days : null, channelIds });
        }}
      >
        <Field label="Text" hint={isReading ? 'Reading…' : text === '' ? 'Paste an article or a few sentences, or drop a file here' : `${words} ${words === 1 ? 'word' : 'words'} from ${name}`}>
          {({ id, describedBy }) => (
            <textarea
              id={id}
              aria-describedby={describedBy}
              rows={9}
              maxLength={MAX_SOURCE_TEXT}
              value={text}
              onChange={(event) => {
                setText(event.target.value);
                setName('the text');
              }}
              className={inputClasses}
            />
          )}
        </Field>
        <div className="flex gap-1.5">
          <input aria-label="Address of an article" placeholder="or the address of an article" value={address} inputMode="url" onChange={(event) => setAddress(event.target.value)} className={inputClasses} />
          <Button disabled={isReading || address.trim().length < 4} onClick={() => page.mutate()}>
            Read
          </Button>
        </div>
        <FilePick accept={ACCEPT} size="small" onFiles={([first]) => first && file.mutate(first)}>
          Open DOCX, PDF, text or subtitles
        </FilePick>
        <Field label="Topic" hint="What it should be about; empty: what the text says most">{({ id, describedBy }) => <input id={id} aria-describedby={describedBy} value={topic} maxLength={300} onChange={(event) => setTopic(event.target.value)} className={inputClasses} />}</Field>
        <fieldset className="flex flex-wrap gap-x-4 gap-y-1 text-sm">
          <legend className="mb-1 font-semibold">Formats</legend>
          {kinds.map(([kind, label]) => (
            <label key={kind} className="flex items-center gap-1.5">
              <input type="checkbox" checked={chosenKinds.includes(kind)} onChange={() => setKinds(chosenKinds.includes(kind) ? chosenKinds.filter((each) => each !== kind) : [...chosenKinds, kind])} className="size-4 accent-house" />
              {label}
            </label>
          ))}
        </fieldset>
        <SelectField label="Theme" none="The one that each speaks of" value={themeId} options={[...themes.values()].map((theme) => [theme.id, theme.name] as const)} onChange={setThemeId} />
        <fieldset className="grid gap-1.5 text-sm">
          <legend className="mb-1 font-semibold">How many</legend>
          <label className="flex items-center gap-2">
            <input type="radio" name="as" checked={as === 'pieces'} onChange={() => setAs('pieces')} className="size-4 accent-house" />
            <NumberBox label="Pieces" value={count} min={1} max={12} onChange={setCount} />
            pieces that stand alone
          </label>
          <label className="flex items-center gap-2">
            <input type="radio" name="as" checked={as === 'series'} onChange={() => setAs('series')} className="size-4 accent-house" />
            <NumberBox label="Days" value={days} min={3} max={12} onChange={setDays} />
            days of a series on the rota’s slots
          </label>
        </fieldset>
        <details className="text-sm">
          <summary className="cursor-pointer font-semibold">{channelIds.length === 0 ? 'For all channels' : `For ${channelIds.length} ${channelIds.length === 1 ? 'channel' : 'channels'}`}</summary>
          <div className="mt-2">
            <ChannelPick context={context} chosen={channelIds} onChoose={setChannelIds} />
          </div>
        </details>
        <Button type="submit" look="primary" disabled={isBusy || isReading || chosenKinds.length === 0 || (text.trim() === '' && topic.trim() === '')}>
          {as === 'series' ? 'Propose a series' : 'Propose pieces'}
        </Button>
      </form>
    </DropFiles>
  );
}
