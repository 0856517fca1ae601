import { number, object, string } from 'yup';

/** The brand that an address is about. */
export const brandParams = object({ brand: string().matches(/^[a-z][a-z0-9-]*$/).max(60).required() });

/** Keyset pages: `before` is the cursor that the last page answered. */
export const pageQuery = object({ before: string().max(80), limit: number().integer().min(1).max(100) });
