import X from 'lucide-react/icons/x';
import type { ReactNode } from 'react';
import { Dialog, Modal, ModalOverlay } from 'react-aria-components';
import { iconButtonClasses } from './icon-button';
import { scrimClasses } from './scrim-classes.ts';

interface ModalFrameProps {
  readonly title: string;
  readonly width?: 'narrow' | 'wide';
  readonly onClose: () => void;
  readonly children: ReactNode;
}

/** A dialog over the page, with its title and a way out. */
export function ModalFrame({ title, width = 'narrow', onClose, children }: ModalFrameProps) {
  return (
    <ModalOverlay isOpen isDismissable onOpenChange={(isOpen) => !isOpen && onClose()} className={scrimClasses}>
      <Modal className={`shadow-float max-h-full w-full overflow-auto rounded-md border border-line bg-panel ${width === 'wide' ? 'max-w-3xl' : 'max-w-lg'}`}>
        <Dialog aria-label={title} className="p-5 outline-none">
          <div className="mb-3 flex items-start gap-3">
            <h2 className="min-w-0 flex-1 text-base font-semibold">{title}</h2>
            <button type="button" aria-label="Close" onClick={onClose} className={iconButtonClasses}>
              <X aria-hidden className="size-4" />
            </button>
          </div>
          {children}
        </Dialog>
      </Modal>
    </ModalOverlay>
  );
}
