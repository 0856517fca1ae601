import { ModalFrame } from '../ui/ModalFrame.tsx';

/** Shortcuts, by where they work. */
const groups: readonly { readonly where: string; readonly keys: readonly (readonly [string, string])[] }[] = [
  { where: 'Anywhere', keys: [['I', 'Write a note for the shelf'], ['P', 'A quick post'], ['B', 'Begin from a boilerplate'], ['?', 'These shortcuts'], ['Ctrl Z', 'Undo'], ['Ctrl Shift Z', 'Redo']] },
  { where: 'A piece, large', keys: [['← →', 'The cut before, the next one'], ['Esc', 'Back to the wall']] },
  { where: 'The wording sheet', keys: [['Arrows', 'Move between cells'], ['Enter', 'Write in a cell'], ['Tab', 'The next cell'], ['Shift Arrows', 'Choose several cells'], ['Ctrl C, Ctrl V', 'Copy and paste, from a spreadsheet too'], ['Ctrl D', 'Fill down'], ['Del', 'Back to the shared text']] },
  { where: 'Lanes', keys: [['Arrows', 'Move between days and posts'], ['Alt ← →', 'Move the post by a day; in the month, Alt ↑ ↓ by a week'], ['Space', 'Choose a post'], ['Enter', 'Open a post'], ['S, Q', 'In the waiting strip: the next slot, into the queue']] },
  { where: 'Replies', keys: [['↑ ↓', 'The conversation before, the next one'], ['Space', 'Choose it'], ['A', 'Answer'], ['Ctrl Enter', 'Send the answer'], ['C, O', 'Close; open again'], ['S, B', 'Set apart; bring back'], ['M', 'Take it yourself']] },
];

export function KeysDialog({ onClose }: { readonly onClose: () => void }) {
  return (
    <ModalFrame title="Shortcuts" width="wide" onClose={onClose}>
      <div className="grid grid-cols-2 gap-x-10 gap-y-5 max-md:grid-cols-1">
        {groups.map(({ where, keys }) => (
          <section key={where} aria-label={where}>
            <h3 className="mb-1 text-sm font-semibold">{where}</h3>
            <dl className="text-sm">
              {keys.map(([key, does]) => (
                <div key={key} className="flex items-baseline gap-3 border-t border-line py-1">
                  <dt className="w-32 shrink-0">
                    <kbd className="rounded-sm border border-line bg-sunk px-1.5 py-px text-xs">{key}</kbd>
                  </dt>
                  <dd className="text-quiet">{does}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
      <p className="mt-5 text-sm">
        <a href="/guide/first-day" className="text-house underline">
          Open the guide
        </a>
      </p>
    </ModalFrame>
  );
}
