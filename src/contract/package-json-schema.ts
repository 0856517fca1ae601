import { jsonSchema, type Json } from './json-schema.ts';
import { manifestSchema, recordKinds, recordSchemas } from './package-format.ts';

/** The format of packages as one JSON Schema: a definition a kind of record, and that of `confetti.json`. docs/exchange.schema.json is this. */
export function packageJsonSchema(): Json {
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: 'Records of a Confetti package',
    description: 'Each line of <kind>.jsonl follows the definition of its kind; confetti.json follows “manifest”.',
    $defs: { manifest: jsonSchema(manifestSchema), ...Object.fromEntries(recordKinds.map((kind) => [kind, jsonSchema(recordSchemas[kind])])) },
  };
}
