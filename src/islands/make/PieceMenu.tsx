import { useMutation, useQueryClient } from '@tanstack/react-query';
import Ellipsis from 'lucide-react/icons/ellipsis';
import { Button as AriaButton, Menu, MenuItem, MenuTrigger, Popover } from 'react-aria-components';
import { duplicatePiece, shelvePiece, type pieceShelves } from '../../contract/piece-contracts.ts';
import { call } from '../ui/call.ts';
import { iconButtonClasses } from '../ui/icon-button';
import { toast } from '../ui/toast.tsx';
import { SaveBoilerplate } from '../quick/SaveBoilerplate.tsx';
import { useState } from 'react';

type Shelf = (typeof pieceShelves)[number];

interface PieceMenuProps {
  readonly brand: string;
  readonly piece: { readonly id: string; readonly name: string };
  readonly shelf: Shelf;
}

const done: Readonly<Record<Shelf, string>> = { use: 'is in use again', archived: 'is archived', deleted: 'is deleted. It can be restored for 30 days' };

/** What can be done with a piece as a whole. */
export function PieceMenu({ brand, piece, shelf }: PieceMenuProps) {
  const client = useQueryClient();
  const reload = (): void => void client.invalidateQueries({ queryKey: ['pieces', brand] });
  const move = useMutation({
    mutationFn: (to: Shelf) => call(shelvePiece, { params: { brand, piece: piece.id }, body: { shelf: to } }),
    onSuccess: (_, to) => {
      reload();
      toast('done', `“${piece.name}” ${done[to]}.`, to === 'use' ? undefined : { label: 'Undo', run: () => move.mutate(shelf) });
    },
    onError: (error) => toast('problem', error.message),
  });
  const copy = useMutation({
    mutationFn: () => call(duplicatePiece, { params: { brand, piece: piece.id }, body: {} }),
    onSuccess: (made) => {
      reload();
      toast('done', `“${piece.name}” is duplicated.`, { label: 'Open the copy', run: () => location.assign(`/b/${brand}/make/pieces/${made.id}`) });
    },
    onError: (error) => toast('problem', error.message),
  });
  const [isSaving, setSaving] = useState(false);
  const actions: readonly (readonly [string, () => void])[] = [
    ...(shelf === 'use' ? [['Duplicate', () => copy.mutate()] as const, ['Save as boilerplate', () => setSaving(true)] as const, ['Archive', () => move.mutate('archived')] as const] : [['Restore', () => move.mutate('use')] as const]),
    ...(shelf === 'deleted' ? [] : [['Delete', () => move.mutate('deleted')] as const]),
  ];
  return (
    <>
    <MenuTrigger>
      <AriaButton aria-label={`Actions for ${piece.name}`} isDisabled={move.isPending || copy.isPending} className={iconButtonClasses}>
        <Ellipsis aria-hidden className="size-4" />
      </AriaButton>
      <Popover placement="bottom end" className="shadow-float rounded-md border border-line bg-panel p-1">
        <Menu aria-label="Piece" className="min-w-40 outline-none" onAction={(key) => actions.find(([name]) => name === key)?.[1]()}>
          {actions.map(([name]) => (
            <MenuItem key={name} id={name} className="cursor-pointer rounded-md px-2.5 py-1 text-sm outline-none data-[focused]:bg-sunk">
              {name}
            </MenuItem>
          ))}
        </Menu>
      </Popover>
    </MenuTrigger>
    {isSaving && <SaveBoilerplate brand={brand} piece={piece} onClose={() => setSaving(false)} />}
    </>
  );
}
