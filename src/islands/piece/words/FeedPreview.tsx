import { useMemo } from 'react';
import type { NetworkSheet, WordField } from '../../../core/network/network-sheet.ts';
import { foldCaption } from '../../../core/words/fold.ts';
import { composeWords } from '../../../core/wording/wording.ts';
import { CutCanvas } from '../../preview/CutCanvas.tsx';
import type { ViewProps } from '../view-props.ts';
import { useWall } from '../../preview/wall.ts';

interface PreviewProps extends ViewProps {
  readonly channel: { readonly id: string; readonly name: string; readonly sheet: NetworkSheet; readonly fields: readonly WordField[] };
}

const WIDTH_PX = 232;

/** Our own plain drawing of a feed: who, the picture, and as much of the words as the network shows at first. */
export function FeedPreview({ channel, brandData, cuts, piece }: PreviewProps) {
  const cut = cuts.list.find((each) => each.channel.id === channel.id);
  const { caption = '', altText = '', title = '', link = '' } = cut ? composeWords(piece, cut.ref, channel.sheet, brandData.book.facts) : {};
  const { shown, folded } = foldCaption(caption, channel.sheet.words.foldAfter);
  const handle = brandData.channels.find((each) => each.id === channel.id)?.handle ?? '';
  const [first] = cut?.slides ?? [];
  const key = first?.key ?? '';
  const { content, wanted } = cuts;
  const request = useMemo(() => {
    if (!cut) return null;
    const density = Math.min(2, globalThis.devicePixelRatio || 1);
    return { content, ghosts: true, cuts: [...wanted(cut, (WIDTH_PX / cut.placement.exportPx.width) * density)] };
  }, [content, wanted, cut]);
  const { wall } = useWall(request);
  return (
    <section aria-label={`Preview for ${channel.name}`} className="w-72 shrink-0 overflow-auto border-l border-line px-5 py-4">
      <p className="mb-2 text-xs text-quiet">How it reads on {channel.sheet.name}</p>
      <article className="border border-line bg-panel">
        <p className="px-3 pt-2.5 text-sm">
          <span className="font-semibold">{brandData.name}</span> <span className="text-quiet">{handle}</span>
        </p>
        <div className="p-2.5">
          {cut && <CutCanvas wall={wall} cutKey={key} widthPx={WIDTH_PX} heightPx={(WIDTH_PX * cut.placement.exportPx.height) / cut.placement.exportPx.width} label={altText || 'The picture of this post'} />}
          {cut && cut.slides.length > 1 && <p className="mt-1 text-center text-xs text-quiet">1 of {cut.slides.length} slides</p>}
        </div>
        {title !== '' && <p className="px-3 pb-1 text-sm font-semibold break-words">{title}</p>}
        <p className="px-3 pb-3 text-sm break-words whitespace-pre-wrap">
          {shown || <span className="text-quiet">No words yet.</span>}
          {folded && <span className="text-quiet">… more</span>}
        </p>
        {link !== '' && <p className="truncate border-t border-line px-3 py-2 text-xs text-quiet">{link}</p>}
      </article>
      {folded && <p className="mt-2 text-xs text-quiet">{channel.sheet.name} shows the first {channel.sheet.words.foldAfter} characters.</p>}
    </section>
  );
}
