import type { Schema, SchemaDescription } from 'yup';
import { fromDescription, isOptional, jsonSchema, type Json } from '../../contract/json-schema.ts';
import type { Endpoint, May } from './define-endpoint.ts';

/** The OpenAPI 3.1 document of the endpoints, made from the same schemas that check requests. */
export function openApiDocument(endpoints: readonly Endpoint[]): Json {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const endpoint of endpoints) {
    const { contract } = endpoint;
    paths[contract.path] = { ...paths[contract.path], [contract.method.toLowerCase()]: operation(endpoint) };
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Confetti', version: '1', description: 'All that the interface does goes through these endpoints. Writes by scripts carry an access token.' },
    paths,
    components: {
      securitySchemes: {
        session: { type: 'apiKey', in: 'cookie', name: 'confetti_session' },
        token: { type: 'http', scheme: 'bearer' },
      },
      schemas: {
        Problem: {
          type: 'object',
          description: 'RFC 9457 problem details',
          required: ['title', 'status', 'code'],
          properties: { title: { type: 'string' }, status: { type: 'integer' }, code: { type: 'string' } },
        },
      },
    },
  };
}

const policyWords: Readonly<Record<May, string>> = {
  anyone: 'Anyone.',
  demo: 'Only in the demo.',
  network: 'A network that signs its call.',
  'signed-in': 'Anyone signed in.',
  see: 'Members of the brand.',
  remark: 'Members of the brand who may write remarks.',
  approve: 'Members of the brand who may approve posts.',
  make: 'Owners, designers and writers of the brand.',
  answer: 'Owners, designers and writers of the brand.',
  send: 'Owners and designers of the brand.',
  brand: 'Owners and designers of the brand.',
  people: 'Owners of the brand.',
};

function operation({ contract, may }: Endpoint): Json {
  const parameters = [...parametersOf(contract.params, 'path'), ...parametersOf(contract.query, 'query')];
  return {
    summary: contract.summary,
    description: `Who may call: ${policyWords[may]}`,
    ...(may === 'anyone' || may === 'demo' || may === 'network' ? { security: [] } : { security: [{ session: [] }, { token: [] }] }),
    ...(parameters.length > 0 ? { parameters } : {}),
    ...(contract.bodyKind === 'none' ? {} : { requestBody: { required: true, content: contract.bodyKind === 'bytes' ? { 'application/octet-stream': { schema: { type: 'string', format: 'binary' } } } : { 'application/json': { schema: jsonSchema(contract.body) } } } }),
    responses: {
      [contract.status]: contract.status === 204 ? { description: 'Done' } : { description: 'The answer', content: { [contract.answerType]: contract.answerType === 'application/json' ? { schema: jsonSchema(contract.answer) } : {} } },
      default: { description: 'What went wrong', content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } } },
    },
  };
}

function parametersOf(schema: Schema, place: 'path' | 'query'): readonly Json[] {
  const description = schema.describe() as SchemaDescription & { fields?: Record<string, SchemaDescription> };
  return Object.entries(description.fields ?? {}).map(([name, field]) => ({ name, in: place, required: place === 'path' || !isOptional(field), schema: fromDescription(field) }));
}
