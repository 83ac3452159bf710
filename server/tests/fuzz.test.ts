import { SpecSheetSchema } from '@inkwell/core/model';
import { Validator } from '@seriousme/openapi-schema-validator';
import { Ajv2020, type ValidateFunction } from 'ajv/dist/2020.js';
import addFormats from 'ajv-formats';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { z } from 'zod';
import { chart } from '../testing/pictures/pictures.ts';
import { type DescribedRoute, JsonSchema, oddRequests, routesOf, sendOdd } from '../testing/programs/oddRequests.ts';
import { startProgram } from '../testing/programs/program.ts';

const { client, address } = await startProgram();
const { body: description } = await client.ask('GET', '/openapi.json');

const routes = routesOf(description);

const ajv = new Ajv2020({ strict: false, allErrors: false });
addFormats.default(ajv);
ajv.addSchema({ ...JsonSchema.parse(description), $id: 'api' });
/** What is wrong with an answer, by what the description says of it; null where nothing is. */
function wrongIn({ method, path, operation }: DescribedRoute, status: number, body: unknown): string | null {
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
  const bad: string[] = [];
  const statuses = new Map<number, number>();
  const all = fc.sample(oddRequests(description, things, [...hashes, ...strips]), { numRuns: requests, seed });
  const lane = async () => {
    for (let one = all.pop(); one; one = all.pop()) {
      const { asked, response, text } = await sendOdd(`${address}/api/v1`, one);
      statuses.set(response.status, (statuses.get(response.status) ?? 0) + 1);
      const isJson = response.headers.get('content-type')?.includes('json');
      const isSaid = response.status < 400 || isJson;
      // What it answers is what it is described to answer.
      const wrong = isJson ? wrongIn(one.route, response.status, JSON.parse(text)) : null;
      if (response.status >= 500 || !isSaid || wrong)
        bad.push(`${asked} → ${response.status} ${wrong ?? ''} ${text.slice(0, 200)}`);
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
