import Download from 'lucide-react/icons/download';
import { Button as AriaButton, Menu, MenuItem, MenuTrigger, Popover } from 'react-aria-components';
import { exportBook, exportForms, type ExportForm } from '../../contract/brand-contracts.ts';
import { buttonClasses } from '../ui/Button.tsx';
import { addressOf } from '../ui/call.ts';

const formNames: Readonly<Record<ExportForm, string>> = { tokens: 'Design tokens, the whole book (JSON)', css: 'CSS custom properties', palette: 'GIMP palette' };

/** Takes the kept book out for other programs. */
export function BookTransfer({ brand }: { readonly brand: string }) {
  return (
    <MenuTrigger>
      <AriaButton className={buttonClasses('plain')}>
        <Download aria-hidden className="size-4" />
        Export the book
      </AriaButton>
      <Popover className="shadow-float rounded-md border border-line bg-panel p-1">
        <Menu aria-label="The book as" className="min-w-60 outline-none">
          {exportForms.map((form) => (
            <MenuItem key={form} href={addressOf(exportBook, { brand, form })} download="" className="cursor-pointer rounded-md px-2.5 py-1.5 text-sm outline-none data-[focused]:bg-sunk">
              {formNames[form]}
            </MenuItem>
          ))}
        </Menu>
      </Popover>
    </MenuTrigger>
  );
}
