import { useState, type ReactNode } from 'react';
import { Button as AriaButton, Dialog, DialogTrigger, Popover } from 'react-aria-components';
import { buttonClasses } from './Button.tsx';
import { DialogActions } from './DialogActions.tsx';

interface ConfirmButtonProps {
  readonly label: string;
  /** What the question is called for who hears it. */
  readonly title: string;
  readonly size?: Parameters<typeof buttonClasses>[1];
  readonly isDisabled?: boolean;
  readonly keepLabel: string;
  readonly confirmLabel: string;
  readonly confirmLook: 'primary' | 'stop';
  readonly onConfirm: () => void;
  /** What will happen. */
  readonly children: ReactNode;
}

/** A button that asks before an action that cannot be undone. It keeps the focus, also where the answer switches it off. */
export function ConfirmButton({ label, title, size = 'usual', isDisabled = false, keepLabel, confirmLabel, confirmLook, onConfirm, children }: ConfirmButtonProps) {
  const [isOpen, setOpen] = useState(false);
  const [hasFocus, setFocus] = useState(false);
  return (
    <DialogTrigger isOpen={isOpen} onOpenChange={setOpen}>
      {/* Its question takes the focus for a while and gives it back. */}
      <AriaButton isDisabled={isDisabled && !hasFocus} isPending={isDisabled && hasFocus} onFocus={() => setFocus(true)} onBlur={() => setFocus(isOpen)} className={buttonClasses('plain', size)}>
        {label}
      </AriaButton>
      <Popover placement="bottom end" className="shadow-float w-80 max-w-[calc(100vw-1rem)] rounded-md border border-line bg-panel p-4">
        <Dialog aria-label={title} className="outline-none">
          {({ close }) => (
            <>
              {children}
              <DialogActions
                keepLabel={keepLabel}
                onKeep={close}
                label={confirmLabel}
                look={confirmLook}
                onConfirm={() => {
                  close();
                  onConfirm();
                }}
              />
            </>
          )}
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}
