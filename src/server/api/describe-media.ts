import type { MediaItem, MediaSummary } from '../db/media-repository.ts';

/** What lists say of an item. */
export function summarizeMedia(item: MediaSummary) {
  return {
    id: item.id,
    name: item.name,
    widthPx: item.widthPx,
    heightPx: item.heightPx,
    bytes: item.bytes,
    mime: item.mime,
    altText: item.altText,
    credit: item.terms.credit,
    licence: item.terms.licence,
    licenceUntil: item.terms.licenceUntil,
    tags: [...item.tags],
    sourceAddress: item.sourceAddress,
    archived: item.archivedMs !== null,
    focal: item.focal,
    focalBy: item.focalBy,
    recording: item.recording && { kind: item.recording.kind, durationMs: item.recording.durationMs, hasSound: item.recording.hasSound },
    revision: item.revision,
    createdMs: item.createdMs,
  };
}

/** The same with all that layout needs to know of it. */
export function describeMedia(item: MediaItem) {
  const { recording } = item;
  return {
    ...summarizeMedia({ ...item, focal: item.ownFocal ?? item.facts.focal, focalBy: item.ownFocal ? 'person' : 'proposal' }),
    facts: item.facts,
    recording: recording && { kind: recording.kind, durationMs: recording.durationMs, hasSound: recording.hasSound, facts: recording.facts, ...(recording.subject ? { subject: recording.subject } : {}) },
  };
}
