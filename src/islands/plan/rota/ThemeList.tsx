import { nanoid } from 'nanoid';
import { useRef, useState } from 'react';
import { Button as AriaButton, Dialog, DialogTrigger, Popover } from 'react-aria-components';
import { useDrag } from 'react-aria';
import { tones, type Theme, type Tone } from '../../../core/plan/plan.ts';
import { Button, buttonClasses } from '../../ui/Button.tsx';
import { ConfirmButton } from '../../ui/ConfirmButton.tsx';
import { Field, inputClasses } from '../../ui/Field.tsx';
import { ChannelFilter } from '../ChannelFilter.tsx';
import { dragItem } from '../drag.ts';
import type { PlanEdit } from '../plan-store.ts';
import { ThemeTile, toneGround } from '../ThemeTile.tsx';
import type { PlanContext } from '../use-plan.ts';

interface ThemeListProps extends Pick<PlanContext, 'channels' | 'sheets'> {
  readonly edit: PlanEdit;
  readonly mayChange: boolean;
  readonly onAdd: (themeId: string | null) => void;
}

/** What the brand talks about. A theme is dragged onto the week, or added to it by its button. */
export function ThemeList({ edit, channels, sheets, mayChange, onAdd }: ThemeListProps) {
  const { plan, change } = edit;
  const [name, setName] = useState('');
  const add = (): void => {
    const wanted = name.trim().slice(0, 60);
    if (wanted === '') return;
    change((now) => ({ ...now, themes: [...now.themes, { id: nanoid(8), name: wanted, letter: freeLetter(wanted, now.themes), tone: tones[now.themes.length % tones.length] ?? 'slate', channelIds: null }] }));
    setName('');
  };
  const setTheme = (theme: Theme): void => change((now) => ({ ...now, themes: now.themes.map((each) => (each.id === theme.id ? theme : each)) }));
  const removeTheme = (id: string): void => change((now) => ({ ...now, themes: now.themes.filter((each) => each.id !== id), rota: { ...now.rota, rules: now.rota.rules.map((rule) => (rule.themeId === id ? { ...rule, themeId: null } : rule)) } }));
  return (
    <section aria-labelledby="themes" className="min-h-0 overflow-auto">
      <h2 id="themes" className="mb-1 text-base font-semibold">
        Themes
      </h2>
      <p className="mb-2 text-xs text-quiet">{plan.themes.length === 0 ? 'Name what the brand talks about, then drag each onto the week.' : 'Drag one onto the week to make a slot.'}</p>
      <ul className="space-y-1">
        {plan.themes.map((theme) => (
          <li key={theme.id}>
            <ThemeRow theme={theme} slots={plan.rota.rules.filter(({ themeId }) => themeId === theme.id).length} channels={channels} sheets={sheets} mayChange={mayChange} onAdd={() => onAdd(theme.id)} onChange={setTheme} onRemove={() => removeTheme(theme.id)} />
          </li>
        ))}
      </ul>
      {mayChange && (
        <form
          className="mt-3 flex gap-1.5"
          onSubmit={(event) => {
            event.preventDefault();
            add();
          }}
        >
          <input aria-label="New theme" placeholder="New theme" value={name} maxLength={60} onChange={(event) => setName(event.target.value)} className={inputClasses} />
          <button type="submit" disabled={name.trim() === ''} className={buttonClasses('plain')}>
            Add
          </button>
        </form>
      )}
    </section>
  );
}

function freeLetter(name: string, themes: readonly Theme[]): string {
  const taken = new Set(themes.map(({ letter }) => letter));
  const letters = [...name.toUpperCase()].filter((letter) => /[\p{L}\p{N}]/u.test(letter));
  return letters.find((letter) => !taken.has(letter)) ?? letters[0] ?? 'T';
}

interface ThemeRowProps extends Pick<PlanContext, 'channels' | 'sheets'> {
  readonly theme: Theme;
  readonly slots: number;
  readonly mayChange: boolean;
  readonly onAdd: () => void;
  readonly onChange: (theme: Theme) => void;
  readonly onRemove: () => void;
}

function ThemeRow({ theme, slots, channels, sheets, mayChange, onAdd, onChange, onRemove }: ThemeRowProps) {
  const ref = useRef<HTMLDivElement>(null);
  const { dragProps, isDragging } = useDrag({ isDisabled: !mayChange, hasDragButton: true, getItems: () => [dragItem({ kind: 'theme', themeId: theme.id })], getAllowedDropOperations: () => ['move'] });
  return (
    <div {...dragProps} ref={ref} data-theme-row={theme.id} className={`flex items-center gap-2 rounded-md border border-line bg-panel px-2 py-1 text-sm ${mayChange ? 'cursor-grab' : ''} ${isDragging ? 'opacity-40' : ''}`}>
      <ThemeTile theme={theme} size="large" />
      <span className="min-w-0 flex-1">
        <span className="block truncate font-medium">{theme.name}</span>
        <span className="block text-xs text-quiet tabular-nums">
          {slots} {slots === 1 ? 'slot' : 'slots'}
          {theme.channelIds === null ? '' : `, ${theme.channelIds.length} channels`}
        </span>
      </span>
      {mayChange && (
        <Button size="small" look="quiet" aria-label={`Add a slot for ${theme.name}`} onClick={onAdd}>
          +
        </Button>
      )}
      {mayChange && (
        <DialogTrigger>
          <AriaButton aria-label={`Change ${theme.name}`} className={buttonClasses('quiet', 'small')}>
            …
          </AriaButton>
          <Popover placement="bottom start" className="shadow-float rounded-md border border-line bg-panel p-4">
            <Dialog aria-label={`Theme ${theme.name}`} className="w-64 space-y-3 outline-none">
              <Field label="Name">{({ id }) => <input id={id} value={theme.name} maxLength={60} onChange={(event) => event.target.value.trim() !== '' && onChange({ ...theme, name: event.target.value })} className={inputClasses} />}</Field>
              <Field label="Letter">{({ id }) => <input id={id} value={theme.letter} maxLength={2} onChange={(event) => /^[\p{L}\p{N}]$/u.test(event.target.value.slice(-1)) && onChange({ ...theme, letter: event.target.value.slice(-1).toUpperCase() })} className={`${inputClasses} w-14`} />}</Field>
              <TonePick tone={theme.tone} onChange={(tone) => onChange({ ...theme, tone })} />
              <div className="text-sm">
                <p className="mb-1 font-semibold">Goes to</p>
                <ChannelFilter context={{ channels, sheets }} chosen={theme.channelIds?.join(',')} onChoose={(chosen) => onChange({ ...theme, channelIds: chosen?.split(',') ?? null })} />
              </div>
              <ConfirmButton label="Remove the theme" title="Remove the theme" size="small" keepLabel="Keep it" confirmLabel="Remove it" confirmLook="stop" onConfirm={onRemove}>
                <p className="text-sm">Its slots stay and take anything. Pieces and posts keep it until they get another one.</p>
              </ConfirmButton>
            </Dialog>
          </Popover>
        </DialogTrigger>
      )}
    </div>
  );
}

/** A choice among the tones of themes and campaigns. */
export function TonePick({ tone, onChange }: { readonly tone: Tone; readonly onChange: (tone: Tone) => void }) {
  return (
    <div role="radiogroup" aria-label="Colour" className="flex gap-1">
      {tones.map((each) => (
        <button key={each} type="button" role="radio" aria-checked={each === tone} aria-label={each} onClick={() => onChange(each)} className={`size-6 rounded-md ${toneGround(each)} ${each === tone ? 'outline-2 outline-offset-1 outline-house' : ''}`} />
      ))}
    </div>
  );
}
