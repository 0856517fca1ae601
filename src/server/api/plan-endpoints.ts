import { readFile, rm } from 'node:fs/promises';
import { ValidationError } from 'yup';
import * as contracts from '../../contract/plan-contracts.ts';
import * as todayContracts from '../../contract/today-contracts.ts';
import { readPlan, SlotClashError, type Plan } from '../../core/plan/plan.ts';
import { deleteCampaign as removeCampaign, keepCampaign as writeCampaign, listCampaigns } from '../db/campaign-repository.ts';
import { listLabels } from '../db/piece-plan-repository.ts';
import { listChannels, type Brand } from '../db/brand-repository.ts';
import { getReminders, keepReminders as writeReminders, listNotices as noticesOf, readNotices as markRead } from '../db/notice-repository.ts';
import { listMembers } from '../db/people-repository.ts';
import { deletePlanView as removeView, keepPlanView as writeView, listPlanViews as viewsOf } from '../db/plan-view-repository.ts';
import { getPlan as readStoredPlan, savePlan, setFeed } from '../db/plan-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import { receiveUpload } from '../media/receive-upload.ts';
import { openFeed as newFeed } from '../plan/calendar-feed.ts';
import { campaignAnswer } from '../plan/campaign-answer.ts';
import { forecastFrom, readSources } from '../plan/brand-forecast.ts';
import { profileAnswer } from '../plan/profile-answer.ts';
import { describeLanes, lanesAnswer } from '../plan/lanes-answer.ts';
import { todayAnswer } from '../plan/today-answer.ts';
import { holidayCountries } from '../plan/public-days.ts';
import { MAX_CALENDAR_BYTES } from '../readers/read-calendar.ts';
import type { Services } from '../services.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';

const MAX_LABELS = 200;
const DAY_MS = 86_400_000;

const getPlan = defineEndpoint({
  contract: contracts.getPlan,
  may: 'see',
  async handle({ services, brand }) {
    const [{ plan, revision, heldSinceMs, hasFeed }, campaigns, labels, people] = await Promise.all([readStoredPlan(services.db, brand.id), listCampaigns(services.db, brand.id), listLabels(services.db, brand.id, MAX_LABELS), listMembers(services.db, brand.id)]);
    return { plan, revision, heldSinceMs, hasFeed, campaigns: campaigns.map((each) => ({ ...each })), labels: [...labels], people: people.map(({ id, name }) => ({ id, name })) };
  },
});

/** A plan whose channels are the brand's. @throws ProblemError 422 */
async function checkedPlan(services: Services, brand: Brand, json: unknown): Promise<Plan> {
  try {
    const plan = readPlan(json);
    const known = new Set((await listChannels(services.db, brand.id)).map(({ id }) => id));
    const named = [...plan.rota.rules.flatMap(({ channelIds }) => channelIds), ...plan.themes.flatMap(({ channelIds }) => channelIds ?? [])];
    if (named.some((id) => !known.has(id))) throw new ProblemError(422, 'unknown-channel', 'The plan names a channel that the brand does not have.');
    const themes = new Set(plan.themes.map(({ id }) => id));
    if (plan.rota.rules.some(({ themeId }) => themeId !== null && !themes.has(themeId))) throw new ProblemError(422, 'unknown-theme', 'A slot is for a theme that there is not. Choose another theme for it.');
    return plan;
  } catch (error) {
    if (error instanceof ValidationError) throw new ProblemError(422, 'not-valid', error.errors[0] ?? 'The plan is not valid.', { fields: [{ path: error.path ?? '', message: error.message }] });
    if (error instanceof SlotClashError) throw new ProblemError(422, error.code, error.message);
    throw error;
  }
}

const changePlan = defineEndpoint({
  contract: contracts.changePlan,
  may: 'send',
  async handle({ services, brand, body }) {
    const plan = await checkedPlan(services, brand, body.plan);
    const revision = await savePlan(services.db, brand.id, body.revision, plan, services.clock.machineNowMs());
    if (revision === null) {
      const current = await readStoredPlan(services.db, brand.id);
      throw new ProblemError(409, 'stale-revision', 'Somebody else has just changed the plan.', { current: { plan: current.plan, revision: current.revision } });
    }
    return { plan, revision };
  },
});

const getLanes = defineEndpoint({ contract: contracts.getLanes, may: 'see', handle: ({ services, brand, query, nowMs }) => lanesAnswer(services, brand, query, nowMs) });

const getWhatIf = defineEndpoint({
  contract: contracts.getWhatIf,
  may: 'see',
  async handle({ services, brand, body, nowMs }) {
    const plan = await checkedPlan(services, brand, body.plan);
    const untilMs = nowMs + body.days * DAY_MS;
    const sources = await readSources(services, brand, nowMs, untilMs);
    const lanesOf = (given: Plan) => describeLanes(sources, forecastFrom(sources, brand.zone, nowMs, untilMs, given));
    return { now: lanesOf(sources.plan), then: lanesOf(plan) };
  },
});

const keepCampaign = defineEndpoint({
  contract: contracts.keepCampaign,
  may: 'make',
  async handle({ services, brand, body }) {
    await writeCampaign(services.db, brand.id, body, services.clock.machineNowMs());
    return body;
  },
});

const deleteCampaign = defineEndpoint({
  contract: contracts.deleteCampaign,
  may: 'make',
  async handle({ services, brand, params }) {
    if (!(await removeCampaign(services.db, brand.id, params.campaign, services.clock.machineNowMs()))) throw notFound('campaign');
    return undefined;
  },
});

const getCampaign = defineEndpoint({ contract: contracts.getCampaign, may: 'see', handle: ({ services, brand, params }) => campaignAnswer(services, brand, params.campaign) });

const listPlanViews = defineEndpoint({ contract: contracts.listPlanViews, may: 'see', handle: async ({ services, brand, caller }) => ({ items: (await viewsOf(services.db, brand.id, caller.person.id)).map((each) => ({ ...each })) }) });

const keepPlanView = defineEndpoint({
  contract: contracts.keepPlanView,
  may: 'see',
  async handle({ services, brand, body, caller }) {
    if (!body.address.startsWith(`/b/${brand.slug}/plan/`)) throw new ProblemError(422, 'not-valid', 'A view is an address of this brand’s plan.');
    await writeView(services.db, brand.id, caller.person.id, body);
    return body;
  },
});

const deletePlanView = defineEndpoint({
  contract: contracts.deletePlanView,
  may: 'see',
  async handle({ services, brand, params, caller }) {
    if (!(await removeView(services.db, brand.id, caller.person.id, params.view))) throw notFound('view');
    return undefined;
  },
});

const getProfile = defineEndpoint({ contract: contracts.getProfile, may: 'see', handle: ({ services, brand, query, nowMs }) => profileAnswer(services, brand, query.channel, nowMs) });

const importDays = defineEndpoint({
  contract: contracts.importDays,
  may: 'send',
  async handle({ services, request }) {
    const received = await receiveUpload(request, services.media, () => MAX_CALENDAR_BYTES);
    try {
      const days = await services.readers.read({ kind: 'calendar', text: await readFile(received.path, 'utf8') });
      return { days: days.map((each) => ({ ...each })) };
    } finally {
      await rm(received.path, { force: true });
    }
  },
});

const listHolidayCountries = defineEndpoint({ contract: contracts.listHolidayCountries, may: 'signed-in', handle: async () => ({ items: (await holidayCountries()).map((each) => ({ ...each })) }) });

const openFeed = defineEndpoint({ contract: contracts.openFeed, may: 'send', handle: async ({ services, brand }) => ({ ...(await newFeed(services, brand)) }) });

const closeFeed = defineEndpoint({
  contract: contracts.closeFeed,
  may: 'send',
  async handle({ services, brand }) {
    await setFeed(services.db, brand.id, null);
    return undefined;
  },
});

const getToday = defineEndpoint({ contract: todayContracts.getToday, may: 'see', handle: ({ services, brand, caller, role, nowMs }) => todayAnswer(services, brand, { id: caller.person.id, role }, nowMs) });

const listNotices = defineEndpoint({
  contract: todayContracts.listNotices,
  may: 'see',
  async handle({ services, brand, caller }) {
    const [items, reminders] = await Promise.all([noticesOf(services.db, brand.id, caller.person.id), getReminders(services.db, brand.id, caller.person.id)]);
    return { items: items.map((each) => ({ ...each })), reminders, hasMail: services.settings.smtp !== null };
  },
});

const readNotices = defineEndpoint({
  contract: todayContracts.readNotices,
  may: 'see',
  async handle({ services, brand, caller, nowMs }) {
    await markRead(services.db, brand.id, caller.person.id, nowMs);
    return undefined;
  },
});

const keepReminders = defineEndpoint({
  contract: todayContracts.keepReminders,
  may: 'see',
  async handle({ services, brand, caller, body }) {
    await writeReminders(services.db, brand.id, caller.person.id, body);
    return body;
  },
});

export const planEndpoints: readonly Endpoint[] = [getToday, listNotices, readNotices, keepReminders, getPlan, changePlan, getLanes, getWhatIf, keepCampaign, deleteCampaign, getCampaign, listPlanViews, keepPlanView, deletePlanView, getProfile, importDays, listHolidayCountries, openFeed, closeFeed];
