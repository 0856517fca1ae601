import { produce, type Draft } from 'immer';
import type { FieldKey, Words } from '../words/fields.ts';
import type { Cover } from '../piece/cover.ts';
import { adjustCut, gatherSlides } from '../piece/adjust.ts';
import type { Piece } from '../piece/piece.ts';

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
  /** Ends subtitles no later than the video. */
  | { readonly kind: 'end-subtitles'; readonly atMs: number }
  /** Lengths and shots of one cut alone. */
  | { readonly kind: 'own-lengths'; readonly cut: string; readonly lengths: Readonly<Record<string, number>>; readonly without: readonly string[] }
  /** Writes a channel's own words, or the shared ones where `channelId` is null. */
  | { readonly kind: 'write-words'; readonly channelId: string | null; readonly field: FieldKey; readonly text: string }
  /** Writes several of a channel's own words at once. */
  | { readonly kind: 'write-row'; readonly channelId: string; readonly words: Words };

/** Writes a fix into a draft. Doing it twice changes nothing more. */
export function applyFix(draft: Draft<Piece>, fix: Fix): void {
  switch (fix.kind) {
    case 'hide-part':
      return adjustCut(draft, fix.cut, (adjustment) => void (adjustment.hidden = [...new Set([...(adjustment.hidden ?? []), fix.slot])]));
    case 'usual-size':
      return adjustCut(draft, fix.cut, (adjustment) => void delete adjustment.textStep);
    case 'zoom-out':
      return adjustCut(draft, fix.cut, (adjustment) => {
        const crop = adjustment.crops?.[fix.slot];
        if (crop) crop.zoom = 1;
      });
    case 'set-cover':
      draft.cover = fix.cover;
      return;
    case 'end-subtitles':
      for (const cue of draft.track?.subtitles ?? []) if (cue.fromMs < fix.atMs) cue.toMs = Math.min(cue.toMs, fix.atMs);
      return;
    case 'own-lengths':
      adjustCut(draft, fix.cut, (adjustment) => void (adjustment.withoutSlides = [...fix.without]));
      for (const [id, lengthMs] of Object.entries(fix.lengths)) adjustCut(draft, `${fix.cut}/${id}`, (adjustment) => void (adjustment.lengthMs = lengthMs));
      return;
    case 'gather':
      return gatherSlides(draft, fix.cut, true);
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
      const row: Draft<Words> = fix.channelId === null ? draft.words.shared : (draft.words.own[fix.channelId] ??= {});
      row[fix.field] = fix.text;
      return;
    }
    case 'write-row':
      Object.assign((draft.words.own[fix.channelId] ??= {}), fix.words);
      return;
  }
}

/** A piece with a fix written into it. */
export function fixed(piece: Piece, fix: Fix): Piece {
  return produce(piece, (draft: Draft<Piece>) => applyFix(draft, fix));
}
