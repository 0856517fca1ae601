import { useEffect } from 'react';

/** A file that is dropped beside its place would make the browser open it and leave the page. */
export function useDropGuard(): void {
  useEffect(() => {
    const guard = (event: DragEvent): void => {
      if (!event.defaultPrevented && event.dataTransfer?.types.includes('Files')) {
        event.preventDefault();
        event.dataTransfer.dropEffect = 'none';
      }
    };
    addEventListener('dragover', guard);
    addEventListener('drop', guard);
    return () => {
      removeEventListener('dragover', guard);
      removeEventListener('drop', guard);
    };
  }, []);
}
