import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { keepBoilerplate } from '../../contract/begin-contracts.ts';
import { call } from '../ui/call.ts';
import { Field, inputClasses } from '../ui/Field.tsx';
import { FormActions } from '../ui/FormActions.tsx';
import { ModalFrame } from '../ui/ModalFrame.tsx';
import { SelectField } from '../ui/SelectField.tsx';
import { TimeOfDayField } from '../ui/TimeOfDayField.tsx';
import { toast } from '../ui/toast.tsx';

const weekdays = ['Mondays', 'Tuesdays', 'Wednesdays', 'Thursdays', 'Fridays', 'Saturdays', 'Sundays'] as const;

/** Keeps a piece without its specifics, to begin from again. */
export function SaveBoilerplate({ brand, piece, onClose }: { readonly brand: string; readonly piece: { readonly id: string; readonly name: string }; readonly onClose: () => void }) {
  const [name, setName] = useState(piece.name);
  const [weekday, setWeekday] = useState('');
  const [time, setTime] = useState('09:00');
  const save = useMutation({
    mutationFn: () => call(keepBoilerplate, { params: { brand }, body: { pieceId: piece.id, name: name.trim(), usual: weekday === '' ? null : { weekday: Number(weekday), time } } }),
    onSuccess: ({ asks }) => {
      toast('done', asks.length === 0 ? 'Kept. Begin from it with the key B.' : `Kept. It asks for ${asks.join(', ')}; begin from it with the key B.`);
      onClose();
    },
    onError: (error) => toast('problem', error.message),
  });
  return (
    <ModalFrame title="Save as boilerplate" onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim() !== '') save.mutate();
        }}
      >
        <p className="text-sm text-quiet">Template, words, channels and theme are kept; pictures are not. Words in brackets, [like this], are asked for each time.</p>
        <Field label="Name">{({ id }) => <input id={id} value={name} maxLength={80} onChange={(event) => setName(event.target.value)} className={inputClasses} />}</Field>
        <div className="grid grid-cols-2 gap-3">
          <SelectField label="Usual day" none="None" value={weekday} options={weekdays.map((each, index) => [String(index + 1), each] as const)} onChange={setWeekday} />
          {weekday !== '' && <TimeOfDayField label="Time" time={time} onChange={setTime} />}
        </div>
        <FormActions isBusy={save.isPending || name.trim() === ''} onCancel={onClose} />
      </form>
    </ModalFrame>
  );
}
