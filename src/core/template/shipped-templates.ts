import aside from './shipped/aside.json' with { type: 'json' };
import headland from './shipped/headland.json' with { type: 'json' };
import { readTemplate, type Template } from './template.ts';

/** The templates that ship with Confetti, in the order they are offered. */
export const shippedTemplates: readonly Template[] = [headland, aside].map(readTemplate);

/**
 * A shipped template by its key.
 * @throws RangeError when no template has the key
 */
export function getShippedTemplate(key: string): Template {
  const template = shippedTemplates.find((each) => each.key === key);
  if (!template) throw new RangeError(`There is no template '${key}'`);
  return template;
}
