import TextQuote from 'lucide-react/icons/text-quote';
import { useState, type RefObject } from 'react';
import { Button as AriaButton, Dialog, DialogTrigger, Popover } from 'react-aria-components';
import type { Snippet } from '../../../core/brand/brand-book.ts';
import { blanksOf, fillBlanks } from '../../../core/brand/snippets.ts';
import { insertText } from '../../../core/words/insert-text.ts';
import { Button } from '../../ui/Button.tsx';
import { inputClasses } from '../../ui/Field.tsx';
import { iconButtonClasses } from '../../ui/icon-button.ts';

interface SnippetMenuProps {
  readonly snippets: readonly Snippet[];
  readonly area: RefObject<HTMLTextAreaElement | null>;
  readonly onText: (text: string) => void;
}

/** The brand's snippets. One without blanks goes in as its fill-in and follows the brand; one with blanks asks for them and goes in as text. */
export function SnippetMenu({ snippets, area, onText }: SnippetMenuProps) {
  const [isOpen, setOpen] = useState(false);
  const [chosen, setChosen] = useState<Snippet | null>(null);
  const [answers, setAnswers] = useState<Readonly<Record<string, string>>>({});
  if (snippets.length === 0) return null;
  const put = (added: string): void => {
    const field = area.current;
    const text = field?.value ?? '';
    const [start, end] = [field?.selectionStart ?? text.length, field?.selectionEnd ?? text.length];
    onText(insertText(text, document.activeElement === field || start > 0 ? { start, end } : { start: text.length, end: text.length }, added).text);
    setOpen(false);
    setChosen(null);
    setAnswers({});
  };
  const choose = (snippet: Snippet): void => (blanksOf(snippet.text).length === 0 ? put(`{${snippet.key}}`) : setChosen(snippet));
  return (
    <DialogTrigger isOpen={isOpen} onOpenChange={setOpen}>
      <AriaButton aria-label="Put a snippet in here" className={iconButtonClasses}>
        <TextQuote aria-hidden className="size-3.5" />
      </AriaButton>
      <Popover className="shadow-float w-80 rounded-md border border-line bg-panel p-2">
        <Dialog aria-label="Snippets" className="outline-none">
          {chosen ? (
            <form
              className="space-y-2 text-sm"
              onSubmit={(event) => {
                event.preventDefault();
                put(fillBlanks(chosen.text, answers));
              }}
            >
              <p className="text-xs text-quiet">{chosen.name}</p>
              {blanksOf(chosen.text).map((blank) => (
                <label key={blank} className="block">
                  <span className="mb-0.5 block text-xs font-medium">{blank}</span>
                  <input value={answers[blank] ?? ''} onChange={(event) => setAnswers({ ...answers, [blank]: event.target.value })} className={inputClasses} />
                </label>
              ))}
              <p className="rounded-md bg-sunk px-2 py-1 text-xs whitespace-pre-wrap">{fillBlanks(chosen.text, answers)}</p>
              <div className="flex justify-end gap-2">
                <Button size="small" onClick={() => setChosen(null)}>
                  Back
                </Button>
                <Button size="small" look="primary" type="submit">
                  Insert
                </Button>
              </div>
            </form>
          ) : (
            <ul>
              {snippets.map((snippet) => (
                <li key={snippet.key}>
                  <button type="button" onClick={() => choose(snippet)} className="block w-full rounded-md px-2 py-1 text-left hover:bg-sunk">
                    <span className="block text-sm">{snippet.name}</span>
                    <span className="line-clamp-2 text-xs text-quiet">{snippet.text}</span>
                  </button>
                </li>
              ))}
            </ul>
          )}
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}
