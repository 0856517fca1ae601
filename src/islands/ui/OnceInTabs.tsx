import { useContext, type ReactNode } from 'react';
import { TabListStateContext } from 'react-aria-components';

/**
 * What stands within tabs and is neither tab nor panel. Tabs render all that is within them a second time, out of sight, to find out which
 * tabs there are; what is in here is left out of that.
 */
export function OnceInTabs({ children }: { readonly children: ReactNode }) {
  return useContext(TabListStateContext) === null ? null : children;
}
