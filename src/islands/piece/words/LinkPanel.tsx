import Link2 from 'lucide-react/icons/link-2';
import { useMutation } from '@tanstack/react-query';
import { createShortLink } from '../../../contract/word-contracts.ts';
import { isWebAddress } from '../../../core/words/fields.ts';
import { Button } from '../../ui/Button.tsx';
import { call } from '../../ui/call.ts';
import { toast } from '../../ui/toast.tsx';

interface LinkPanelProps {
  readonly brand: { readonly slug: string };
  readonly address: string;
  readonly pieceId: string;
  /** The row: each channel's short link is counted by itself. */
  readonly label: string;
  readonly onText: (text: string) => void;
}

/** Makes a short link of Confetti's own out of an address; it counts clicks and never leads anywhere else. */
export default function LinkPanel({ brand, address, pieceId, label, onText }: LinkPanelProps) {
  const shorten = useMutation({
    mutationFn: () => call(createShortLink, { params: { brand: brand.slug }, body: { target: address.trim(), label: `${pieceId} ${label}`.slice(0, 100) } }),
    onSuccess: (link) => {
      onText(link.address);
      toast('done', `The short link leads to ${link.target}`, { label: 'Undo', run: () => onText(link.target) });
    },
    onError: (error) => toast('problem', error.message),
  });
  const isOurs = /\/l\/[a-z0-9]{4,20}$/u.test(address);
  if (!isWebAddress(address.trim()) || isOurs) return null;
  return (
    <Button size="small" className="mt-1" disabled={shorten.isPending} onClick={() => shorten.mutate()}>
      <Link2 aria-hidden className="size-3.5" />
      Make a short link that counts clicks
    </Button>
  );
}
