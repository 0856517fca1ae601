import type { ReactNode } from 'react';
import { whatAccountCan } from '../../../core/network/account-kind.ts';
import type { NetworkSheet, Placement, WordField } from '../../../core/network/network-sheet.ts';
import { Abilities } from '../channels/ChooseDialog.tsx';

interface SheetFieldsProps {
  readonly sheet: NetworkSheet;
  /** Null where nothing may be changed. */
  readonly onChange: ((sheet: NetworkSheet) => void) | null;
}

const cell = 'px-2 py-1.5 text-left align-middle';
const MEBIBYTE = 1024 * 1024;

/** The rules of a network in tables; numbers are changed where they stand. */
export function SheetFields({ sheet, onChange }: SheetFieldsProps) {
  const change = (part: Partial<NetworkSheet>): void => onChange?.({ ...sheet, ...part });
  const placement = (index: number, part: Partial<Placement>): void => change({ placements: sheet.placements.map((each, at) => (at === index ? { ...each, ...part } : each)) });
  const field = (index: number, part: Partial<WordField>): void => change({ words: { ...sheet.words, fields: sheet.words.fields.map((each, at) => (at === index ? { ...each, ...part } : each)) } });
  const readOnly = onChange === null;
  return (
    <div className="max-w-5xl space-y-6 text-sm">
      <Part title="Placements">
        <table className="w-full border-collapse">
          <Heads names={['Place', 'Width', 'Height', 'Safe zone (top, right, bottom, left, %)', 'Carousel', 'Video, seconds']} />
          <tbody>
            {sheet.placements.map((each, index) => (
              <tr key={each.key} className="border-b border-line">
                <th scope="row" className={`${cell} font-medium`}>
                  {each.name}
                </th>
                <td className={cell}>
                  <Amount label={`Width of ${each.name}`} value={each.exportPx.width} min={200} max={4000} readOnly={readOnly} onChange={(width) => placement(index, { exportPx: { ...each.exportPx, width: width ?? 200 } })} />
                </td>
                <td className={cell}>
                  <Amount label={`Height of ${each.name}`} value={each.exportPx.height} min={200} max={4000} readOnly={readOnly} onChange={(height) => placement(index, { exportPx: { ...each.exportPx, height: height ?? 200 } })} />
                </td>
                <td className={cell}>
                  <span className="flex gap-1">
                    {(['top', 'right', 'bottom', 'left'] as const).map((side) => (
                      <Amount key={side} label={`Safe zone of ${each.name}, ${side}`} isNarrow value={each.safePercent[side]} min={0} max={45} readOnly={readOnly} onChange={(value) => placement(index, { safePercent: { ...each.safePercent, [side]: value ?? 0 } })} />
                    ))}
                  </span>
                </td>
                <td className={cell}>{each.carousel ? `${each.carousel.least} to ${each.carousel.most} ${each.carousel.as === 'document' ? 'pages' : 'pictures'}` : 'none'}</td>
                <td className={cell}>{each.video ? `${each.video.leastSeconds} to ${each.video.mostSeconds}` : 'none'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Part>
      <Part title="Words">
        <table className="w-full max-w-2xl border-collapse">
          <Heads names={['Field', 'Longest', 'Counted in', 'Needed']} />
          <tbody>
            {sheet.words.fields.map((each, index) => (
              <tr key={each.key} className="border-b border-line">
                <th scope="row" className={`${cell} font-medium`}>
                  {each.label}
                </th>
                <td className={cell}>
                  <Amount label={`Longest ${each.label}`} value={each.max} min={1} max={1_000_000} isOptional readOnly={readOnly} onChange={(max) => field(index, { max })} />
                </td>
                <td className={cell}>{countingNames[each.counting]}</td>
                <td className={cell}>
                  <input type="checkbox" aria-label={`${each.label} is needed`} disabled={readOnly} checked={each.required} onChange={(event) => field(index, { required: event.target.checked })} className="accent-house" />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <div className="mt-3 flex flex-wrap gap-5">
          <Labelled label="Most hashtags">
            <Amount label="Most hashtags" value={sheet.words.hashtags.max} min={0} max={500} isOptional readOnly={readOnly} onChange={(max) => change({ words: { ...sheet.words, hashtags: { ...sheet.words.hashtags, max } } })} />
          </Labelled>
          <Labelled label="Warn over so many hashtags">
            <Amount label="Warn over so many hashtags" value={sheet.words.hashtags.warnOver} min={0} max={500} isOptional readOnly={readOnly} onChange={(warnOver) => change({ words: { ...sheet.words, hashtags: { ...sheet.words.hashtags, warnOver } } })} />
          </Labelled>
          <Labelled label="Most mentions">
            <Amount label="Most mentions" value={sheet.words.mentions.max} min={0} max={500} isOptional readOnly={readOnly} onChange={(max) => change({ words: { ...sheet.words, mentions: { max } } })} />
          </Labelled>
          <Labelled label="Shown before “more”">
            <Amount label="Shown before more" value={sheet.words.foldAfter} min={1} max={10_000} isOptional readOnly={readOnly} onChange={(foldAfter) => change({ words: { ...sheet.words, foldAfter } })} />
          </Labelled>
        </div>
      </Part>
      <Part title="Files and pace">
        <div className="flex flex-wrap gap-5">
          <Labelled label="Largest picture, MB">
            <Amount label="Largest picture in megabytes" value={Math.round((sheet.files.maxImageBytes / MEBIBYTE) * 10) / 10} min={0.1} max={500} readOnly={readOnly} onChange={(size) => change({ files: { ...sheet.files, maxImageBytes: Math.round((size ?? 1) * MEBIBYTE) } })} />
          </Labelled>
          <Labelled label="Posts a day">
            <Amount label="Posts a day" value={sheet.pace.dailyMax} min={1} max={10_000} readOnly={readOnly} onChange={(dailyMax) => change({ pace: { ...sheet.pace, dailyMax: dailyMax ?? 1 } })} />
          </Labelled>
          <Labelled label="Least gap, minutes">
            <Amount label="Least gap in minutes" value={sheet.pace.leastGapMin} min={0} max={10_000} readOnly={readOnly} onChange={(leastGapMin) => change({ pace: { ...sheet.pace, leastGapMin: leastGapMin ?? 0 } })} />
          </Labelled>
          <Labelled label="Once it is out">
            <span>{afterwardsWords(sheet)}</span>
          </Labelled>
        </div>
      </Part>
      {sheet.accounts && (
        <Part title="Accounts">
          <ul className="grid gap-4 sm:grid-cols-[repeat(2,minmax(0,1fr))]">
            {sheet.accounts.map(({ key, name }) => {
              const { can, cannot } = whatAccountCan(sheet, key);
              return (
                <li key={key}>
                  <p className="mb-1 font-medium">{name}</p>
                  <Abilities can={can} cannot={cannot} />
                </li>
              );
            })}
          </ul>
        </Part>
      )}
    </div>
  );
}

const countingNames: Readonly<Record<WordField['counting'], string>> = { graphemes: 'characters', weighted: 'weighted characters', bytes: 'bytes', keywords: 'characters of all together' };

function afterwardsWords({ publishing }: NetworkSheet): string {
  const can = publishing.afterwards ?? [];
  if (can.length === 0) return 'a post stays as it is';
  return [can.includes('text') ? 'its text can change' : '', can.includes('remove') ? 'it can be taken down' : ''].filter((part) => part !== '').join(', ');
}

function Heads({ names }: { readonly names: readonly string[] }) {
  return (
    <thead>
      <tr className="border-b border-line text-xs text-quiet">
        {names.map((name) => (
          <th key={name} scope="col" className={`${cell} font-medium`}>
            {name}
          </th>
        ))}
      </tr>
    </thead>
  );
}

function Part({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <section aria-label={title} className="overflow-x-auto">
      <h3 className="mb-1.5 text-base font-semibold">{title}</h3>
      {children}
    </section>
  );
}

function Labelled({ label, children }: { readonly label: string; readonly children: ReactNode }) {
  return (
    <span className="block">
      <span className="mb-1 block text-xs text-quiet">{label}</span>
      {children}
    </span>
  );
}

interface AmountProps {
  readonly label: string;
  readonly value: number | null;
  readonly min: number;
  readonly max: number;
  /** Empty means that there is no limit. */
  readonly isOptional?: boolean;
  readonly isNarrow?: boolean;
  readonly readOnly: boolean;
  readonly onChange: (value: number | null) => void;
}

function Amount({ label, value, min, max, isOptional = false, isNarrow = false, readOnly, onChange }: AmountProps) {
  if (readOnly) return <span className="tabular-nums">{value ?? 'no limit'}</span>;
  const read = (text: string): void => {
    if (text === '') {
      if (isOptional) onChange(null);
      return;
    }
    const amount = Number(text);
    if (Number.isFinite(amount) && amount >= min && amount <= max) onChange(amount);
  };
  return <input type="number" aria-label={label} value={value ?? ''} placeholder="no limit" min={min} max={max} step="any" onChange={(event) => read(event.target.value)} className={`rounded-md border border-line bg-panel px-2 py-1 tabular-nums hover:border-edge focus:border-house ${isNarrow ? 'w-14' : 'w-24'}`} />;
}
