import Plus from 'lucide-react/icons/plus';
import Trash2 from 'lucide-react/icons/trash-2';
import { useState } from 'react';
import type { Voice } from '../../core/brand/brand-book.ts';
import { completeAddress, isWebAddress } from '../../core/words/fields.ts';
import { readHashtags } from '../../core/words/read-hashtags.ts';
import { Button } from '../ui/Button.tsx';
import { Field, inputClasses } from '../ui/Field.tsx';
import { BookFrame } from './BookFrame.tsx';
import { VoiceSets } from './voice/VoiceSets.tsx';
import type { BookEdit, BrandProps } from './use-book.ts';

/** How the brand talks: guidance for whoever writes, words it does not use, and what goes along with every post. */
export default function VoiceView({ brand }: BrandProps) {
  return (
    <BookFrame brand={brand} title="Voice">
      {(edit) => (
        <>
          <VoiceSheet edit={edit} />
          <VoiceSets edit={edit} brand={brand} />
        </>
      )}
    </BookFrame>
  );
}

function VoiceSheet({ edit }: { readonly edit: BookEdit }) {
  const { voice } = edit.book;
  const readOnly = !edit.mayChange;
  const set = (next: Partial<Voice>): void => edit.change((now) => ({ ...now, voice: { ...now.voice, ...next } }));
  return (
    <div className="grid max-w-5xl grid-cols-1 md:grid-cols-2 items-start gap-x-10 gap-y-6">
      <div className="space-y-5">
        <Field label="Tone" hint="In one line: how it sounds when it is right.">
          {({ id, describedBy }) => <input id={id} aria-describedby={describedBy} value={voice.tone} maxLength={300} readOnly={readOnly} onChange={(event) => set({ tone: event.target.value })} className={inputClasses} />}
        </Field>
        <Field label="Standing guidance" hint="What somebody who writes for the brand has to know. It stands beside the wording sheet.">
          {({ id, describedBy }) => <textarea id={id} aria-describedby={describedBy} rows={6} value={voice.guidance} maxLength={4_000} readOnly={readOnly} onChange={(event) => set({ guidance: event.target.value })} className={inputClasses} />}
        </Field>
        <HashtagField voice={voice} readOnly={readOnly} onChange={(hashtags) => set({ hashtags })} />
        <LinkField link={voice.link} readOnly={readOnly} onChange={(link) => set({ link })} />
        <Field label="First comment" hint="New pieces start with it where a network takes a first comment. Facts may stand in it.">
          {({ id, describedBy }) => <textarea id={id} aria-describedby={describedBy} rows={3} value={voice.firstComment} maxLength={2_000} readOnly={readOnly} onChange={(event) => set({ firstComment: event.target.value })} className={inputClasses} />}
        </Field>
      </div>
      <WordChoices voice={voice} readOnly={readOnly} onChange={(words) => set({ words })} />
    </div>
  );
}

/** What is typed as people say it becomes a complete web address when one leaves the field. */
function LinkField({ link, readOnly, onChange }: { readonly link: string; readonly readOnly: boolean; readonly onChange: (link: string) => void }) {
  const isComplete = link.trim() === '' || isWebAddress(link.trim());
  return (
    <Field label="Link" hint="New pieces start with it where a network takes a link." problem={isComplete ? undefined : 'This web address is incomplete. Start it with https://'}>
      {({ id, describedBy, invalid }) => (
        <input
          id={id}
          aria-describedby={describedBy}
          aria-invalid={invalid}
          type="url"
          value={link}
          maxLength={2_000}
          readOnly={readOnly}
          onChange={(event) => onChange(event.target.value)}
          onBlur={() => completeAddress(link) !== link && onChange(completeAddress(link))}
          className={inputClasses}
        />
      )}
    </Field>
  );
}

function HashtagField({ voice, readOnly, onChange }: { readonly voice: Voice; readonly readOnly: boolean; readonly onChange: (hashtags: string[]) => void }) {
  const [text, setText] = useState(voice.hashtags.join(' '));
  const found = readHashtags(text);
  return (
    <Field label="House hashtags" hint={`Offered beside every caption: ${found.length === 0 ? 'none yet' : found.join(' ')}`}>
      {({ id, describedBy }) => (
        <input
          id={id}
          aria-describedby={describedBy}
          value={text}
          readOnly={readOnly}
          onChange={(event) => {
            setText(event.target.value);
            onChange(readHashtags(event.target.value).slice(0, 60));
          }}
          className={inputClasses}
        />
      )}
    </Field>
  );
}

function WordChoices({ voice, readOnly, onChange }: { readonly voice: Voice; readonly readOnly: boolean; readonly onChange: (words: Voice['words']) => void }) {
  const set = (index: number, next: Partial<Voice['words'][number]>): void => onChange(voice.words.map((word, at) => (at === index ? { ...word, ...next } : word)));
  return (
    <section aria-labelledby="words-avoided">
      <h2 id="words-avoided" className="text-base font-semibold">
        Words
      </h2>
      <p className="mb-2 text-xs text-quiet">Preflight points them out in pieces and captions, and puts the better one in their place.</p>
      <table className="w-full text-left text-sm">
        <thead className="text-xs text-quiet">
          <tr className="border-b border-line">
            <th scope="col" className="py-1 font-medium">
              Never
            </th>
            <th scope="col" className="py-1 font-medium">
              Rather
            </th>
            <th scope="col" className="w-8" />
          </tr>
        </thead>
        <tbody>
          {voice.words.map((word, index) => (
            <tr key={index} className="border-b border-line">
              <td className="py-1.5 pr-2">
                <input aria-label={`Word ${index + 1} to avoid`} value={word.avoid} maxLength={60} readOnly={readOnly} onChange={(event) => set(index, { avoid: event.target.value })} className={inputClasses} />
              </td>
              <td className="pr-2">
                <input aria-label={`Rather than ${word.avoid}`} value={word.prefer} maxLength={60} readOnly={readOnly} placeholder="nothing: say it another way" onChange={(event) => set(index, { prefer: event.target.value })} className={inputClasses} />
              </td>
              <td>
                {!readOnly && (
                  <button type="button" aria-label={`Remove ${word.avoid}`} onClick={() => onChange(voice.words.filter((_, at) => at !== index))} className="rounded-md p-1 text-quiet hover:bg-sunk hover:text-ink">
                    <Trash2 aria-hidden className="size-4" />
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {!readOnly && (
        <Button className="mt-3" onClick={() => onChange([...voice.words, { avoid: 'word', prefer: '' }])}>
          <Plus aria-hidden className="size-4" />
          Add a word
        </Button>
      )}
    </section>
  );
}
