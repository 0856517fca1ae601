import { useSyncExternalStore } from 'react';
import Check from 'lucide-react/icons/check';
import TriangleAlert from 'lucide-react/icons/triangle-alert';
import X from 'lucide-react/icons/x';
import { iconButtonClasses } from './icon-button';

interface Toast {
  readonly id: number;
  readonly kind: 'done' | 'problem';
  readonly text: string;
}

const SHOWN_MS = 6_000;
let toasts: readonly Toast[] = [];
let lastId = 0;
const listeners = new Set<() => void>();

function set(next: readonly Toast[]): void {
  toasts = next;
  for (const listener of listeners) listener();
}

/** Shows a short message. Problems stay until they are closed. */
export function toast(kind: Toast['kind'], text: string): void {
  lastId += 1;
  const id = lastId;
  set([...toasts.filter((each) => each.text !== text), { id, kind, text }].slice(-4));
  if (kind === 'done') setTimeout(() => dismiss(id), SHOWN_MS);
}

function dismiss(id: number): void {
  set(toasts.filter((each) => each.id !== id));
}

const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};
const NONE: readonly Toast[] = [];

export function Toasts() {
  const shown = useSyncExternalStore(subscribe, () => toasts, () => NONE);
  return (
    <div role="status" aria-live="polite" className="pointer-events-none fixed inset-x-0 bottom-4 z-50 flex flex-col items-center gap-2">
      {shown.map(({ id, kind, text }) => (
        <div key={id} className="shadow-float pointer-events-auto flex max-w-xl items-start gap-2.5 rounded-md border border-line bg-panel px-3.5 py-2.5 text-sm">
          {kind === 'done' ? <Check aria-hidden className="mt-0.5 size-4 shrink-0 text-mint-ink" /> : <TriangleAlert aria-hidden className="mt-0.5 size-4 shrink-0 text-coral-ink" />}
          <span>{text}</span>
          <button type="button" aria-label="Close this message" onClick={() => dismiss(id)} className={`${iconButtonClasses} -my-0.5 -mr-1`}>
            <X aria-hidden className="size-4" />
          </button>
        </div>
      ))}
    </div>
  );
}
