import { readTemplate, type Template } from '../template/template.ts';

const band = {
  part: 'stack',
  direction: 'column',
  field: { ink: 'ground', shape: 'box' },
  padM: { top: 0.3, right: 0.5, bottom: 0.24, left: 0.5 },
  align: 'stretch',
  alignSelf: 'centre',
  children: [{ part: 'text', slot: 'line', role: 'text', align: 'centre', ink: 'ink', sizeM: { max: 0.74, min: 0.6 } }],
};
const anchored = { part: 'stack', direction: 'column', justify: 'end', align: 'stretch', padM: { top: 0, right: 1, bottom: 0.7, left: 1 }, safe: ['top', 'right', 'bottom', 'left'], children: [band] };

/** How a line of subtitles is laid over a shot: on a band of the brand's dark scheme, above the controls of every network. */
export const subtitleTemplate: Template = readTemplate({
  version: 1,
  key: 'subtitle',
  name: 'Subtitle',
  purpose: 'A line that is spoken',
  kind: 'graphic',
  scheme: 'dark',
  slots: [{ key: 'line', kind: 'text', label: 'Line', hint: 'The spoken line', required: true }],
  arrangements: [
    { key: 'upright', name: 'Upright', aspect: { from: 0, to: 1.2 }, root: anchored },
    { key: 'wide', name: 'Wide', aspect: { from: 1.2, to: 10 }, root: { ...anchored, padM: { top: 0, right: 4, bottom: 0.7, left: 4 } } },
  ],
});
