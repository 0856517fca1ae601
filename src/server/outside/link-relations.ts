import { parse, type DefaultTreeAdapterTypes } from 'parse5';

/**
 * The endpoint of a relation that a page names: in its Link header, else in a `link` or `a` element, the first of all; null where it names none.
 * @see https://www.w3.org/TR/micropub/#endpoint-discovery
 */
export function endpointIn(relation: string, header: string | null, html: string, base: string): string | null {
  for (const each of header?.split(/,(?=\s*<)/u) ?? []) {
    const [, target, relations = ''] = /^\s*<([^<>]*)>\s*;[^"]*rel="?([^"]*)"?/u.exec(each) ?? [];
    if (target !== undefined && relations.split(/\s+/u).includes(relation)) return absolute(target, base);
  }
  const target = linkedAs(relation, parse(html));
  return target === null ? null : absolute(target, base);
}

function linkedAs(relation: string, root: DefaultTreeAdapterTypes.ParentNode): string | null {
  const waiting: DefaultTreeAdapterTypes.ChildNode[] = [...root.childNodes];
  for (let node = waiting.shift(); node; node = waiting.shift()) {
    if (!('tagName' in node)) continue;
    const attribute = (name: string): string | undefined => node.attrs.find((each) => each.name === name)?.value;
    if ((node.tagName === 'link' || node.tagName === 'a') && attribute('rel')?.split(/\s+/u).includes(relation)) return attribute('href') ?? null;
    waiting.unshift(...node.childNodes);
  }
  return null;
}

/** An address that a page names, seen from there; null when it is none. */
export function absolute(target: string, base: string): string | null {
  return URL.canParse(target, base) ? new URL(target, base).href : null;
}
