import { ValidationError } from 'yup';
import * as contracts from '../../contract/brand-contracts.ts';
import { BrandBookError, brandBookSchema, resolveScheme, type BrandBook } from '../../core/brand/brand-book.ts';
import { getShelfFont } from '../../core/text/font-shelf.ts';
import { shippedTemplates } from '../../core/template/shipped-templates.ts';
import { listChannels, listSheetsOf, saveBook } from '../db/brand-repository.ts';
import { ProblemError } from '../errors.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';

const getBrand = defineEndpoint({
  contract: contracts.getBrand,
  may: 'see',
  async handle({ services, brand }) {
    const channels = await listChannels(services.db, brand.id);
    return {
      slug: brand.slug,
      name: brand.name,
      zone: brand.zone,
      revision: brand.revision,
      book: brand.book,
      channels: channels.map(({ id, name, handle, network }) => ({ id, name, handle, network })),
      sheets: [...(await listSheetsOf(services.db, brand.id))],
    };
  },
});

/** A book as it may be kept: by its schema, with every colour that a scheme names. */
function readBook(given: unknown): BrandBook {
  try {
    const book = brandBookSchema.validateSync(given, { strict: true });
    for (const scheme of book.schemes) resolveScheme(book, scheme.key);
    for (const role of Object.values(book.type)) getShelfFont(role.font);
    return book;
  } catch (error) {
    if (error instanceof ValidationError || error instanceof BrandBookError || error instanceof RangeError) throw new ProblemError(422, 'not-valid', error.message);
    throw error;
  }
}

const changeBook = defineEndpoint({
  contract: contracts.changeBook,
  may: 'brand',
  async handle({ services, brand, body }) {
    const saved = await saveBook(services.db, brand.id, body.revision, readBook(body.book));
    if (!saved) throw new ProblemError(409, 'stale-revision', 'Somebody else has just changed the brand book.', { current: { revision: brand.revision, book: brand.book } });
    return { revision: saved.revision, book: saved.book };
  },
});

const listTemplates = defineEndpoint({ contract: contracts.listTemplates, may: 'see', handle: () => Promise.resolve({ templates: [...shippedTemplates] }) });

export const brandEndpoints: readonly Endpoint[] = [getBrand, changeBook, listTemplates];
