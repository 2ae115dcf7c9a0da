import { z } from 'zod';
import * as chart from './chart.ts';
import * as claims from './claims.ts';
import * as gather from './gather.ts';
import * as journals from './journals.ts';
import * as periods from './periods.ts';
import { REFUSALS } from './refusals.ts';
import { KEY_HEADER, type RouteContract } from './route.ts';
import { ROUTES } from './routes.ts';
import * as session from './session.ts';
import * as setup from './setup.ts';
import * as statements from './statements.ts';

/** Schemas by the names under which the contract exports them, each preceded by its noun: claims.claimAnswer. */
const NAMES = new Map<unknown, string>(
  Object.entries({ chart, claims, gather, journals, periods, session, setup, statements }).flatMap(([noun, exports]) =>
    Object.entries(exports).map(([name, schema]) => [schema, `${noun}.${name}`] as const),
  ),
);

/** A schema as OpenAPI 3.1 has them: JSON Schema, what cannot be said in it left open with its description. */
const schemaOf = (schema: z.ZodType, io: 'input' | 'output'): object => {
  const { $schema: _, ...written } = z.toJSONSchema(schema, { io, unrepresentable: 'any' });
  return written;
};

/** A reference to a schema among the components, which are written once. */
const referTo = (schema: z.ZodType): object => ({ $ref: `#/components/schemas/${NAMES.get(schema) ?? 'Nothing'}` });

const json = (schema: object) => ({ content: { 'application/json': { schema } } });
const REFUSED = { ...json({ $ref: '#/components/schemas/Refusal' }), description: 'No, with its code and sentence.' };

/** The OpenAPI 3.1 description of the server, made from the contract alone. */
export function openApi(): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const route of ROUTES) {
    const path = `/api${route.path.replace(/:(\w+)/g, '{$1}')}`;
    paths[path] = { ...paths[path], [route.method]: operationOf(route) };
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Ebbet', version: '1' },
    paths,
    components: {
      schemas: { ...components(), Refusal: refusal(), Nothing: { type: 'object' } },
      securitySchemes: { token: { type: 'http', scheme: 'bearer' } },
    },
    security: [{ token: [] }],
  };
}

function components(): Record<string, object> {
  const answers = ROUTES.flatMap((r) => (r.answer ? [[r.answer, 'output'] as const] : []));
  const bodies = ROUTES.flatMap((r) => (r.body && r.body !== 'file' ? [[r.body, 'input'] as const] : []));
  const named = [...answers, ...bodies].filter(([schema]) => NAMES.has(schema));
  return Object.fromEntries(named.map(([schema, io]) => [NAMES.get(schema)!, schemaOf(schema, io)]));
}

function operationOf({ method, path, says, query, body, answer, type, status = 200, needsKey }: RouteContract): object {
  const content = answer ? json(referTo(answer)) : { content: { [type!]: {} } };
  return {
    summary: says,
    parameters: [
      ...pathParameters(path),
      ...(query ? queryParameters(query) : []),
      ...(method === 'get' ? [] : [keyParameter(needsKey ?? false)]),
    ],
    ...(body ? { requestBody: { required: true, ...bodyOf(body) } } : {}),
    responses: { [status]: { description: says, ...content }, default: REFUSED },
  };
}

const keyParameter = (required: boolean): object => ({
  name: KEY_HEADER,
  in: 'header',
  required,
  description: 'Makes it happen once: sent again with the same key and content, it answers as the first time.',
  schema: { type: 'string', minLength: 8, maxLength: 100 },
});

const pathParameters = (path: string): object[] =>
  [...path.matchAll(/:(\w+)/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: { type: 'string' },
  }));

function queryParameters(query: z.ZodType): object[] {
  const { properties = {}, required = [] } = schemaOf(query, 'input') as {
    properties?: Record<string, object>;
    required?: string[];
  };
  return Object.entries(properties).map(([name, schema]) => ({
    name,
    in: 'query',
    required: required.includes(name),
    schema,
  }));
}

function bodyOf(body: z.ZodType | 'file'): object {
  if (body !== 'file') return json(referTo(body));
  const file = { type: 'string', format: 'binary' };
  return { content: { 'multipart/form-data': { schema: { type: 'object', properties: { file } } } } };
}

const refusal = () => ({
  type: 'object',
  required: ['code', 'says', 'numbers'],
  properties: {
    code: { enum: Object.keys(REFUSALS) },
    says: { type: 'string', description: 'A sentence for the person, with what to do.' },
    numbers: { type: 'object', description: 'What goes into the sentence; `path` names the field that is meant.' },
    reference: { type: 'string', description: 'Where the fault stands in the log.' },
  },
});
