import type { ConnectorFor } from '../connectors/registry.ts';
import { deliveryPictureHandler } from '../derived/delivery-picture.ts';
import { pieceThumbnailHandler } from '../derived/piece-thumbnail.ts';
import { recordingCopyHandler } from '../derived/recording-copies.ts';
import { smallCopyHandler } from '../derived/small-copy.ts';
import { deliveryHandler } from '../dispatch/delivery-handler.ts';
import { aheadHandler } from '../dispatch/render-ahead.ts';
import { importPackageHandler, lookHandler } from '../exchange/import-package.ts';
import { importHandler } from '../imports/import-upload.ts';
import type { JobHandlers } from '../jobs/job-handler.ts';
import { ideasHandler } from '../ideas/gather-ideas.ts';
import { checkTableHandler } from '../ideas/tables/check-table.ts';
import { makeTableHandler } from '../ideas/tables/make-table.ts';
import { feedsHandler } from '../ideas/poll-feeds.ts';
import { linkCheckHandler } from '../links/check-links.ts';
import { outlinesHandler } from '../media/take-outlines.ts';
import { planHandler } from '../plan/make-real.ts';
import { answerHandler } from '../replies/answer-handler.ts';
import { reportsHandler } from '../reports/send-reports.ts';
import { collectChannelHandler, collectHandler } from '../results/collect-handler.ts';
import type { Services } from '../services.ts';
import { upkeepHandler } from '../upkeep/upkeep-handler.ts';
import { exportHandler } from '../video/export-handler.ts';

/** Every kind of work there is, by its name in the queue. */
export function workHandlers(services: Services, connectorFor?: ConnectorFor): JobHandlers {
  return {
    delivery: deliveryHandler(services, connectorFor),
    import: importHandler(services),
    'video-export': exportHandler(services),
    'small-copy': smallCopyHandler(services),
    'recording-copy': recordingCopyHandler(services),
    'piece-thumbnail': pieceThumbnailHandler(services),
    'delivery-picture': deliveryPictureHandler(services),
    ahead: aheadHandler(services),
    plan: planHandler(services),
    collect: collectHandler(services),
    'collect-channel': collectChannelHandler(services, connectorFor),
    'link-check': linkCheckHandler(services),
    reports: reportsHandler(services),
    answer: answerHandler(services, connectorFor),
    ideas: ideasHandler(services),
    feeds: feedsHandler(services),
    'table-check': checkTableHandler(services),
    'table-make': makeTableHandler(services),
    'package-look': lookHandler(services),
    'package-import': importPackageHandler(services),
    outlines: outlinesHandler(services),
    upkeep: upkeepHandler(services),
  };
}
