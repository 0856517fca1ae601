import { useId, type ReactNode } from 'react';

interface FieldProps {
  readonly label: string;
  readonly hint?: string | undefined;
  readonly problem?: string | undefined;
  readonly aside?: ReactNode;
  readonly children: (ids: { readonly id: string; readonly describedBy: string | undefined; readonly invalid: boolean }) => ReactNode;
}

/** A labelled field with its hint and what is wrong with it. */
export function Field({ label, hint, problem, aside, children }: FieldProps) {
  const id = useId();
  const noteId = `${id}-note`;
  const note = problem ?? hint;
  return (
    <div>
      <div className="mb-1 flex items-baseline justify-between gap-3">
        <label htmlFor={id} className="text-sm font-semibold">
          {label}
        </label>
        {aside}
      </div>
      {children({ id, describedBy: note ? noteId : undefined, invalid: problem !== undefined })}
      {note && (
        <p id={noteId} className={`mt-1 text-xs ${problem ? 'font-medium text-coral-ink' : 'text-quiet'}`}>
          {note}
        </p>
      )}
    </div>
  );
}

export const inputClasses =
  'block w-full rounded-md border border-line bg-panel px-2.5 py-1.5 text-base transition-colors duration-100 hover:border-edge focus:border-house focus:outline-none focus-visible:ring-1 focus-visible:ring-house aria-[invalid=true]:border-coral';
