import { useState } from 'react';
import type { Piece } from '../../core/piece/piece.ts';
import type { Template } from '../../core/template/template.ts';
import { ContentSheet } from './ContentSheet.tsx';
import { LargeLook } from './LargeLook.tsx';
import type { BrandData, MediaItem } from './PieceEditor.tsx';
import type { PieceStore } from './piece-store.ts';
import { ProofWall } from './ProofWall.tsx';
import type { Cuts } from './use-cuts.ts';

export interface SheetProps {
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

interface LookProps extends SheetProps {
  readonly media: ReadonlyMap<string, MediaItem>;
  readonly onMedia: (item: MediaItem) => void;
}

/** The content sheet beside the proof wall; one cut can be brought up large. */
export function LookSheet(props: LookProps) {
  const [largeKey, setLargeKey] = useState<string | null>(null);
  const large = props.cuts.list.find((cut) => cut.key === largeKey);
  return (
    <>
      <ContentSheet {...props} />
      {large ? (
        <LargeLook key={large.key} {...props} cut={large} onClose={() => setLargeKey(null)} />
      ) : (
        <ProofWall {...props} onChoose={setLargeKey} />
      )}
    </>
  );
}
