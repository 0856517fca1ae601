import { useQueryClient, type QueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useState } from 'react';
import type { BodyOf } from '../../contract/contract.ts';
import { suggestMoments } from '../../contract/piece-plan-contracts.ts';
import { changeChosen, placePiece } from '../../contract/plan-contracts.ts';
import type { PlanItem } from '../../core/plan/plan-items.ts';
import { formatMoment } from '../../core/time/wall-time.ts';
import { call } from '../ui/call.ts';
import { toast } from '../ui/toast.tsx';
import type { Lanes, PlanBrand } from './use-plan.ts';

/** Where something is put: into a slot, or at a wall time. */
export type Spot = { readonly kind: 'slot'; readonly slotKey: string } | { readonly kind: 'at'; readonly wall: string; readonly repeated?: 'earlier' | 'later' };

/** What is done to posts and entries. */
export type PlanAct =
  | { readonly kind: 'shift'; readonly days: number }
  | { readonly kind: 'move'; readonly spot: Spot }
  | { readonly kind: 'theme'; readonly themeId: string | null }
  | { readonly kind: 'campaign'; readonly campaignId: string | null }
  | { readonly kind: 'label'; readonly label: string }
  | { readonly kind: 'refresh' }
  | { readonly kind: 'hold' }
  | { readonly kind: 'release' }
  | { readonly kind: 'cancel' };

type ChangeBody = BodyOf<typeof changeChosen>;

/** The contract asks for a field by the kind of the change, which its type cannot say. */
const changeBody = (items: readonly Chosen[], act: PlanAct): ChangeBody => ({ ...idsOf(items), change: act }) as unknown as ChangeBody;
const toPost = (postId: string): Chosen => ({ postId, entryId: null });
const toEntry = (entryId: string): Chosen => ({ postId: null, entryId });
type Chosen = Pick<PlanItem, 'postId' | 'entryId'>;

interface Undoable {
  readonly words: string;
  readonly undo: () => Promise<void>;
}

const MAX_UNDO = 50;

/** Posts and entries of some items, each once. */
function idsOf(items: readonly Chosen[]): { readonly postIds: string[]; readonly entryIds: string[] } {
  return { postIds: [...new Set(items.flatMap(({ postId }) => postId ?? []))], entryIds: [...new Set(items.flatMap(({ entryId }) => entryId ?? []))] };
}

/** Remembers what was done in all plans of the page, and undoes it. */
class UndoStack {
  #acts: readonly Undoable[] = [];

  push(act: Undoable): void {
    this.#acts = [...this.#acts, act].slice(-MAX_UNDO);
    toast('done', act.words, { label: 'Undo', run: () => void this.undo(act) });
  }

  /** Undoes one act, the last one when none is named; what has been undone by a key is not undone by its message again. */
  async undo(which?: Undoable): Promise<void> {
    const last = which ?? this.#acts.at(-1);
    if (!last || !this.#acts.includes(last)) return toast('done', 'There is nothing to undo in the plan.');
    this.#acts = this.#acts.filter((each) => each !== last);
    try {
      await last.undo();
      toast('done', `Undone: ${last.words}`);
    } catch (error) {
      toast('problem', error instanceof Error ? error.message : 'It could not be undone.');
    }
  }
}

const problemOf = (error: unknown, otherwise: string): string => (error instanceof Error ? error.message : otherwise);

/** What can be done in a brand's plan: each act is shown at once, told in a sentence, and can be undone. */
function planActions({ slug: brand, zone }: PlanBrand, client: QueryClient, undoable: UndoStack) {
  const refresh = (): Promise<void> => client.invalidateQueries({ queryKey: ['plan', brand] });
  const undoing = (words: string, undo: () => Promise<void>): void => undoable.push({ words, undo: () => undo().finally(refresh) });

  /** Shows where items go before the server has answered. */
  const showMoved = (chosen: readonly Chosen[], wallOf: (wall: string) => string): void => {
    const { postIds, entryIds } = idsOf(chosen);
    client.setQueriesData<Lanes>({ queryKey: ['plan', brand, 'lanes'] }, (now) => now && { ...now, outings: now.outings.map((each) => (postIds.includes(each.postId) && each.state === 'scheduled' ? { ...each, wall: wallOf(each.wall) } : each)), entries: now.entries.map((each) => (entryIds.includes(each.id) ? { ...each, wall: wallOf(each.wall) } : each)) });
  };

  const change = async (items: readonly Chosen[], given: PlanAct, words: (count: number) => string): Promise<void> => {
    try {
      const answer = await call(changeChosen, { params: { brand }, body: changeBody(items, given) });
      for (const problem of answer.problems) toast('problem', problem);
      if (answer.done > 0) {
        const goBack = async (): Promise<void> => {
          for (const { id, kind, wall } of answer.before) {
            const body = changeBody([kind === 'post' ? toPost(id) : toEntry(id)], { kind: 'move', spot: { kind: 'at', wall } });
            const { problems } = await call(changeChosen, { params: { brand }, body });
            if (problems[0] !== undefined) throw new Error(problems[0]);
          }
        };
        if (given.kind === 'move' || given.kind === 'shift') undoing(words(answer.done), goBack);
        else toast('done', words(answer.done));
      }
    } catch (error) {
      toast('problem', problemOf(error, 'It could not be changed.'));
    }
    await refresh();
  };

  const move = (items: readonly Chosen[], spot: Spot, wall: string): Promise<void> => {
    showMoved(items, () => wall);
    return change(items, { kind: 'move', spot }, (count) => `${count === 1 ? 'Moved' : `${count} moved`} to ${wall.slice(0, 10)}, ${wall.slice(11)}.`);
  };

  const shift = (items: readonly Chosen[], days: number): Promise<void> => change(items, { kind: 'shift', days }, (count) => `${count === 1 ? 'Moved' : `${count} moved`} by ${Math.abs(days)} ${Math.abs(days) === 1 ? 'day' : 'days'}.`);

  const place = async (piece: { readonly id: string | null; readonly text?: string; readonly themeId?: string | null; readonly entryId?: string }, channelIds: readonly string[], spot: Spot, again = false): Promise<boolean> => {
    try {
      const made = await call(placePiece, { params: { brand }, body: { pieceId: piece.id, channelIds: [...channelIds], spot, again, ...(piece.text === undefined ? {} : { text: piece.text }), ...(piece.themeId === undefined ? {} : { themeId: piece.themeId }), ...(piece.entryId === undefined ? {} : { entryId: piece.entryId }) } as BodyOf<typeof placePiece> });
      const when = formatMoment(made.dueMs, zone);
      if (made.kind === 'draft') toast('problem', `It stands as a draft on ${when}, as it cannot go out yet: ${made.sentence ?? ''}`);
      else {
        const chosen = [...made.postIds.map(toPost), ...(made.entryId === null ? [] : [toEntry(made.entryId)])];
        undoing(made.kind === 'post' ? `Scheduled for ${when}.` : `Kept free for ${when}.`, async () => void (await call(changeChosen, { params: { brand }, body: changeBody(chosen, { kind: 'cancel' }) })));
      }
      await refresh();
      return true;
    } catch (error) {
      const isRepeat = error instanceof Error && 'code' in error && error.code === 'goes-out-again';
      if (isRepeat && !again) toast('problem', error.message, { label: 'Once more', run: () => void place(piece, channelIds, spot, true) });
      else toast('problem', problemOf(error, 'It could not be scheduled.'));
      await refresh();
      return false;
    }
  };

  /** The next open slot of a theme, on all of its channels that the piece has cuts for. */
  const placeInNextSlot = async (pieceId: string, themeId: string | null, channelIds: readonly string[]): Promise<void> => {
    try {
      const { slots } = await call(suggestMoments, { params: { brand }, body: { channelIds: [...channelIds], themeId } });
      const [next] = slots;
      if (!next) return toast('problem', 'The rota has no open slot for it in the coming 60 days.');
      await place({ id: pieceId }, next.channelIds, { kind: 'slot', slotKey: next.slotKey });
    } catch (error) {
      toast('problem', problemOf(error, 'It could not be scheduled.'));
    }
  };
  return { change, move, shift, place, placeInNextSlot, refresh };
}

export type PlanActions = ReturnType<typeof planActions>;

/** Gives each brand's actions. Ctrl and Z undoes the last one of all brands. */
export function usePlanActions(brands: readonly PlanBrand[]): (brand: string) => PlanActions {
  const client = useQueryClient();
  const [undoable] = useState(() => new UndoStack());
  const byBrand = useMemo(() => new Map(brands.map((brand) => [brand.slug, planActions(brand, client, undoable)])), [brands, client, undoable]);
  useEffect(() => {
    const listen = (event: KeyboardEvent): void => {
      const isTyping = event.target instanceof HTMLElement && event.target.closest('input, textarea, select, [contenteditable], [role="spinbutton"]') !== null;
      if (!isTyping && (event.ctrlKey || event.metaKey) && !event.shiftKey && event.key.toLowerCase() === 'z') {
        event.preventDefault();
        void undoable.undo();
      }
    };
    addEventListener('keydown', listen);
    return () => removeEventListener('keydown', listen);
  }, [undoable]);
  return useCallback((brand) => byBrand.get(brand) ?? ([...byBrand.values()][0] as PlanActions), [byBrand]);
}
