import { array, boolean, number, object, string } from 'yup';
import type { NetworkSheet } from '../core/network/network-sheet.ts';
import { brandParams } from './brand-params.ts';
import { contract, documentOf } from './contract.ts';

const sheetDocument = () => documentOf<NetworkSheet>('A network sheet, as docs/network-sheets.md has it');

export const listNetworkSheets = contract({
  method: 'GET',
  path: '/api/brands/{brand}/network-sheets',
  summary: 'The network sheets that the brand works with: those that ship, as it has changed them, and its own',
  params: brandParams,
  answer: object({ sheets: array(object({ sheet: sheetDocument(), isChanged: boolean().required(), ships: boolean().required(), channels: number().integer().required() }).required()).required() }),
});

const failingSchema = object({
  postId: string().required(),
  pieceId: string().required(),
  pieceName: string().required(),
  channelName: string().required(),
  placementName: string().required(),
  dueMs: number().required(),
  sentence: string().required(),
});

export const changeNetworkSheet = contract({
  method: 'POST',
  path: '/api/brands/{brand}/network-sheets',
  summary: 'Change or add a network sheet; `keep: false` only says which scheduled posts would not pass it',
  params: brandParams,
  body: object({ sheet: sheetDocument(), keep: boolean().required() }).noUnknown(),
  answer: object({ isKept: boolean().required(), checked: number().integer().required(), scheduled: number().integer().required(), failing: array(failingSchema.required()).required() }),
});

export const removeNetworkSheet = contract({ method: 'DELETE', path: '/api/brands/{brand}/network-sheets/{network}', summary: 'Go back to the sheet that ships; a sheet of one’s own is removed, unless a channel uses it', params: brandParams.shape({ network: string().max(40).required() }) });
