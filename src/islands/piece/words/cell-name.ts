import type { FieldKey } from '../../../core/words/fields.ts';
import { fieldOf } from '../../../core/words/fields.ts';
import type { SheetRow } from './sheet/sheet-rows.ts';

/** What a cell is called where somebody hears or reads of it: “Shared caption”, “Caption for Petalry @kites”. */
export function cellName(row: Pick<SheetRow, 'name' | 'channel'>, field: FieldKey): string {
  const { name } = fieldOf(field);
  return row.channel ? `${name} for ${row.name}` : `Shared ${name.toLowerCase()}`;
}
