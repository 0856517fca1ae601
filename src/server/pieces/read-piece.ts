import { ValidationError } from 'yup';
import type { Piece } from '../../core/piece/piece.ts';
import { ProblemError } from '../errors.ts';

/** A piece from JSON of outside. @throws ProblemError 422 naming the place of the first fault */
export function readPieceOr422(make: () => Piece): Piece {
  try {
    return make();
  } catch (error) {
    if (error instanceof ValidationError) throw new ProblemError(422, 'not-valid', error.errors[0] ?? 'The piece would not be valid.', { fields: [{ path: error.path ?? '', message: error.message }] });
    throw error;
  }
}
