import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { beginConnection, type listChannels } from '../../../contract/channel-contracts.ts';
import type { AnswerOf } from '../../../contract/contract.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { call } from '../../ui/call.ts';
import { Button } from '../../ui/Button.tsx';
import { Field, inputClasses } from '../../ui/Field.tsx';
import { ModalFrame } from '../../ui/ModalFrame.tsx';

type Network = AnswerOf<typeof listChannels>['networks'][number];

interface ConnectDialogProps {
  readonly brand: string;
  readonly networks: readonly Network[];
  readonly onClose: () => void;
}

/** Sends a person to a network, which asks whether Confetti may post there. */
export function useConnect(brand: string) {
  return useMutation({
    mutationFn: (wanted: { readonly network: string; readonly site?: string }) => call(beginConnection, { params: { brand }, body: wanted }),
    onSuccess: ({ address }) => location.assign(address),
  });
}

/** Chooses the network that a channel is connected on. */
export function ConnectDialog({ brand, networks, onClose }: ConnectDialogProps) {
  const [site, setSite] = useState<string | null>(null);
  const connect = useConnect(brand);
  const own = networks.find(({ isSite }) => isSite);
  return (
    <ModalFrame title="Connect a channel" onClose={onClose}>
      <p className="mb-3 text-sm text-quiet">You go to the network, sign in there and allow Confetti to post. Then you choose which of your accounts become channels.</p>
      {site === null ? (
        <ul className="grid grid-cols-3 gap-2 max-sm:grid-cols-2">
          {networks.map((network) => (
            <li key={network.key}>
              <button
                type="button"
                disabled={connect.isPending}
                onClick={() => (network.isSite ? setSite('') : connect.mutate({ network: network.key }))}
                className="flex w-full items-center gap-2 rounded-md border border-line px-3 py-2.5 text-sm font-medium hover:border-edge"
              >
                <ChannelBadge badge={network.badge} />
                {network.name}
              </button>
            </li>
          ))}
        </ul>
      ) : (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            connect.mutate({ network: own?.key ?? '', site });
          }}
        >
          <Field label="Address of your site" hint="It says where it takes entries (Micropub) and who may send them (IndieAuth).">
            {({ id, describedBy }) => <input id={id} aria-describedby={describedBy} value={site} onChange={(event) => setSite(event.target.value)} placeholder="https://" inputMode="url" className={inputClasses} />}
          </Field>
          <div className="mt-3 flex justify-end gap-2">
            <Button onClick={() => setSite(null)}>Back</Button>
            <Button type="submit" look="primary" disabled={site.trim() === '' || connect.isPending}>
              Go to the site
            </Button>
          </div>
        </form>
      )}
      {connect.error && (
        <p role="alert" className="mt-3 text-sm text-coral-ink">
          {connect.error.message}
        </p>
      )}
    </ModalFrame>
  );
}
