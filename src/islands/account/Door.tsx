import type { ReactNode } from 'react';
import { UntilReady } from '../ui/UntilReady.tsx';

/** The frame of what stands before Confetti: joining, a new password. */
export function Door({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <main className="grid min-h-0 flex-1 place-items-center overflow-auto px-6 py-10">
      <UntilReady>
        <div className="w-full max-w-96 rounded-md border border-line bg-panel px-8 py-8">
          <div className="mb-6 flex items-center gap-2.5">
            <img src="/mark.svg" alt="" className="size-8" />
            <span className="font-heading text-lg font-bold">Confetti</span>
          </div>
          <h1 className="mb-2 text-xl font-semibold">{title}</h1>
          {children}
        </div>
      </UntilReady>
    </main>
  );
}

/** What went wrong, where it is read out. */
export function DoorProblem({ text }: { readonly text: string | null }) {
  return text === null ? null : (
    <p role="alert" className="text-sm font-medium text-coral-ink">
      {text}
    </p>
  );
}

/** The secret behind a link's `#`: browsers send it to no server by themselves. */
export function secretOfAddress(): string {
  return location.hash.slice(1);
}
