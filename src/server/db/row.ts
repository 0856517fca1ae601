/** A row with its column names as property names: `due_ms` becomes `dueMs`. The caller names the shape it selected. */
export function fromRow<Shape>(row: object): Shape {
  return Object.fromEntries(Object.entries(row).map(([column, value]) => [column.replace(/_([a-z])/g, (_, letter: string) => letter.toUpperCase()), value])) as Shape;
}
