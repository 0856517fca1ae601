import { useState } from 'react';
import X from 'lucide-react/icons/x';
import { addCuts } from '../../core/piece/add-cuts.ts';
import { cutsToAdd } from '../../core/cut/possible-cuts.ts';
import { Button } from '../ui/Button.tsx';
import { iconButtonClasses } from '../ui/icon-button';
import type { ViewProps } from './view-props.ts';

/** What was declined in this browser; nothing where it keeps nothing. */
function declinedIn(key: string): string | null {
  try {
    return localStorage.getItem(key);
  } catch {
    return null;
  }
}

/** Channels that are named one by one. */
const MAX_NAMED = 3;

/** Offers the cuts of channels that were connected after the piece was made: until it has them it cannot go out there. */
export function NewCuts({ pieceId, piece, brandData, store }: Pick<ViewProps, 'pieceId' | 'piece' | 'brandData' | 'store'>) {
  const { channels, sheets } = brandData;
  const refs = cutsToAdd(piece, channels, sheets);
  const without = channels.filter(({ id }) => refs.some(({ channelId }) => channelId === id));
  // Who does not want them now is asked again when yet another channel has come.
  const key = `confetti:without-cuts:${pieceId}`;
  const missing = without.map(({ id }) => id).toSorted().join(' ');
  const [declined, setDeclined] = useState(() => declinedIn(key));
  if (refs.length === 0 || declined === missing) return null;
  const decline = (): void => {
    setDeclined(missing);
    try {
      localStorage.setItem(key, missing);
    } catch {
      // A browser that keeps nothing asks again.
    }
  };
  const names = without.map(({ name, network }) => {
    const sheet = sheets.find((each) => each.key === network)?.name ?? network;
    return name.startsWith(sheet) ? name : `${sheet} ${name}`;
  });
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
      <button type="button" aria-label="Not now" onClick={decline} className={`${iconButtonClasses} ml-auto`}>
        <X aria-hidden className="size-4" />
      </button>
    </section>
  );
}
