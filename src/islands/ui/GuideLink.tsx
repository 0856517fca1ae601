import { guideOf } from '../shell/guide-of.ts';
import type { View } from '../shell/Bar.tsx';

/** From an empty view to the page of the guide that says how it is filled. */
export function GuideLink({ view, className = '' }: { readonly view: View; readonly className?: string }) {
  return (
    <a href={guideOf(view)} className={`inline-block text-sm font-medium text-house underline ${className}`}>
      How this works
    </a>
  );
}
