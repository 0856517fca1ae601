import { ValidationError } from 'yup';
import * as contracts from '../../contract/template-contracts.ts';
import { keyFrom } from '../../core/brand/exchange/draft-book.ts';
import { shippedTemplates } from '../../core/template/shipped-templates.ts';
import { readTemplate, type Template } from '../../core/template/template.ts';
import type { Brand } from '../db/brand-repository.ts';
import { archiveTemplate, findOwnTemplate, findTemplate, insertTemplate, listTemplates as listSummaries, saveTemplate, type OwnTemplate } from '../db/template-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import type { Services } from '../services.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';

async function getOwn(services: Services, brand: Brand, key: string): Promise<OwnTemplate> {
  const found = await findOwnTemplate(services.db, brand.id, key);
  if (!found) throw notFound('template');
  return found;
}

/** A document as it may be kept. @throws ProblemError 422 naming the first fault */
function readDocument(given: unknown): Template {
  try {
    return readTemplate(given);
  } catch (error) {
    if (error instanceof ValidationError || error instanceof RangeError) throw new ProblemError(422, 'not-valid', error.message);
    throw error;
  }
}

const listTemplates = defineEndpoint({
  contract: contracts.listTemplates,
  may: 'see',
  handle: async ({ services, brand }) => ({ items: (await listSummaries(services.db, brand.id)).map((each) => ({ ...each, wants: [...each.wants] })) }),
});

const getOwnTemplate = defineEndpoint({ contract: contracts.getOwnTemplate, may: 'see', handle: ({ services, brand, params }) => getOwn(services, brand, params.template) });

const createTemplate = defineEndpoint({
  contract: contracts.createTemplate,
  may: 'brand',
  async handle({ services, brand, body, nowMs }) {
    const document = readDocument(body.document);
    const base = keyFrom(document.name, 'template');
    const isShipped = (key: string): boolean => shippedTemplates.some((each) => each.key === key);
    for (let count = 1; ; count += 1) {
      const key = count === 1 ? base : `${base}-${count}`;
      if (!isShipped(key) && (await insertTemplate(services.db, brand.id, { ...document, key }, nowMs))) return getOwn(services, brand, key);
    }
  },
});

const changeTemplate = defineEndpoint({
  contract: contracts.changeTemplate,
  may: 'brand',
  async handle({ services, brand, params, body, nowMs }) {
    const current = await getOwn(services, brand, params.template);
    const document = { ...readDocument(body.document), key: params.template };
    const saved = await saveTemplate(services.db, brand.id, body.revision, document, nowMs);
    if (!saved) throw new ProblemError(409, 'stale-revision', 'Somebody else has just changed this template.', { current });
    return saved;
  },
});

const archive = defineEndpoint({
  contract: contracts.archiveTemplate,
  may: 'brand',
  async handle({ services, brand, params, body, nowMs }) {
    await getOwn(services, brand, params.template);
    await archiveTemplate(services.db, brand.id, params.template, body.archived ? nowMs : null);
    return getOwn(services, brand, params.template);
  },
});

const getTemplateDocument = defineEndpoint({
  contract: contracts.getTemplateDocument,
  may: 'see',
  async handle({ services, brand, params }) {
    const document = await findTemplate(services.db, brand.id, params.template);
    if (!document) throw notFound('template');
    return { document };
  },
});

export const templateEndpoints: readonly Endpoint[] = [listTemplates, getTemplateDocument, getOwnTemplate, createTemplate, changeTemplate, archive];
