import { foldCaption } from '../../../core/words/fold.ts';
import { fieldOf } from '../../../core/words/fields.ts';
import type { ComposedRow } from '../../../core/wording/compose.ts';
import { labelOf } from '../../../core/wording/compose.ts';
import type { SheetChannel } from './sheet/sheet-rows.ts';

/** Everything that goes out to a channel, whole: the text with the place where it is folded, and every other field. */
export function ComposedText({ channel: { channel, sheet }, composed }: { readonly channel: SheetChannel; readonly composed: ComposedRow }) {
  const { words, parts } = composed;
  const { caption = '', thread: _, ...others } = words;
  const { shown, folded } = foldCaption(caption, sheet.words.foldAfter);
  return (
    <section aria-label={`What goes out to ${channel.name}`} className="mb-3 text-sm">
      <p className="mb-1 text-xs text-quiet">What goes out to {channel.name}</p>
      {parts && parts.length > 1 ? (
        <ol className="space-y-1.5">
          {parts.map((part, index) => (
            <li key={index} className="rounded-md border border-line px-2.5 py-1.5 break-words whitespace-pre-wrap">
              {part}
            </li>
          ))}
        </ol>
      ) : (
        <p className="max-h-72 overflow-auto rounded-md border border-line px-2.5 py-1.5 break-words whitespace-pre-wrap" tabIndex={0}>
          {caption === '' && <span className="text-quiet">No words yet.</span>}
          {shown}
          {folded && (
            <>
              <span className="mx-1 rounded bg-house-soft px-1 text-xs text-house" title={`${sheet.name} shows the first ${sheet.words.foldAfter} characters`}>
                more
              </span>
              {caption.slice(shown.length)}
            </>
          )}
        </p>
      )}
      {Object.keys(others).length > 0 && (
        <dl className="mt-1.5 grid grid-cols-[6rem_1fr] gap-x-2 gap-y-0.5 text-xs">
          {composed.fields.map(({ key }) => {
            const text = key === 'caption' || key === 'thread' ? undefined : others[key];
            if (text === undefined) return null;
            return (
              <div key={key} className="contents">
                <dt className="text-quiet">{sheet.words.fields.some((field) => field.key === key) ? labelOf(sheet, key) : fieldOf(key).name}</dt>
                <dd className="min-w-0 break-words whitespace-pre-wrap">{text}</dd>
              </div>
            );
          })}
        </dl>
      )}
    </section>
  );
}
