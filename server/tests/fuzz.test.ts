import { readdirSync, readFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import {
  FinishFileSchema,
  FinishSettingsSchema,
  FrameChangeSchema,
  LetterStyleFileSchema,
  LetterStyleSettingsSchema,
  NameSchema,
  PlaceSetFileSchema,
  PlaceSetSettingsSchema,
  SeriesSchema,
  SpecSheetSchema,
} from '@inkwell/core/model';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { z } from 'zod';
import { ArchiveSchema, DeliverSchema, FileSchema, PostedSchema } from '../api/resources/deliveries.ts';
import { DryRunRequestSchema, PictureSchema } from '../api/resources/dryRuns.ts';
import {
  MeasuredTrialSchema,
  PieceSchema,
  SurvivalAskedSchema,
  TrialSchema,
  WaysSchema,
} from '../api/resources/encodings.ts';
import { SaveSchema as SaveFinish } from '../api/resources/finishes.ts';
import { MeasureSchema, PixelsSchema, ProofSchema } from '../api/resources/frames.ts';
import { LearnSchema } from '../api/resources/learnedUploads.ts';
import {
  PageSchema,
  PointSchema,
  SettingsSchema as SaveOriginal,
  TrimOptionsSchema,
  WidthSchema,
} from '../api/resources/originals.ts';
import { ApplySetSchema, SaveSetSchema } from '../api/resources/placeSets.ts';
import {
  ChangeFramesSchema,
  ChangeOriginalsSchema,
  MeasuredOfSchema,
  RewriteSchema,
  SaveFramesSchema,
  SettingsSchema as SaveProject,
  TakeFileSchema,
  TakeSeriesSchema,
} from '../api/resources/projects.ts';
import { FindingStateSchema } from '../api/resources/sheetFindings.ts';
import {
  AddPlaceSchema,
  AwaySchema,
  EffectsSchema,
  MakeSheetSchema,
  MoveSchema,
  SaveSheetSchema,
} from '../api/resources/sheets.ts';
import { BookFileAskedSchema, BookSchema, PlanImportSchema, TakeImportSchema } from '../api/resources/specBook.ts';
import { chart } from '../testing/pictures.ts';
import { startProgram } from '../testing/program.ts';

const { client, address } = await startProgram();

/** What a route takes: as JSON, or behind the question mark. */
const taken: Record<string, { body?: z.ZodType; query?: z.ZodType }> = {
  'GET /deliveries': { query: z.object({ project: z.uuid() }) },
  'POST /deliveries': { body: DeliverSchema },
  'PATCH /sheet-findings/:id': { body: FindingStateSchema },
  'GET /dry-runs': { query: z.object({ project: z.uuid() }) },
  'GET /dry-runs/:id/pictures/:sha256': { query: PictureSchema },
  'POST /dry-runs': { body: DryRunRequestSchema },
  'POST /deliveries/:id/posted': { body: PostedSchema },
  'GET /deliveries/:id/file': { query: FileSchema },
  'GET /deliveries/:id/archive': { query: ArchiveSchema },
  'GET /frames/:id/uncompressed': { query: PieceSchema },
  'GET /frames/:id/trial': { query: MeasuredTrialSchema },
  'GET /frames/:id/trial/file': { query: TrialSchema },
  'GET /frames/:id/ways': { query: WaysSchema },
  'POST /frames/:id/ways': { body: WaysSchema },
  'GET /frames/:id/survival': { query: SurvivalAskedSchema },
  'POST /frames/:id/survival': { body: SurvivalAskedSchema },
  'POST /learned-uploads': { body: LearnSchema },
  'POST /finishes': { body: FinishSettingsSchema },
  'POST /finishes/import': { body: FinishFileSchema },
  'PATCH /finishes/:id': { body: SaveFinish },
  'PATCH /frames/:id': { body: z.object({ version: z.int().positive(), change: FrameChangeSchema }) },
  'POST /frames/:id/measure': { body: MeasureSchema },
  'GET /frames/:id/proof': { query: ProofSchema },
  'GET /frames/:id/shown': { query: ProofSchema.pick({ plan: true, width: true }) },
  'GET /frames/:id/pixels': { query: PixelsSchema },
  'PATCH /originals/:id': { body: z.object({ name: NameSchema }) },
  'PATCH /originals/:id/settings': { body: SaveOriginal },
  'GET /originals/:id/trim': { query: TrimOptionsSchema },
  'GET /originals/:id/colour': { query: PointSchema },
  'POST /originals/:id/pages': { body: z.object({ pages: z.array(PageSchema) }) },
  'GET /originals/:id/preview': { query: z.object({ width: WidthSchema }) },
  'POST /letter-styles': { body: LetterStyleSettingsSchema },
  'POST /letter-styles/import': { body: LetterStyleFileSchema },
  'POST /sheets': { body: MakeSheetSchema },
  'POST /sheets/places': { body: AddPlaceSchema },
  'POST /sheets/away': { body: AwaySchema },
  'POST /sheets/order': { body: MoveSchema },
  'PATCH /sheets/:id': { body: SaveSheetSchema },
  'POST /sheets/:id/effects': { body: EffectsSchema },
  'GET /spec-book': { query: BookSchema },
  'GET /spec-book/file': { query: BookFileAskedSchema },
  'POST /spec-book/import': { body: PlanImportSchema },
  'POST /spec-book/import/take': { body: TakeImportSchema },
  'POST /place-sets': { body: PlaceSetSettingsSchema },
  'POST /place-sets/import': { body: PlaceSetFileSchema },
  'PATCH /place-sets/:id': { body: SaveSetSchema },
  'POST /place-sets/:id/apply': { body: ApplySetSchema },
  'POST /projects': { body: z.object({ name: NameSchema }) },
  'POST /projects/file': { query: TakeFileSchema },
  'PATCH /projects/:id': { body: z.object({ name: NameSchema }) },
  'PATCH /projects/:id/settings': { body: SaveProject },
  'POST /projects/:id/originals': { body: ChangeOriginalsSchema },
  'POST /projects/:id/rewriting': { body: RewriteSchema },
  'POST /projects/:id/frames': { body: ChangeFramesSchema },
  'PATCH /projects/:id/frames': { body: SaveFramesSchema },
  'POST /projects/:id/series': { body: TakeSeriesSchema },
  'POST /projects/:id/series/check': { body: SeriesSchema },
  'POST /projects/:id/measured': { body: MeasuredOfSchema },
};
/** Takes a file, or nothing but what its address says. */
const takesNothing = /^(GET|DELETE)|restore$|duplicate$|next$|look$|cancel$|empty$|^POST \/(originals|fonts)$/;

/** All routes, read off the code, so that none is forgotten. */
const prefixes: Record<string, string> = {
  'encodings.ts': '/frames/:id',
  'dryRuns.ts': '/dry-runs',
  'sheetFindings.ts': '/sheet-findings',
  'learnedUploads.ts': '/learned-uploads',
  'letterStyles.ts': '/letter-styles',
  'specBook.ts': '/spec-book',
  'placeSets.ts': '/place-sets',
  'app.ts': '',
};
const folder = join(import.meta.dirname, '..', 'api');
const files = ['app.ts', ...readdirSync(join(folder, 'resources')).map((file) => join('resources', file))];
const routes = files.flatMap((path) =>
  [
    ...readFileSync(join(folder, path), 'utf8').matchAll(/(?:router|app)\.(get|post|patch|delete|put)\(\s*'([^']*)'/g),
  ].map(([, method = '', route = '']) => {
    const file = basename(path);
    const whole = `${prefixes[file] ?? `/${file.replace('.ts', '')}`}${route}`.replace(/^\/api/, '').replace(/\/$/, '');
    return `${method.toUpperCase()} ${whole}`;
  }),
);

test('every route is known here, with what it takes', () => {
  expect(routes.length).toBeGreaterThan(50);
  expect(Object.keys(taken).filter((route) => !routes.includes(route))).toEqual([]);
  expect(routes.filter((route) => !taken[route] && !takesNothing.test(route))).toEqual([]);
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

type Json = Record<string, unknown>;

/** Values of a JSON Schema, as a rule; now and then something else in their place. */
function valuesOf(schema: Json, known: fc.Arbitrary<string>): fc.Arbitrary<unknown> {
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

const schemaOf = (type: z.ZodType): Json => z.toJSONSchema(type, { io: 'input', unrepresentable: 'any' }) as Json;

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
  const idIn = (route: string) =>
    route.startsWith('DELETE')
      ? fc.uuid()
      : fc.oneof(
          { weight: 8, arbitrary: fc.constantFrom(...(things[route.split('/')[1] ?? ''] ?? ids)) },
          { weight: 1, arbitrary: fc.string({ maxLength: 12 }) },
        );
  const asked = fc.constantFrom(...routes).chain((route) => {
    const { body, query } = taken[route] ?? {};
    return fc.record({
      route: fc.constant(route),
      id: idIn(route),
      page: fc.oneof(fc.nat(3).map(String), fc.constantFrom('-1', '1e9', 'x')),
      body: body ? valuesOf(schemaOf(body), known) : fc.constant(undefined),
      query: query ? valuesOf(schemaOf(query), known) : fc.constant(undefined),
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
      const [method = '', path = ''] = one.route.split(' ');
      const fields = typeof one.query === 'object' && one.query !== null ? Object.entries(one.query) : [];
      const search = fields.map(([name, value]) => `${encode(name)}=${encode(value)}`).join('&');
      const url = `${address}/api${path.replace(':id', encode(one.id)).replace(':page', one.page)}?${search}`;
      const body =
        one.body === undefined
          ? {}
          : { body: JSON.stringify(one.body) ?? 'null', headers: { 'Content-Type': one.type } };
      const response = await fetch(url, { method, ...body }).catch((error: unknown) => {
        throw new Error(`${method} ${url.slice(0, 300)} was not answered.`, { cause: error });
      });
      const text = await response.text();
      statuses.set(response.status, (statuses.get(response.status) ?? 0) + 1);
      const isSaid = response.status < 400 || response.headers.get('content-type')?.includes('json');
      if (response.status >= 500 || !isSaid)
        bad.push(
          `${method} ${url.slice(0, 300)} ${String(JSON.stringify(one.body)).slice(0, 900)} → ${response.status} ${text.slice(0, 200)}`,
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
    fetch(`${address}/api${path}`, {
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
  expect(await said(await fetch(`${address}/api/projects/%E0%A4%A`))).toEqual([
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
    const foreign = await fetch(`${address}/api/projects`, { headers: { 'Sec-Fetch-Site': site } });
    expect(await said(foreign)).toEqual([403, expect.stringContaining('other sites')]);
  }
  expect((await fetch(`${address}/api/projects`)).headers.get('cache-control')).toBe('no-store');
});
