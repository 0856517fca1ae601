import Upload from 'lucide-react/icons/upload';
import { addTypeface } from '../../contract/brand-contracts.ts';
import { figureStyles, type BrandBook, type FigureStyle } from '../../core/brand/brand-book.ts';
import { shelfFamilies } from '../../core/text/font-shelf.ts';
import { sendFile } from '../ui/call.ts';
import { FilePick } from '../ui/FilePick.tsx';
import { toast } from '../ui/toast.tsx';
import type { BookEdit } from './use-book.ts';

const roles = [
  { key: 'display', name: 'Display', hint: 'what leads' },
  { key: 'heading', name: 'Heading', hint: 'titles and quotes' },
  { key: 'text', name: 'Text', hint: 'what is read' },
  { key: 'label', name: 'Label', hint: 'small print' },
] as const;
const figureNames: Readonly<Record<FigureStyle, string>> = { 'as-drawn': 'Usual', lining: 'Lining', 'old-style': 'Old style' };
type RoleKey = (typeof roles)[number]['key'];

/** The typeface of each role with its leading, tracking, capitals and scale; from the shelf or the brand's own. */
export function TypeRoles({ edit }: { readonly edit: BookEdit }) {
  const { book, mayChange, change, stored } = edit;
  const set = (role: RoleKey, next: Partial<BrandBook['type'][RoleKey]>): void => change((now) => ({ ...now, type: { ...now.type, [role]: { ...now.type[role], ...next } } }));
  const bringIn = async (file: File): Promise<void> => {
    try {
      const { key, family, weight, hash } = await sendFile(addTypeface, { brand: stored.slug }, { name: file.name }, file);
      change((now) => ({ ...now, typefaces: [...now.typefaces.filter((each) => each.key !== key), { key, family, weight, hash, licence: '' }] }));
      toast('done', `${family} ${weight} is on the brand’s shelf. Note its licence below, and choose it for a role.`);
    } catch (error) {
      toast('problem', error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <section aria-labelledby="type">
      <div className="mb-2 flex items-center justify-between">
        <h2 id="type" className="text-base font-semibold">
          Type
        </h2>
        {mayChange && (
          <FilePick look="quiet" size="small" accept=".ttf,.otf,.woff2" onFiles={([file]) => file && void bringIn(file)}>
            <Upload aria-hidden className="size-3.5" />
            Import a typeface
          </FilePick>
        )}
      </div>
      <div className="overflow-x-auto">
        <table className="w-full text-left text-sm">
          <thead className="text-xs text-quiet">
            <tr className="border-b border-line">
              {['Role', 'Typeface', 'Scale', 'Leading', 'Tracking', 'Figures', 'Caps', 'Ligatures'].map((name) => (
                <th key={name} scope="col" className="py-1 pr-1.5 font-medium last:pr-0">
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {roles.map((role) => {
              const setting = book.type[role.key];
              return (
                <tr key={role.key} className="border-b border-line">
                  <th scope="row" className="h-11 py-1.5 pr-2 font-medium">
                    {role.name}
                    <span className="block text-xs font-normal text-quiet max-2xl:hidden">{role.hint}</span>
                  </th>
                  <td className="pr-1.5">
                    <select
                      aria-label={`Typeface of ${role.name}`}
                      value={setting.font}
                      disabled={!mayChange}
                      onChange={(event) => set(role.key, { font: event.target.value })}
                      className="h-8 w-31 rounded-md border border-line bg-panel px-1 text-sm"
                    >
                      {book.typefaces.length > 0 && (
                        <optgroup label="The brand’s own">
                          {book.typefaces.map((typeface) => (
                            <option key={typeface.key} value={typeface.key}>
                              {typeface.family} {typeface.weight}
                            </option>
                          ))}
                        </optgroup>
                      )}
                      {shelfFamilies.map((family) => (
                        <optgroup key={family.family} label={`${family.family}: ${family.character.toLowerCase()}`}>
                          {family.fonts.map((font) => (
                            <option key={font.key} value={font.key}>
                              {font.family} {font.weight}
                              {font.italic ? ' italic' : ''}
                            </option>
                          ))}
                        </optgroup>
                      ))}
                    </select>
                  </td>
                  <NumberCell label={`Scale of ${role.name}`} value={setting.scale} min={0.6} max={1.4} step={0.05} readOnly={!mayChange} onChange={(scale) => set(role.key, { scale })} />
                  <NumberCell label={`Leading of ${role.name}`} value={setting.leading} min={0.8} max={2} step={0.02} readOnly={!mayChange} onChange={(leading) => set(role.key, { leading })} />
                  <NumberCell label={`Tracking of ${role.name}, in em`} value={setting.trackingEm} min={-0.1} max={0.3} step={0.005} readOnly={!mayChange} onChange={(trackingEm) => set(role.key, { trackingEm })} />
                  <td className="pr-1.5">
                    <select
                      aria-label={`Figures of ${role.name}`}
                      title="Where the typeface has them"
                      value={setting.figures ?? 'as-drawn'}
                      disabled={!mayChange}
                      onChange={(event) => set(role.key, { figures: event.target.value as FigureStyle })}
                      className="h-8 w-19 rounded-md border border-line bg-panel px-1 text-sm"
                    >
                      {figureStyles.map((style) => (
                        <option key={style} value={style}>
                          {figureNames[style]}
                        </option>
                      ))}
                    </select>
                  </td>
                  <td>
                    <input
                      type="checkbox"
                      aria-label={`${role.name} in capitals`}
                      checked={setting.capitals === 'all'}
                      disabled={!mayChange}
                      onChange={(event) => set(role.key, { capitals: event.target.checked ? 'all' : 'as-written' })}
                      className="size-4 accent-house"
                    />
                  </td>
                  <td>
                    <input
                      type="checkbox"
                      aria-label={`Ligatures in ${role.name}`}
                      title="Joined letters, where the typeface has them and tracking leaves them together"
                      checked={setting.ligatures ?? true}
                      disabled={!mayChange}
                      onChange={(event) => set(role.key, { ligatures: event.target.checked })}
                      className="size-4 accent-house"
                    />
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      {book.typefaces.map((typeface) => (
        <label key={typeface.key} className="mt-2 flex items-center gap-2 text-xs text-quiet">
          <span className="w-40 shrink-0 truncate">
            Licence of {typeface.family} {typeface.weight}
          </span>
          <input
            value={typeface.licence}
            maxLength={300}
            readOnly={!mayChange}
            placeholder="e.g. bought for web and print, invoice 2291"
            onChange={(event) => change((now) => ({ ...now, typefaces: now.typefaces.map((each) => (each.key === typeface.key ? { ...each, licence: event.target.value } : each)) }))}
            className="h-7 flex-1 rounded-md border border-line bg-panel px-2 text-sm text-ink"
          />
        </label>
      ))}
    </section>
  );
}

interface NumberCellProps {
  readonly label: string;
  readonly value: number;
  readonly min: number;
  readonly max: number;
  readonly step: number;
  readonly readOnly: boolean;
  readonly onChange: (value: number) => void;
}

function NumberCell({ label, value, min, max, step, readOnly, onChange }: NumberCellProps) {
  return (
    <td className="pr-1.5">
      <input
        type="number"
        aria-label={label}
        value={value}
        min={min}
        max={max}
        step={step}
        readOnly={readOnly}
        onChange={(event) => {
          const next = event.target.valueAsNumber;
          if (next >= min && next <= max) onChange(next);
        }}
        className="h-8 w-13.5 [appearance:textfield] [&::-webkit-inner-spin-button]:appearance-none rounded-md border border-line bg-panel px-1 text-sm tabular-nums"
      />
    </td>
  );
}
