import { generate, walk, type CssNode } from 'css-tree';
import { parseLenientCss } from './lenient-css.ts';

/** Presentation of an element: properties in small letters with their values as written. */
export type SvgStyle = Readonly<Record<string, string>>;

/** What a `style` attribute says. What cannot be read of it is left out. */
export function declarations(style: string): SvgStyle {
  const tree = parseLenientCss(style, { context: 'declarationList' });
  return tree ? declarationsIn(tree) : {};
}

/** Rules of a style sheet by their selector, `.name` or `name`; the only ones that drawing programs write. */
export function styleRules(css: string): ReadonlyMap<string, SvgStyle> {
  const rules = new Map<string, SvgStyle>();
  const tree = parseLenientCss(css);
  if (!tree) return rules;
  walk(tree, {
    visit: 'Rule',
    enter({ prelude, block }) {
      if (prelude.type !== 'SelectorList') return;
      const style = declarationsIn(block);
      prelude.children.forEach((selector) => {
        const name = simpleSelector(selector);
        if (name !== null) rules.set(name, { ...rules.get(name), ...style });
      });
    },
  });
  return rules;
}

function simpleSelector(selector: CssNode): string | null {
  if (selector.type !== 'Selector' || selector.children.size !== 1) return null;
  const { first } = selector.children;
  return first?.type === 'ClassSelector' ? `.${first.name}` : first?.type === 'TypeSelector' ? first.name : null;
}

function declarationsIn(node: CssNode): SvgStyle {
  const style: Record<string, string> = {};
  walk(node, { visit: 'Declaration', enter: ({ property, value }) => void (style[property.toLowerCase()] = generate(value)) });
  return style;
}
