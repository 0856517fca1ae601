import { useMemo } from 'react';
import { readPoll } from '../../../core/words/poll.ts';
import { foldCaption } from '../../../core/words/fold.ts';
import { composeWords } from '../../../core/wording/compose.ts';
import { CutCanvas } from '../../preview/CutCanvas.tsx';
import { ChoiceRow } from '../../ui/ChoiceRow.tsx';
import type { ViewProps } from '../view-props.ts';
import { useWall } from '../../preview/wall.ts';
import { LinkCard } from './LinkCard.tsx';
import { composedOf, rowInputOf, type SheetChannel } from './sheet/sheet-rows.ts';

export interface PreviewProps extends ViewProps {
  readonly channel: SheetChannel;
  readonly width: 'phone' | 'wide';
  readonly onWidth: (width: 'phone' | 'wide') => void;
}

const WIDTHS = { phone: 220, wide: 296 } as const;
const widths = [
  { key: 'phone', name: 'Phone' },
  { key: 'wide', name: 'Wide' },
] as const;

/** Our own plain drawing of a feed: who, the picture, and as much of the words as the network shows at first. */
export function FeedPreview({ brand, channel: { channel, sheet }, brandData, cuts, piece, width, onWidth }: PreviewProps) {
  const cut = cuts.list.find((each) => each.channel.id === channel.id);
  const words = cut ? composeWords(rowInputOf({ channel, sheet }, piece, brandData.book), cut.ref) : {};
  const { caption = '', altText = '', title = '', link = '', firstComment = '' } = words;
  const parts = composedOf({ channel, sheet }, piece, brandData.book).parts ?? [];
  const { shown, folded } = foldCaption(parts.length > 1 ? (parts[0] ?? '') : caption, sheet.words.foldAfter);
  const poll = readPoll(words.poll ?? '');
  const [first] = cut?.slides ?? [];
  const key = first?.key ?? '';
  const { content, wanted } = cuts;
  const widthPx = WIDTHS[width];
  const request = useMemo(() => {
    if (!cut) return null;
    const density = Math.min(2, globalThis.devicePixelRatio || 1);
    // What goes out has no hints in it.
    return { content, ghosts: false, cuts: [...wanted(cut, (widthPx / cut.placement.exportPx.width) * density)] };
  }, [content, wanted, cut, widthPx]);
  const { wall } = useWall(request);
  const linkInText = /https?:\/\/\S+/u.exec(shown)?.[0] ?? '';
  const carded = link !== '' ? link : sheet.words.links.clickable ? linkInText : '';
  return (
    <section aria-label={`Preview for ${channel.name}`}>
      <div className="mb-1.5 flex items-center justify-between">
        <p className="text-xs text-quiet">How it reads on {sheet.name}</p>
        <ChoiceRow label="Width of the preview" items={widths} chosen={width} onChoose={(next) => onWidth(next === 'wide' ? 'wide' : 'phone')} />
      </div>
      <article className="mx-auto border border-line bg-panel" style={{ width: widthPx + 22 }}>
        <p className="px-3 pt-2.5 text-sm">
          <span className="font-semibold">{brandData.name}</span> <span className="text-quiet">{channel.handle}</span>
        </p>
        <div className="p-2.5">
          {cut && <CutCanvas wall={wall} cutKey={key} widthPx={widthPx} heightPx={(widthPx * cut.placement.exportPx.height) / cut.placement.exportPx.width} label={altText || 'The picture of this post'} />}
          {cut && cut.slides.length > 1 && <p className="mt-1 text-center text-xs text-quiet">1 of {cut.slides.length} slides</p>}
        </div>
        {title !== '' && <p className="px-3 pb-1 text-sm font-semibold break-words">{title}</p>}
        <p className="px-3 pb-3 text-sm break-words whitespace-pre-wrap">
          {shown || <span className="text-quiet">No words yet.</span>}
          {folded && <span className="text-quiet">… more</span>}
        </p>
        {parts.length > 1 && <p className="px-3 pb-2 text-xs text-quiet">and {parts.length - 1} more posts behind it</p>}
        {poll && (
          <div className="space-y-1 px-3 pb-3 text-sm">
            <p className="font-semibold">{poll.question}</p>
            {poll.options.map((option) => (
              <p key={option} className="rounded-md border border-edge px-2 py-1">
                {option}
              </p>
            ))}
          </div>
        )}
        {carded !== '' && <LinkCard brand={brand} address={carded} />}
        {firstComment !== '' && (
          <p className="border-t border-line px-3 py-2 text-xs break-words whitespace-pre-wrap">
            <span className="font-semibold">{channel.handle}</span> {firstComment}
          </p>
        )}
        {altText !== '' && <p className="border-t border-line px-3 py-2 text-xs break-words text-quiet">Alt text: {altText}</p>}
      </article>
    </section>
  );
}
