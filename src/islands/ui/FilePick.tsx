import { useEffect, useRef, type ReactNode } from 'react';
import { buttonClasses } from './Button.tsx';

interface FilePickProps {
  readonly accept: string;
  readonly multiple?: boolean;
  /** Asks for a folder instead; all files in it are given. */
  readonly folder?: boolean;
  readonly look?: Parameters<typeof buttonClasses>[0];
  readonly size?: Parameters<typeof buttonClasses>[1];
  readonly children: ReactNode;
  readonly onFiles: (files: readonly File[]) => void;
}

/** A button that asks for files. The same file can be picked again after something was wrong with it. */
export function FilePick({ accept, multiple = false, folder = false, look = 'plain', size = 'usual', children, onFiles }: FilePickProps) {
  const input = useRef<HTMLInputElement>(null);
  const give = (element: HTMLInputElement): void => {
    const files = [...(element.files ?? [])];
    element.value = '';
    if (files.length > 0) onFiles(files);
  };
  useEffect(() => {
    // What was picked while the page was still waiting for its script has told nobody yet. Later there is nothing left to give.
    if (input.current) give(input.current);
  });
  // A hidden input is placed absolutely: without a positioned label it would make the page longer than it is.
  return (
    <label className={`${buttonClasses(look, size)} relative cursor-pointer focus-within:outline-2 focus-within:outline-offset-2 focus-within:outline-house`}>
      {children}
      <input
        type="file"
        accept={accept}
        multiple={multiple || folder}
        {...(folder ? { webkitdirectory: '' } : {})}
        className="sr-only"
        ref={input}
        onChange={(event) => give(event.target)}
      />
    </label>
  );
}
