import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useEffect, useId, useRef, useState, type KeyboardEvent } from 'react';
import { flushSync } from 'react-dom';
import { inputClasses } from '../../ui/Field.tsx';
import type { EditorProps } from './FieldEditor.tsx';

/** Something that can stand in the place of a word that is being typed. */
export interface Suggestion {
  readonly put: string;
  readonly more: string;
}

/** Answers what a word could become: hashtags for `#`, people for `@`. */
export interface Suggest {
  readonly key: string;
  readonly ask: (word: string, text: string) => Promise<readonly Suggestion[]>;
}

const MAX_SHOWN = 8;

/** The hashtag or mention that ends at the caret, with where it begins; null when there is none. */
function wordAt(text: string, caret: number): { readonly word: string; readonly start: number } | null {
  const match = /(?:^|[\s(])([#@][\p{L}\p{M}\p{N}_.]*)$/u.exec(text.slice(Math.max(0, caret - 120), caret));
  const word = match?.[1];
  return word === undefined ? null : { word, start: caret - word.length };
}

/** A text with line breaks as typed; what is typed behind # or @ is completed from a list. */
export function WordArea({ label, value, inherited, readOnly, rows, suggest, onChange, onKeyDown, autoFocus, area }: EditorProps) {
  const own = useRef<HTMLTextAreaElement>(null);
  const element = area ?? own;
  const listId = useId();
  const [open, setOpen] = useState<{ readonly word: string; readonly start: number } | null>(null);
  const [active, setActive] = useState(0);
  const asked = useDeferredValue(open?.word ?? '');
  const { data: found = [] } = useQuery({
    queryKey: ['word-suggestions', suggest?.key ?? '', asked],
    queryFn: () => (suggest ? suggest.ask(asked, value) : Promise.resolve([])),
    enabled: suggest !== null && asked !== '',
    staleTime: 60_000,
  });
  useEffect(() => {
    if (!autoFocus || !element.current) return;
    element.current.focus();
    element.current.setSelectionRange(element.current.value.length, element.current.value.length);
  }, [autoFocus, element]);
  const shown = open && asked === open.word ? found.filter(({ put }) => put.toLowerCase() !== open.word.toLowerCase()).slice(0, MAX_SHOWN) : [];
  const look = (): void => {
    const caret = element.current?.selectionStart ?? 0;
    setOpen(suggest ? wordAt(element.current?.value ?? '', caret) : null);
    setActive(0);
  };
  const take = ({ put }: Suggestion): void => {
    if (!open) return;
    const end = open.start + open.word.length;
    const space = /^\s/u.test(value.slice(end)) ? '' : ' ';
    // Render now and set the caret now: a caret set a frame later would move while the person types on.
    flushSync(() => {
      onChange(value.slice(0, open.start) + put + space + value.slice(end));
      setOpen(null);
    });
    const caret = open.start + put.length + 1;
    element.current?.setSelectionRange(caret, caret);
  };
  const handleKey = (event: KeyboardEvent<HTMLTextAreaElement>): void => {
    const chosen = shown[active];
    if (shown.length > 0 && chosen) {
      if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
        event.preventDefault();
        setActive((active + (event.key === 'ArrowDown' ? 1 : shown.length - 1)) % shown.length);
        return;
      }
      if (event.key === 'Enter' || event.key === 'Tab') {
        event.preventDefault();
        event.stopPropagation();
        take(chosen);
        return;
      }
      if (event.key === 'Escape') {
        event.stopPropagation();
        setOpen(null);
        return;
      }
    }
    onKeyDown?.(event);
  };
  return (
    <div className="relative">
      <textarea
        ref={element}
        aria-label={label}
        rows={rows}
        value={value}
        readOnly={readOnly}
        role={suggest ? 'combobox' : undefined}
        aria-autocomplete={suggest ? 'list' : undefined}
        aria-expanded={suggest ? shown.length > 0 : undefined}
        aria-controls={shown.length > 0 ? listId : undefined}
        aria-activedescendant={shown.length > 0 ? `${listId}-${active}` : undefined}
        placeholder={inherited ? 'Nothing shared yet' : undefined}
        onChange={(event) => {
          onChange(event.target.value);
          look();
        }}
        onKeyDown={handleKey}
        onBlur={() => setOpen(null)}
        className={`${inputClasses} resize-y whitespace-pre-wrap ${inherited ? 'text-quiet italic' : ''}`}
      />
      {shown.length > 0 && (
        <ul id={listId} role="listbox" aria-label="Suggestions" className="absolute inset-x-0 top-full z-20 mt-1 max-h-64 overflow-auto rounded-md border border-line bg-panel p-1 shadow-float">
          {shown.map((each, index) => (
            <li
              key={each.put}
              id={`${listId}-${index}`}
              role="option"
              aria-selected={index === active}
              onPointerDown={(event) => {
                event.preventDefault();
                take(each);
              }}
              className={`flex cursor-pointer items-baseline justify-between gap-3 rounded-md px-2 py-1 text-sm ${index === active ? 'bg-sunk' : ''}`}
            >
              <span className="min-w-0 break-words">{each.put}</span>
              <span className="shrink-0 text-xs text-quiet">{each.more}</span>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
