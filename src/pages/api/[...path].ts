import type { APIRoute } from 'astro';
import { answerApi } from '../../server/api/router.ts';

export const prerender = false;

export const ALL: APIRoute = ({ request, clientAddress }) => answerApi(request, clientAddress);
