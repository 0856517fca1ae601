import ArrowDown from 'lucide-react/icons/arrow-down';
import ArrowUp from 'lucide-react/icons/arrow-up';
import Trash2 from 'lucide-react/icons/trash-2';
import { readMark } from '../../contract/brand-contracts.ts';
import type { PartBoxes } from '../../core/compose/part-boxes.ts';
import type { Size } from '../../core/geometry/box.ts';
import { addPart, movePart, newPart, partAt, removePart, walkPaths, type PartPath } from '../../core/template/edit-template.ts';
import { kindNames, partName } from '../../core/template/part-name.ts';
import type { Part, StackPart } from '../../core/template/parts.ts';
import type { Template } from '../../core/template/template.ts';
import { Button } from '../ui/Button.tsx';
import { sendFile } from '../ui/call.ts';
import { toast } from '../ui/toast.tsx';

interface OutlineProps {
  readonly brand: string;
  readonly template: Template;
  readonly root: StackPart;
  readonly path: PartPath;
  /** Where the parts stand in a cut of this arrangement; null until one is painted. */
  readonly drawn: DrawnParts | null;
  readonly onSelect: (path: PartPath) => void;
  /** The part that is pointed at, or none. */
  readonly onPoint: (path: PartPath | null) => void;
  readonly onChange: (recipe: (root: StackPart) => StackPart) => void;
}

/** The boxes of the parts of a cut. */
export interface DrawnParts {
  readonly size: Size;
  readonly parts: PartBoxes;
}

const addable: readonly Part['part'][] = ['stack', 'text', 'picture', 'rows', 'echo', 'mark', 'rule', 'sign', 'motif'];

const samePath = (a: PartPath, b: PartPath): boolean => a.length === b.length && a.every((index, at) => b[at] === index);

/** The parts of an arrangement as an outline: choose, move, remove, add. The order is the order on the page. */
export function PartOutline({ brand, template, root, path, drawn, onSelect, onPoint, onChange }: OutlineProps) {
  const selected = partAt(root, path);
  // What is added goes into the chosen stack, or beside the chosen part.
  const target = selected?.part === 'stack' ? path : path.slice(0, -1);
  const add = (part: Part | null): void => {
    const stack = partAt(root, target);
    if (!part || stack?.part !== 'stack') return;
    onChange((now) => addPart(now, target, part));
    onSelect([...target, stack.children.length]);
  };
  const move = (by: -1 | 1): void => {
    const moved = movePart(root, path, by);
    onChange(() => moved.root);
    onSelect(moved.path);
  };
  const bringArtwork = async (file: File): Promise<void> => {
    try {
      const { mark, notes } = await sendFile(readMark, { brand }, { name: file.name }, file);
      if (mark.kind !== 'vector') return toast('problem', 'An ornament is an SVG drawing.');
      for (const note of notes) toast('problem', note);
      add({ part: 'artwork', heightM: 2, viewBox: mark.viewBox, paths: mark.paths, alignSelf: 'start' });
    } catch (error) {
      toast('problem', error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <div className="px-3 py-2">
      <ul aria-label="Parts of this arrangement" className="mb-2">
        {[...walkPaths(root)].map(({ part, path: each }) => (
          <li key={each.join('.')}>
            <button
              type="button"
              aria-pressed={samePath(each, path)}
              onClick={() => onSelect(each)}
              onPointerEnter={() => onPoint(each)}
              onPointerLeave={() => onPoint(null)}
              onFocus={() => onPoint(each)}
              onBlur={() => onPoint(null)}
              style={{ paddingLeft: `${each.length * 0.8 + 0.4}rem` }}
              className={`flex h-7 w-full items-center gap-2 rounded-md pr-2 text-left text-sm ${samePath(each, path) ? 'bg-house-soft font-semibold text-house' : 'hover:bg-sunk'}`}
            >
              <PlaceDrawing drawn={drawn} path={each.join('.')} />
              <span className="min-w-0 truncate">{partName(part, template)}</span>
              {'slot' in part && <span className="ml-auto text-xs font-normal text-quiet">{kindNames[part.part].toLowerCase()}</span>}
              {part.over && <span className="ml-auto text-xs font-normal text-quiet">laid over</span>}
            </button>
          </li>
        ))}
      </ul>
      <div className="flex items-center gap-1 border-t border-line pt-2">
        <Button size="small" aria-label="Move up" disabled={path.length === 0} onClick={() => move(-1)}>
          <ArrowUp aria-hidden className="size-3.5" />
        </Button>
        <Button size="small" aria-label="Move down" disabled={path.length === 0} onClick={() => move(1)}>
          <ArrowDown aria-hidden className="size-3.5" />
        </Button>
        <Button
          size="small"
          aria-label="Remove this part"
          disabled={path.length === 0}
          onClick={() => {
            onChange((now) => removePart(now, path));
            onSelect(path.slice(0, -1));
          }}
        >
          <Trash2 aria-hidden className="size-3.5" />
        </Button>
        <select aria-label="Add a part" value="" onChange={(event) => add(newPart(event.target.value as Part['part'], template))} className="ml-auto h-6 rounded-md border border-line bg-panel px-1 text-xs">
          <option value="" disabled>
            Add a part
          </option>
          {addable
            .filter((kind) => newPart(kind, template) !== null)
            .map((kind) => (
              <option key={kind} value={kind}>
                {kindNames[kind]}
              </option>
            ))}
        </select>
      </div>
      <label className="mt-2 block cursor-pointer text-xs text-house underline focus-within:outline-2 focus-within:outline-house">
        Add an SVG drawing as an ornament
        <input
          type="file"
          accept=".svg"
          className="sr-only"
          onChange={(event) => {
            const [file] = event.target.files ?? [];
            event.target.value = '';
            if (file) void bringArtwork(file);
          }}
        />
      </label>
    </div>
  );
}

/** Height of the drawing of a cut beside the name of a part. */
const DRAWING_PX = 18;

/** Where a part lies in its cut, small. */
function PlaceDrawing({ drawn, path }: { readonly drawn: DrawnParts | null; readonly path: string }) {
  const box = drawn?.parts[path];
  const size = drawn?.size ?? { widthPx: 1, heightPx: 1 };
  return (
    <svg aria-hidden viewBox={`0 0 ${size.widthPx} ${size.heightPx}`} width={(DRAWING_PX * size.widthPx) / size.heightPx} height={DRAWING_PX} className="shrink-0 overflow-visible">
      <rect width={size.widthPx} height={size.heightPx} className="fill-none stroke-edge" vectorEffect="non-scaling-stroke" />
      {box && <rect x={box.xPx} y={box.yPx} width={box.widthPx} height={box.heightPx} className="fill-house" />}
    </svg>
  );
}
