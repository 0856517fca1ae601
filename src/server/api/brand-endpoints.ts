import * as contracts from '../../contract/brand-contracts.ts';
import { shippedTemplates } from '../../core/template/shipped-templates.ts';
import { listChannels, listSheetsOf } from '../db/brand-repository.ts';
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
      book: brand.book,
      channels: channels.map(({ id, name, handle, network }) => ({ id, name, handle, network })),
      sheets: [...(await listSheetsOf(services.db, brand.id))],
    };
  },
});

const listTemplates = defineEndpoint({ contract: contracts.listTemplates, may: 'see', handle: () => Promise.resolve({ templates: [...shippedTemplates] }) });

export const brandEndpoints: readonly Endpoint[] = [getBrand, listTemplates];
