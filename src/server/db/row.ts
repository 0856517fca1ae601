/** Property names by column: lists of hundreds of rows have the same few columns. Columns are those of the schema and of our own queries, so it does not grow. */
const propertyNames = new Map<string, string>();

function propertyOf(column: string): string {
  let name = propertyNames.get(column);
  if (name === undefined) {
    name = column.replace(/_([a-z])/g, (_, letter: string) => letter.toUpperCase());
    propertyNames.set(column, name);
  }
  return name;
}

/** A row with its column names as property names: `due_ms` becomes `dueMs`. The caller names the shape it selected. */
export function fromRow<Shape>(row: object): Shape {
  const shaped: Record<string, unknown> = {};
  for (const [column, value] of Object.entries(row)) shaped[propertyOf(column)] = value;
  return shaped as Shape;
}
