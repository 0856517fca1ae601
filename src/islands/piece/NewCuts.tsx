import { useState } from 'react';
import X from 'lucide-react/icons/x';
import { addCuts } from '../../core/piece/add-cuts.ts';
import { cutsToAdd } from '../../core/cut/possible-cuts.ts';
import type { Piece } from '../../core/piece/piece.ts';
import { Button } from '../ui/Button.tsx';
import { iconButtonClasses } from '../ui/icon-button';
import type { BrandData } from '../preview/brand-content.ts';
import type { PieceStore } from './piece-store.ts';

/** Channels that are named one by one. */
const MAX_NAMED = 3;

/** Offers the cuts of channels that were connected after the piece was made: until it has them it cannot go out there. */
export function NewCuts({ piece, brandData, store }: { readonly piece: Piece; readonly brandData: BrandData; readonly store: PieceStore }) {
  const [isClosed, setClosed] = useState(false);
  const { channels, sheets } = brandData;
  const refs = cutsToAdd(piece, channels, sheets);
  if (isClosed || refs.length === 0) return null;
  const names = channels.filter(({ id }) => refs.some(({ channelId }) => channelId === id)).map(({ name, network }) => `${sheets.find(({ key }) => key === network)?.name ?? network} ${name}`);
  const others = names.length - MAX_NAMED;
  const named = [...names.slice(0, MAX_NAMED), ...(others > 0 ? [`${others} more ${others === 1 ? 'channel' : 'channels'}`] : [])];
  return (
    <section aria-label="Channels without a cut" className="flex flex-wrap items-center gap-x-3 gap-y-1.5 border-b border-line bg-panel px-4 py-2 text-sm">
      <p className="min-w-0">
        This piece has no cuts for <b className="font-semibold">{new Intl.ListFormat('en').format(named)}</b> yet.
      </p>
      <Button size="small" onClick={() => store.change('add-cuts', (draft) => addCuts(draft, refs))}>
        {refs.length === 1 ? 'Add the cut' : `Add ${refs.length} cuts`}
      </Button>
      <button type="button" aria-label="Not now" onClick={() => setClosed(true)} className={`${iconButtonClasses} ml-auto`}>
        <X aria-hidden className="size-4" />
      </button>
    </section>
  );
}
