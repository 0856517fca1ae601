import { array, string } from 'yup';
import type { PieceKind } from '../core/piece/piece.ts';
import { DAY_PATTERN, isDay } from '../core/time/day.ts';
import { WALL_TIME_PATTERN } from '../core/time/wall-time.ts';

/** Fields that the contracts of planning share. */
export const id = () => string().matches(/^[\w-]{1,40}$/, 'Not an id').required();
export const day = () => string().matches(DAY_PATTERN, 'Choose a day').test('day', 'Choose a day that there is', (text: unknown) => typeof text !== 'string' || isDay(text)).required();
export const wall = () => string().matches(WALL_TIME_PATTERN, 'Choose a date and a time');
export const kind = () => string<PieceKind>().oneOf(['graphic', 'carousel', 'video']);
export const ids = (max: number) => array(id()).max(max).required();
