import { ValidationError } from 'yup';
import * as contracts from '../../contract/network-contracts.ts';
import { networkSheetSchema, type NetworkSheet } from '../../core/network/network-sheet.ts';
import { shippedSheets } from '../../core/network/shipped-sheets.ts';
import { checkAgainstSheet } from '../brand/check-against-sheet.ts';
import { listChannels, listOwnSheets, listSheetsOf, removeOwnSheet, saveOwnSheet } from '../db/brand-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';
import { noteActOf } from './note-act.ts';

/** Sheets of one's own that a brand may have. */
const MAX_SHEETS = 60;

const listNetworkSheets = defineEndpoint({
  contract: contracts.listNetworkSheets,
  may: 'see',
  async handle({ services, brand }) {
    const [own, used, channels] = await Promise.all([listOwnSheets(services.db, brand.id), listSheetsOf(services.db, brand.id), listChannels(services.db, brand.id)]);
    const all = new Map([...shippedSheets, ...used].map((sheet) => [sheet.key, sheet]));
    for (const [key, sheet] of own) all.set(key, sheet);
    return { sheets: [...all.values()].map((sheet) => ({ sheet, isChanged: own.has(sheet.key), ships: shippedSheets.some(({ key }) => key === sheet.key), channels: channels.filter(({ network }) => network === sheet.key).length })) };
  },
});

/** @throws ProblemError 422 naming the first fault, with its place */
function readSheet(given: unknown): NetworkSheet {
  try {
    const sheet: NetworkSheet = networkSheetSchema.validateSync(given, { strict: true });
    const keys = sheet.placements.map(({ key }) => key);
    const twice = keys.find((key, index) => keys.indexOf(key) !== index);
    if (twice !== undefined) throw new ProblemError(422, 'not-valid', `The placement '${twice}' stands there twice.`);
    const unknown = [...(sheet.accounts ?? []).flatMap(({ placements }) => placements ?? []), ...sheet.words.fields.flatMap(({ placements }) => placements ?? [])].find((key) => !keys.includes(key ?? ''));
    if (unknown !== undefined) throw new ProblemError(422, 'not-valid', `There is no placement '${unknown}' that an account or a field could name.`);
    return sheet;
  } catch (error) {
    if (error instanceof ValidationError) throw new ProblemError(422, 'not-valid', `${error.path ?? 'The sheet'}: ${error.message}`);
    throw error;
  }
}

const changeNetworkSheet = defineEndpoint({
  contract: contracts.changeNetworkSheet,
  may: 'brand',
  async handle(context) {
    const { services, brand, body } = context;
    const sheet = readSheet(body.sheet);
    const own = await listOwnSheets(services.db, brand.id);
    if (!own.has(sheet.key) && own.size >= MAX_SHEETS) throw new ProblemError(409, 'too-many', `A brand takes ${MAX_SHEETS} network sheets of its own.`);
    const { checked, scheduled, failing } = await checkAgainstSheet(services, brand, sheet);
    if (body.keep) {
      await saveOwnSheet(services.db, brand.id, sheet);
      await noteActOf(context, 'network', sheet.key, `Changed the network sheet of ${sheet.name}`);
    }
    return { isKept: body.keep, checked, scheduled, failing: failing.map(({ delivery, channelName, sentence }) => ({ postId: delivery.postId, pieceId: delivery.pieceId, pieceName: delivery.pieceName, channelName, placementName: delivery.placementName, dueMs: delivery.dueMs, sentence })) };
  },
});

const removeNetworkSheet = defineEndpoint({
  contract: contracts.removeNetworkSheet,
  may: 'brand',
  async handle(context) {
    const { services, brand, params } = context;
    const ships = shippedSheets.some(({ key }) => key === params.network);
    const isUsed = (await listChannels(services.db, brand.id)).some(({ network }) => network === params.network);
    if (!ships && isUsed) throw new ProblemError(409, 'in-use', 'A channel uses this network sheet. Disconnect the channel first.');
    if (!(await removeOwnSheet(services.db, brand.id, params.network))) throw notFound('network sheet');
    await noteActOf(context, 'network', params.network, ships ? 'Went back to the network sheet that ships' : 'Removed a network sheet');
    return undefined;
  },
});

export const networkEndpoints: readonly Endpoint[] = [listNetworkSheets, changeNetworkSheet, removeNetworkSheet];
