import { Button } from '../../ui/Button.tsx';
import { insertText } from '../../../core/words/insert-text.ts';
import type { ViewProps } from '../view-props.ts';

/** The spoken text of a video, beside the words that people write for it. */
export function FilledText({ piece, store, readOnly }: ViewProps) {
  const said = (piece.track?.subtitles ?? []).map(({ text }) => text.replaceAll(/\s+/g, ' ').trim()).filter((text) => text !== '').join(' ');
  if (said === '') return null;
  const add = (field: 'caption' | 'altText'): void =>
    store.change(`said-${field}`, (draft) => {
      const text = draft.words.shared[field];
      draft.words.shared[field] = insertText(text, { start: text.length, end: text.length }, said).text;
    });
  return (
    <aside aria-label="Spoken text" className="mt-5 max-w-prose border-l-2 border-line pl-3 text-xs">
      <p className="font-medium text-quiet">Spoken text</p>
      <p className="mt-0.5">{said}</p>
      {!readOnly && (
        <p className="mt-2 flex gap-1.5">
          <Button size="small" onClick={() => add('caption')}>
            Add to the shared caption
          </Button>
          <Button size="small" onClick={() => add('altText')}>
            Add to the shared alt text
          </Button>
        </p>
      )}
    </aside>
  );
}
