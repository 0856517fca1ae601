import { useState } from 'react';
import { inputClasses } from '../ui/Field.tsx';
import type { ChosenMoment } from './MomentFields.tsx';

/** A moment typed as people say it: `fri 9.30`, `tomorrow 18h`. What cannot be read says so and changes nothing. */
export function TypedMoment({ moment, zone, nowMs, onChange }: { readonly moment: ChosenMoment; readonly zone: string; readonly nowMs: number; readonly onChange: (moment: ChosenMoment) => void }) {
  const [text, setText] = useState('');
  const [isUnread, setUnread] = useState(false);
  const read = async (): Promise<void> => {
    if (text.trim() === '') return setUnread(false);
    // The reader of dates is large, and most moments are picked.
    const { readTypedMoment } = await import('../../core/plan/typed-moment.ts');
    const wall = readTypedMoment(text, zone, nowMs, moment.wall);
    setUnread(wall === null);
    if (wall === null) return;
    onChange({ wall });
    setText('');
  };
  return (
    <form
      className="flex items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        void read();
      }}
    >
      <input aria-label="Type a moment" aria-invalid={isUnread} placeholder="fri 9.30, tomorrow 18h" value={text} maxLength={80} onChange={(event) => setText(event.target.value)} onBlur={() => void read()} className={`${inputClasses} w-44`} />
      {isUnread && (
        <span role="alert" className="text-xs text-coral-ink">
          Type a day and a time, as “fri 9.30” or “24 dec 18:00”.
        </span>
      )}
    </form>
  );
}
