import ChevronDown from 'lucide-react/icons/chevron-down';
import Plus from 'lucide-react/icons/plus';
import { lazy, Suspense, useEffect, useState } from 'react';
import { Button as AriaButton, Menu, MenuItem, MenuTrigger, Popover } from 'react-aria-components';
import { roleMay, type Role } from '../../core/access/access.ts';
import { buttonClasses } from '../ui/Button.tsx';
import { KEYS_HEARD } from './keys-heard.ts';

const QuickDialogs = lazy(() => import('../quick/QuickDialogs.tsx'));

type QuickKind = 'note' | 'post' | 'boilerplate' | 'keys';

/** What each key opens, from any view where nobody is typing. */
const keys: Readonly<Record<string, QuickKind>> = { i: 'note', p: 'post', b: 'boilerplate', '?': 'keys' };
const item = 'flex cursor-pointer items-baseline justify-between gap-8 rounded-md px-2.5 py-1.5 text-sm outline-none data-[focused]:bg-sunk';

interface QuickActionsProps {
  readonly brand: { readonly slug: string; readonly name: string; readonly zone: string; readonly role: Role };
  /** In Pieces the view has its own way to a new piece. */
  readonly hasNewPiece: boolean;
}

/** A new piece, and what else can be begun from anywhere, by menu and by key. */
export function QuickActions({ brand, hasNewPiece }: QuickActionsProps) {
  const [open, setOpen] = useState<QuickKind | null>(null);
  const mayMake = roleMay(brand.role, 'make');
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      const kind = keys[event.key];
      if (kind === undefined || event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey || (kind !== 'keys' && !mayMake)) return;
      const at = event.target instanceof Element ? event.target : null;
      // Lists, grids and fields have keys of their own.
      if (at?.closest('input,textarea,select,[contenteditable=true],[role=grid],[role=listbox],[role=dialog],[role=menu],[data-own-keys]')) return;
      event.preventDefault();
      setOpen(kind);
    };
    addEventListener('keydown', press);
    dispatchEvent(new Event(KEYS_HEARD));
    return () => removeEventListener('keydown', press);
  }, [mayMake]);
  return (
    <>
      {mayMake && (
        <span className="flex items-center">
          {hasNewPiece && (
            <a href={`/b/${brand.slug}/make/pieces?new`} className={buttonClasses('quiet')}>
              <Plus aria-hidden className="size-4" />
              <span className="max-xl:sr-only">New piece</span>
            </a>
          )}
          <MenuTrigger>
            <AriaButton aria-label="Begin something else" className={`${buttonClasses('quiet', 'icon')} -ml-1`}>
              <ChevronDown aria-hidden className="size-4" />
            </AriaButton>
            <Popover placement="bottom end" className="shadow-float rounded-md border border-line bg-panel p-1">
              <Menu aria-label="Begin" className="min-w-56 outline-none" onAction={(key) => setOpen(key as QuickKind)}>
                {([['post', 'Quick post', 'P'], ['note', 'Note for the shelf', 'I'], ['boilerplate', 'From a boilerplate', 'B']] as const).map(([kind, name, key]) => (
                  <MenuItem key={kind} id={kind} textValue={name} className={item}>
                    {name}
                    <kbd className="text-xs text-quiet">{key}</kbd>
                  </MenuItem>
                ))}
              </Menu>
            </Popover>
          </MenuTrigger>
        </span>
      )}
      {open !== null && (
        <Suspense fallback={null}>
          <QuickDialogs kind={open} brand={brand} onClose={() => setOpen(null)} />
        </Suspense>
      )}
    </>
  );
}
