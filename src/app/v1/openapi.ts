/** What other programs can do, as OpenAPI 3.1 describes it: made from the list that answers and from the code's own input classes. */

import { KEY_RIGHT_WORDS, REQUESTS_A_MINUTE } from '@/core/program/key';
import { refusalWords } from '@/core/refusal/refusal';
import type { Endpoint } from './endpoint';
import { ENDPOINTS } from './endpoints';
import { PROBLEMS } from './problem';
import { ID, list, object, type Schema, schemaOf, TEXT, WHOLE } from './schema';

const PROBLEM: Schema = {
  type: 'object',
  description: 'RFC 9457',
  properties: {
    type: TEXT,
    title: TEXT,
    status: WHOLE,
    errors: list(object({ field: TEXT, detail: TEXT })),
  },
  required: ['type', 'title', 'status'],
};

const json = (schema: Schema, type = 'application/json') => ({ content: { [type]: { schema } } });
const problem = (description: string) => ({
  description,
  ...json({ $ref: '#/components/schemas/Problem' }, 'application/problem+json'),
});

const LIMITS = Object.fromEntries(
  [
    ['RateLimit-Limit', 'How many requests the key has in a minute.'],
    ['RateLimit-Remaining', 'How many are left of them.'],
    ['RateLimit-Reset', 'In how many seconds all are there again.'],
  ].map(([name, description]) => [name, { description, schema: WHOLE }]),
);

function parameters(endpoint: Endpoint): object[] {
  const ids = [...endpoint.path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: ID,
  }));
  if (endpoint.method !== 'GET') {
    const header = {
      name: 'Idempotency-Key',
      in: 'header',
      required: false,
      description: 'The same request under the same key is done once; its answer is given again for a day.',
      schema: { type: 'string', minLength: 1, maxLength: 200 },
    };
    return endpoint.method === 'POST' ? [...ids, header] : ids;
  }
  // Asked for in the address: each field of the class is a parameter.
  const schemas: Record<string, Schema> = {};
  const name = schemaOf(endpoint.input, schemas);
  const { properties, required = [] } = schemas[name] as {
    properties: Record<string, Schema>;
    required?: readonly string[];
  };
  return [
    ...ids,
    ...Object.entries(properties).map(([field, schema]) => ({
      name: field,
      in: 'query',
      required: required.includes(field),
      schema,
    })),
  ];
}

function operation(endpoint: Endpoint, into: Record<string, Schema>): object {
  const { method, path, what, right, answers, status, input } = endpoint;
  const isPatch = method === 'PATCH';
  const body =
    method === 'GET'
      ? {}
      : {
          requestBody: {
            required: !isPatch,
            ...json({ $ref: `#/components/schemas/${schemaOf(input, into, isPatch)}` }),
          },
        };
  return {
    operationId: `${method.toLowerCase()}${path.replace(/\{id\}/g, 'One').replace(/[/-]+(\w)/g, (_, letter: string) => letter.toUpperCase())}`,
    summary: what,
    description: right === 'see' ? 'Needs the right “see”.' : `Needs the rights “see” and “${right}”.`,
    security: [{ key: [right] }],
    parameters: parameters(endpoint),
    ...body,
    responses: {
      [status]: { description: what, headers: LIMITS, ...json(answers) },
      '400': problem('What was sent is not well-formed; errors names the fields.'),
      '401': problem('No key, or one that is not good.'),
      '403': problem('The key does not have this right, or it asks for a person.'),
      '404': problem('There is no such thing.'),
      '409': problem('A rule says no: type tells which.'),
      '422': problem('Another request was sent under this Idempotency-Key.'),
      '429': problem('Too many requests: Retry-After says how long to wait.'),
    },
  };
}

/** The description as a whole. @param server where this is reached */
export function openApi(server: string): object {
  const schemas: Record<string, Schema> = { Problem: PROBLEM };
  const paths: Record<string, Record<string, object>> = {};
  for (const endpoint of ENDPOINTS) {
    const path = `/v1${endpoint.path}`;
    paths[path] = { ...paths[path], [endpoint.method.toLowerCase()]: operation(endpoint, schemas) };
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Dahlia',
      version: '1',
      description: `Customers, items, invoices, links, plans, charges, payments and refunds of one business. Sums are whole numbers in the smallest unit of their currency. A key has ${REQUESTS_A_MINUTE} requests a minute. Lists come in pages: send what a page gives as next as after, until it is null.`,
    },
    servers: [{ url: server }],
    paths,
    components: {
      schemas,
      securitySchemes: {
        key: {
          type: 'http',
          scheme: 'bearer',
          description: `A key made at the desk under Other programs. Its rights: ${Object.entries(KEY_RIGHT_WORDS)
            .map(([right, words]) => `${right} (${words})`)
            .join('; ')}.`,
        },
      },
    },
  };
}

/** What a problem is, in words; null for one that there is not. */
export function problemWords(code: string): string | null {
  if (Object.hasOwn(PROBLEMS, code)) return PROBLEMS[code as keyof typeof PROBLEMS][1];
  const words: unknown = refusalWords(code as Parameters<typeof refusalWords>[0]);
  return typeof words === 'string' ? words : null;
}
