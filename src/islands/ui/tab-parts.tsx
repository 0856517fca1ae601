import { createContext, useContext, type ReactNode } from 'react';

const Parts = createContext<Readonly<Record<string, ReactNode>>>({});

/**
 * Passes the content of tabs to them by context. Tabs search all their content for tabs whenever they render, which takes milliseconds.
 * Memoized tabs that hold a `TabPart` do not render when only the content changes.
 */
export const TabParts = Parts.Provider;

export function TabPart({ name }: { readonly name: string }) {
  return useContext(Parts)[name];
}
