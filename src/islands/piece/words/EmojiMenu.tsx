import { EmojiPicker } from 'frimousse';
import Smile from 'lucide-react/icons/smile';
import { useState, type RefObject } from 'react';
import { Button as AriaButton, Dialog, DialogTrigger, Popover } from 'react-aria-components';
import type { EmojiHabit } from '../../../core/brand/brand-book.ts';
import { EMOJI_PATTERN, emojiFor, placeEmoji, withoutEmoji } from '../../../core/words/emoji-words.ts';
import { insertText } from '../../../core/words/insert-text.ts';
import { Button } from '../../ui/Button.tsx';
import { iconButtonClasses } from '../../ui/icon-button.ts';

interface EmojiMenuProps {
  readonly area: RefObject<HTMLTextAreaElement | null>;
  readonly text: string;
  readonly habit: EmojiHabit;
  readonly onText: (text: string) => void;
}

const RECENT_KEY = 'confetti-recent-emoji';
const MAX_RECENT = 16;
/** How many emoji a habit lets the machine place. */
const PLACED: Readonly<Record<EmojiHabit, number>> = { none: 0, few: 2, many: 5 };

function readRecent(): readonly string[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(RECENT_KEY) ?? '[]');
    return Array.isArray(kept) ? kept.filter((each): each is string => typeof each === 'string').slice(0, MAX_RECENT) : [];
  } catch {
    return [];
  }
}

/** Emoji to search, with skin tones; those used last and those that suit the words come first. */
export default function EmojiMenu({ area, text, habit, onText }: EmojiMenuProps) {
  const [isOpen, setOpen] = useState(false);
  const [recent, setRecent] = useState<readonly string[]>([]);
  const fitting = isOpen ? emojiFor(text, 6) : [];
  const put = (emoji: string): void => {
    const field = area.current;
    const end = text.length;
    const at = field && field.value === text ? { start: field.selectionStart, end: field.selectionEnd } : { start: end, end };
    onText(insertText(text, at, emoji).text);
    const next = [emoji, ...recent.filter((each) => each !== emoji)].slice(0, MAX_RECENT);
    setRecent(next);
    localStorage.setItem(RECENT_KEY, JSON.stringify(next));
    setOpen(false);
  };
  return (
    <DialogTrigger
      isOpen={isOpen}
      onOpenChange={(next) => {
        if (next) setRecent(readRecent());
        setOpen(next);
      }}
    >
      <AriaButton aria-label="Put an emoji in here" className={iconButtonClasses}>
        <Smile aria-hidden className="size-3.5" />
      </AriaButton>
      <Popover className="shadow-float rounded-md border border-line bg-panel p-2">
        <Dialog aria-label="Emoji" className="w-72 outline-none">
          {habit === 'none' && <p className="mb-1.5 text-xs text-marigold-ink">This brand uses no emoji.</p>}
          <EmojiRow label="For these words" emoji={fitting} onPut={put} />
          <EmojiRow label="Used last" emoji={recent} onPut={put} />
          <EmojiPicker.Root emojibaseUrl="/emoji" locale="en" columns={8} onEmojiSelect={({ emoji }) => put(emoji)} className="flex h-64 flex-col">
            <div className="mb-1 flex items-center gap-1">
              <EmojiPicker.Search aria-label="Find an emoji" placeholder="Find an emoji" className="h-7 min-w-0 flex-1 rounded-md border border-line bg-panel px-2 text-sm" />
              <EmojiPicker.SkinToneSelector aria-label="Skin tone" className="size-7 rounded-md text-lg hover:bg-sunk" />
            </div>
            <EmojiPicker.Viewport className="min-h-0 flex-1 overflow-auto outline-none">
              <EmojiPicker.Loading className="text-xs text-quiet">Loading…</EmojiPicker.Loading>
              <EmojiPicker.Empty className="text-xs text-quiet">Nothing found.</EmojiPicker.Empty>
              <EmojiPicker.List
                components={{
                  CategoryHeader: ({ category, ...props }) => (
                    <div {...props} className="bg-panel px-1 py-0.5 text-xs text-quiet">
                      {category.label}
                    </div>
                  ),
                  Row: ({ children, ...props }) => <div {...props}>{children}</div>,
                  Emoji: ({ emoji, ...props }) => (
                    <button {...props} type="button" aria-label={emoji.label} className="flex size-8 items-center justify-center rounded-md text-lg data-active:bg-sunk">
                      {emoji.emoji}
                    </button>
                  ),
                }}
              />
            </EmojiPicker.Viewport>
          </EmojiPicker.Root>
          <div className="mt-2 flex gap-1.5">
            <Button
              size="small"
              disabled={PLACED[habit] === 0}
              onClick={() => {
                onText(placeEmoji(text, PLACED[habit]));
                setOpen(false);
              }}
            >
              Place up to {PLACED[habit]}
            </Button>
            <Button
              size="small"
              disabled={text.match(EMOJI_PATTERN) === null}
              onClick={() => {
                onText(withoutEmoji(text));
                setOpen(false);
              }}
            >
              Remove all
            </Button>
          </div>
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}

function EmojiRow({ label, emoji, onPut }: { readonly label: string; readonly emoji: readonly string[]; readonly onPut: (emoji: string) => void }) {
  if (emoji.length === 0) return null;
  return (
    <div role="group" aria-label={label} className="mb-1">
      <p className="text-xs text-quiet">{label}</p>
      <p className="flex flex-wrap">
        {emoji.map((each) => (
          <button key={each} type="button" onClick={() => onPut(each)} className="flex size-8 items-center justify-center rounded-md text-lg hover:bg-sunk">
            {each}
          </button>
        ))}
      </p>
    </div>
  );
}
