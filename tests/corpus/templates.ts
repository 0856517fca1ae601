import { shippedTemplates } from '../../src/core/template/shipped-templates.ts';
import { slideTemplate } from '../../src/core/template/slide-template.ts';
import type { Template } from '../../src/core/template/template.ts';

/** All that the corpus lays out: every template, and every kind of slide of those that have them. */
export const corpusTemplates: readonly Template[] = shippedTemplates.flatMap((template) => [template, ...(template.slides ?? []).map((slide) => ({ ...slideTemplate(template, slide.key), key: `${template.key}-${slide.key}` }))]);
