import { useQueries } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Template } from '../../core/template/template.ts';
import { templateQuery } from './template-query.ts';

/** Templates are asked for when their tile comes this near to what is seen. */
const NEAR = '200px';

export interface TemplatesInView {
  /** For a tile's `ref`; the tile names its template in `data-template`. */
  readonly watch: (tile: Element | null) => (() => void) | undefined;
  /** Documents of the tiles that have been in view, in the order in which they came. */
  readonly templates: readonly Template[];
}

/** Loads the documents of templates whose tiles have come into view, so that a long list costs no more than what is looked at. */
export function useTemplatesInView(brand: string): TemplatesInView {
  const [keys, setKeys] = useState<readonly string[]>([]);
  const observer = useRef<IntersectionObserver | null>(null);
  useEffect(() => () => observer.current?.disconnect(), []);
  const watch = useCallback((tile: Element | null) => {
    if (!tile) return undefined;
    observer.current ??= new IntersectionObserver(
      (entries) => {
        const come = entries.flatMap(({ isIntersecting, target }) => (isIntersecting && target instanceof HTMLElement ? [target.dataset['template'] ?? ''] : []));
        setKeys((now) => (come.every((key) => now.includes(key)) ? now : [...new Set([...now, ...come])]));
      },
      { rootMargin: NEAR },
    );
    observer.current.observe(tile);
    return () => observer.current?.unobserve(tile);
  }, []);
  const templates = useQueries({ queries: keys.map((key) => templateQuery(brand, key)), combine: documentsOf });
  return { watch, templates };
}

/** Outside of the component, so that the same answers make the same list. */
function documentsOf(results: readonly { readonly data?: { readonly document: Template } | undefined }[]): readonly Template[] {
  return results.flatMap(({ data }) => (data ? [data.document] : []));
}
