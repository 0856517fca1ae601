import * as contracts from '../../contract/results-contracts.ts';
import { daysBetween } from '../../core/time/day.ts';
import { levelName } from '../../core/results/features.ts';
import { listChannelsEver, listSheetsOf, type Brand } from '../db/brand-repository.ts';
import { listCampaigns } from '../db/campaign-repository.ts';
import { listAudiences, listDays } from '../db/collection-repository.ts';
import { keepLearnSettings, readLearnSettings } from '../db/learn-settings-repository.ts';
import { listLabels } from '../db/piece-plan-repository.ts';
import { listMembers } from '../db/people-repository.ts';
import { getPlan as readStoredPlan } from '../db/plan-repository.ts';
import { findPublication } from '../db/publication-repository.ts';
import { countPublications, listFacets, pagePublications, type ResultsFilter } from '../db/results-repository.ts';
import { listTemplates } from '../db/template-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import { momentsOf, overviewOf, periodsOf } from '../results/overview.ts';
import { postDetail } from '../results/post-detail.ts';
import { postRows } from '../results/post-rows.ts';
import { worksOf, WORKS_HOURS } from '../results/works.ts';
import type { Services } from '../services.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';
import { noteActOf } from './note-act.ts';

/** A period of results is at most two years long. */
const MAX_DAYS = 732;
const PAGE = 50;
const MAX_LABELS = 200;

type Query = { readonly from: string; readonly until: string; readonly channels?: string | undefined; readonly theme?: string | undefined; readonly campaign?: string | undefined; readonly label?: string | undefined; readonly format?: string | undefined; readonly template?: string | undefined; readonly person?: string | undefined; readonly outside?: string | undefined };

/** @throws ProblemError 422 for a period that is none */
function filterOf(query: Query, zone: string): ResultsFilter {
  const days = daysBetween(query.from, query.until) + 1;
  if (days < 1 || days > MAX_DAYS) throw new ProblemError(422, 'bad-period', `Choose a period of at most ${MAX_DAYS} days whose first day comes before its last.`);
  const channels = (query.channels ?? '').split(',').filter((each) => each !== '');
  return { ...momentsOf(query.from, query.until, zone), channelIds: channels.length === 0 ? undefined : channels, themeId: query.theme, campaignId: query.campaign, label: query.label, format: query.format, templateKey: query.template, personId: query.person, outside: query.outside === 'yes' };
}

/** Names of themes and templates, by their keys. */
async function namesOf({ db }: Pick<Services, 'db'>, brand: Brand): Promise<ReadonlyMap<string, string>> {
  const [{ plan }, templates] = [await readStoredPlan(db, brand.id), await listTemplates(db, brand.id)];
  return new Map([...templates.map(({ key, name }): [string, string] => [key, name]), ...plan.themes.map(({ id, name }): [string, string] => [id, name])]);
}

const getOverview = defineEndpoint({
  contract: contracts.getOverview,
  may: 'see',
  async handle({ services, brand, query }) {
    const { fromMs: _, untilMs: __, ...filter } = filterOf(query, brand.zone);
    const { rateBase } = await readLearnSettings(services.db, brand.id);
    return overviewOf(services, brand, periodsOf(query.from, query.until, query.beside ?? 'before'), filter, rateBase);
  },
});

const listResults = defineEndpoint({
  contract: contracts.listResults,
  may: 'see',
  async handle({ services, brand, query }) {
    const { db } = services;
    const filter = filterOf(query, brand.zone);
    const { rateBase } = await readLearnSettings(db, brand.id);
    const page = await pagePublications(db, brand.id, filter, { sort: query.sort ?? 'rate', descending: query.order !== 'up', base: rateBase, offset: query.offset ?? 0, limit: query.limit ?? PAGE });
    return { posts: await postRows(db, brand.id, page, rateBase), count: await countPublications(db, brand.id, filter), rateBase };
  },
});

const getResult = defineEndpoint({
  contract: contracts.getResult,
  may: 'see',
  async handle({ services, brand, params, nowMs }) {
    const publication = await findPublication(services.db, brand.id, params.publication);
    if (!publication) throw notFound('post');
    const { rateBase } = await readLearnSettings(services.db, brand.id);
    return postDetail(services, brand, publication, rateBase, await namesOf(services, brand), nowMs);
  },
});

const getWhatWorks = defineEndpoint({
  contract: contracts.getWhatWorks,
  may: 'see',
  async handle({ services, brand, query, nowMs }) {
    const { rateBase } = await readLearnSettings(services.db, brand.id);
    const { outcomes, works, hours } = await worksOf(services, brand, rateBase, filterOf(query, brand.zone), nowMs);
    const names = await namesOf(services, brand);
    const { plan } = await readStoredPlan(services.db, brand.id);
    const slots = plan.rota.rules.flatMap(({ themeId, channelIds }) => (themeId === null ? [] : channelIds.map(() => themeId)));
    const themes = [...new Set(slots)].map((themeId) => ({ themeId, planned: slots.filter((each) => each === themeId).length / plan.rota.weeks, share: slots.filter((each) => each === themeId).length / slots.length }));
    return { posts: outcomes.length, hoursCompared: WORKS_HOURS, effects: works.effects.map((effect) => ({ ...effect, name: levelName(effect.family, effect.level, names) })), hours: [...hours], themes };
  },
});

const getAudience = defineEndpoint({
  contract: contracts.getAudience,
  may: 'see',
  async handle({ services, brand }) {
    const { db } = services;
    const collections = await listAudiences(db, brand.id);
    const known = collections.flatMap(({ channelId, audience }) => (audience === null ? [] : [{ channelId, audience }]));
    const followers = await listDays(db, known.map(({ channelId }) => channelId), '0000-00-00', '9999-99-99');
    const latest = new Map(followers.flatMap(({ channelId, metric, value }) => (metric === 'followers' ? [[channelId, value] as const] : [])));
    return { accounts: known.map(({ channelId, audience }) => ({ channelId, followers: latest.get(channelId) ?? null, ...audience })), tooFew: collections.flatMap(({ channelId, audience }) => (audience === null ? [channelId] : [])) };
  },
});

const getSettings = defineEndpoint({ contract: contracts.getLearnSettings, may: 'see', handle: async ({ services, brand }) => ({ ...(await readLearnSettings(services.db, brand.id)), heldWords: [...(await readLearnSettings(services.db, brand.id)).heldWords] }) });

const keepSettings = defineEndpoint({
  contract: contracts.keepLearnSettings,
  may: 'brand',
  async handle(context) {
    const { services, brand, body } = context;
    await keepLearnSettings(services.db, brand.id, body);
    await noteActOf(context, 'settings', brand.id, `Engagement is measured by ${body.rateBase}; people wait at most ${body.answerWithinHours} h for an answer; ${body.heldWords.length} words hold messages back`);
    return body;
  },
});

const getFacets = defineEndpoint({
  contract: contracts.getFacets,
  may: 'see',
  async handle({ services, brand }) {
    const { db } = services;
    const [channels, sheets, { plan }, campaigns, labels, facets, templates, people] = [await listChannelsEver(db, brand.id), await listSheetsOf(db, brand.id), await readStoredPlan(db, brand.id), await listCampaigns(db, brand.id), await listLabels(db, brand.id, MAX_LABELS), await listFacets(db, brand.id), await listTemplates(db, brand.id), await listMembers(db, brand.id)];
    return {
      channels: channels.map(({ id, name, handle, network, removedMs }) => {
        const sheet = sheets.find(({ key }) => key === network);
        return { id, name, handle, network, networkName: sheet?.name ?? network, badge: sheet?.badge ?? null, isConnected: removedMs === null };
      }),
      themes: plan.themes.map(({ id, name, letter, tone }) => ({ id, name, letter, tone })),
      campaigns: campaigns.map(({ id, name }) => ({ id, name })),
      labels: [...labels],
      formats: [...facets.formats],
      templates: facets.templates.map((key) => ({ key, name: templates.find((each) => each.key === key)?.name ?? key })),
      people: people.map(({ id, name }) => ({ id, name })),
    };
  },
});

export const resultsEndpoints: readonly Endpoint[] = [getOverview, listResults, getResult, getWhatWorks, getAudience, getSettings, keepSettings, getFacets];
