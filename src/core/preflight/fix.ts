import type { FieldKey, Words } from '../words/fields.ts';
import type { Cover } from '../piece/cover.ts';
import type { Adjustment } from '../piece/adjustment.ts';
import type { Piece, SlotValue } from '../piece/piece.ts';

/** A change that mends a finding, as a value. */
export type Fix =
  /** Leaves a slot's part out of one cut. */
  | { readonly kind: 'hide-part'; readonly cut: string; readonly slot: string }
  /** Sets the text of one cut at its usual size again. */
  | { readonly kind: 'usual-size'; readonly cut: string }
  /** Shows as much of a picture as covers its place in one cut. */
  | { readonly kind: 'zoom-out'; readonly cut: string; readonly slot: string }
  /** Gathers all slides in the one picture that a place takes. */
  | { readonly kind: 'gather'; readonly cut: string }
  | { readonly kind: 'write-slot'; readonly frame: string; readonly slot: string; readonly text: string }
  | { readonly kind: 'empty-slot'; readonly frame: string; readonly slot: string }
  /** Writes what somebody who cannot see a slide should know. */
  | { readonly kind: 'write-slide-alt'; readonly frame: string; readonly text: string }
  /** Chooses what stands for a video. */
  | { readonly kind: 'set-cover'; readonly cover: Cover }
  /** Lengths and shots of one cut alone. */
  | { readonly kind: 'own-lengths'; readonly cut: string; readonly lengths: Readonly<Record<string, number>>; readonly without: readonly string[] }
  /** Writes a channel's own words, or the shared ones where `channelId` is null. */
  | { readonly kind: 'write-words'; readonly channelId: string | null; readonly field: FieldKey; readonly text: string };

/** A piece whose parts may be written to; what editors keep drafts of. */
export interface PieceDraft {
  frames: { id: string; altText?: string | undefined; slots: Record<string, SlotValue> }[];
  cover?: Cover | undefined;
  adjustments: Record<string, Adjustment>;
  words: { shared: Words; own: Record<string, Words> };
}

type Mutable<Shape> = { -readonly [Key in keyof Shape]: Shape[Key] };

/** Writes a fix into a draft. Doing it twice changes nothing more. */
export function applyFix(draft: PieceDraft, fix: Fix): void {
  switch (fix.kind) {
    case 'hide-part': {
      const before = draft.adjustments[fix.cut] ?? {};
      draft.adjustments[fix.cut] = { ...before, hidden: [...new Set([...(before.hidden ?? []), fix.slot])] };
      return;
    }
    case 'usual-size': {
      const { textStep: _, ...rest } = draft.adjustments[fix.cut] ?? {};
      draft.adjustments[fix.cut] = rest;
      return;
    }
    case 'zoom-out': {
      const before = draft.adjustments[fix.cut] ?? {};
      const crop = before.crops?.[fix.slot];
      if (crop) draft.adjustments[fix.cut] = { ...before, crops: { ...before.crops, [fix.slot]: { ...crop, zoom: 1 } } };
      return;
    }
    case 'set-cover':
      draft.cover = fix.cover;
      return;
    case 'own-lengths':
      draft.adjustments[fix.cut] = { ...draft.adjustments[fix.cut], withoutSlides: [...fix.without] };
      for (const [id, lengthMs] of Object.entries(fix.lengths)) draft.adjustments[`${fix.cut}/${id}`] = { ...draft.adjustments[`${fix.cut}/${id}`], lengthMs };
      return;
    case 'gather':
      draft.adjustments[fix.cut] = { ...draft.adjustments[fix.cut], gathered: true };
      return;
    case 'write-slot': {
      const frame = draft.frames.find(({ id }) => id === fix.frame);
      if (frame) frame.slots[fix.slot] = { kind: 'text', text: fix.text };
      return;
    }
    case 'empty-slot':
      delete draft.frames.find(({ id }) => id === fix.frame)?.slots[fix.slot];
      return;
    case 'write-slide-alt': {
      const frame = draft.frames.find(({ id }) => id === fix.frame);
      if (frame) frame.altText = fix.text;
      return;
    }
    case 'write-words': {
      const row: Mutable<Words> = fix.channelId === null ? draft.words.shared : (draft.words.own[fix.channelId] ??= {});
      row[fix.field] = fix.text;
      return;
    }
  }
}

/** A piece with a fix written into it. */
export function fixed(piece: Piece, fix: Fix): Piece {
  const copy = structuredClone(piece);
  applyFix(copy as unknown as PieceDraft, fix);
  return copy;
}
