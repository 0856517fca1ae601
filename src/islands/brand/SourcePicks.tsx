import type { readBrandSource } from '../../contract/brand-contracts.ts';
import type { AnswerOf } from '../../contract/contract.ts';
import { MarkPicture } from '../media/MarkPicture.tsx';

type Source = AnswerOf<typeof readBrandSource>;

/** What of a source is taken: colours by hex, typefaces by key, marks by place. */
export interface Picks {
  readonly colours: ReadonlySet<string>;
  readonly displayFont: string | null;
  readonly textFont: string | null;
  readonly marks: ReadonlySet<number>;
}

interface PicksProps {
  readonly source: Source;
  readonly picks: Picks;
  readonly onChange: (picks: Picks) => void;
}

/** What was found, to pick from: colours by how much of the page they make up, typefaces, drawings. */
export function SourcePicks({ source, picks, onChange }: PicksProps) {
  const toggle = <Each,>(set: ReadonlySet<Each>, each: Each): ReadonlySet<Each> => new Set(set.has(each) ? [...set].filter((other) => other !== each) : [...set, each]);
  return (
    <div className="space-y-5">
      {source.colours.length > 0 && (
        <fieldset>
          <legend className="mb-2 text-sm font-semibold">Colours, by how much of it they make up</legend>
          <ul className="grid grid-cols-4 gap-2">
            {source.colours.map((colour) => (
              <li key={colour.hex}>
                <label className={`block cursor-pointer overflow-hidden rounded-md border focus-within:outline-2 focus-within:outline-offset-1 focus-within:outline-house ${picks.colours.has(colour.hex) ? 'border-house ring-1 ring-house' : 'border-line opacity-60'}`}>
                  <input type="checkbox" className="sr-only" checked={picks.colours.has(colour.hex)} onChange={() => onChange({ ...picks, colours: toggle(picks.colours, colour.hex) })} />
                  <span aria-hidden style={{ background: colour.hex }} className="block h-10" />
                  <span className="block truncate px-2 pt-1 text-xs font-medium">{colour.name}</span>
                  <span className="flex justify-between px-2 pb-1 text-xs text-quiet tabular-nums">
                    <span>{colour.hex}</span>
                    {colour.share !== null && <span>{Math.max(1, Math.round(colour.share * 100))}%</span>}
                  </span>
                </label>
              </li>
            ))}
          </ul>
        </fieldset>
      )}
      {source.families.length > 0 && (
        <div>
          <h2 className="mb-1 text-sm font-semibold">Typefaces</h2>
          <ul className="space-y-1 text-sm">
            {source.families.map((family) => (
              <li key={family.family} className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
                <span className="w-44 truncate font-medium">{family.family}</span>
                <label className="flex items-center gap-1.5">
                  <input type="radio" name="display" checked={picks.displayFont === family.displayFont} onChange={() => onChange({ ...picks, displayFont: family.displayFont })} className="accent-house" />
                  headlines
                </label>
                <label className="flex items-center gap-1.5">
                  <input type="radio" name="text" checked={picks.textFont === family.textFont} onChange={() => onChange({ ...picks, textFont: family.textFont })} className="accent-house" />
                  text
                </label>
                <span className="text-xs text-quiet">{family.exact ? 'is on the shelf' : `${family.displayFont.replace(/-\d.*$/, '').replaceAll('-', ' ')} stands in; you can import your own file later`}</span>
              </li>
            ))}
          </ul>
        </div>
      )}
      {source.marks.length > 0 && (
        <fieldset>
          <legend className="mb-2 text-sm font-semibold">Mark</legend>
          <ul className="flex gap-3">
            {source.marks.map((mark, index) => (
              <li key={index}>
                <label className={`grid h-20 w-24 cursor-pointer place-items-center rounded-md border bg-panel focus-within:outline-2 focus-within:outline-house ${picks.marks.has(index) ? 'border-house ring-1 ring-house' : 'border-line'}`}>
                  <input type="checkbox" aria-label={`Take mark ${index + 1}`} className="sr-only" checked={picks.marks.has(index)} onChange={() => onChange({ ...picks, marks: toggle(picks.marks, index) })} />
                  <MarkPicture mark={mark} brand="" pictures={[]} />
                </label>
              </li>
            ))}
          </ul>
        </fieldset>
      )}
      {source.description !== '' && <p className="text-sm text-quiet">The first guidance of its voice comes from the page: “{source.description}”</p>}
    </div>
  );
}
