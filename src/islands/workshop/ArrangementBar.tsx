import Copy from 'lucide-react/icons/copy';
import Trash2 from 'lucide-react/icons/trash-2';
import { keyFrom } from '../../core/brand/exchange/draft-book.ts';
import { changeArrangement } from '../../core/template/edit-template.ts';
import type { Template } from '../../core/template/template.ts';
import { ChoiceRow } from '../ui/ChoiceRow.tsx';

interface BarProps {
  readonly template: Template;
  readonly chosen: string;
  readonly onChoose: (key: string) => void;
  readonly onChange: (recipe: (template: Template) => Template) => void;
}

const MIN_ARRANGEMENTS = 2;

/** The template's arrangements, and the shapes that the chosen one is for: width divided by height. */
export function ArrangementBar({ template, chosen, onChoose, onChange }: BarProps) {
  const arrangement = template.arrangements.find((each) => each.key === chosen);
  if (!arrangement) return null;
  const copy = (): void => {
    const name = `${arrangement.name} again`;
    const base = keyFrom(name, 'arrangement');
    const key = template.arrangements.some((each) => each.key === base) ? `${base}-${template.arrangements.length}` : base;
    onChange((now) => ({ ...now, arrangements: [...now.arrangements, { ...arrangement, key, name }] }));
    onChoose(key);
  };
  const setAspect = (edge: 'from' | 'to', value: number): void => {
    const aspect = { ...arrangement.aspect, [edge]: value };
    if (value >= 0 && value <= 10 && aspect.from < aspect.to) onChange((now) => changeArrangement(now, chosen, (each) => ({ ...each, aspect })));
  };
  return (
    <div className="border-b border-line px-3 py-2 text-sm">
      <ChoiceRow label="Arrangements" className="mb-1.5" items={template.arrangements} chosen={chosen} onChoose={onChoose} />
      <div className="flex items-end gap-2 text-xs text-quiet">
        <label className="min-w-0 flex-1">
          Name
          <input value={arrangement.name} maxLength={40} onChange={(event) => event.target.value.trim() !== '' && onChange((now) => changeArrangement(now, chosen, (each) => ({ ...each, name: event.target.value })))} className="h-7 w-full rounded-md border border-line bg-panel px-1.5 text-sm text-ink" />
        </label>
        {(['from', 'to'] as const).map((edge) => (
          <label key={edge} className="w-14">
            {edge === 'from' ? 'from' : 'up to'}
            <input type="number" min={0} max={10} step={0.05} value={arrangement.aspect[edge]} onChange={(event) => setAspect(edge, event.target.valueAsNumber)} className="h-7 w-full rounded-md border border-line bg-panel px-1 text-sm text-ink tabular-nums" />
          </label>
        ))}
        <button type="button" aria-label="Another arrangement like this" title="Another like this" onClick={copy} className="rounded-md p-1.5 hover:bg-sunk hover:text-ink">
          <Copy aria-hidden className="size-3.5" />
        </button>
        {template.arrangements.length > MIN_ARRANGEMENTS && (
          <button
            type="button"
            aria-label={`Remove the arrangement ${arrangement.name}`}
            onClick={() => {
              onChange((now) => ({ ...now, arrangements: now.arrangements.filter((each) => each.key !== chosen) }));
              onChoose(template.arrangements.find((each) => each.key !== chosen)?.key ?? '');
            }}
            className="rounded-md p-1.5 hover:bg-sunk hover:text-ink"
          >
            <Trash2 aria-hidden className="size-3.5" />
          </button>
        )}
      </div>
    </div>
  );
}
