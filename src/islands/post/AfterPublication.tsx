import { useMutation } from '@tanstack/react-query';
import MoreHorizontal from 'lucide-react/icons/ellipsis';
import { useState } from 'react';
import { Button as AriaButton, Menu, MenuItem, MenuTrigger, Popover } from 'react-aria-components';
import { rewrite, takeDown } from '../../contract/outbox-contracts.ts';
import { call } from '../ui/call.ts';
import { Button, buttonClasses } from '../ui/Button.tsx';
import { Field, inputClasses } from '../ui/Field.tsx';
import { ModalFrame } from '../ui/ModalFrame.tsx';
import { toast } from '../ui/toast.tsx';
import type { Delivery } from './use-deliveries.ts';

interface AfterPublicationProps {
  readonly brand: { readonly slug: string };
  readonly delivery: Delivery;
  readonly maySend: boolean;
}

const item = 'cursor-pointer rounded-md px-2.5 py-1.5 text-sm outline-none data-[focused]:bg-sunk';

/** What can be done to a post that is out, as its network allows it. */
export function AfterPublication({ brand, delivery, maySend }: AfterPublicationProps) {
  const [open, setOpen] = useState<'text' | 'remove' | null>(null);
  const can = maySend ? delivery.afterwards : [];
  if (delivery.address === null && can.length === 0) return null;
  const act = (key: string): void => {
    if (key === 'copy') void navigator.clipboard.writeText(delivery.address ?? '').then(() => toast('done', 'The link is copied.'), () => toast('problem', 'The browser did not copy it. Open the post and copy its address.'));
    else setOpen(key as 'text' | 'remove');
  };
  return (
    <>
      <MenuTrigger>
        <AriaButton aria-label={`More about ${delivery.channelName}, ${delivery.placementName}`} className={buttonClasses('plain', 'icon')}>
          <MoreHorizontal aria-hidden className="size-4" />
        </AriaButton>
        <Popover placement="bottom end" className="shadow-float rounded-md border border-line bg-panel p-1">
          <Menu aria-label="What can be done" className="min-w-44 outline-none" onAction={(key) => act(String(key))}>
            {delivery.address !== null && <MenuItem id="copy" className={item}>Copy the link</MenuItem>}
            {can.includes('text') && delivery.address !== null && <MenuItem id="text" className={item}>Change its text…</MenuItem>}
            {can.includes('remove') && <MenuItem id="remove" className={item}>Take it down…</MenuItem>}
          </Menu>
        </Popover>
      </MenuTrigger>
      {open === 'text' && <RewriteDialog brand={brand.slug} delivery={delivery} onClose={() => setOpen(null)} />}
      {open === 'remove' && <TakeDownDialog brand={brand.slug} delivery={delivery} onClose={() => setOpen(null)} />}
    </>
  );
}

interface OneDialogProps {
  readonly brand: string;
  readonly delivery: Delivery;
  readonly onClose: () => void;
}

function RewriteDialog({ brand, delivery, onClose }: OneDialogProps) {
  const [caption, setCaption] = useState(delivery.caption);
  const send = useMutation({
    mutationFn: () => call(rewrite, { params: { brand, delivery: delivery.id }, body: { caption } }),
    onSuccess: () => {
      toast('done', `The text on ${delivery.channelName} is changed. The piece keeps its own.`);
      onClose();
    },
  });
  return (
    <ModalFrame title={`Text on ${delivery.channelName}`} onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          send.mutate();
        }}
      >
        <Field label="Text" hint="Everyone sees it at once.">
          {({ id, describedBy }) => <textarea id={id} aria-describedby={describedBy} rows={6} value={caption} onChange={(event) => setCaption(event.target.value)} className={inputClasses} />}
        </Field>
        {send.error && (
          <p role="alert" className="mt-2 text-sm text-coral-ink">
            {send.error.message}
          </p>
        )}
        <div className="mt-3 flex justify-end gap-2">
          <Button onClick={onClose}>Keep it</Button>
          <Button type="submit" look="primary" disabled={caption.trim() === '' || caption === delivery.caption || send.isPending}>
            Change it
          </Button>
        </div>
      </form>
    </ModalFrame>
  );
}

function TakeDownDialog({ brand, delivery, onClose }: OneDialogProps) {
  const send = useMutation({
    mutationFn: () => call(takeDown, { params: { brand, delivery: delivery.id }, body: {} }),
    onSuccess: () => {
      toast('done', `“${delivery.pieceName}” is taken down from ${delivery.channelName}.`);
      onClose();
    },
  });
  return (
    <ModalFrame title="Take the post down" onClose={onClose}>
      <p className="text-sm">
        “{delivery.pieceName}” disappears from {delivery.channelName}, with what people have written below it. The piece stays, and so do its other channels.
      </p>
      {send.error && (
        <p role="alert" className="mt-2 text-sm text-coral-ink">
          {send.error.message}
        </p>
      )}
      <div className="mt-3 flex justify-end gap-2">
        <Button onClick={onClose}>Leave it up</Button>
        <Button look="stop" disabled={send.isPending} onClick={() => send.mutate()}>
          Take it down
        </Button>
      </div>
    </ModalFrame>
  );
}
