import { nanoid } from 'nanoid';
import { beginFrames } from '../../core/piece/begin-frames.ts';
import { MAX_CUTS, readPiece, type Piece } from '../../core/piece/piece.ts';
import type { Template } from '../../core/template/template.ts';
import type { Brand } from '../db/brand-repository.ts';
import type { Services } from '../services.ts';
import { possibleCuts } from './check-references.ts';

/** A new piece of a template: a cut for every placement of the brand's channels, with what the brand's voice sends along. */
export async function beginPiece(services: Services, brand: Brand, template: Template, pictures: readonly { readonly id: string; readonly altText: string }[]): Promise<Piece> {
  return readPiece({
    version: 1,
    kind: template.kind,
    title: '',
    template: { key: template.key },
    frames: beginFrames(template, pictures, () => nanoid(8)),
    cuts: (await possibleCuts(services, brand, template.kind)).slice(0, MAX_CUTS),
    adjustments: {},
    words: { shared: { caption: '', altText: template.kind === 'graphic' ? (pictures[0]?.altText ?? '') : '', ...usualWords(brand) }, own: {} },
  });
}

/** What the brand's voice sends along with every new piece. */
function usualWords({ book: { voice } }: Brand): Partial<Piece['words']['shared']> {
  return { ...(voice.link === '' ? {} : { link: voice.link }), ...(voice.firstComment === '' ? {} : { firstComment: voice.firstComment }) };
}
