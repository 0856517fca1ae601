import { useRef, useState } from 'react';
import { inputClasses } from '../ui/Field.tsx';
import type { ChosenMoment } from './MomentFields.tsx';

interface TypedMomentProps {
  readonly moment: ChosenMoment;
  readonly zone: string;
  readonly nowMs: number;
  readonly onChange: (moment: ChosenMoment) => void;
  /** Told whether a text stands there that is not read, or cannot be: nothing goes out at another moment than was typed. */
  readonly onTyping: (isTyping: boolean) => void;
  /** Told once a moment was taken with Enter: the keyboard goes on to what happens at it. */
  readonly onEntered: () => void;
}

/** The reader of dates is large, and most moments are picked: it comes when somebody is about to type one. */
const loadReader = () => import('../../core/plan/typed-moment.ts');

/** A moment typed as people say it: `fri 9.30`, `tomorrow 18h`. What cannot be read says so and changes nothing. */
export function TypedMoment({ moment, zone, nowMs, onChange, onTyping, onEntered }: TypedMomentProps) {
  const [text, setText] = useState('');
  const [isUnread, setUnread] = useState(false);
  const latest = useRef('');
  const write = (typed: string): void => {
    latest.current = typed;
    setText(typed);
    onTyping(typed.trim() !== '');
  };
  const read = async (): Promise<boolean> => {
    if (text.trim() === '') {
      setUnread(false);
      return false;
    }
    const { readTypedMoment } = await loadReader();
    // While the reader came, something else was typed, or this was read already.
    if (latest.current !== text) return false;
    const wall = readTypedMoment(text, zone, nowMs, moment.wall);
    setUnread(wall === null);
    if (wall === null) return false;
    onChange({ wall });
    write('');
    return true;
  };
  return (
    <form
      className="flex items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        void read().then((isTaken) => isTaken && onEntered());
      }}
    >
      <input aria-label="Type a moment" aria-invalid={isUnread} placeholder="fri 9.30, tomorrow 18h" value={text} maxLength={80} onFocus={() => void loadReader()} onChange={(event) => write(event.target.value)} onBlur={() => void read()} className={`${inputClasses} w-44`} />
      {isUnread && (
        <span role="alert" className="text-xs text-coral-ink">
          Type a day and a time, as “fri 9.30” or “24 dec 18:00”.
        </span>
      )}
    </form>
  );
}
