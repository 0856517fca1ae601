import { useQuery } from '@tanstack/react-query';
import { getBrand } from '../../../contract/brand-contracts.ts';
import { emojiHabits, type EmojiHabit, type Voice } from '../../../core/brand/brand-book.ts';
import { unknownIn } from '../../../core/words/campaign.ts';
import { call } from '../../ui/call.ts';
import { ChoiceRow } from '../../ui/ChoiceRow.tsx';
import { Field, inputClasses } from '../../ui/Field.tsx';
import type { BookEdit, BrandProps } from '../use-book.ts';
import { AddressCards } from './AddressCards.tsx';
import { HashtagSets } from './HashtagSets.tsx';
import { NetworkVoices } from './NetworkVoices.tsx';
import { Snippets } from './Snippets.tsx';
import { TypedTags } from './TypedTags.tsx';
import { WritingServiceForm } from './WritingServiceForm.tsx';

const habitNames: Readonly<Record<EmojiHabit, string>> = { none: 'None', few: 'Few', many: 'Many' };

/** What is used again and again in the words: snippets, sets of hashtags, people, and how words go together on each network. */
export function VoiceSets({ edit, brand }: { readonly edit: BookEdit; readonly brand: BrandProps['brand'] }) {
  const { voice } = edit.book;
  const readOnly = !edit.mayChange;
  const set = (next: Partial<Voice>): void => edit.change((now) => ({ ...now, voice: { ...now.voice, ...next } }));
  const brandData = useQuery({ queryKey: ['brand', brand.slug], queryFn: () => call(getBrand, { params: { brand: brand.slug } }), staleTime: 60_000 });
  const sheets = brandData.data?.sheets ?? [];
  const unknown = unknownIn(voice.campaign);
  return (
    <div className="mt-8 grid max-w-5xl grid-cols-1 items-start gap-x-10 gap-y-8 border-t border-line pt-6 md:grid-cols-2">
      <Snippets snippets={voice.snippets} readOnly={readOnly} onChange={(snippets) => set({ snippets })} />
      <HashtagSets sets={voice.hashtagSets} sheets={sheets} readOnly={readOnly} onChange={(hashtagSets) => set({ hashtagSets })} />
      <div className="space-y-5">
        <h2 className="text-base font-semibold">Habits</h2>
        <TypedTags label="Hashtags to avoid" hint="Never proposed, and pointed out where they are." tags={voice.hashtagsAvoided} readOnly={readOnly} onChange={(hashtagsAvoided) => set({ hashtagsAvoided })} />
        <Field label="Hashtags at most" hint="For all networks; empty lets the network decide.">
          {({ id, describedBy }) => <input id={id} aria-describedby={describedBy} type="number" min={0} max={60} value={voice.maxHashtags ?? ''} readOnly={readOnly} onChange={(event) => set({ maxHashtags: event.target.value === '' ? null : Math.max(0, Math.min(60, Math.round(Number(event.target.value)))) })} className={`${inputClasses} w-24`} />}
        </Field>
        <div>
          <p className="mb-1 text-sm font-semibold">Emoji</p>
          {readOnly ? <p className="text-sm">{habitNames[voice.emoji]}</p> : <ChoiceRow label="Emoji" items={emojiHabits.map((key) => ({ key, name: habitNames[key] }))} chosen={voice.emoji} onChoose={(key) => set({ emoji: emojiHabits.find((each) => each === key) ?? 'few' })} />}
        </div>
        <Field label="Reading ease" hint="The least value that captions should reach, from 0 (hard) to 100 (easy); 60 is plain English. Empty: nobody minds.">
          {({ id, describedBy }) => <input id={id} aria-describedby={describedBy} type="number" min={0} max={100} value={voice.readingEase ?? ''} readOnly={readOnly} onChange={(event) => set({ readingEase: event.target.value === '' ? null : Math.max(0, Math.min(100, Number(event.target.value))) })} className={`${inputClasses} w-24`} />}
        </Field>
        <Field label="Campaign parameters" hint="Added to links of the brand’s own site: utm_source={network}&utm_campaign={piece}" problem={unknown.length > 0 ? `There is no {${unknown[0] ?? ''}}. Use {network}, {channel} or {piece}.` : undefined}>
          {({ id, describedBy, invalid }) => <input id={id} aria-describedby={describedBy} aria-invalid={invalid} value={voice.campaign} maxLength={300} readOnly={readOnly} onChange={(event) => set({ campaign: event.target.value })} className={inputClasses} />}
        </Field>
      </div>
      <AddressCards people={voice.people} sheets={sheets} readOnly={readOnly} onChange={(people) => set({ people })} />
      <NetworkVoices voice={voice} sheets={sheets} readOnly={readOnly} onChange={(networks) => set({ networks })} />
      <WritingServiceForm brand={brand} />
    </div>
  );
}
