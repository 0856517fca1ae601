import type { ReactNode } from 'react';

/** One of several looks that a brand can have, with a sample of it. */
export function BookChoice({ group, name, note, isChosen, isDisabled, onChoose, children }: { readonly group: string; readonly name: string; readonly note?: string; readonly isChosen: boolean; readonly isDisabled: boolean; readonly onChoose: () => void; readonly children: ReactNode }) {
  return (
    <label className={`group block overflow-hidden rounded-md border text-sm has-focus-visible:outline-2 has-focus-visible:outline-house ${isChosen ? 'border-house bg-house-soft text-house' : 'border-line hover:border-edge'}`}>
      <input type="radio" name={group} className="sr-only" disabled={isDisabled} checked={isChosen} onChange={onChoose} />
      {children}
      <span className="block px-2 py-1.5">
        <span className={`block ${isChosen ? 'font-semibold' : ''}`}>{name}</span>
        {note !== undefined && <span className="block text-xs text-quiet">{note}</span>}
      </span>
    </label>
  );
}
