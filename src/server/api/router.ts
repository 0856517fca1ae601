import { nanoid } from 'nanoid';
import { findCaller } from '../auth/caller.ts';
import { ProblemError, storageProblem } from '../errors.ts';
import { webServices, type Services } from '../services.ts';
import { accountEndpoints } from './account-endpoints.ts';
import { archiveEndpoints } from './archive-endpoints.ts';
import { comparisonEndpoints } from './comparison-endpoints.ts';
import { channelEndpoints } from './channel-endpoints.ts';
import { networkEndpoints } from './network-endpoints.ts';
import { outboxEndpoints } from './outbox-endpoints.ts';
import { reportEndpoints } from './report-endpoints.ts';
import { beginEndpoints } from './begin-endpoints.ts';
import { tableEndpoints } from './table-endpoints.ts';
import { ideaEndpoints } from './idea-endpoints.ts';
import { replyEndpoints } from './reply-endpoints.ts';
import { resultsEndpoints } from './results-endpoints.ts';
import { reviewEndpoints } from './review-endpoints.ts';
import { brandEndpoints } from './brand-endpoints.ts';
import type { Endpoint } from './define-endpoint.ts';
import { exchangeEndpoints } from './exchange-endpoints.ts';
import { eventEndpoints } from './event-endpoints.ts';
import { exportEndpoints } from './export-endpoints.ts';
import { wordEndpoints } from './word-endpoints.ts';
import { videoEndpoints } from './video-endpoints.ts';
import { mediaEndpoints } from './media-endpoints.ts';
import { linkEndpoints } from './link-endpoints.ts';
import { openApiDocument } from './openapi.ts';
import { pieceEndpoints } from './piece-endpoints.ts';
import { piecePlanEndpoints } from './piece-plan-endpoints.ts';
import { planChangeEndpoints } from './plan-change-endpoints.ts';
import { planEndpoints } from './plan-endpoints.ts';
import { sendEndpoints } from './send-endpoints.ts';
import { templateEndpoints } from './template-endpoints.ts';
import { uploadEndpoints } from './upload-endpoints.ts';

/** Every endpoint there is; what is not in this list does not exist and is not in the OpenAPI document. */
export const endpoints: readonly Endpoint[] = [...accountEndpoints, ...brandEndpoints, ...templateEndpoints, ...mediaEndpoints, ...uploadEndpoints, ...pieceEndpoints, ...wordEndpoints, ...exportEndpoints, ...videoEndpoints, ...planEndpoints, ...planChangeEndpoints, ...piecePlanEndpoints, ...channelEndpoints, ...networkEndpoints, ...reviewEndpoints, ...outboxEndpoints, ...resultsEndpoints, ...replyEndpoints, ...linkEndpoints, ...reportEndpoints, ...archiveEndpoints, ...comparisonEndpoints, ...ideaEndpoints, ...tableEndpoints, ...beginEndpoints, ...sendEndpoints, ...exchangeEndpoints, ...eventEndpoints];

const routes = endpoints.map((endpoint) => ({
  endpoint,
  pattern: new RegExp(`^${endpoint.contract.path.replace(/\{(\w+)\}/g, '(?<$1>[^/]+)')}$`),
}));

/** What is too large has not been read to its end, so its connection can carry nothing more. */
const UNREAD = { connection: 'close' };

/** Answers an API request; whatever goes wrong comes back as `application/problem+json`. */
export async function answerApi(request: Request, clientAddress: string): Promise<Response> {
  let services: Services | null = null;
  try {
    services = await webServices();
    return await route(request, clientAddress, services);
  } catch (error) {
    const trouble = storageProblem(error);
    if (trouble) services?.log.error({ err: error, path: new URL(request.url).pathname }, 'trouble with disk or database');
    return problemResponse(trouble ?? error, services, request);
  }
}

async function route(request: Request, clientAddress: string, services: Services): Promise<Response> {
  const { pathname } = new URL(request.url);
  if (pathname === '/api/openapi.json') {
    if (!(await findCaller(services, request.headers))) throw new ProblemError(401, 'sign-in-needed', 'Sign in first.');
    return Response.json(openApiDocument(endpoints));
  }
  const matching = routes.flatMap(({ endpoint, pattern }) => {
    const match = pattern.exec(pathname);
    return match ? [{ endpoint, path: match.groups ?? {} }] : [];
  });
  const found = matching.find(({ endpoint }) => endpoint.contract.method === request.method);
  if (found) return found.endpoint.handle(request, decoded(found.path), services, clientAddress);
  if (matching.length === 0) throw new ProblemError(404, 'not-found', 'There is no such address.');
  return new Response(null, { status: 405, headers: { allow: matching.map(({ endpoint }) => endpoint.contract.method).join(', ') } });
}

function decoded(path: Readonly<Record<string, string>>): Record<string, string> {
  try {
    return Object.fromEntries(Object.entries(path).map(([name, value]) => [name, decodeURIComponent(value)]));
  } catch {
    throw new ProblemError(404, 'not-found', 'There is no such address.');
  }
}

function problemResponse(error: unknown, services: Services | null, request: Request): Response {
  if (error instanceof ProblemError) {
    const retryAfter = error.details['retryAfterSeconds'];
    return new Response(JSON.stringify({ title: error.sentence, status: error.status, code: error.code, ...error.details }), {
      status: error.status,
      headers: { 'content-type': 'application/problem+json', 'cache-control': 'no-store', ...(typeof retryAfter === 'number' ? { 'retry-after': String(retryAfter) } : {}), ...(error.status === 413 ? UNREAD : {}) },
    });
  }
  const requestId = nanoid(10);
  services?.log.error({ err: error, requestId, method: request.method, path: new URL(request.url).pathname }, 'a request failed');
  return new Response(JSON.stringify({ title: `Something went wrong on our side. Nothing was changed. Try again; if it happens again, name the number ${requestId}.`, status: 500, code: 'internal', requestId }), {
    status: 500,
    headers: { 'content-type': 'application/problem+json', 'cache-control': 'no-store' },
  });
}
