import { useEffect, useState } from 'react';
import { roleMay, type Role } from '../../../core/access/access.ts';
import { Field, inputClasses } from '../../ui/Field.tsx';
import { SelectField } from '../../ui/SelectField.tsx';
import { ThemeTile } from '../../plan/ThemeTile.tsx';
import type { usePiecePlan } from './use-piece-plan.ts';

/** What the piece is about. None of it goes out, and changing it changes no post. */
export function AboutPiece({ role, planning: { own, plan, change } }: { readonly role: Role; readonly planning: ReturnType<typeof usePiecePlan> }) {
  const [labels, setLabels] = useState('');
  const [subject, setSubject] = useState('');
  const [notes, setNotes] = useState('');
  useEffect(() => setLabels(own?.labels.join(', ') ?? ''), [own?.labels]);
  useEffect(() => setSubject(own?.subject ?? ''), [own?.subject]);
  useEffect(() => setNotes(own?.notes ?? ''), [own?.notes]);
  const mayChange = roleMay(role, 'make');
  const theme = plan?.plan.themes.find(({ id }) => id === own?.themeId);
  if (!own || !plan) return null;
  return (
    <section aria-labelledby="about-piece" className="space-y-3">
      <h2 id="about-piece" className="flex items-center gap-2 text-base font-semibold">
        About this piece {theme && <ThemeTile theme={theme} />}
      </h2>
      <div className="grid grid-cols-2 gap-2">
        <SelectField label="Theme" none="No theme" value={own.themeId ?? ''} options={plan.plan.themes.map(({ id, name }) => [id, name] as const)} isDisabled={!mayChange} onChange={(themeId) => void change({ themeId: themeId === '' ? null : themeId })} />
        <SelectField label="Campaign" none="No campaign" value={own.campaignId ?? ''} options={plan.campaigns.map(({ id, name }) => [id, name] as const)} isDisabled={!mayChange} onChange={(campaignId) => void change({ campaignId: campaignId === '' ? null : campaignId })} />
      </div>
      <Field label="Labels" hint="Parted by commas">
        {({ id, describedBy }) => <input id={id} aria-describedby={describedBy} list="labels-of-brand" disabled={!mayChange} value={labels} onChange={(event) => setLabels(event.target.value)} onBlur={() => labels !== own.labels.join(', ') && void change({ labels: [...new Set(labels.split(',').map((label) => label.trim().slice(0, 60)).filter((label) => label !== ''))].slice(0, 20) })} className={inputClasses} />}
      </Field>
      <datalist id="labels-of-brand">
        {plan.labels.map((label) => (
          <option key={label} value={label} />
        ))}
      </datalist>
      <Field label="Subject">{({ id }) => <input id={id} disabled={!mayChange} value={subject} maxLength={200} onChange={(event) => setSubject(event.target.value)} onBlur={() => subject !== own.subject && void change({ subject })} className={inputClasses} />}</Field>
      <Field label="Notes" hint="For the team; they never go out.">
        {({ id, describedBy }) => <textarea id={id} aria-describedby={describedBy} rows={3} disabled={!mayChange} value={notes} maxLength={10_000} onChange={(event) => setNotes(event.target.value)} onBlur={() => notes !== own.notes && void change({ notes })} className={inputClasses} />}
      </Field>
    </section>
  );
}
