import { useId, type ReactNode } from 'react';
import { limitsM, type Edge, type InkName, type StackPart } from '../../core/template/parts.ts';
import type { Template } from '../../core/template/template.ts';

/** Fields of a part that change. */
export type Patch = Readonly<Record<string, unknown>>;

export const inks: readonly InkName[] = ['ground', 'surface', 'ink', 'accent'];
export const edges: readonly Edge[] = ['top', 'right', 'bottom', 'left'];
export const inputLook = 'mt-0.5 h-7 w-full rounded-md border border-line bg-panel px-1.5 text-sm text-ink';

/** A label above its field: the choices of a select must not become part of its name. */
function Labelled({ label, children }: { readonly label: string; readonly children: (id: string) => ReactNode }) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id}>{label}</label>
      {children(id)}
    </div>
  );
}

export function Choice({ label, value, options, onChange }: { readonly label: string; readonly value: string; readonly options: readonly string[]; readonly onChange: (value: string) => void }) {
  return (
    <Labelled label={label}>
      {(id) => (
        <select id={id} value={value} onChange={(event) => onChange(event.target.value)} className={inputLook}>
          {options.map((option) => (
            <option key={option} value={option}>
              {option}
            </option>
          ))}
        </select>
      )}
    </Labelled>
  );
}

/** Which picture's subject may stand before the letters. */
export function BehindChoice({ value, template, set }: { readonly value: string | undefined; readonly template: Template; readonly set: (patch: Patch) => void }) {
  const pictures = template.slots.filter(({ kind }) => kind === 'picture');
  if (pictures.length === 0) return null;
  return (
    <Labelled label="The subject may stand before the letters">
      {(id) => (
        <select id={id} value={value ?? ''} onChange={(event) => set({ behind: event.target.value || undefined })} className={inputLook}>
          <option value="">No</option>
          {pictures.map((slot) => (
            <option key={slot.key} value={slot.key}>
              That of {slot.label}
            </option>
          ))}
        </select>
      )}
    </Labelled>
  );
}

export function SlotChoice({ kinds, value, template, set }: { readonly kinds: readonly string[]; readonly value: string; readonly template: Template; readonly set: (patch: Patch) => void }) {
  return (
    <Labelled label="Slot">
      {(id) => (
        <select id={id} value={value} onChange={(event) => set({ slot: event.target.value })} className={inputLook}>
          {template.slots
            .filter((slot) => kinds.includes(slot.kind))
            .map((slot) => (
              <option key={slot.key} value={slot.key}>
                {slot.label}
              </option>
            ))}
        </select>
      )}
    </Labelled>
  );
}

export function InkChoice({ value, onChange }: { readonly value: InkName; readonly onChange: (ink: string) => void }) {
  return <Choice label="Colour" value={value} options={inks} onChange={onChange} />;
}

interface NumberProps {
  readonly label: string;
  readonly min: number;
  readonly max: number;
  readonly step: number;
}

export function NumberField({ label, value, min, max, step, onChange }: NumberProps & { readonly value: number; readonly onChange: (value: number) => void }) {
  return (
    <label className="block">
      {label}
      <input
        type="number"
        value={value}
        min={min}
        max={max}
        step={step}
        onChange={(event) => {
          const next = event.target.valueAsNumber;
          if (next >= min && next <= max) onChange(next);
        }}
        className={`${inputLook} tabular-nums`}
      />
    </label>
  );
}

export function OptionalNumber({ label, value, min, max, step, onChange }: NumberProps & { readonly value: number | undefined; readonly onChange: (value: number | undefined) => void }) {
  return (
    <label className="block">
      {label}
      <input
        type="number"
        value={value ?? ''}
        min={min}
        max={max}
        step={step}
        onChange={(event) => {
          const next = event.target.valueAsNumber;
          if (event.target.value === '') onChange(undefined);
          else if (next >= min && next <= max) onChange(next);
        }}
        className={`${inputLook} tabular-nums`}
      />
    </label>
  );
}

/** A share of a side: a slider with a drawing, or left to the layout. */
export function ShareSlider({ label, none, direction, value, onChange }: { readonly label: string; readonly none: string; readonly direction: StackPart['direction']; readonly value: number | undefined; readonly onChange: (value: number | undefined) => void }) {
  const isRow = direction === 'row';
  const percent = Math.round((value ?? 0) * 100);
  return (
    <Labelled label={label}>
      {(id) => (
        <div className="mt-0.5 flex items-center gap-2">
          <span aria-hidden className={`flex size-6 shrink-0 overflow-hidden rounded-sm border border-edge ${isRow ? 'items-stretch' : 'flex-col justify-start'}`}>
            <span className={value === undefined ? '' : 'bg-house'} style={isRow ? { width: `${percent}%` } : { height: `${percent}%` }} />
          </span>
          <input id={id} type="range" min={0} max={100} step={5} value={percent} aria-valuetext={value === undefined ? none : `${percent}%`} onChange={(event) => onChange(event.target.valueAsNumber === 0 ? undefined : event.target.valueAsNumber / 100)} className="min-w-0 flex-1 accent-house" />
          <span className="w-9 text-right tabular-nums">{value === undefined ? '' : `${percent}%`}</span>
        </div>
      )}
    </Labelled>
  );
}

export function SizeFields({ value, set }: { readonly value: { readonly max: number; readonly min: number }; readonly set: (patch: Patch) => void }) {
  return (
    <div className="grid grid-cols-2 gap-2">
      <NumberField label="Largest, m" value={value.max} {...limitsM.typeSize} step={0.1} onChange={(max) => set({ sizeM: { max, min: Math.min(value.min, max) } })} />
      <NumberField label="Smallest, m" value={value.min} {...limitsM.typeSize} step={0.1} onChange={(min) => set({ sizeM: { min, max: Math.max(value.max, min) } })} />
    </div>
  );
}

export function EdgeNumbers({ label, value, onChange }: { readonly label: string; readonly value: Partial<Record<Edge, number>>; readonly onChange: (value: Partial<Record<Edge, number>>) => void }) {
  return (
    <fieldset>
      <legend>{label}</legend>
      <div className="mt-0.5 grid grid-cols-4 gap-1">
        {edges.map((edge) => (
          <input
            key={edge}
            type="number"
            aria-label={`${label}, ${edge}`}
            title={edge}
            placeholder={edge}
            step={0.1}
            value={value[edge] ?? ''}
            onChange={(event) => {
              const { [edge]: _, ...rest } = value;
              const next = event.target.valueAsNumber;
              onChange(Number.isFinite(next) ? { ...rest, [edge]: next } : rest);
            }}
            className="h-7 w-full rounded-md border border-line bg-panel px-1 text-sm text-ink tabular-nums"
          />
        ))}
      </div>
    </fieldset>
  );
}

export function Toggle({ label, value, onChange }: { readonly label: ReactNode; readonly value: boolean; readonly onChange: (value: boolean) => void }) {
  return (
    <label className="flex items-start gap-1.5">
      <input type="checkbox" checked={value} onChange={(event) => onChange(event.target.checked)} className="mt-0.5 accent-house" />
      <span>{label}</span>
    </label>
  );
}
