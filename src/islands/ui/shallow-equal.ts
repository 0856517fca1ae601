/** Whether two objects hold the very same values under the same keys. */
export function isShallowEqual<Value extends object>(a: Value, b: Value): boolean {
  const keys = Object.keys(a) as (keyof Value)[];
  return keys.length === Object.keys(b).length && keys.every((key) => Object.is(a[key], b[key]));
}
