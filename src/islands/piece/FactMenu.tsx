import Braces from 'lucide-react/icons/braces';
import { Button as AriaButton, Menu, MenuItem, MenuTrigger, Popover } from 'react-aria-components';
import type { Fact } from '../../core/brand/brand-book.ts';
import { fillInOf } from '../../core/brand/facts.ts';

interface FactMenuProps {
  readonly facts: readonly Fact[];
  /** House hashtags, offered in captions. */
  readonly hashtags?: readonly string[];
  readonly onPick: (text: string) => void;
}

/** The brand's facts, and its hashtags where they belong, to be put into a text. */
export function FactMenu({ facts, hashtags = [], onPick }: FactMenuProps) {
  if (facts.length + hashtags.length === 0) return null;
  return (
    <MenuTrigger>
      <AriaButton aria-label="Put a fact in here" className="rounded-md p-0.5 text-quiet hover:bg-sunk hover:text-ink">
        <Braces aria-hidden className="size-3.5" />
      </AriaButton>
      <Popover className="shadow-float max-h-80 overflow-auto rounded-md border border-line bg-panel p-1">
        <Menu aria-label="Facts" className="min-w-64 outline-none" onAction={(key) => onPick(String(key))}>
          {hashtags.map((tag) => (
            <MenuItem key={tag} id={tag} textValue={tag} className="cursor-pointer rounded-md px-2.5 py-1 text-sm outline-none data-[focused]:bg-sunk">
              {tag}
            </MenuItem>
          ))}
          {facts.map((fact) => (
            <MenuItem key={fact.key} id={fillInOf(fact)} textValue={fact.name} className="flex cursor-pointer items-baseline justify-between gap-6 rounded-md px-2.5 py-1 text-sm outline-none data-[focused]:bg-sunk">
              <span>{fact.name}</span>
              <span className="max-w-44 truncate text-xs text-quiet">{fact.text || 'no text yet'}</span>
            </MenuItem>
          ))}
        </Menu>
      </Popover>
    </MenuTrigger>
  );
}

/** A text with something put behind it, parted by a space. */
export function withBehind(text: string, added: string): string {
  return text === '' || /\s$/.test(text) ? text + added : `${text} ${added}`;
}
