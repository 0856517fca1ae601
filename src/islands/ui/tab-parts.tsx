import { createContext, useContext, type ReactNode } from 'react';

const Parts = createContext<Readonly<Record<string, ReactNode>>>({});

/**
 * What stands within tabs, handed past them: tabs that render anew look through all their content for tabs again, which costs a keystroke
 * milliseconds. Tabs that get nothing but their choice and hold a `TabPart` stay as they are while the parts change.
 */
export const TabParts = Parts.Provider;

export function TabPart({ name }: { readonly name: string }) {
  return useContext(Parts)[name];
}
