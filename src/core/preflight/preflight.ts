import { DateTime } from 'luxon';
import type { BrandBook } from '../brand/brand-book.ts';
import type { Piece } from '../piece/piece.ts';
import type { Template } from '../template/template.ts';
import { carouselFindings } from './carousel-findings.ts';
import type { CutToCheck, Finding, PictureTerms } from './finding.ts';
import { lookFindings, sharedLookFindings } from './look-findings.ts';
import { softPictures } from './soft-pictures.ts';
import { videoFindings } from './video-findings.ts';
import { wordFindings } from './word-findings.ts';

export interface PreflightInput {
  readonly piece: Piece;
  readonly template: Template;
  readonly book: BrandBook;
  readonly cuts: readonly CutToCheck[];
  /** The pictures that the piece shows. */
  readonly pictures: readonly PictureTerms[];
  /** When it would go out. */
  readonly atMs: number;
  readonly zone: string;
}

/** A licence that ends within this time is worth a word before it does. */
const LICENCE_NOTICE_DAYS = 45;

/** All findings of a piece for some of its cuts: the look of all, of each, the pictures' licences, then the words of each channel. */
export function preflight(input: PreflightInput): readonly Finding[] {
  const { piece, template, book, cuts } = input;
  const channels = new Map(cuts.map((cut) => [cut.ref.channelId, cut]));
  return [
    ...carouselFindings(piece, template, cuts, input.pictures),
    ...sharedLookFindings(piece, template, book, cuts),
    ...cuts.flatMap((cut) => lookFindings(piece, template, cut)),
    ...softPictures(piece, template, cuts),
    ...videoFindings(piece, cuts, input.pictures),
    ...licenceFindings(input),
    ...[...channels.values()].flatMap((cut) => wordFindings(piece, book, input.pictures, cut)),
  ];
}

function licenceFindings({ pictures, atMs, zone }: PreflightInput): readonly Finding[] {
  const at = DateTime.fromMillis(atMs, { zone });
  return pictures.flatMap(({ name, licenceUntil }): Finding[] => {
    if (licenceUntil === null) return [];
    const until = DateTime.fromISO(licenceUntil, { zone }).endOf('day');
    const day = until.toFormat('d LLLL yyyy', { locale: 'en-GB' });
    if (until < at) return [{ severity: 'stops', sentence: `The licence of “${name}” ended on ${day}.`, cut: null, view: 'media', fix: null }];
    if (until < at.plus({ days: LICENCE_NOTICE_DAYS })) return [{ severity: 'warns', sentence: `The licence of “${name}” ends on ${day}: no post may show it after that.`, cut: null, view: 'media', fix: null }];
    return [];
  });
}
