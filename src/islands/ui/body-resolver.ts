import { yupResolver } from '@hookform/resolvers/yup';
import type { FieldValues, Resolver } from 'react-hook-form';
import type { AnyObject, ObjectSchema } from 'yup';
import type { BodyOf, Contract } from '../../contract/contract.ts';

/** Checks a form by what an endpoint takes as its body, as the server will. */
export function bodyResolver<Each extends Contract>(contract: Each): Resolver<BodyOf<Each> & FieldValues> {
  return yupResolver(contract.body as ObjectSchema<AnyObject>) as unknown as Resolver<BodyOf<Each> & FieldValues>;
}
