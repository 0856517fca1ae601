import Braces from 'lucide-react/icons/braces';
import Hash from 'lucide-react/icons/hash';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { Button as AriaButton, Menu, MenuItem, MenuTrigger, Popover } from 'react-aria-components';
import type { Fact } from '../../core/brand/brand-book.ts';
import { fillInOf } from '../../core/brand/facts.ts';
import { insertText } from '../../core/words/insert-text.ts';
import { iconButtonClasses } from '../ui/icon-button';

interface FactMenuProps {
  readonly facts: readonly Fact[];
  /** House hashtags, offered in captions. */
  readonly hashtags?: readonly string[];
  /** The whole text with what was put in. */
  readonly onText: (text: string) => void;
}

/** On an element around a text area and its menu, by which the menu finds the field that it belongs to. */
export const WITH_FACTS = { 'data-with-facts': '' } as const;

/** The brand's facts, and its hashtags where they belong, to be put into a text where its caret is. */
export function FactMenu({ facts, hashtags = [], onText }: FactMenuProps) {
  const place = useRef<HTMLSpanElement>(null);
  const [field, setField] = useState<HTMLTextAreaElement | null>(null);
  // A field that nobody has been in yet has its caret at the start; what is put in belongs behind its text.
  const visited = useRef(false);
  useEffect(() => {
    const found = place.current?.closest('[data-with-facts]')?.querySelector('textarea') ?? null;
    setField(found);
    const note = (): void => void (visited.current = true);
    found?.addEventListener('focus', note);
    return () => found?.removeEventListener('focus', note);
  }, []);
  const put = (added: string): void => {
    if (!field) return;
    const end = field.value.length;
    const { text, caret } = insertText(field.value, visited.current ? { start: field.selectionStart, end: field.selectionEnd } : { start: end, end }, added);
    onText(text);
    // When the menu closes it focuses its button. Move the focus to the field after that.
    requestAnimationFrame(() =>
      requestAnimationFrame(() => {
        field.focus();
        field.setSelectionRange(caret, caret);
      }),
    );
  };
  const facted = facts.map((fact): PutItem => ({ put: fillInOf(fact), name: fact.name, more: fact.text || 'no text yet' }));
  return (
    <span ref={place} className="flex items-center">
      {hashtags.length > 0 && <PutMenu label="Put a house hashtag in here" name="House hashtags" icon={<Hash aria-hidden className="size-3.5" />} items={hashtags.map((tag) => ({ put: tag, name: tag }))} onPut={put} />}
      {facts.length > 0 && <PutMenu label="Put a fact in here" name="Facts" icon={<Braces aria-hidden className="size-3.5" />} items={facted} onPut={put} />}
    </span>
  );
}

interface PutItem {
  readonly put: string;
  readonly name: string;
  readonly more?: string;
}

function PutMenu({ label, name, icon, items, onPut }: { readonly label: string; readonly name: string; readonly icon: ReactNode; readonly items: readonly PutItem[]; readonly onPut: (text: string) => void }) {
  return (
    <MenuTrigger>
      <AriaButton aria-label={label} className={iconButtonClasses}>
        {icon}
      </AriaButton>
      <Popover className="shadow-float max-h-80 overflow-auto rounded-md border border-line bg-panel p-1">
        <Menu aria-label={name} className="min-w-64 outline-none" onAction={(key) => onPut(String(key))}>
          {items.map((each) => (
            <MenuItem key={each.put} id={each.put} textValue={each.name} className="flex cursor-pointer items-baseline justify-between gap-6 rounded-md px-2.5 py-1 text-sm outline-none data-[focused]:bg-sunk">
              <span>{each.name}</span>
              {each.more !== undefined && <span className="max-w-44 truncate text-xs text-quiet">{each.more}</span>}
            </MenuItem>
          ))}
        </Menu>
      </Popover>
    </MenuTrigger>
  );
}
