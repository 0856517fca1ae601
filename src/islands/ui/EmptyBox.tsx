import type { ReactNode } from 'react';
import type { View } from '../shell/Bar.tsx';
import { GuideLink } from './GuideLink.tsx';

interface EmptyBoxProps {
  readonly title: string;
  /** What will stand here, and how it comes. */
  readonly words: string;
  readonly view: View;
  /** Where to begin. */
  readonly children?: ReactNode;
}

/** What a view says while there is nothing in it: what will be, where to begin, and the page of the guide. */
export function EmptyBox({ title, words, view, children }: EmptyBoxProps) {
  return (
    <div className="grid min-h-64 place-items-center rounded-md border border-dashed border-edge p-4 text-center">
      <div className="max-w-sm">
        <p className="font-heading text-lg font-semibold">{title}</p>
        <p className="mt-1 text-sm text-quiet">{words}</p>
        <p className="mt-3 flex flex-wrap justify-center gap-x-4 gap-y-1 text-sm font-medium">
          {children}
          <GuideLink view={view} />
        </p>
      </div>
    </div>
  );
}
