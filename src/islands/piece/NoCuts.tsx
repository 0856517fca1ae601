import type { Piece } from '../../core/piece/piece.ts';
import { EmptyBox } from '../ui/EmptyBox.tsx';

const words: Readonly<Record<Piece['kind'], string>> = {
  graphic: 'A piece has a cut for each place of the brand’s channels: a feed, a story, a card. Connect a channel, and this piece offers its cuts.',
  carousel: 'A carousel has a row of slides for each place of the brand’s channels. Connect a channel, and this piece offers its cuts.',
  video: 'A video has a cut for each place of the brand’s channels that takes videos. Connect such a channel, and this piece offers its cuts.',
};

/** What stands where the cuts of a piece would, before there is a channel for one. */
export function NoCuts({ brand, kind }: { readonly brand: string; readonly kind: Piece['kind'] }) {
  return (
    <EmptyBox title="No cuts yet" words={words[kind]} view="channels">
      <a href={`/b/${brand}/send/channels`} className="text-house hover:underline">
        Open Channels
      </a>
    </EmptyBox>
  );
}
