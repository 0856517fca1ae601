import { useMutation } from '@tanstack/react-query';
import Copy from 'lucide-react/icons/copy';
import Download from 'lucide-react/icons/download';
import ExternalLink from 'lucide-react/icons/external-link';
import { useState } from 'react';
import { Button as AriaButton, Menu, MenuItem, MenuTrigger, Popover } from 'react-aria-components';
import { handOffFile, markPlaced, snooze } from '../../../contract/outbox-contracts.ts';
import { getDeliveryPicture } from '../../../contract/send-contracts.ts';
import { roleMay, type Role } from '../../../core/access/access.ts';
import { formatMoment } from '../../../core/time/wall-time.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { addressOf, call } from '../../ui/call.ts';
import { Button, buttonClasses } from '../../ui/Button.tsx';
import { inputClasses } from '../../ui/Field.tsx';
import { ModalFrame } from '../../ui/ModalFrame.tsx';
import { PictureWithFallback } from '../../ui/PictureWithFallback.tsx';
import { toast } from '../../ui/toast.tsx';
import type { ShownHandOff } from './ByHandView.tsx';

interface HandOffProps {
  readonly item: ShownHandOff;
  readonly brand: { readonly slug: string; readonly zone: string; readonly role: Role };
  readonly nowMs: number;
  readonly onDone: () => Promise<void>;
}

/** A post later than this is overdue. */
const OVERDUE_MS = 3_600_000;

const pauses = [
  [30, 'Half an hour'],
  [120, 'Two hours'],
  [1_440, 'Until tomorrow'],
] as const;

/** A post that a person places: what to save, what to copy, where to go, and that it is done. */
export function HandOff({ item, brand, nowMs, onDone }: HandOffProps) {
  const [address, setAddress] = useState('');
  const [code, setCode] = useState<string | null>(null);
  const params = { brand: brand.slug, delivery: item.deliveryId };
  const placed = useMutation({
    mutationFn: () => call(markPlaced, { params, body: { address: address.trim() } }),
    onSuccess: () => {
      toast('done', `“${item.pieceName}” is noted as out on ${item.channelName}.`);
      return onDone();
    },
  });
  const later = useMutation({ mutationFn: (minutes: number) => call(snooze, { params, body: { minutes } }), onSuccess: onDone, onError: (error) => toast('problem', error.message) });
  const isOverdue = nowMs - item.dueMs > OVERDUE_MS;
  const maySend = roleMay(brand.role, 'send');
  const showCode = async (): Promise<void> => {
    const { toDataURL } = await import('qrcode');
    setCode(await toDataURL(`${location.origin}${location.pathname}#${item.deliveryId}`, { margin: 1, width: 240 }));
  };
  return (
    <article id={item.deliveryId} data-hand-off={item.deliveryId} className="mb-4 rounded-md border border-line bg-panel p-4">
      <div className="flex items-start gap-4 max-sm:flex-wrap">
        <PictureWithFallback src={addressOf(getDeliveryPicture, { brand: brand.slug, delivery: item.deliveryId })} alt="" className="size-24 shrink-0 rounded-md object-contain" />
        <div className="min-w-0 flex-1">
          <p className="flex items-center gap-1.5 text-sm text-quiet">
            {item.badge && <ChannelBadge badge={item.badge} size={16} />}
            {item.channelName}, {item.placementName}
          </p>
          <h2 className="text-base font-semibold">{item.pieceName}</h2>
          <p className={`text-sm tabular-nums ${isOverdue ? 'font-medium text-coral-ink' : 'text-quiet'}`}>
            {isOverdue ? 'Overdue: it was due ' : 'Due '}
            {formatMoment(item.dueMs, brand.zone)}
          </p>
          <div className="mt-2 flex flex-wrap gap-1.5">
            {Array.from({ length: item.files }, (_, index) => (
              <a key={index} href={addressOf(handOffFile, { ...params, index: String(index) })} className={buttonClasses('plain')} download>
                <Download aria-hidden className="size-3.5" />
                {item.files === 1 ? 'Save the file' : `Save file ${index + 1}`}
              </a>
            ))}
            <a href={item.place} target="_blank" rel="noreferrer" className={buttonClasses('plain')}>
              <ExternalLink aria-hidden className="size-3.5" />
              Open {item.networkName}
            </a>
            <Button onClick={() => void showCode()}>Open on a phone</Button>
            {maySend && (
              <MenuTrigger>
                <AriaButton className={buttonClasses('plain')}>Later…</AriaButton>
                <Popover className="shadow-float rounded-md border border-line bg-panel p-1">
                  <Menu aria-label="Put it off" className="min-w-40 outline-none" onAction={(minutes) => later.mutate(Number(minutes))}>
                    {pauses.map(([minutes, words]) => (
                      <MenuItem key={minutes} id={String(minutes)} className="cursor-pointer rounded-md px-2.5 py-1.5 text-sm outline-none data-[focused]:bg-sunk">
                        {words}
                      </MenuItem>
                    ))}
                  </Menu>
                </Popover>
              </MenuTrigger>
            )}
          </div>
        </div>
      </div>
      <ul aria-label="Texts to copy" className="mt-3 divide-y divide-line border-y border-line">
        {item.fields.map(({ label, text }) => (
          <li key={label} className="flex items-start gap-3 py-2 text-sm">
            <span className="w-28 shrink-0 text-quiet max-sm:w-20">{label}</span>
            <span className="min-w-0 flex-1 break-words whitespace-pre-wrap">{text}</span>
            <Button size="small" onClick={() => void copy(text, label)}>
              <Copy aria-hidden className="size-3" />
              Copy<span className="sr-only"> {label}</span>
            </Button>
          </li>
        ))}
      </ul>
      {maySend && (
        <form
          className="mt-3 flex flex-wrap items-center gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            placed.mutate();
          }}
        >
          <input aria-label="Address of the post" placeholder="Address of the post, if you have it" inputMode="url" value={address} onChange={(event) => setAddress(event.target.value)} className={`${inputClasses} min-w-0 flex-1`} />
          <Button type="submit" look="primary" disabled={placed.isPending}>
            It is out
          </Button>
          {placed.error && (
            <p role="alert" className="basis-full text-sm text-coral-ink">
              {placed.error.message}
            </p>
          )}
        </form>
      )}
      {code !== null && (
        <ModalFrame title="Open on a phone" onClose={() => setCode(null)}>
          <img src={code} alt="A code that opens this post on a phone" className="mx-auto block size-60" />
          <p className="mt-2 text-center text-sm text-quiet">Sign in on the phone: the pictures and texts are there to save and copy.</p>
        </ModalFrame>
      )}
    </article>
  );
}

async function copy(text: string, label: string): Promise<void> {
  try {
    await navigator.clipboard.writeText(text);
    toast('done', `${label} is copied.`);
  } catch {
    toast('problem', 'The browser did not copy it. Select the text and copy it yourself.');
  }
}
