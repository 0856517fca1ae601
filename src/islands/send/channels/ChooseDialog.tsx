import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { chooseAccounts, getConnection } from '../../../contract/channel-contracts.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { call } from '../../ui/call.ts';
import { Button } from '../../ui/Button.tsx';
import { ModalFrame } from '../../ui/ModalFrame.tsx';
import { toast } from '../../ui/toast.tsx';

interface ChooseDialogProps {
  readonly brand: string;
  readonly connectionId: string;
  readonly onClose: () => void;
  readonly onChosen: () => void;
}

/** The accounts that a network offers, with what each can and cannot do before one chooses it. */
export function ChooseDialog({ brand, connectionId, onClose, onChosen }: ChooseDialogProps) {
  const offered = useQuery({ queryKey: ['connection', brand, connectionId], queryFn: () => call(getConnection, { params: { brand, connection: connectionId } }), retry: false });
  const [picked, setPicked] = useState<ReadonlySet<string> | null>(null);
  const accounts = offered.data?.accounts ?? [];
  const chosen = picked ?? new Set(accounts.length === 1 ? accounts.map(({ handle }) => handle) : accounts.filter(({ channelName }) => channelName !== null).map(({ handle }) => handle));
  const keep = useMutation({
    mutationFn: () => call(chooseAccounts, { params: { brand, connection: connectionId }, body: { handles: [...chosen] } }),
    onSuccess: ({ channels, again, failed }) => {
      const fresh = channels.length - again;
      const words = [fresh > 0 ? `${fresh} ${fresh === 1 ? 'channel is' : 'channels are'} connected. New pieces get cuts there.` : '', again > 0 ? `${again} ${again === 1 ? 'channel has' : 'channels have'} a fresh access.` : '', failed > 0 ? `${failed} failed ${failed === 1 ? 'post' : 'posts'} can be retried in the outbox.` : ''].filter((each) => each !== '').join(' ');
      toast('done', words, failed > 0 ? { label: 'Open the outbox', run: () => location.assign(`/b/${brand}/send/outbox?state=failed`) } : undefined);
      onChosen();
    },
  });
  const toggle = (handle: string): void => {
    const next = new Set(chosen);
    if (!next.delete(handle)) next.add(handle);
    setPicked(next);
  };
  const problem = offered.error?.message ?? offered.data?.problem ?? null;
  return (
    <ModalFrame title={offered.data ? `Accounts on ${offered.data.networkName}` : 'Accounts'} width="wide" onClose={onClose}>
      {problem !== null && <p className="text-sm text-coral-ink">{problem}</p>}
      {offered.isPending && <p className="text-sm text-quiet">Asking the network…</p>}
      {problem === null && accounts.length > 0 && offered.data && (
        <>
          <ul className="divide-y divide-line border-y border-line">
            {accounts.map((account) => (
              <li key={account.handle} className="py-3">
                <label className="flex items-start gap-3">
                  <input type="checkbox" checked={chosen.has(account.handle)} onChange={() => toggle(account.handle)} className="mt-1 accent-house" />
                  <ChannelBadge badge={offered.data.badge} />
                  <span className="min-w-0 flex-1">
                    <span className="block text-sm font-semibold">
                      {account.name} <span className="font-normal text-quiet">{account.handle}</span>
                    </span>
                    <span className="block text-xs text-quiet">
                      {account.kindName}
                      {account.channelName === null ? '' : '. A channel already: it gets a fresh access'}
                    </span>
                  </span>
                  <Abilities can={account.can} cannot={account.cannot} />
                </label>
              </li>
            ))}
          </ul>
          {keep.error && (
            <p role="alert" className="mt-3 text-sm text-coral-ink">
              {keep.error.message}
            </p>
          )}
          <div className="mt-4 flex justify-end gap-2">
            <Button onClick={onClose}>Connect none</Button>
            <Button look="primary" disabled={chosen.size === 0 || keep.isPending} onClick={() => keep.mutate()}>
              Connect {chosen.size === 1 ? 'this account' : `${chosen.size} accounts`}
            </Button>
          </div>
        </>
      )}
      {problem !== null && (
        <div className="mt-4 flex justify-end">
          <Button onClick={onClose}>Close</Button>
        </div>
      )}
    </ModalFrame>
  );
}

/** What an account can and cannot do, told apart by shape as well as by colour. */
export function Abilities({ can, cannot }: { readonly can: readonly string[]; readonly cannot: readonly string[] }) {
  return (
    <ul className="w-80 max-w-full shrink-0 space-y-0.5 text-xs max-sm:w-full">
      {can.map((each) => (
        <li key={each} className="flex gap-1.5">
          <svg viewBox="0 0 16 16" className="mt-0.5 size-3 shrink-0" role="img" aria-label="Can:">
            <path d="M6.2 13.2L1.4 8.4l1.9-1.9l2.9 2.9l6.5-6.6l1.9 1.9Z" fill="var(--c-mint)" />
          </svg>
          <span>{each}</span>
        </li>
      ))}
      {cannot.map((each) => (
        <li key={each} className="flex gap-1.5 text-quiet">
          <svg viewBox="0 0 16 16" className="mt-0.5 size-3 shrink-0" role="img" aria-label="Cannot:">
            <path d="M3.2 1.5L8 6.3L12.8 1.5L14.5 3.2L9.7 8L14.5 12.8L12.8 14.5L8 9.7L3.2 14.5L1.5 12.8L6.3 8L1.5 3.2Z" fill="var(--c-coral)" />
          </svg>
          <span>{each}</span>
        </li>
      ))}
    </ul>
  );
}
