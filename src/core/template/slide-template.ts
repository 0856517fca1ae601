import { COVER, type SlideTemplate, type Template } from './template.ts';

const made = new WeakMap<Template, Map<string, Template>>();

/**
 * The template of one slide of a carousel, as a template of its own: same name, same scheme unless it has another, its own slots
 * and arrangements. The same value every time. A kind of slide that the template does not have is laid out as its first one.
 */
export function slideTemplate(template: Template, slide: string | undefined): Template {
  if (template.kind === 'graphic' || slide === undefined || slide === COVER) return template;
  const known = made.get(template) ?? new Map<string, Template>();
  made.set(template, known);
  const found = known.get(slide) ?? merged(template, slideOf(template, slide));
  known.set(slide, found);
  return found;
}

/** The kind of slide by its key. */
export function slideOf(template: Template, slide: string): SlideTemplate | null {
  return template.slides?.find((each) => each.key === slide) ?? template.slides?.[0] ?? null;
}

/** The kinds of slides that people fill in. */
export function slideKinds(template: Template): readonly SlideTemplate[] {
  return (template.slides ?? []).filter((slide) => slide.use !== 'sum');
}

/** The kind of slide that stands for all others where a place takes one picture; null where a template has none. */
export function sumSlide(template: Template): SlideTemplate | null {
  return template.slides?.find((slide) => slide.use === 'sum') ?? null;
}

function merged(template: Template, slide: SlideTemplate | null): Template {
  if (!slide) return template;
  return { ...template, scheme: slide.scheme ?? template.scheme, slots: slide.slots, drop: slide.drop, arrangements: slide.arrangements };
}
