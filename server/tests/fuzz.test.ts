import { SpecSheetSchema } from '@inkwell/core/model';
import { Validator } from '@seriousme/openapi-schema-validator';
import { Ajv2020, type ValidateFunction } from 'ajv/dist/2020.js';
import addFormats from 'ajv-formats';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { z } from 'zod';
import { chart } from '../testing/pictures/pictures.ts';
import { startProgram } from '../testing/programs/program.ts';

const { client, address } = await startProgram();
const { body: description } = await client.ask('GET', '/openapi.json');

type Json = Record<string, unknown>;
const JsonSchema = z.record(z.string(), z.unknown());
const ContentSchema = z.record(z.string(), z.object({ schema: JsonSchema.optional() }));
const OperationSchema = z.object({
  operationId: z.string(),
  summary: z.string().min(5),
  parameters: z.array(z.object({ name: z.string(), in: z.enum(['path', 'query']), schema: JsonSchema })).default([]),
  requestBody: z.object({ content: ContentSchema }).optional(),
  responses: z.record(z.string(), z.object({ content: ContentSchema.optional() })),
});
const { paths, components } = z
  .object({
    paths: z.record(z.string(), z.record(z.string(), OperationSchema)),
    components: z.object({ schemas: z.record(z.string(), JsonSchema) }),
  })
  .parse(description);

/** All routes, as the program describes them: none is forgotten, and what it describes is what is tried. */
const routes = Object.entries(paths).flatMap(([path, operations]) =>
  Object.entries(operations).map(([method, operation]) => ({ method: method.toUpperCase(), path, operation })),
);
type Route = (typeof routes)[number];

const ajv = new Ajv2020({ strict: false, allErrors: false });
addFormats.default(ajv);
ajv.addSchema({ ...JsonSchema.parse(description), $id: 'api' });
/** What is wrong with an answer, by what the description says of it; null where nothing is. */
function wrongIn({ method, path, operation }: Route, status: number, body: unknown): string | null {
  const at = operation.responses[status] ? String(status) : 'default';
  if (!operation.responses[at]?.content?.['application/json']?.schema) return null;
  const pointer = ['paths', path, method.toLowerCase(), 'responses', at, 'content', 'application/json', 'schema'];
  const ref = `api#/${pointer.map((step) => encodeURIComponent(step.replaceAll('/', '~1'))).join('/')}`;
  const validate: ValidateFunction | undefined = ajv.getSchema(ref);
  if (!validate) return `${ref} is not described`;
  return validate(body) ? null : ajv.errorsText(validate.errors);
}

test('the API is described as OpenAPI 3.1', async () => {
  expect(description).toMatchObject({ openapi: '3.1.0', servers: [{ url: '/api/v1' }] });
  const { valid, errors } = await new Validator().validate(structuredClone(JsonSchema.parse(description)));
  expect({ valid, errors }).toMatchObject({ valid: true });
  expect(routes.length).toBeGreaterThan(80);
  expect(new Set(routes.map(({ operation }) => operation.operationId)).size).toBe(routes.length);
});

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
function valuesOf(schema: Json, known: fc.Arbitrary<string>): fc.Arbitrary<unknown> {
  if (typeof schema.$ref === 'string') {
    return valuesOf(components.schemas[schema.$ref.replace('#/components/schemas/', '')] ?? {}, known);
  }
  const branches = (schema.anyOf ?? schema.oneOf) as Json[] | undefined;
  const proper = (): fc.Arbitrary<unknown> => {
    if (branches) return fc.oneof(...branches.map((one) => valuesOf(one, known)));
    if ('const' in schema) return fc.constant(schema.const);
    if (schema.enum) return fc.constantFrom(...(schema.enum as unknown[]));
    if (schema.type === 'object') {
      const fields = Object.entries((schema.properties ?? {}) as Record<string, Json>);
      const required = (schema.required ?? []) as string[];
      return fc.record(Object.fromEntries(fields.map(([name, one]) => [name, valuesOf(one, known)])), {
        requiredKeys: required,
      });
    }
    if (schema.type === 'array') return fc.array(valuesOf((schema.items ?? {}) as Json, known), { maxLength: 4 });
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

/** So many requests, of 2,000 in the check. */
const requests = Number(process.env.INKWELL_FUZZ ?? 2000);
const seed = Number(process.env.INKWELL_SEED ?? Date.now() % 2 ** 31);

test(`no request gets a 500, whatever it asks for (${requests} requests, seed ${seed})`, async () => {
  console.log(`Requests are made with INKWELL_SEED=${seed}.`);
  const original = await client.original(await chart(500, 400).png().toBuffer(), 'chart.png');
  const strips = ['sunpane/swipe-panels-square', 'quillpost/inline-picture', 'pipwire/profile-picture'];
  const project = await client.project('Asked oddly', [original], strips);
  await client.ask('POST', '/sheets/places', {
    place: {
      name: 'Own',
      purpose: 'post',
      width: 90,
      height: 60,
      formats: ['jpeg'],
      limit: { bytes: 9000, unit: 'kB' },
    },
    keptIn: { kind: 'sheet', name: 'Mine' },
  });
  const { body: finish } = await client.ask('POST', '/finishes', { ...(await finishSettings()), name: 'Own' });
  const delivery = (await client.askDelivery(project.id)).body;
  const { body: run } = await client.ask('POST', '/dry-runs', {
    deliveryId: z.object({ id: z.string() }).parse(delivery).id,
  });
  const hashes = (await client.weights(project.id)).map(({ planHash }) => planHash);
  const sheetIds = async () =>
    z
      .array(SpecSheetSchema)
      .parse((await client.ask('GET', '/spec-book')).body)
      .flatMap(({ own }) => own?.id ?? []);
  const idsOf = (value: unknown) => z.object({ id: z.string() }).parse(value).id;
  const things: Record<string, string[]> = {
    originals: [original.id],
    projects: [project.id],
    frames: project.frames.map(({ id }) => id),
    sheets: await sheetIds(),
    'place-sets': [idsOf((await client.ask('POST', '/place-sets', { name: 'All', placeIds: strips })).body)],
    finishes: [idsOf(finish)],
    deliveries: [idsOf(delivery)],
    'dry-runs': [idsOf(run)],
  };
  const ids = Object.values(things).flat();
  const known = fc.constantFrom(...ids, ...hashes, ...strips);
  /** What deletes the things that are asked about comes with other ids, or nothing would be left to ask. */
  const idIn = ({ method, path }: Route) =>
    method === 'DELETE'
      ? fc.uuid()
      : fc.oneof(
          { weight: 8, arbitrary: fc.constantFrom(...(things[path.split('/')[1] ?? ''] ?? ids)) },
          // Nothing, or dots alone, would name another address.
          { weight: 1, arbitrary: fc.string({ minLength: 1, maxLength: 12 }).filter((id) => !/^\.+$/.test(id)) },
        );
  const asked = fc.constantFrom(...routes).chain((route) => {
    const { parameters, requestBody } = route.operation;
    const body = requestBody?.content['application/json']?.schema;
    const query = parameters.filter((one) => one.in === 'query');
    return fc.record({
      route: fc.constant(route),
      id: idIn(route),
      other: fc.oneof(fc.nat(3).map(String), fc.constantFrom('-1', '1e9', 'x', 'crisp', 'sunpane', 'story')),
      body: body ? valuesOf(body, known) : fc.constant(undefined),
      query: fc.record(Object.fromEntries(query.map(({ name, schema }) => [name, valuesOf(schema, known)]))),
      type: fc.constantFrom(
        ...Array<string>(12).fill('application/json'),
        'text/plain',
        'application/json; charset=klingon',
      ),
    });
  });
  const bad: string[] = [];
  const statuses = new Map<number, number>();
  const all = fc.sample(asked, { numRuns: requests, seed });
  const lane = async () => {
    for (let one = all.pop(); one; one = all.pop()) {
      const { method, path } = one.route;
      const search = Object.entries(one.query)
        .flatMap(([name, value]) => (value === undefined ? [] : [`${encode(name)}=${encode(value)}`]))
        .join('&');
      const place = path.replace('{id}', encode(one.id)).replace(/\{\w+\}/g, () => encode(one.other));
      const url = `${address}/api/v1${place}?${search}`;
      const body =
        one.body === undefined
          ? {}
          : { body: JSON.stringify(one.body) ?? 'null', headers: { 'Content-Type': one.type } };
      const response = await fetch(url, { method, ...body }).catch((error: unknown) => {
        throw new Error(`${method} ${url.slice(0, 300)} was not answered.`, { cause: error });
      });
      const text = await response.text();
      statuses.set(response.status, (statuses.get(response.status) ?? 0) + 1);
      const isJson = response.headers.get('content-type')?.includes('json');
      const isSaid = response.status < 400 || isJson;
      // What it answers is what it is described to answer.
      const wrong = isJson ? wrongIn(one.route, response.status, JSON.parse(text)) : null;
      if (response.status >= 500 || !isSaid || wrong)
        bad.push(
          `${method} ${url.slice(0, 300)} ${String(JSON.stringify(one.body)).slice(0, 900)} → ${response.status} ${wrong ?? ''} ${text.slice(0, 200)}`,
        );
    }
  };
  await Promise.all([lane(), lane(), lane(), lane()]);
  expect(bad).toEqual([]);
  console.log(
    [...statuses]
      .sort(([a], [b]) => a - b)
      .map(([status, count]) => `${status}: ${count}`)
      .join(', '),
  );
  // It really is asked about what is there: many answers are good ones.
  expect(statuses.get(200) ?? 0).toBeGreaterThan(requests / 20);
  expect((await client.ask('GET', '/projects')).status).toBe(200);
}, 900_000);

/** As an address takes it; half a character cannot stand there at all. */
const encode = (value: unknown) =>
  encodeURIComponent(
    (typeof value === 'string' ? value : (JSON.stringify(value) ?? '')).slice(0, 4000).replace(/[\ud800-\udfff]/g, '?'),
  );

async function finishSettings() {
  const { shippedFinishes } = await import('@inkwell/core/finishing');
  const [, crisp] = shippedFinishes;
  return { description: 'For a test', treatment: crisp?.treatment };
}

test('what cannot be stored, or read, is refused in words', async () => {
  const post = (body: string | Uint8Array, headers: Record<string, string> = {}, path = '/projects') =>
    fetch(`${address}/api/v1${path}`, {
      method: 'POST',
      body,
      headers: { 'Content-Type': 'application/json', ...headers },
    });
  const said = async (response: Response) => [
    response.status,
    z.object({ message: z.string() }).parse(await response.json()).message,
  ];
  expect(await said(await post('{"name":"kite\\u0000"}'))).toEqual([400, expect.stringContaining('cannot be stored')]);
  expect(await said(await post('{"name":"kite\\ud83d"}'))).toEqual([400, expect.stringContaining('cannot be stored')]);
  expect(await said(await post(`{"name":"${'x'.repeat(3_000_000)}"}`))).toEqual([413, expect.stringContaining('2 MB')]);
  // Where many frames are meant, more is taken.
  const frames = '/projects/00000000-0000-4000-8000-000000000001/frames';
  expect(await said(await post(`"${'x'.repeat(17_000_000)}"`, {}, frames))).toEqual([
    413,
    expect.stringContaining('16 MB'),
  ]);
  expect(await said(await post('{}', { 'Content-Encoding': 'klingon' }))).toEqual([
    415,
    expect.stringContaining('UTF-8'),
  ]);
  expect(await said(await post('{}', { 'Content-Type': 'application/json; charset=klingon' }))).toEqual([
    415,
    expect.stringContaining('UTF-8'),
  ]);
  expect(await said(await post('{"name":'))).toEqual([400, expect.stringContaining('not readable')]);
  expect(await said(await fetch(`${address}/assets/gone.js`))).toEqual([404, expect.stringContaining('not there')]);
  expect(await said(await fetch(`${address}/api/v1/projects/%E0%A4%A`))).toEqual([
    400,
    expect.stringContaining('not readable'),
  ]);
  const { body: project } = await client.ask('POST', '/projects', { name: 'Real' });
  const path = `/projects/${z.object({ id: z.string() }).parse(project).id}`;
  expect(
    await client.ask('POST', `${path}/originals`, { add: ['00000000-0000-4000-8000-000000000000'] }),
  ).toMatchObject({
    status: 404,
    body: { message: expect.stringContaining('original') },
  });
  expect(await client.ask('PATCH', `${path}/settings`, { version: 2_147_483_648, change: {} })).toMatchObject({
    status: 400,
  });
  for (const site of ['cross-site', 'same-site']) {
    const foreign = await fetch(`${address}/api/v1/projects`, { headers: { 'Sec-Fetch-Site': site } });
    expect(await said(foreign)).toEqual([403, expect.stringContaining('other sites')]);
  }
  expect((await fetch(`${address}/api/v1/projects`)).headers.get('cache-control')).toBe('no-store');
});
