import { CholeskyDecomposition, Matrix, inverse } from 'ml-matrix';

/**
 * A linear model with partial pooling: `y = base + sum of effects + noise`, where the effects of one family (formats, say) are drawn from a
 * normal distribution whose spread is itself estimated, so that an effect with little data is drawn towards none (empirical Bayes).
 */
export interface PooledModel {
  /** Name of the family, in the order of the columns. */
  readonly families: readonly string[];
  /** Family of each column. */
  readonly familyOf: readonly number[];
  readonly mean: readonly number[];
  /** Covariance of the effects, `[column][column]`. */
  readonly covariance: readonly (readonly number[])[];
  readonly noise: number;
}

export interface Row {
  readonly y: number;
  /** Variance that is known beforehand, as of counts; it comes on top of the noise. */
  readonly variance: number;
  /** Columns with the value that each has; the others are zero. */
  readonly columns: readonly (readonly [column: number, value: number])[];
}

const MAX_ROUNDS = 60;
const SETTLED = 1e-4;
/** What is believed of a spread before the data: as much as two effects of this size. */
const PRIOR_SPREAD = 0.15;
const PRIOR_COUNT = 2;
const PRIOR_NOISE = 0.3;
/** Families with this name are not drawn towards anything. */
export const FREE = 'free';
const FREE_SPREAD = 10;

/**
 * Fits the model by expectation and maximisation over the spreads of the families and the noise.
 * @see Gelman and Hill, Data Analysis Using Regression and Multilevel/Hierarchical Models (2007), ch. 12; Dempster, Laird and Rubin (1977)
 */
export function fitPooled(rows: readonly Row[], families: readonly string[], familyOf: readonly number[]): PooledModel {
  const columns = familyOf.length;
  let spread = families.map((name) => (name === FREE ? FREE_SPREAD ** 2 : PRIOR_SPREAD ** 2));
  let noise = PRIOR_NOISE ** 2;
  let fitted = solve(rows, columns, spread, familyOf, noise);
  for (let round = 0; round < MAX_ROUNDS; round += 1) {
    const nextSpread = spread.map((old, family) => {
      if (families[family] === FREE) return old;
      const own = familyOf.flatMap((each, column) => (each === family ? [column] : []));
      const sum = own.reduce((total, column) => total + (fitted.mean[column] ?? 0) ** 2 + (fitted.covariance[column]?.[column] ?? 0), 0);
      return (sum + PRIOR_COUNT * PRIOR_SPREAD ** 2) / (own.length + PRIOR_COUNT);
    });
    const nextNoise = noiseOf(rows, fitted, noise);
    const moved = Math.max(Math.abs(nextNoise - noise), ...nextSpread.map((each, index) => Math.abs(each - (spread[index] ?? 0))));
    [spread, noise] = [nextSpread, nextNoise];
    fitted = solve(rows, columns, spread, familyOf, noise);
    if (moved < SETTLED) break;
  }
  return { families, familyOf, noise: Math.sqrt(noise), ...fitted };
}

interface Fitted {
  readonly mean: readonly number[];
  readonly covariance: readonly (readonly number[])[];
}

/** The posterior of the effects for given spreads: `(X'WX + D)⁻¹ X'Wy`. */
function solve(rows: readonly Row[], columns: number, spread: readonly number[], familyOf: readonly number[], noise: number): Fitted {
  const precision = Array.from({ length: columns }, (_, column) => {
    const line = new Array<number>(columns).fill(0);
    line[column] = 1 / (spread[familyOf[column] ?? 0] ?? 1);
    return line;
  });
  const right = new Array<number>(columns).fill(0);
  for (const { y, variance, columns: own } of rows) {
    const weight = 1 / (noise + variance);
    for (const [a, x] of own) {
      right[a] = (right[a] ?? 0) + weight * x * y;
      const line = precision[a];
      if (line) for (const [b, z] of own) line[b] = (line[b] ?? 0) + weight * x * z;
    }
  }
  const matrix = new Matrix(precision);
  const decomposed = new CholeskyDecomposition(matrix);
  const covariance = decomposed.isPositiveDefinite() ? decomposed.solve(Matrix.eye(columns)) : inverse(matrix, true);
  return { mean: covariance.mmul(Matrix.columnVector(right)).to1DArray(), covariance: covariance.to2DArray() };
}

function noiseOf(rows: readonly Row[], { mean, covariance }: Fitted, noise: number): number {
  let [total, counted] = [PRIOR_COUNT * PRIOR_NOISE ** 2, PRIOR_COUNT];
  for (const { y, variance, columns } of rows) {
    const expected = columns.reduce((sum, [column, x]) => sum + (mean[column] ?? 0) * x, 0);
    const unsure = columns.reduce((sum, [a, x]) => sum + columns.reduce((inner, [b, z]) => inner + x * z * (covariance[a]?.[b] ?? 0), 0), 0);
    // The part of what is left that the noise explains, beside the variance known beforehand.
    const part = noise / (noise + variance);
    total += part ** 2 * ((y - expected) ** 2 + unsure) + part * variance;
    counted += 1;
  }
  return total / counted;
}

/** Mean and standard deviation of a weighted sum of effects. */
export function contrast(model: PooledModel, weights: ReadonlyMap<number, number>): { readonly mean: number; readonly deviation: number } {
  let [mean, variance] = [0, 0];
  for (const [a, x] of weights) {
    mean += x * (model.mean[a] ?? 0);
    for (const [b, z] of weights) variance += x * z * (model.covariance[a]?.[b] ?? 0);
  }
  return { mean, deviation: Math.sqrt(Math.max(0, variance)) };
}
