import { cutShort } from '../words/cut-short.ts';
import type { Path } from '../document/merge.ts';
import type { NetworkSheet } from '../network/network-sheet.ts';
import { slideTemplate } from '../template/slide-template.ts';
import type { Template } from '../template/template.ts';
import { fields } from '../words/fields.ts';
import { firstWords, type Piece } from './piece.ts';

/** What names of places are made from. */
export interface PlaceContext {
  readonly piece: Pick<Piece, 'kind' | 'frames'>;
  readonly template: Template;
  readonly channels: readonly { readonly id: string; readonly name: string; readonly network: string }[];
  readonly sheets: readonly NetworkSheet[];
}

/** A place of a piece by the words that its views have for it: “Headline”, “Caption for Petalry @gullwick”, “Slide 3: Line”. */
export function placeName(path: Path, context: PlaceContext): string {
  const [area, first, second, third] = path.map(String);
  switch (area) {
    case 'title':
      return 'Name of the piece';
    case 'template':
      return 'Template';
    case 'frames':
      return frameName(first, second, third, context);
    case 'words':
      return first === 'own' ? `${fieldName(third)} for ${channelName(second, context)}` : `${fieldName(second)} for all channels`;
    case 'adjustments':
      return `Look of ${cutName(first ?? '', context)}`;
    case 'cuts':
      return 'Cuts';
    case 'track':
      return first === 'subtitles' ? 'Subtitles' : 'Sound';
    case 'cover':
      return 'Cover';
    default:
      return 'The piece';
  }
}

function fieldName(key: string | undefined): string {
  return fields.find((field) => field.key === key)?.name ?? 'Words';
}

function channelName(id: string | undefined, { channels }: PlaceContext): string {
  return channels.find((each) => each.id === id)?.name ?? 'a channel that is gone';
}

function cutName(key: string, { channels, sheets }: PlaceContext): string {
  const [channelId, placement] = (key.split('/')[0] ?? '').split('.');
  const channel = channels.find((each) => each.id === channelId);
  const place = sheets.find((sheet) => sheet.key === channel?.network)?.placements.find((each) => each.key === placement);
  return [channel?.name, place?.name].flatMap((name) => name ?? []).join(', ') || 'one cut';
}

/** @param identity of the frame, `#id`; undefined for the order of all */
function frameName(identity: string | undefined, area: string | undefined, slot: string | undefined, { piece, template }: PlaceContext): string {
  const index = piece.frames.findIndex(({ id }) => `#${id}` === identity);
  const frame = piece.frames[index];
  const noun = piece.kind === 'video' ? 'Shot' : 'Slide';
  if (!identity || !frame) return `${noun}s`;
  const own = area === 'altText' ? fieldName('altText') : area === 'shot' ? 'Timing' : slideTemplate(template, frame.slide).slots.find(({ key }) => key === slot)?.label;
  if (piece.kind === 'graphic') return own ?? 'Picture';
  const words = firstWords({ frames: [frame] });
  return own ? `${noun} ${index + 1}: ${own}` : `${noun} ${index + 1}${words === '' ? '' : ` (${cutShort(words, 26)})`}`;
}

/** A value of a piece as a person reads it. */
export function valueInWords(value: unknown): string {
  if (value === undefined || value === null || value === '') return '(empty)';
  if (typeof value === 'string') return value;
  if (typeof value === 'number' || typeof value === 'boolean') return String(value);
  const { kind, text } = value as { readonly kind?: unknown; readonly text?: unknown };
  if (typeof text === 'string') return text === '' ? '(empty)' : text;
  if (kind === 'picture') return '(a picture)';
  return Array.isArray(value) ? `(${value.length} entries)` : '(changed)';
}
