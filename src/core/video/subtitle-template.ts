import type { SubtitleLook } from '../brand/brand-book.ts';
import type { StackPart } from '../template/parts.ts';
import type { Template } from '../template/template.ts';

/** What sets the looks of a subtitle apart: its scheme, its size and what it stands on. */
interface Setting {
  readonly scheme: string;
  readonly sizeM: { readonly max: number; readonly min: number };
  readonly hasField: boolean;
}

const settings: Readonly<Record<SubtitleLook, Setting>> = {
  band: { scheme: 'dark', sizeM: { max: 0.74, min: 0.6 }, hasField: true },
  label: { scheme: 'bold', sizeM: { max: 0.84, min: 0.6 }, hasField: true },
  edge: { scheme: 'dark', sizeM: { max: 0.9, min: 0.6 }, hasField: false },
};

function lineTemplate(look: SubtitleLook): Template {
  const { scheme, sizeM, hasField } = settings[look];
  const line: StackPart = {
    part: 'stack',
    direction: 'column',
    ...(hasField ? { field: { ink: 'ground', shape: 'box' } } : {}),
    padM: { top: 0.3, right: 0.5, bottom: 0.24, left: 0.5 },
    align: 'stretch',
    alignSelf: 'centre',
    children: [{ part: 'text', slot: 'line', role: 'text', align: 'centre', ink: 'ink', sizeM }],
  };
  const anchored: StackPart = { part: 'stack', direction: 'column', justify: 'end', align: 'stretch', padM: { top: 0, right: 1, bottom: 0.7, left: 1 }, safe: ['top', 'right', 'bottom', 'left'], children: [line] };
  return {
    version: 1,
    key: 'subtitle',
    name: 'Subtitle',
    purpose: 'A line that is spoken',
    kind: 'graphic',
    scheme,
    slots: [{ key: 'line', kind: 'text', label: 'Line', hint: 'The spoken line', required: true }],
    arrangements: [
      { key: 'upright', name: 'Upright', aspect: { from: 0, to: 1.2 }, root: anchored },
      { key: 'wide', name: 'Wide', aspect: { from: 1.2, to: 10 }, root: { ...anchored, padM: { top: 0, right: 4, bottom: 0.7, left: 4 } } },
    ],
  };
}

/** How a line of subtitles is laid over a shot, above the controls of every network. */
export const subtitleTemplates: Readonly<Record<SubtitleLook, Template>> = { band: lineTemplate('band'), label: lineTemplate('label'), edge: lineTemplate('edge') };
