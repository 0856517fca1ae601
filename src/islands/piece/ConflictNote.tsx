import { firstWords, type Frame, type Piece } from '../../core/piece/piece.ts';
import { slideTemplate } from '../../core/template/slide-template.ts';
import type { Template } from '../../core/template/template.ts';
import { Button } from '../ui/Button.tsx';
import type { BrandData } from './PieceEditor.tsx';
import type { PieceStore } from './piece-store.ts';

interface ConflictProps {
  readonly store: PieceStore;
  readonly mine: Piece;
  readonly theirs: Piece;
  readonly template: Template;
  readonly brandData: BrandData;
}

/** Two people (or two windows) changed one piece: both versions are shown where they differ, and one is chosen. */
export function ConflictNote({ store, mine, theirs, template, brandData }: ConflictProps) {
  const differences = differingTexts(mine, theirs, template, brandData);
  return (
    <section role="alertdialog" aria-label="This piece was changed elsewhere" className="border-b border-marigold bg-marigold-soft px-4 py-3">
      <div className="flex items-start gap-6">
        <div className="min-w-0 flex-1">
          <p className="text-base font-semibold">This piece was changed in another window or by somebody else.</p>
          <table className="mt-2 w-full max-w-4xl table-fixed text-left text-sm">
            <thead className="text-xs text-quiet">
              <tr>
                <th scope="col" className="w-40 font-medium">
                  Where they differ
                </th>
                <th scope="col" className="font-medium">
                  Yours
                </th>
                <th scope="col" className="font-medium">
                  The other
                </th>
              </tr>
            </thead>
            <tbody>
              {differences.map((each) => (
                <tr key={each.name} className="align-top">
                  <th scope="row" className="pr-3 font-medium">
                    {each.name}
                  </th>
                  <td className="pr-3 break-words">{each.mine || '(empty)'}</td>
                  <td className="break-words">{each.theirs || '(empty)'}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        <div className="flex shrink-0 gap-2">
          <Button onClick={() => store.takeTheirs()}>Take the other</Button>
          <Button look="primary" onClick={() => void store.keepMine()}>
            Keep mine
          </Button>
        </div>
      </div>
    </section>
  );
}

interface Difference {
  readonly name: string;
  readonly mine: string;
  readonly theirs: string;
}

/** Slides by their first words, in order; a graphic has no order. */
function orderOf({ kind, frames }: Piece): string {
  return kind === 'graphic' ? '' : frames.map((frame) => firstWords({ frames: [frame] }).slice(0, 24) || '…').join(' · ');
}

function differingTexts(mine: Piece, theirs: Piece, template: Template, brandData: BrandData): readonly Difference[] {
  const valueOf = (frame: Frame | undefined, slot: string): string => {
    const value = frame?.slots[slot];
    if (value?.kind === 'text') return value.text;
    return value?.kind === 'picture' ? 'a picture' : value?.kind === 'mark' ? value.mark : '';
  };
  const rows: Difference[] = [
    { name: 'Name', mine: mine.title, theirs: theirs.title },
    { name: 'Slides', mine: orderOf(mine), theirs: orderOf(theirs) },
    ...mine.frames.flatMap((frame, index) => {
      const other = theirs.frames.find((each) => each.id === frame.id);
      return slideTemplate(template, frame.slide).slots.map((slot) => ({ name: mine.frames.length === 1 ? slot.label : `Slide ${index + 1}: ${slot.label}`, mine: valueOf(frame, slot.key), theirs: valueOf(other, slot.key) }));
    }),
    { name: 'Caption', mine: mine.words.shared.caption, theirs: theirs.words.shared.caption },
    { name: 'Alt text', mine: mine.words.shared.altText, theirs: theirs.words.shared.altText },
    ...brandData.channels.map((channel) => ({
      name: `Words for ${channel.name}`,
      mine: Object.values(mine.words.own[channel.id] ?? {}).join(' / '),
      theirs: Object.values(theirs.words.own[channel.id] ?? {}).join(' / '),
    })),
  ];
  const differing = rows.filter((row) => row.mine !== row.theirs);
  return differing.length > 0 ? differing : [{ name: 'Something else', mine: 'as on this page', theirs: 'as saved' }];
}
