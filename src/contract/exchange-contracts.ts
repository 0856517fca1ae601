import { array, boolean, mixed, number, object, string } from 'yup';
import { brandParams } from './brand-params.ts';
import { contract } from './contract.ts';
import { packageScopes, recordKinds, outcomes, type Outcome, type PackageScope, type RecordKind } from './package-format.ts';

/** A package of everything fits; what is larger goes out brand by brand. */
export const MAX_PACKAGE_BYTES = 32 * 1024 ** 3;

export const getBrandPackage = contract({
  method: 'GET',
  path: '/api/brands/{brand}/package',
  summary: 'A package of a brand, of one of its pieces, of what stands in a month, or of its media: a ZIP of JSON and files that another Confetti takes',
  params: brandParams,
  query: object({
    scope: string<'brand' | 'piece' | 'month' | 'media'>().oneOf(['brand', 'piece', 'month', 'media']).required(),
    piece: string().max(40),
    month: string().matches(/^\d{4}-(?:0[1-9]|1[0-2])$/, 'Name a month like 2026-11'),
  }),
  answer: 'archive',
});

export const getWholePackage = contract({ method: 'GET', path: '/api/packages/all', summary: 'One package of all brands that you may change', answer: 'archive' });

const packageParams = object({ package: string().max(40).required() });
const count = () => number().integer().min(0);
const work = object({ state: string().required(), progress: number().required(), problem: string().nullable().defined() }).nullable().defined();

const countsOf = <Key extends string>(keys: readonly Key[]) => mixed<Partial<Readonly<Record<Key, number>>>>().required().meta({ description: `Counts by ${keys.join(', ')}` });

const packageSchema = object({
  id: string().required(),
  name: string().required(),
  bytes: count().required(),
  received: count().required(),
  /** The check of the whole package, before the import. */
  look: work,
  /** What it has, once it was read through. */
  found: object({
    scope: string<PackageScope>().oneOf([...packageScopes]).required(),
    madeMs: number().required(),
    brands: array(object({ id: string().required(), name: string().required(), target: object({ kind: string<'new' | 'here' | 'not yours'>().oneOf(['new', 'here', 'not yours']).required(), slug: string(), sentence: string() }).required(), counts: countsOf<RecordKind>(recordKinds) }).required()).required(),
  }).nullable().defined(),
  import: work,
  report: object({ brands: array(object({ slug: string().defined(), name: string().required(), isNew: boolean().required(), counts: mixed<Partial<Readonly<Record<RecordKind, Partial<Readonly<Record<Outcome, number>>>>>>>().required().meta({ description: `Counts by kind and outcome: ${outcomes.join(', ')}` }), notes: array(string().required()).required() }).required()).required() }).nullable().defined(),
});

export const startPackage = contract({
  method: 'POST',
  path: '/api/packages',
  summary: 'Begin to upload a package, in parts',
  body: object({ name: string().trim().min(1).max(200).required(), bytes: number().integer().min(1, 'The file is empty.').max(MAX_PACKAGE_BYTES, `A package has at most ${MAX_PACKAGE_BYTES / 1024 ** 3} GB. Export brand by brand.`).required() }).noUnknown(),
  answer: packageSchema,
  status: 201,
});

export const sendPackagePart = contract({ method: 'POST', path: '/api/packages/{package}/parts', summary: 'The next bytes of a package, from `at` on; with the last of them it is checked', params: packageParams, query: object({ at: number().integer().min(0).required() }), body: 'bytes', answer: packageSchema });

export const getPackage = contract({ method: 'GET', path: '/api/packages/{package}', summary: 'Where a package stands: what has arrived, what it has, how far its import is, what came of it', params: packageParams, answer: packageSchema });

export const importPackage = contract({ method: 'POST', path: '/api/packages/{package}/import', summary: 'Import what this Confetti does not have yet', params: packageParams, body: object({}).noUnknown(), answer: packageSchema });

export const dropPackage = contract({ method: 'DELETE', path: '/api/packages/{package}', summary: 'Stop an import, or remove a package; nothing half made stays', params: packageParams });
