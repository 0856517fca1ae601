import { useCallback, useState } from 'react';
import type { Piece } from '../../../core/piece/piece.ts';
import type { Template } from '../../../core/template/template.ts';
import { ContactSheet } from '../slides/ContactSheet.tsx';
import { ContentSheet } from './ContentSheet.tsx';
import { LargeLook } from './LargeLook.tsx';
import type { BrandData, MediaItem } from '../PieceEditor.tsx';
import type { PieceStore } from '../piece-store.ts';
import { VideoWall } from '../video/VideoWall.tsx';
import { ProofWall } from './ProofWall.tsx';
import type { Cuts } from '../use-cuts.ts';

export interface ViewProps {
  readonly brand: { readonly slug: string; readonly zone: string; readonly role: string };
  readonly brandData: BrandData;
  readonly template: Template;
  /** All templates that the piece could have. */
  readonly templates: readonly Template[];
  readonly store: PieceStore;
  readonly piece: Piece;
  readonly pieceId: string;
  readonly cuts: Cuts;
  readonly readOnly: boolean;
}

interface LookProps extends ViewProps {
  readonly media: ReadonlyMap<string, MediaItem>;
  readonly onMedia: (item: MediaItem) => void;
}

/** The content sheet beside the proof wall, for a carousel beside the contact sheet; one cut can be brought up large. */
export function LookView(props: LookProps) {
  const { piece, cuts } = props;
  const [largeKey, setLargeKey] = useState<string | null>(null);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [atWork, setAtWork] = useState<string | null>(null);
  const frame = piece.frames.find(({ id }) => id === atWork) ?? piece.frames[0];
  const large = cuts.list.find((cut) => cut.key === largeKey);
  const lookAt = useCallback((key: string, frameId: string): void => {
    setAtWork(frameId);
    setLargeKey(key);
  }, []);
  const choose = useCallback((ids: ReadonlySet<string>, last: string | null): void => {
    setChosen(ids);
    if (last !== null) setAtWork(last);
  }, []);
  return (
    <>
      <ContentSheet key={frame.id} {...props} frame={frame} />
      {large ? (
        <LargeLook key={large.key} {...props} cut={large} frameId={frame.id} onFrame={setAtWork} onClose={() => setLargeKey(null)} />
      ) : piece.kind === 'video' ? (
        <VideoWall {...props} frame={frame} chosen={chosen} onChosen={choose} />
      ) : piece.kind === 'graphic' ? (
        <ProofWall {...props} onChoose={setLargeKey} />
      ) : (
        <ContactSheet {...props} frame={frame} chosen={chosen} onChosen={choose} onLook={lookAt} />
      )}
    </>
  );
}
