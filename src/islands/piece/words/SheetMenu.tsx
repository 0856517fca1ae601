import MoreHorizontal from 'lucide-react/icons/ellipsis';
import { useState } from 'react';
import { Button as AriaButton, Menu, MenuItem, MenuTrigger, Popover } from 'react-aria-components';
import { iconButtonClasses } from '../../ui/icon-button.ts';

interface MenuAct {
  readonly key: string;
  readonly name: string;
  readonly act: () => void;
}

const buttonClasses = `${iconButtonClasses} -mr-1 opacity-60 hover:opacity-100`;

/** What can be done with a whole row or column. A sheet has dozens of these menus: each is a bare button until it is pressed. */
export function SheetMenu({ label, items }: { readonly label: string; readonly items: readonly MenuAct[] }) {
  const [wasPressed, setPressed] = useState(false);
  if (!wasPressed) {
    return (
      <button type="button" tabIndex={-1} aria-label={label} aria-haspopup="menu" onClick={() => setPressed(true)} className={buttonClasses}>
        <MoreHorizontal aria-hidden className="size-3.5" />
      </button>
    );
  }
  return (
    <MenuTrigger defaultOpen>
      <AriaButton aria-label={label} excludeFromTabOrder className={buttonClasses}>
        <MoreHorizontal aria-hidden className="size-3.5" />
      </AriaButton>
      <Popover className="shadow-float rounded-md border border-line bg-panel p-1">
        <Menu aria-label={label} className="outline-none" onAction={(key) => items.find((item) => item.key === key)?.act()}>
          {items.map((item) => (
            <MenuItem key={item.key} id={item.key} className="cursor-pointer rounded-md px-2.5 py-1 text-sm outline-none data-[focused]:bg-sunk">
              {item.name}
            </MenuItem>
          ))}
        </Menu>
      </Popover>
    </MenuTrigger>
  );
}
