import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';

interface ChoiceProps {
  readonly label: string;
  readonly items: readonly { readonly key: string; readonly name: string }[];
  readonly chosen: string;
  readonly onChoose: (key: string) => void;
  readonly className?: string;
}

/** One of a few, side by side: arrow keys move, Space chooses. Never none. */
export function ChoiceRow({ label, items, chosen, onChoose, className = '' }: ChoiceProps) {
  return (
    <ToggleButtonGroup
      aria-label={label}
      selectionMode="single"
      disallowEmptySelection
      selectedKeys={[chosen]}
      onSelectionChange={(keys) => [...keys].forEach((key) => onChoose(String(key)))}
      className={`flex flex-wrap gap-1 ${className}`}
    >
      {items.map(({ key, name }) => (
        <ToggleButton key={key} id={key} className="cursor-default rounded-md px-2 py-0.5 text-sm text-quiet outline-0 hover:bg-sunk data-selected:bg-house-soft data-selected:font-semibold data-selected:text-house data-focus-visible:outline-2 data-focus-visible:outline-house">
          {name}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  );
}
