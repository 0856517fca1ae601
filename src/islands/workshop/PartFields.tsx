import { readMark } from '../../contract/brand-contracts.ts';
import { typeRoleNames } from '../../core/brand/type-role.ts';
import { motifChoices } from '../../core/motif/own-motif.ts';
import { changePart, partAt, type PartPath } from '../../core/template/edit-template.ts';
import { fieldShapes, limitsM, MAX_OUTLINE, windowShapes, type Part, type PicturePart, type StackPart } from '../../core/template/parts.ts';
import type { Template } from '../../core/template/template.ts';
import { FilePick } from '../ui/FilePick.tsx';
import { sendFile } from '../ui/call.ts';
import { toast } from '../ui/toast.tsx';
import { Choice, BehindChoice, SlotChoice, InkChoice, NumberField, OptionalNumber, ShareSlider, SizeFields, EdgeNumbers, Toggle, inks, edges, inputLook, type Patch } from './part-inputs.tsx';

interface PartFieldsProps {
  readonly brand: string;
  readonly template: Template;
  readonly root: StackPart;
  readonly path: PartPath;
  readonly onChange: (recipe: (root: StackPart) => StackPart) => void;
}



/** What the chosen part is: each kind has its few choices; lengths are in m, the margin of a cut. */
export function PartFields({ brand, template, root, path, onChange }: PartFieldsProps) {
  const part = partAt(root, path);
  if (!part) return <aside className="w-64 shrink-0 border-l border-line bg-panel max-md:w-full max-md:border-l-0" />;
  const set = (patch: Patch): void => onChange((now) => changePart(now, path, (current) => withPatch(current, patch)));
  return (
    <aside aria-label="The chosen part" className="w-64 shrink-0 space-y-3 overflow-auto border-l border-line bg-panel px-3.5 py-3 text-xs text-quiet max-md:w-full max-md:border-t max-md:border-l-0">
      <OwnFields brand={brand} part={part} template={template} set={set} />
      {path.length > 0 && <PlaceFields part={part} direction={directionAt(root, path.slice(0, -1))} set={set} />}
    </aside>
  );
}

/** A part with fields changed; a field that becomes undefined is no longer there. */
function withPatch(part: Part, patch: Patch): Part {
  return Object.fromEntries(Object.entries({ ...part, ...patch }).filter(([, value]) => value !== undefined)) as unknown as Part;
}

/** What chooses a mark where no slot does. */
const GROUND = 'what is behind it';

interface KindProps<Kind extends Part = Part> {
  readonly brand: string;
  readonly part: Kind;
  readonly template: Template;
  readonly set: (patch: Patch) => void;
}

function OwnFields({ brand, part, template, set }: KindProps) {
  switch (part.part) {
    case 'stack':
      return <StackFields part={part} set={set} />;
    case 'text':
      return (
        <>
          <SlotChoice kinds={['text', 'number', 'fact']} value={part.slot} template={template} set={set} />
          <Choice label="Type role" value={part.role} options={typeRoleNames} onChange={(role) => set({ role })} />
          <Choice label="Align" value={part.align} options={['start', 'centre', 'end']} onChange={(align) => set({ align })} />
          <InkChoice value={part.ink} onChange={(ink) => set({ ink })} />
          <SizeFields value={part.sizeM} set={set} />
          <Toggle label="One line as large as the width allows" value={part.fill ?? false} onChange={(fill) => set({ fill: fill || undefined })} />
          <Toggle label="Punctuation hangs outside the margin" value={part.hanging ?? false} onChange={(hanging) => set({ hanging: hanging || undefined })} />
          {template.kind !== 'video' && <BehindChoice value={part.behind} template={template} set={set} />}
        </>
      );
    case 'picture':
      return (
        <>
          <SlotChoice kinds={['picture']} value={part.slot} template={template} set={set} />
          <Choice
            label="Seen through"
            value={part.outline ? OWN_OUTLINE : (part.window ?? WHOLE_BOX)}
            options={[WHOLE_BOX, ...windowShapes, ...(part.outline ? [OWN_OUTLINE] : [])]}
            onChange={(window) => window !== OWN_OUTLINE && set({ window: window === WHOLE_BOX ? undefined : window, outline: undefined })}
          />
          <FilePick size="small" accept=".svg" onFiles={([file]) => file && void readOutline(brand, file).then((outline) => outline && set({ outline }))}>
            Import an SVG outline
          </FilePick>
          <Toggle label="In two colours of the scheme" value={part.duotone ?? false} onChange={(duotone) => set({ duotone: duotone || undefined })} />
          <Toggle label="A cut-out: all of it, on what is behind" value={part.whole ?? false} onChange={(whole) => set({ whole: whole || undefined })} />
          {part.whole && <Toggle label="A soft shadow below a cut-out" value={part.shadow ?? false} onChange={(shadow) => set({ shadow: shadow || undefined })} />}
          <OptionalNumber label="Fixed size, m" value={part.sideM} {...limitsM.pictureSide} step={0.2} onChange={(sideM) => set({ sideM })} />
        </>
      );
    case 'rows':
      return (
        <>
          <SlotChoice kinds={['list']} value={part.slot} template={template} set={set} />
          <Toggle label="Numbered" value={part.numerals} onChange={(numerals) => set({ numerals })} />
          <InkChoice value={part.ink} onChange={(ink) => set({ ink })} />
          <SizeFields value={part.sizeM} set={set} />
          <NumberField label="Gap, m" value={part.gapM} {...limitsM.rowsGap} step={0.02} onChange={(gapM) => set({ gapM })} />
        </>
      );
    case 'echo':
      return (
        <>
          <SlotChoice kinds={['text', 'number', 'fact']} value={part.slot} template={template} set={set} />
          <NumberField label="Lines" value={part.lines} min={2} max={24} step={1} onChange={(lines) => set({ lines, inked: Math.min(part.inked, lines - 1) })} />
          <NumberField label="The one that is read" value={part.inked + 1} min={1} max={part.lines} step={1} onChange={(line) => set({ inked: line - 1 })} />
          <InkChoice value={part.ink} onChange={(ink) => set({ ink })} />
          <SizeFields value={part.sizeM} set={set} />
        </>
      );
    case 'mark': {
      const slots = template.slots.filter((slot) => slot.kind === 'mark');
      return (
        <>
          <NumberField label="Height, m" value={part.heightM} {...limitsM.markHeight} step={0.1} onChange={(heightM) => set({ heightM })} />
          {slots.length > 0 && <Choice label="Chosen by" value={part.slot ?? GROUND} options={[GROUND, ...slots.map((slot) => slot.key)]} onChange={(slot) => set({ slot: slot === GROUND ? undefined : slot })} />}
        </>
      );
    }
    case 'rule':
      return (
        <>
          <NumberField label="Length, m (0 stretches)" value={part.lengthM} {...limitsM.ruleLength} step={0.5} onChange={(lengthM) => set({ lengthM })} />
          <NumberField label="Thickness, m" value={part.thicknessM} {...limitsM.ruleThickness} step={0.01} onChange={(thicknessM) => set({ thicknessM })} />
          <InkChoice value={part.ink} onChange={(ink) => set({ ink })} />
        </>
      );
    case 'sign':
      return (
        <>
          <label className="block">
            Sign
            <input value={part.text} maxLength={2} onChange={(event) => event.target.value !== '' && set({ text: event.target.value })} className={inputLook} />
          </label>
          <NumberField label="Height, m" value={part.heightM} {...limitsM.signHeight} step={0.2} onChange={(heightM) => set({ heightM })} />
          <InkChoice value={part.ink} onChange={(ink) => set({ ink })} />
        </>
      );
    case 'artwork':
      return (
        <>
          <NumberField label="Height, m" value={part.heightM} {...limitsM.artworkHeight} step={0.2} onChange={(heightM) => set({ heightM })} />
          <Choice label="Colour" value={part.ink ?? 'as drawn'} options={['as drawn', ...inks]} onChange={(ink) => set({ ink: ink === 'as drawn' ? undefined : ink })} />
        </>
      );
    case 'motif':
      return (
        <>
          <Choice label="Motif" value={part.generator} options={motifChoices} onChange={(generator) => set({ generator })} />
          <NumberField label="Seed" value={part.seed} min={0} max={9999} step={1} onChange={(seed) => set({ seed })} />
        </>
      );
    case 'veil':
      return (
        <>
          <NumberField label="Strength" value={part.strength} min={0.05} max={0.9} step={0.05} onChange={(strength) => set({ strength })} />
          <InkChoice value={part.ink} onChange={(ink) => set({ ink })} />
        </>
      );
    case 'dots':
    case 'swipe':
      return (
        <>
          <NumberField label="Height, m" value={part.heightM} {...(part.part === 'dots' ? limitsM.dotsHeight : limitsM.swipeHeight)} step={0.1} onChange={(heightM) => set({ heightM })} />
          <InkChoice value={part.ink} onChange={(ink) => set({ ink })} />
        </>
      );
  }
}

const WHOLE_BOX = 'whole box';
const OWN_OUTLINE = 'own outline';

/** Reads an SVG file as one outline. Shows a message and answers null when the file cannot be used. */
async function readOutline(brand: string, file: File): Promise<PicturePart['outline'] | null> {
  try {
    const { mark } = await sendFile(readMark, { brand }, { name: file.name }, file);
    const d = mark.kind === 'vector' ? mark.paths.map((path) => path.d).join(' ') : '';
    if (d !== '' && d.length <= MAX_OUTLINE) return { viewBox: mark.viewBox, d };
    toast('problem', d === '' ? 'Choose an SVG drawing.' : `“${file.name}” is too detailed for a window. Simplify its outline and import it again.`);
  } catch (error) {
    toast('problem', error instanceof Error ? error.message : String(error));
  }
  return null;
}

function StackFields({ part, set }: Pick<KindProps<StackPart>, 'part' | 'set'>) {
  const pad = part.padM ?? {};
  return (
    <>
      <Choice label="Direction" value={part.direction} options={['column', 'row']} onChange={(direction) => set({ direction })} />
      <Choice label="Along it" value={part.justify ?? 'start'} options={['start', 'centre', 'end', 'between']} onChange={(justify) => set({ justify })} />
      <Choice label="Across it" value={part.align ?? 'stretch'} options={['stretch', 'start', 'centre', 'end']} onChange={(align) => set({ align })} />
      <NumberField label="Gap, m" value={part.gapM ?? 0} {...limitsM.stackGap} step={0.1} onChange={(gapM) => set({ gapM })} />
      <EdgeNumbers label="Padding, m" value={pad} onChange={(padM) => set({ padM })} />
      <fieldset>
        <legend>Keeps its content in the safe zone at</legend>
        <div className="mt-0.5 flex gap-2">
          {edges.map((edge) => (
            <label key={edge} className="flex items-center gap-1">
              <input type="checkbox" checked={part.safe?.includes(edge) ?? false} onChange={(event) => set({ safe: event.target.checked ? [...(part.safe ?? []), edge] : (part.safe ?? []).filter((each) => each !== edge) })} className="accent-house" />
              {edge}
            </label>
          ))}
        </div>
      </fieldset>
      <Choice label="Field" value={part.field?.ink ?? 'none'} options={['none', ...inks]} onChange={(ink) => set({ field: ink === 'none' ? undefined : { ...part.field, ink } })} />
      {part.field && <Choice label="Field’s shape" value={part.field.shape ?? 'box'} options={fieldShapes} onChange={(shape) => set({ field: { ...part.field, shape } })} />}
    </>
  );
}

function directionAt(root: StackPart, path: PartPath): StackPart['direction'] {
  const stack = partAt(root, path);
  return stack?.part === 'stack' ? stack.direction : 'column';
}

/** How any part stands in its stack, or over it. */
function PlaceFields({ part, direction, set }: Pick<KindProps, 'part' | 'set'> & { readonly direction: StackPart['direction'] }) {
  const [side, stack] = direction === 'row' ? ['Width', 'row'] : ['Height', 'column'];
  return (
    <div className="space-y-3 border-t border-line pt-3">
      <Toggle label="Laid over its stack" value={part.over !== undefined} onChange={(over) => set({ over: over ? { top: 1, left: 1 } : undefined })} />
      {part.over ? (
        <EdgeNumbers label="Distance from its edges, m (empty: free)" value={part.over} onChange={(over) => set({ over })} />
      ) : (
        <>
          <ShareSlider label={`${side} in its ${stack}`} none="as its content needs" direction={direction} value={part.share} onChange={(share) => set({ share })} />
          <Toggle label={`Takes the room that is left in its ${stack}`} value={(part.grow ?? 0) > 0} onChange={(grows) => set({ grow: grows ? 1 : undefined })} />
          {(part.grow ?? 0) > 0 && <NumberField label="Its part of that room, beside others that take some" value={part.grow ?? 1} min={1} max={10} step={1} onChange={(grow) => set({ grow })} />}
          <ShareSlider label={`${side} at the least`} none="no least" direction={direction} value={part.leastShare} onChange={(leastShare) => set({ leastShare })} />
          <Choice label="Own alignment" value={part.alignSelf ?? 'as its stack'} options={['as its stack', 'start', 'centre', 'end', 'stretch']} onChange={(alignSelf) => set({ alignSelf: alignSelf === 'as its stack' ? undefined : alignSelf })} />
        </>
      )}
    </div>
  );
}
