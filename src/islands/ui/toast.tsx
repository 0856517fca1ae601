import { useEffect, useState, useSyncExternalStore } from 'react';
import Check from 'lucide-react/icons/check';
import TriangleAlert from 'lucide-react/icons/triangle-alert';
import X from 'lucide-react/icons/x';
import { iconButtonClasses } from './icon-button';

interface Toast {
  readonly id: number;
  readonly kind: 'done' | 'problem';
  readonly text: string;
  readonly action?: ToastAction | undefined;
}

/** One thing that can be done about what has happened. */
interface ToastAction {
  readonly label: string;
  readonly run: () => void;
}

const SHOWN_MS = 6_000;
const SHOWN_WITH_ACTION_MS = 20_000;
let toasts: readonly Toast[] = [];
let lastId = 0;
const listeners = new Set<() => void>();

function set(next: readonly Toast[]): void {
  toasts = next;
  for (const listener of listeners) listener();
}

/** Shows a short message. Problems stay until they are closed. */
export function toast(kind: Toast['kind'], text: string, action?: ToastAction): void {
  lastId += 1;
  const id = lastId;
  set([...toasts.filter((each) => each.text !== text), { id, kind, text, action }].slice(-3));
  if (kind === 'done') setTimeout(() => dismiss(id), action ? SHOWN_WITH_ACTION_MS : SHOWN_MS);
}

/** Closes a message that is no longer true. */
export function closeToast(text: string): void {
  set(toasts.filter((each) => each.text !== text));
}

function dismiss(id: number): void {
  set(toasts.filter((each) => each.id !== id));
}

const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};
const NONE: readonly Toast[] = [];

/** Where messages may appear, in the order in which these places came: a dialog of the bar brings one beside the page’s. The first shows them. */
let places: readonly object[] = [];

function useIsFirstPlace(): boolean {
  const [place] = useState<object>(() => ({}));
  useEffect(() => {
    places = [...places, place];
    set(toasts);
    return () => {
      places = places.filter((each) => each !== place);
      set(toasts);
    };
  }, [place]);
  return useSyncExternalStore(subscribe, () => places[0] === place, () => true);
}

/** Messages take a strip of their own at the foot of the page: they cover no button. */
export function Toasts() {
  const isFirst = useIsFirstPlace();
  const all = useSyncExternalStore(subscribe, () => toasts, () => NONE);
  const shown = isFirst ? all : NONE;
  return (
    <div role="status" aria-live="polite" className="flex shrink-0 flex-col items-center empty:hidden">
      {shown.map(({ id, kind, text, action }) => (
        <div key={id} className="flex w-full items-start justify-center gap-2.5 border-t border-line bg-panel px-4 py-2 text-sm">
          {kind === 'done' ? <Check aria-hidden className="mt-0.5 size-4 shrink-0 text-mint-ink" /> : <TriangleAlert aria-hidden className="mt-0.5 size-4 shrink-0 text-coral-ink" />}
          <span>{text}</span>
          {action && (
            <button
              type="button"
              onClick={() => {
                dismiss(id);
                action.run();
              }}
              className="rounded-md px-1.5 font-semibold text-house hover:bg-sunk"
            >
              {action.label}
            </button>
          )}
          <button type="button" aria-label="Close this message" onClick={() => dismiss(id)} className={`${iconButtonClasses} -my-0.5 -mr-1`}>
            <X aria-hidden className="size-4" />
          </button>
        </div>
      ))}
    </div>
  );
}
