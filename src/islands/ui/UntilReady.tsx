import { useSyncExternalStore, type ReactNode } from 'react';

const never = (): (() => void) => () => undefined;

/** Fields and buttons that the server has drawn do nothing yet: until their script is there, they say so and take nothing. */
export function UntilReady({ children }: { readonly children: ReactNode }) {
  const ready = useSyncExternalStore(never, () => true, () => false);
  return (
    <fieldset disabled={!ready} className="contents">
      {children}
    </fieldset>
  );
}
