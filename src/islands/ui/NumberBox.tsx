import { inputClasses } from './Field.tsx';

/** A narrow box for a whole number between two bounds; what is typed outside them is taken to the nearest. */
export function NumberBox({ label, value, min, max, onChange }: { readonly label?: string; readonly value: number; readonly min: number; readonly max: number; readonly onChange: (value: number) => void }) {
  return (
    <span className="inline-block w-18 shrink-0">
      <input type="number" aria-label={label} min={min} max={max} value={value} onChange={(event) => onChange(Math.max(min, Math.min(max, Math.round(Number(event.target.value)))))} className={inputClasses} />
    </span>
  );
}
