import * as contracts from '../../contract/link-contracts.ts';
import { daysBetween } from '../../core/time/day.ts';
import { findShortLink, keepCheck, listLinks, sumClicks } from '../db/short-link-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import { problemOf } from '../links/check-links.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';

const MAX_LINKS = 500;
const MAX_DAYS = 732;
const DAY_MS = 86_400_000;

const getLinks = defineEndpoint({
  contract: contracts.getLinks,
  may: 'see',
  async handle({ services, brand, query, request }) {
    const { db, settings } = services;
    if (query.until < query.from || daysBetween(query.from, query.until) > MAX_DAYS) throw new ProblemError(422, 'bad-period', `Choose a period of at most ${MAX_DAYS} days whose first day comes before its last.`);
    const origin = settings.origin ?? new URL(request.url).origin;
    const [links, byLink, days, sources, countries] = [await listLinks(db, brand.id, MAX_LINKS), await sumClicks(db, brand.id, { from: query.from, until: query.until }, 'link_clicks.code'), await sumClicks(db, brand.id, query, 'day'), await sumClicks(db, brand.id, query, 'source'), await sumClicks(db, brand.id, query, 'country')];
    const clicks = new Map(byLink.map((each) => [each.key, each]));
    return {
      links: links.map(({ code, target, label, createdMs, checkedMs, problem }) => ({ code, address: `${origin}/l/${code}`, target, label, createdMs, people: clicks.get(code)?.people ?? 0, bots: clicks.get(code)?.bots ?? 0, checkedMs, problem })),
      days: days.toSorted((a, b) => (a.key < b.key ? -1 : 1)),
      sources: sources.toSorted((a, b) => b.people - a.people),
      countries: countries.toSorted((a, b) => b.people - a.people),
    };
  },
});

const checkLink = defineEndpoint({
  contract: contracts.checkLink,
  may: 'make',
  async handle({ services, brand, params, nowMs }) {
    const link = await findShortLink(services.db, params.code);
    if (link?.brandId !== brand.id) throw notFound('link');
    const problem = await problemOf(services, link);
    await keepCheck(services.db, link.code, { checkedMs: nowMs, nextMs: nowMs + DAY_MS, problem });
    return { problem };
  },
});

export const linkEndpoints: readonly Endpoint[] = [getLinks, checkLink];
