import { lazy, object, type InferType, type ISchema, type Lazy, type ObjectShape } from 'yup';

/** A value that nothing writes to, all the way down. */
type DeepReadonly<Value> = Value extends readonly (infer Item)[] ? readonly DeepReadonly<Item>[] : Value extends object ? { readonly [Key in keyof Value]: DeepReadonly<Value[Key]> } : Value;

/** What a schema lets pass. Documents are values: their types come from their schemas and are read-only. */
export type Checked<Each extends ISchema<unknown>> = DeepReadonly<InferType<Each>>;

const keysOf = (given: unknown): readonly string[] => Object.keys(typeof given === 'object' && given !== null ? given : {});

/** An object whose keys are free and whose values all follow one schema. */
export function recordOf<Value>(value: () => ISchema<Value>): Lazy<Record<string, Value>> {
  // Yup knows the keys of an object when it is written; these are known when it is checked.
  return lazy((given: unknown) => object(Object.fromEntries(keysOf(given).map((key) => [key, value()])) as ObjectShape).required() as unknown as ISchema<Record<string, Value>>);
}

/** What a lazy schema checks, or nothing. */
export function optional<Value>(schema: Lazy<Value>): Lazy<Value | undefined> {
  return lazy((given: unknown) => (given === undefined ? object().default(undefined) : schema.resolve({ value: given })) as unknown as ISchema<Value | undefined>);
}

/**
 * One of several shapes, told apart by a field that all of them have.
 * @param by the field
 * @param shapes the shapes by what that field says; where it says something else, the first is what is asked for
 */
export function oneOfShapes<Shape extends ISchema<unknown>>(by: string, shapes: Readonly<Record<string, Shape>>): Lazy<InferType<Shape>> {
  return lazy((given: unknown) => {
    const kind = typeof given === 'object' && given !== null ? String((given as Readonly<Record<string, unknown>>)[by]) : '';
    const shape = Object.hasOwn(shapes, kind) ? shapes[kind] : Object.values(shapes)[0];
    return shape as unknown as ISchema<InferType<Shape>>;
  });
}
