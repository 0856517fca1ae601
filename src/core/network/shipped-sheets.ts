import { networkSheetSchema, type NetworkSheet } from './network-sheet.ts';
import guildrow from './sheets/guildrow.json' with { type: 'json' };
import hearthside from './sheets/hearthside.json' with { type: 'json' };
import kerbside from './sheets/kerbside.json' with { type: 'json' };
import openweb from './sheets/openweb.json' with { type: 'json' };
import petalry from './sheets/petalry.json' with { type: 'json' };
import quipline from './sheets/quipline.json' with { type: 'json' };
import longhall from './sheets/longhall.json' with { type: 'json' };
import tackboard from './sheets/tackboard.json' with { type: 'json' };
import whirlo from './sheets/whirlo.json' with { type: 'json' };

/** The sheets that ship with the application, checked. */
export const shippedSheets: readonly NetworkSheet[] = [petalry, quipline, hearthside, guildrow, tackboard, kerbside, whirlo, longhall, openweb].map((sheet) =>
  networkSheetSchema.validateSync(sheet, { strict: true }),
);
