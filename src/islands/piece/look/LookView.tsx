import { useCallback, useState } from 'react';
import { ContactSheet } from '../slides/ContactSheet.tsx';
import { ContentSheet } from './ContentSheet.tsx';
import { LargeLook } from './LargeLook.tsx';
import { VideoWall } from '../video/VideoWall.tsx';
import { ProofWall } from './ProofWall.tsx';
import { NoCuts } from '../NoCuts.tsx';
import type { LookProps } from '../view-props.ts';
import { useFocusBack } from './use-focus-back.ts';
import { useLargeCut } from './use-large-cut.ts';

/** The content sheet beside the proof wall, for a carousel beside the contact sheet; one cut can be brought up large. */
export function LookView(props: LookProps) {
  const { brand, piece, cuts } = props;
  const { largeKey, openLarge, changeLarge, closeLarge } = useLargeCut();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [atWork, setAtWork] = useState<string | null>(null);
  const frame = piece.frames.find(({ id }) => id === atWork) ?? piece.frames[0];
  useFocusBack(largeKey, atWork);
  const large = cuts.list.find((cut) => cut.key === largeKey);
  const lookAt = useCallback((key: string, frameId: string): void => {
    setAtWork(frameId);
    openLarge(key);
  }, [openLarge]);
  const choose = useCallback((ids: ReadonlySet<string>, last: string | null): void => {
    setChosen(ids);
    if (last !== null) setAtWork(last);
  }, []);
  return (
    <>
      <ContentSheet key={frame.id} {...props} frame={frame} />
      {large ? (
        <LargeLook {...props} cut={large} frameId={frame.id} onFrame={setAtWork} onCut={changeLarge} onClose={closeLarge} />
      ) : piece.kind === 'video' ? (
        <VideoWall {...props} frame={frame} chosen={chosen} onChosen={choose} />
      ) : cuts.list.length === 0 && piece.kind === 'graphic' ? (
        <div className="min-w-0 flex-1 p-5">
          <NoCuts brand={brand.slug} kind={piece.kind} />
        </div>
      ) : piece.kind === 'graphic' ? (
        <ProofWall {...props} onChoose={openLarge} />
      ) : (
        <ContactSheet {...props} frame={frame} chosen={chosen} onChosen={choose} onLook={lookAt} />
      )}
    </>
  );
}
