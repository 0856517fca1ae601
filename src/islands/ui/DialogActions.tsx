import { Button } from './Button.tsx';

interface DialogActionsProps {
  readonly keepLabel: string;
  readonly onKeep: () => void;
  readonly label: string;
  readonly look: 'primary' | 'stop';
  readonly isDisabled?: boolean;
  readonly onConfirm: () => void;
}

/** The two buttons at the foot of a small dialog. */
export function DialogActions({ keepLabel, onKeep, label, look, isDisabled = false, onConfirm }: DialogActionsProps) {
  return (
    <div className="mt-3 flex justify-end gap-2">
      <Button size="small" onClick={onKeep}>
        {keepLabel}
      </Button>
      <Button size="small" look={look} disabled={isDisabled} onClick={onConfirm}>
        {label}
      </Button>
    </div>
  );
}
