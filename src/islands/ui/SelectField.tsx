interface SelectFieldProps {
  readonly label: string;
  /** What it says for no value; missing: something always is chosen. */
  readonly none?: string;
  readonly value: string;
  readonly options: readonly (readonly [key: string, name: string])[];
  readonly isDisabled?: boolean;
  readonly onChange: (key: string) => void;
}

/** A labelled choice among a few; an empty key is none of them. */
export function SelectField({ label, none, value, options, isDisabled = false, onChange }: SelectFieldProps) {
  return (
    <label className="block min-w-0 text-sm">
      <span className="mb-1 block font-semibold">{label}</span>
      <select disabled={isDisabled} value={value} onChange={(event) => onChange(event.target.value)} className="h-8.5 w-full rounded-md border border-line bg-panel px-1.5">
        {none !== undefined && <option value="">{none}</option>}
        {options.map(([key, name]) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}
