import Plus from 'lucide-react/icons/plus';
import Trash2 from 'lucide-react/icons/trash-2';
import type { Snippet } from '../../../core/brand/brand-book.ts';
import { keyFrom } from '../../../core/brand/exchange/draft-book.ts';
import { fillInOf } from '../../../core/brand/facts.ts';
import { Button } from '../../ui/Button.tsx';
import { inputClasses } from '../../ui/Field.tsx';
import { iconButtonClasses } from '../../ui/icon-button.ts';

interface SnippetsProps {
  readonly snippets: readonly Snippet[];
  readonly readOnly: boolean;
  readonly onChange: (snippets: Snippet[]) => void;
}

/** Texts that are used again and again. Facts may stand in them, and blanks that are asked for. */
export function Snippets({ snippets, readOnly, onChange }: SnippetsProps) {
  const set = (key: string, next: Partial<Snippet>): void => onChange(snippets.map((snippet) => (snippet.key === key ? { ...snippet, ...next } : snippet)));
  const add = (): void => {
    const base = keyFrom('Snippet', 'snippet');
    const key = [base, ...snippets.map((_, index) => `${base}-${index + 2}`)].find((each) => snippets.every((snippet) => snippet.key !== each)) ?? base;
    onChange([...snippets, { key, name: 'New snippet', text: '' }]);
  };
  return (
    <section aria-labelledby="snippets">
      <h2 id="snippets" className="text-base font-semibold">
        Snippets
      </h2>
      <p className="mb-2 text-xs text-quiet">Put them into captions. {'{facts}'} fill themselves; what stands in [brackets] is asked for.</p>
      <ul className="space-y-3">
        {snippets.map((snippet) => (
          <li key={snippet.key} className="space-y-1">
            <div className="flex items-center gap-2">
              <input aria-label={`Name of ${snippet.name}`} value={snippet.name} maxLength={60} readOnly={readOnly} onChange={(event) => set(snippet.key, { name: event.target.value })} className={inputClasses} />
              <code className="shrink-0 text-xs text-quiet">{fillInOf(snippet)}</code>
              {!readOnly && (
                <button type="button" aria-label={`Remove ${snippet.name}`} onClick={() => onChange(snippets.filter((each) => each.key !== snippet.key))} className={iconButtonClasses}>
                  <Trash2 aria-hidden className="size-4" />
                </button>
              )}
            </div>
            <textarea aria-label={`Text of ${snippet.name}`} rows={2} value={snippet.text} maxLength={4_000} readOnly={readOnly} onChange={(event) => set(snippet.key, { text: event.target.value })} className={inputClasses} />
          </li>
        ))}
      </ul>
      {!readOnly && (
        <Button className="mt-3" onClick={add}>
          <Plus aria-hidden className="size-4" />
          Add a snippet
        </Button>
      )}
    </section>
  );
}
