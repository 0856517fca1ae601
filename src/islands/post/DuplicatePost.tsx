import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Button as AriaButton, Dialog, DialogTrigger, Popover } from 'react-aria-components';
import { duplicatePost } from '../../contract/outbox-contracts.ts';
import { formatMoment, wallTimeOf } from '../../core/time/wall-time.ts';
import { buttonClasses } from '../ui/Button.tsx';
import { call } from '../ui/call.ts';
import { DialogActions } from '../ui/DialogActions.tsx';
import { toast } from '../ui/toast.tsx';
import { MomentFields, type ChosenMoment } from './MomentFields.tsx';

const DAY_MS = 86_400_000;

/** Schedules a post once more, exactly as it was, at another moment. */
export function DuplicatePost({ brand, postId, nowMs }: { readonly brand: { readonly slug: string; readonly zone: string }; readonly postId: string; readonly nowMs: number }) {
  const [moment, setMoment] = useState<ChosenMoment>({ wall: wallTimeOf(nowMs + DAY_MS, brand.zone) });
  const send = useMutation({
    mutationFn: () => call(duplicatePost, { params: { brand: brand.slug, post: postId }, body: { ...moment } }),
    onSuccess: ({ dueMs }) => toast('done', `It is scheduled once more, for ${formatMoment(dueMs, brand.zone)}.`),
  });
  return (
    <DialogTrigger>
      <AriaButton className={buttonClasses('plain', 'small')}>Duplicate</AriaButton>
      <Popover placement="bottom end" className="shadow-float w-96 max-w-[calc(100vw-1rem)] rounded-md border border-line bg-panel p-4">
        <Dialog aria-label="Duplicate the post" className="outline-none">
          {({ close }) => (
            <>
              <p className="mb-2 text-sm">The same pictures and words go out once more, on the same channels.</p>
              <MomentFields moment={moment} zone={brand.zone} nowMs={nowMs} onChange={setMoment} />
              {send.error && (
                <p role="alert" className="mt-2 text-sm text-coral-ink">
                  {send.error.message}
                </p>
              )}
              <DialogActions keepLabel="Close" onKeep={close} label="Duplicate" look="primary" isDisabled={send.isPending} onConfirm={() => send.mutate(undefined, { onSuccess: close })} />
            </>
          )}
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}
