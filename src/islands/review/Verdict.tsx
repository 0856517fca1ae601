import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Button as AriaButton, Dialog, DialogTrigger, Popover } from 'react-aria-components';
import { Button, buttonClasses } from '../ui/Button.tsx';
import { Field, inputClasses } from '../ui/Field.tsx';

interface VerdictProps {
  readonly seen: string;
  readonly onJudge: (verdict: { readonly verdict: 'approve' | 'changes'; readonly note: string; readonly seen: string }) => Promise<unknown>;
  /** Something else than what was seen is there now. */
  readonly onStale: () => void;
}

/** Approve exactly what is seen, or send it back with what should change. */
export function Verdict({ seen, onJudge, onStale }: VerdictProps) {
  const [note, setNote] = useState('');
  const judge = useMutation({ mutationFn: (verdict: 'approve' | 'changes') => onJudge({ verdict, note: verdict === 'approve' ? '' : note.trim(), seen }), onError: onStale });
  return (
    <div>
      <div className="flex justify-end gap-2">
        <DialogTrigger>
          <AriaButton isDisabled={judge.isPending} className={buttonClasses('plain')}>
            Request changes
          </AriaButton>
          <Popover placement="bottom end" className="shadow-float w-80 max-w-[calc(100vw-1rem)] rounded-md border border-line bg-panel p-4">
            <Dialog aria-label="Request changes" className="outline-none">
              {({ close }) => (
                <form
                  onSubmit={(event) => {
                    event.preventDefault();
                    judge.mutate('changes', { onSuccess: close });
                  }}
                >
                  <Field label="What should change?">{({ id }) => <textarea id={id} rows={3} maxLength={2_000} value={note} onChange={(event) => setNote(event.target.value)} className={`${inputClasses} text-sm`} />}</Field>
                  <div className="mt-3 flex justify-end gap-2">
                    <Button size="small" onClick={close}>
                      Not yet
                    </Button>
                    <Button size="small" type="submit" look="primary" disabled={note.trim() === '' || judge.isPending}>
                      Send back
                    </Button>
                  </div>
                </form>
              )}
            </Dialog>
          </Popover>
        </DialogTrigger>
        <Button look="primary" disabled={judge.isPending} onClick={() => judge.mutate('approve')}>
          Approve
        </Button>
      </div>
      {judge.error && (
        <p role="alert" className="mt-1 max-w-md text-right text-sm text-coral-ink">
          {judge.error.message}
        </p>
      )}
    </div>
  );
}
