import fc from 'fast-check';
import { z } from 'zod';

export type Json = Record<string, unknown>;
export const JsonSchema = z.record(z.string(), z.unknown());
const ContentSchema = z.record(z.string(), z.object({ schema: JsonSchema.optional() }));
const OperationSchema = z.object({
  operationId: z.string(),
  summary: z.string().min(5),
  parameters: z.array(z.object({ name: z.string(), in: z.enum(['path', 'query']), schema: JsonSchema })).default([]),
  requestBody: z.object({ content: ContentSchema }).optional(),
  responses: z.record(z.string(), z.object({ content: ContentSchema.optional() })),
});
const DescriptionSchema = z.object({
  paths: z.record(z.string(), z.record(z.string(), OperationSchema)),
  components: z.object({ schemas: z.record(z.string(), JsonSchema) }),
});

/** A route, as the program describes it. */
export interface DescribedRoute {
  method: string;
  path: string;
  operation: z.infer<typeof OperationSchema>;
}

/** All routes, as the program describes them: none is forgotten, and what it describes is what is tried. */
export const routesOf = (description: unknown): DescribedRoute[] =>
  Object.entries(DescriptionSchema.parse(description).paths).flatMap(([path, operations]) =>
    Object.entries(operations).map(([method, operation]) => ({ method: method.toUpperCase(), path, operation })),
  );

/** Values that have broken programs before. */
const hostile = fc.constantFrom<unknown>(
  null,
  '',
  '\0',
  'kite\0tail',
  '\ud83d',
  '\udc00x',
  'x'.repeat(100_000),
  0,
  -1,
  0.5,
  1e9,
  2_147_483_648,
  9.1e15,
  1e308,
  -1e308,
  true,
  [],
  {},
  [[]],
  { a: { b: [null] } },
  '../../etc/passwd',
  "'; drop table frames; --",
  '#12345g',
  '00000000-0000-4000-8000-000000000000',
  'NaN',
  '1e999',
  ' ',
  '​',
  '﷽',
  '{pattern}',
  { $gt: 1 },
  { toString: 1 },
  { __proto__: null },
  ['a', 1, null],
);

/** Values of a JSON Schema, as a rule; now and then something else in their place. */
function valuesOf(schema: Json, known: fc.Arbitrary<string>, named: Record<string, Json>): fc.Arbitrary<unknown> {
  if (typeof schema.$ref === 'string') {
    return valuesOf(named[schema.$ref.replace('#/components/schemas/', '')] ?? {}, known, named);
  }
  const branches = (schema.anyOf ?? schema.oneOf) as Json[] | undefined;
  const proper = (): fc.Arbitrary<unknown> => {
    if (branches) return fc.oneof(...branches.map((one) => valuesOf(one, known, named)));
    if ('const' in schema) return fc.constant(schema.const);
    if (schema.enum) return fc.constantFrom(...(schema.enum as unknown[]));
    if (schema.type === 'object') {
      const fields = Object.entries((schema.properties ?? {}) as Record<string, Json>);
      const required = (schema.required ?? []) as string[];
      return fc.record(Object.fromEntries(fields.map(([name, one]) => [name, valuesOf(one, known, named)])), {
        requiredKeys: required,
      });
    }
    if (schema.type === 'array')
      return fc.array(valuesOf((schema.items ?? {}) as Json, known, named), { maxLength: 4 });
    if (schema.type === 'integer' || schema.type === 'number') {
      const [min, max] = [Number(schema.minimum ?? -1000), Number(schema.maximum ?? 100_000)];
      const [low, high] = [Math.ceil(Math.max(min, -1e9)), Math.floor(Math.min(max, 1e10))];
      return schema.type === 'integer'
        ? fc.integer({ min: Math.min(low, high), max: Math.min(high, 2 ** 31 - 1) })
        : fc.double({ min: low, max: Math.max(low, high), noNaN: true });
    }
    if (schema.type === 'boolean') return fc.boolean();
    if (schema.format === 'uuid') return fc.oneof(known, fc.uuid());
    if (schema.type === 'string')
      return fc.oneof(
        known,
        fc.string({ unit: 'binary', maxLength: 20 }),
        fc.constantFrom('#1f6f66', 'sunpane/story', 'crisp', 'plain'),
      );
    return fc.oneof(known, hostile);
  };
  return fc.oneof({ weight: 12, arbitrary: proper() }, { weight: 1, arbitrary: hostile });
}

/** A request that is made up of what a route takes, and of what it does not. */
export interface OddRequest {
  route: DescribedRoute;
  /** What stands in the address: the id, and whatever else it names. */
  id: string;
  other: string;
  body: unknown;
  query: Record<string, unknown>;
  /** As what a body is sent. */
  type: string;
}

/**
 * Requests to all routes that a description names.
 *
 * @param things the ids of what is there, by the first part of the addresses that name it
 * @param words whatever else may be known, such as hashes
 */
export function oddRequests(
  description: unknown,
  things: Record<string, readonly string[]>,
  words: readonly string[],
): fc.Arbitrary<OddRequest> {
  const { schemas } = DescriptionSchema.parse(description).components;
  const ids = Object.values(things).flat();
  const known = fc.constantFrom(...ids, ...words);
  /** What deletes the things that are asked about comes with other ids, or nothing would be left to ask. */
  const idIn = ({ method, path }: DescribedRoute) =>
    method === 'DELETE'
      ? fc.uuid()
      : fc.oneof(
          { weight: 8, arbitrary: fc.constantFrom(...(things[path.split('/')[1] ?? ''] ?? ids)) },
          // Nothing, or dots alone, would name another address.
          { weight: 1, arbitrary: fc.string({ minLength: 1, maxLength: 12 }).filter((id) => !/^\.+$/.test(id)) },
        );
  return fc.constantFrom(...routesOf(description)).chain((route) => {
    const { parameters, requestBody } = route.operation;
    const body = requestBody?.content['application/json']?.schema;
    const query = parameters.filter((one) => one.in === 'query');
    return fc.record({
      route: fc.constant(route),
      id: idIn(route),
      other: fc.oneof(fc.nat(3).map(String), fc.constantFrom('-1', '1e9', 'x', 'crisp', 'sunpane', 'story')),
      body: body ? valuesOf(body, known, schemas) : fc.constant(undefined),
      query: fc.record(Object.fromEntries(query.map(({ name, schema }) => [name, valuesOf(schema, known, schemas)]))),
      type: fc.constantFrom(
        ...Array<string>(12).fill('application/json'),
        'text/plain',
        'application/json; charset=klingon',
      ),
    });
  });
}

/** As an address takes it; half a character cannot stand there at all. */
const encode = (value: unknown) =>
  encodeURIComponent(
    (typeof value === 'string' ? value : (JSON.stringify(value) ?? '')).slice(0, 4000).replace(/[\ud800-\udfff]/g, '?'),
  );

/** What was asked, in words, and what was answered. */
export interface OddAnswer {
  asked: string;
  response: Response;
  text: string;
}

/** Sends a request. @param api where the API is @throws where it is not answered */
export async function sendOdd(api: string, { route, id, other, body, query, type }: OddRequest): Promise<OddAnswer> {
  const { method, path } = route;
  const search = Object.entries(query)
    .flatMap(([name, value]) => (value === undefined ? [] : [`${encode(name)}=${encode(value)}`]))
    .join('&');
  const place = path.replace('{id}', encode(id)).replace(/\{\w+\}/g, () => encode(other));
  const url = `${api}${place}?${search}`;
  const sent = body === undefined ? {} : { body: JSON.stringify(body) ?? 'null', headers: { 'Content-Type': type } };
  const response = await fetch(url, { method, ...sent }).catch((error: unknown) => {
    throw new Error(`${method} ${url.slice(0, 300)} was not answered.`, { cause: error });
  });
  const asked = `${method} ${url.slice(0, 300)} ${String(JSON.stringify(body)).slice(0, 900)}`;
  return { asked, response, text: await response.text() };
}
