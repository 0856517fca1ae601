import { Button, buttonClasses } from './Button.tsx';

/** The two buttons at the foot of a form. */
export function FormActions({ isBusy, onCancel }: { readonly isBusy: boolean; readonly onCancel: () => void }) {
  return (
    <div className="flex justify-end gap-2">
      <Button onClick={onCancel}>Cancel</Button>
      <button type="submit" disabled={isBusy} className={buttonClasses('primary')}>
        Save
      </button>
    </div>
  );
}
