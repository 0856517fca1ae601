import type { PlanItem, PlanState } from '../../core/plan/plan-items.ts';
import type { DeliveryState } from '../../core/post/delivery-state.ts';
import { stateWord } from '../post/StateChip.tsx';

const words: Readonly<Record<Exclude<PlanState, DeliveryState>, string>> = { draft: 'Draft', placeholder: 'Placeholder', waiting: 'From the queue', rotation: 'From rotation', open: 'Open slot', proposed: 'Proposed' };

/** The state of something of the plan, in a word. */
export function planStateWord(state: PlanState): string {
  return state in words ? words[state as keyof typeof words] : stateWord(state as Exclude<PlanState, keyof typeof words>);
}

/** The sign at a tile's corner: what wants attention, or how it came there. Each has a shape of its own. */
export function StateSign({ item }: { readonly item: Pick<PlanItem, 'state' | 'hasChanged' | 'isRotation' | 'pieceKind'> }) {
  if (item.state === 'failed') return <Sign path="M8 1L15 8L8 15L1 8Z" fill="var(--c-coral)" word="Failed" />;
  if (item.state === 'held') return <Sign path="M3 2h3.6v12H3Zm6.4 0H13v12H9.4Z" fill="var(--c-marigold)" word="Held" />;
  if (item.state === 'in review') return <Sign path="M8 3C4.5 3 2 6 1 8c1 2 3.5 5 7 5s6-3 7-5c-1-2-3.5-5-7-5Zm0 2.2a2.8 2.8 0 1 1 0 5.6a2.8 2.8 0 0 1 0-5.6Z" fill="var(--c-house)" word="In review" />;
  if (item.hasChanged) return <Sign path="M8 1.5L15 14.5H1Z" fill="var(--c-marigold)" word="Piece has changed" />;
  if (item.isRotation) return <Sign path="M8 2a6 6 0 0 1 5.2 3l1.6-.9-.4 4.2-3.8-1.8 1.2-.7A4.3 4.3 0 0 0 3.8 7H2A6 6 0 0 1 8 2Zm0 12a6 6 0 0 1-5.2-3l-1.6.9.4-4.2 3.8 1.8-1.2.7A4.3 4.3 0 0 0 12.200 9H14A6 6 0 0 1 8 14Z" fill="var(--c-ink)" word="Rotation" />;
  if (item.pieceKind === 'video') return <Sign path="M4 2.500L13 8L4 13.500Z" fill="var(--c-ink)" word="Video" />;
  return null;
}

function Sign({ path, fill, word }: { readonly path: string; readonly fill: string; readonly word: string }) {
  return (
    <span className="absolute -top-1 -right-1 grid size-4 place-items-center rounded-sm border border-line bg-panel">
      <svg viewBox="0 0 16 16" width="10" height="10" role="img" aria-label={word}>
        <path d={path} fill={fill} fillRule="evenodd" />
      </svg>
    </span>
  );
}
