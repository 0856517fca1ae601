import { array, number, object, string } from 'yup';
import { brandParams } from './brand-params.ts';
import { contract } from './contract.ts';
import { day } from './plan-fields.ts';

const summed = () => array(object({ key: string().defined(), people: number().required(), bots: number().required() }).required()).required();

export const getLinks = contract({
  method: 'GET',
  path: '/api/brands/{brand}/links',
  summary: 'Short links of the brand with their clicks in a period: by day, source and country, bots apart; and which of them lead nowhere',
  params: brandParams,
  query: object({ from: day(), until: day(), code: string().matches(/^[a-z0-9]{4,20}$/) }),
  answer: object({
    links: array(object({ code: string().required(), address: string().required(), target: string().required(), label: string().defined(), createdMs: number().required(), people: number().required(), bots: number().required(), checkedMs: number().nullable().defined(), problem: string().nullable().defined() }).required()).required(),
    days: summed(),
    sources: summed(),
    countries: summed(),
  }),
});

export const checkLink = contract({ method: 'POST', path: '/api/brands/{brand}/links/{code}/check', summary: 'Look now whether a short link leads somewhere', params: brandParams.shape({ code: string().matches(/^[a-z0-9]{4,20}$/).required() }), body: object({}).noUnknown(), answer: object({ problem: string().nullable().defined() }) });
