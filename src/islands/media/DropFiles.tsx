import { useState, type DragEvent, type HTMLAttributes } from 'react';
import { filesOf } from './dropped-files.ts';

interface DropFilesProps extends Omit<HTMLAttributes<HTMLElement>, 'onDrop'> {
  readonly as?: 'div' | 'main' | 'section';
  readonly onFiles: (files: readonly File[]) => void;
  /** Whether files are taken now. */
  readonly isOpen: boolean;
}

/** A place that files can be dropped on; it shows where they would go while they are over it. Folders give what is in them. */
export function DropFiles({ as: Tag = 'div', onFiles, isOpen, className = '', children, ...rest }: DropFilesProps) {
  const [isOver, setOver] = useState(false);
  const holdsFiles = (event: DragEvent): boolean => isOpen && event.dataTransfer.types.includes('Files');
  return (
    <Tag
      {...rest}
      className={`${className} ${isOver ? 'outline-2 -outline-offset-4 outline-house outline-dashed' : ''}`}
      onDragOver={(event: DragEvent) => {
        if (!holdsFiles(event)) return;
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={(event: DragEvent) => {
        // Moving on to something inside is no leaving.
        if (!(event.relatedTarget instanceof Node && event.currentTarget.contains(event.relatedTarget))) setOver(false);
      }}
      onDrop={(event: DragEvent) => {
        if (!holdsFiles(event)) return;
        event.preventDefault();
        event.stopPropagation();
        setOver(false);
        void filesOf(event.dataTransfer).then(onFiles);
      }}
    >
      {children}
    </Tag>
  );
}
