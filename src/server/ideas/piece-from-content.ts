import { nanoid } from 'nanoid';
import { draftFrames, templatesFor, type Content } from '../../core/ideas/propose/draft.ts';
import { readPiece, type Piece } from '../../core/piece/piece.ts';
import type { Template } from '../../core/template/template.ts';
import type { Words } from '../../core/words/fields.ts';
import type { Brand } from '../db/brand-repository.ts';
import { ProblemError } from '../errors.ts';
import { beginPiece } from '../pieces/begin-piece.ts';
import { readPieceOr422 } from '../pieces/read-piece.ts';
import type { Services } from '../services.ts';

/** What a piece is made of that nobody has laid out yet. */
export interface BareContent {
  readonly content: Content;
  readonly pictures: readonly { readonly id: string; readonly altText: string }[];
  /** Null: the one that carries the content best. */
  readonly template: Template | null;
  readonly kinds?: readonly Template['kind'][];
  /** Of the shared row; what is missing or empty is what the brand’s voice sends along. */
  readonly words: Words;
  /** Of single channels. */
  readonly own?: Readonly<Record<string, Words>>;
  /** Cuts are made for these; empty: for all channels. */
  readonly channelIds: readonly string[];
  readonly title?: string;
}

/**
 * A piece of some content: template, frames, words, and cuts for the wanted channels.
 * @throws ProblemError 422 when no template carries it
 */
export async function pieceFromContent(services: Services, brand: Brand, templates: readonly Template[], { content, pictures, template, kinds = ['graphic', 'carousel'], words, own = {}, channelIds, title = '' }: BareContent): Promise<Piece> {
  const chosen = template ?? templatesFor(content, templates, kinds, pictures.length)[0];
  if (!chosen) throw new ProblemError(422, 'no-template', 'No template carries this. Give it a headline, or a picture.');
  const begun = await beginPiece(services, brand, chosen, []);
  const cuts = begun.cuts.filter(({ channelId }) => channelIds.length === 0 || channelIds.includes(channelId));
  const altText = words.altText ?? (chosen.kind === 'graphic' ? usualAltText(content, pictures) : '');
  const given = Object.fromEntries(Object.entries(words).filter(([, text]) => text.trim() !== ''));
  return readPieceOr422(() => readPiece({ ...begun, title, frames: draftFrames(chosen, content, pictures, () => nanoid(8)), cuts: cuts.length > 0 ? cuts : begun.cuts, words: { shared: { ...begun.words.shared, ...given, altText }, own } }));
}

/** What stands on the picture, and what is in it, for those who cannot see it. */
function usualAltText({ roles, points }: Content, pictures: readonly { readonly altText: string }[]): string {
  const words = [roles.number ?? roles.price, roles.headline, points.map(({ heading }) => heading).join(', '), roles.who].filter((part) => part !== undefined && part !== '').join('. ');
  return [words, pictures[0]?.altText ?? ''].filter((part) => part !== '').join('. ');
}
