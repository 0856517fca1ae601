import Plus from 'lucide-react/icons/plus';
import Trash2 from 'lucide-react/icons/trash-2';
import type { BrandBook } from '../../core/brand/brand-book.ts';
import { keyFrom } from '../../core/brand/exchange/draft-book.ts';
import { walkParts } from '../../core/template/parts.ts';
import { slotKinds, type Slot, type Template } from '../../core/template/template.ts';
import { Button } from '../ui/Button.tsx';

interface FieldsProps {
  readonly template: Template;
  readonly book: BrandBook;
  /** One kind of slide of a carousel: it has no purpose of its own. */
  readonly isSlide: boolean;
  readonly onChange: (recipe: (template: Template) => Template) => void;
}

const inputLook = 'h-7 w-full rounded-md border border-line bg-panel px-1.5 text-sm text-ink';
const kindNames: Readonly<Record<Slot['kind'], string>> = { text: 'text', list: 'list', number: 'number', fact: 'fact', picture: 'picture', mark: 'mark', page: 'page mark', ordinal: 'point number', head: 'running head' };

/** Name, purpose, scheme, what a piece has to be told, and what may be left out first. */
export function TemplateFields({ template, book, isSlide, onChange }: FieldsProps) {
  const setSlot = (key: string, next: Partial<Slot>): void => onChange((now) => ({ ...now, slots: now.slots.map((slot) => (slot.key === key ? { ...slot, ...next } : slot)) }));
  const used = new Set(template.arrangements.flatMap((arrangement) => [...walkParts(arrangement.root)].flatMap((part) => ('slot' in part && part.slot !== undefined ? [part.slot] : []))));
  const addSlot = (): void =>
    onChange((now) => {
      const taken = now.slots.map((slot) => slot.key);
      const key = taken.includes('text') ? `text-${taken.length + 1}` : 'text';
      return { ...now, slots: [...now.slots, { key: keyFrom(key, 'text'), kind: 'text', label: 'New text', hint: 'What belongs here', required: false }] };
    });
  const drop = template.drop ?? [];
  const toggleDrop = (key: string): void => onChange((now) => ({ ...now, drop: drop.includes(key) ? drop.filter((each) => each !== key) : [...drop, key] }));
  return (
    <details className="border-b border-line px-3 py-2 text-sm" open={false}>
      <summary className="cursor-pointer font-semibold">{isSlide ? 'Slide and slots' : 'Template and slots'}</summary>
      <div className="mt-2 space-y-2">
        <label className="block text-xs text-quiet">
          Name
          <input value={template.name} maxLength={40} onChange={(event) => event.target.value.trim() !== '' && onChange((now) => ({ ...now, name: event.target.value }))} className={inputLook} />
        </label>
        {!isSlide && (
          <label className="block text-xs text-quiet">
            What it is for
            <input value={template.purpose} maxLength={60} onChange={(event) => event.target.value.trim() !== '' && onChange((now) => ({ ...now, purpose: event.target.value }))} className={inputLook} />
          </label>
        )}
        <label className="block text-xs text-quiet">
          Scheme
          <select value={template.scheme} onChange={(event) => onChange((now) => ({ ...now, scheme: event.target.value }))} className={inputLook}>
            {book.schemes.map((scheme) => (
              <option key={scheme.key} value={scheme.key}>
                {scheme.name}
              </option>
            ))}
          </select>
        </label>
        <ul className="space-y-2 border-t border-line pt-2">
          {template.slots.map((slot) => (
            <li key={slot.key} className="space-y-1">
              <div className="flex items-center gap-1">
                <input aria-label={`Label of ${slot.label}`} value={slot.label} maxLength={40} onChange={(event) => event.target.value.trim() !== '' && setSlot(slot.key, { label: event.target.value })} className={`${inputLook} font-medium`} />
                <select aria-label={`Kind of ${slot.label}`} value={slot.kind} disabled={used.has(slot.key)} onChange={(event) => setSlot(slot.key, { kind: event.target.value as Slot['kind'] })} className="h-7 rounded-md border border-line bg-panel px-1 text-xs disabled:text-quiet">
                  {slotKinds.map((kind) => (
                    <option key={kind} value={kind}>
                      {kindNames[kind]}
                    </option>
                  ))}
                </select>
                {!used.has(slot.key) && (
                  <button type="button" aria-label={`Remove ${slot.label}`} onClick={() => onChange((now) => ({ ...now, slots: now.slots.filter((each) => each.key !== slot.key), drop: drop.filter((each) => each !== slot.key) }))} className="rounded-md p-1 text-quiet hover:bg-sunk hover:text-ink">
                    <Trash2 aria-hidden className="size-3.5" />
                  </button>
                )}
              </div>
              <input aria-label={`Hint of ${slot.label}`} value={slot.hint} maxLength={120} onChange={(event) => event.target.value.trim() !== '' && setSlot(slot.key, { hint: event.target.value })} className={`${inputLook} text-xs text-quiet`} />
              <div className="flex gap-3 text-xs text-quiet">
                <label className="flex items-center gap-1">
                  <input type="checkbox" checked={slot.required} onChange={(event) => setSlot(slot.key, { required: event.target.checked })} className="accent-house" />
                  needed
                </label>
                {!slot.required && slot.kind !== 'picture' && slot.kind !== 'mark' && (
                  <label className="flex items-center gap-1">
                    <input type="checkbox" checked={drop.includes(slot.key)} onChange={() => toggleDrop(slot.key)} className="accent-house" />
                    may go{drop.includes(slot.key) ? `, as number ${drop.indexOf(slot.key) + 1}` : ''}
                  </label>
                )}
              </div>
            </li>
          ))}
        </ul>
        <Button size="small" look="quiet" onClick={addSlot}>
          <Plus aria-hidden className="size-3.5" />
          Add a slot
        </Button>
      </div>
    </details>
  );
}
