import type { AnswerOf } from '../../contract/contract.ts';
import type { getCampaign } from '../../contract/plan-contracts.ts';
import { addDays } from '../../core/time/day.ts';
import { seriesClock } from '../../core/time/series-clock.ts';
import { listCampaigns } from '../db/campaign-repository.ts';
import type { Brand } from '../db/brand-repository.ts';
import { listOutings } from '../db/outing-repository.ts';
import { listCampaignPieces } from '../db/piece-plan-repository.ts';
import { listPlanEntries } from '../db/plan-entry-repository.ts';
import { notFound } from '../errors.ts';
import type { Services } from '../services.ts';
import { describeEntry, describeOuting } from './lanes-answer.ts';

const MAX_OUTINGS = 2_000;
/** What belongs to a campaign may go out a while before it begins and after it ends. */
const AROUND_DAYS = 60;

/** A campaign with what of it is out, planned and missing. @throws ProblemError 404 */
export async function campaignAnswer({ db }: Pick<Services, 'db'>, brand: Brand, id: string): Promise<AnswerOf<typeof getCampaign>> {
  const campaign = (await listCampaigns(db, brand.id)).find((each) => each.id === id);
  if (!campaign) throw notFound('campaign');
  const clock = seriesClock(brand.zone);
  const range = { fromMs: clock(addDays(campaign.fromDay, -AROUND_DAYS), '00:00').atMs, toMs: clock(addDays(campaign.untilDay, AROUND_DAYS), '00:00').atMs, limit: MAX_OUTINGS };
  const outings = await listOutings(db, brand.id, { ...range, campaignId: id });
  const entries = (await listPlanEntries(db, brand.id, range)).filter(({ campaignId }) => campaignId === id);
  const pieces = await listCampaignPieces(db, brand.id, id);
  const planned = new Set([...outings, ...entries].map(({ pieceId }) => pieceId));
  return { outings: outings.map(describeOuting), entries: entries.map(describeEntry), pieces: pieces.map((piece) => ({ ...piece, isPlanned: planned.has(piece.id) })) };
}
