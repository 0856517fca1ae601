import { useContext, type ReactNode, type RefObject } from 'react';
import { useTabPanel } from 'react-aria';
import { Provider, TabListStateContext, TabsContext } from 'react-aria-components';

/** Without an element nothing in the panel is watched. */
const UNWATCHED: RefObject<Element | null> = { current: null };

interface StillPanelProps {
  /** The key of its tab. */
  readonly id: string;
  readonly className?: string;
  readonly children: ReactNode;
}

/**
 * The panel of a tab whose content always has something that takes the focus. The usual panel looks for it again at each change
 * in the page, which costs a large view several milliseconds a keystroke.
 */
export function StillPanel({ id, className, children }: StillPanelProps) {
  const state = useContext(TabListStateContext);
  const { tabPanelProps } = useTabPanel({ id }, state, UNWATCHED);
  if (state?.selectedKey !== id) return null;
  return (
    <div {...tabPanelProps} tabIndex={undefined} className={className}>
      {/* Tabs within are tabs of their own. */}
      <Provider values={[[TabsContext, null], [TabListStateContext, null]]}>{children}</Provider>
    </div>
  );
}
