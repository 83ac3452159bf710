import {
  OpenProjectSchema,
  plainSettings,
  type SheetContent,
  SheetContentSchema,
  SpecSheetSchema,
} from '@inkwell/core/model';
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { chart, noise } from '../testing/pictures/pictures.ts';
import { startProgram } from '../testing/programs/program.ts';

const { client } = await startProgram();
const usual = {
  slug: 'place',
  name: 'Place',
  purpose: 'post',
  width: 400,
  height: 400,
  formats: ['jpeg', 'png'],
  limit: { bytes: 900_000, unit: 'kB' },
};

/** Makes a sheet with one place; gives the id of that. */
async function placeWith(name: string, values: object): Promise<string> {
  const content: SheetContent = SheetContentSchema.parse({
    name,
    kind: 'made up',
    checkedOn: '2026-11-02',
    places: [{ ...usual, ...values }],
  });
  const words = { savedBy: '', note: '' };
  const { slug } = SpecSheetSchema.parse((await client.ask('POST', '/sheets', { content, words })).body);
  return `${slug}/place`;
}

/** A strip whose first half is calm and whose second is noise. */
async function halfCalm(): Promise<Buffer> {
  const calm = await chart(800, 400).blur(20).png().toBuffer();
  return sharp(await noise(1600, 400).png().toBuffer())
    .composite([{ input: calm, left: 0, top: 0 }])
    .png()
    .toBuffer();
}

test('a limit of a whole post is shared out over its pieces: the hard ones get what the easy ones do not need', async () => {
  const original = await client.original(await halfCalm(), 'half.png');
  const group = { kind: 'panels', min: 2, max: 8 };
  const free = await placeWith('Free', { group });
  const tight = await placeWith('Tight', { group, postLimit: { bytes: 150_000, unit: 'kB' } });
  const project = await client.project('Strip', [original], [free, tight]);
  for (const frame of project.frames) {
    const change = {
      grid: { columns: 4, rows: 1 },
      sharedQuality: false,
      weighing: { ...plainSettings.weighing, belowFloor: true },
    };
    expect((await client.ask('PATCH', `/frames/${frame.id}`, { version: 1, change })).status).toBe(200);
  }
  const { files, leftOut } = await client.deliver(project.id);
  expect(leftOut).toEqual([]);
  const of = (placeId: string) => files.filter(({ placeThen }) => placeThen?.id === placeId);
  const sum = (some: typeof files) => some.reduce((all, { bytes }) => all + bytes, 0);
  expect(sum(of(free))).toBeGreaterThan(150_000);
  expect(sum(of(tight))).toBeLessThanOrEqual(150_000 * 0.97);
  // Not divided evenly: noise takes several times as much as what is calm, and no piece is much worse than another.
  const [calm, , , loud] = of(tight);
  expect(loud?.bytes).toBeGreaterThan(2 * (calm?.bytes ?? 0));
  const similarities = of(tight).map(({ similarity = 0 }) => similarity);
  expect(Math.min(...similarities)).toBeGreaterThan(Math.min(...similarities.slice(0, 2)) - 12);
});

test('a post that is too heavy as a whole is not delivered, and says so', async () => {
  const original = await client.original(await noise(900, 300).png().toBuffer(), 'heavy.png');
  const group = { kind: 'panels', min: 2, max: 8 };
  const placeId = await placeWith('Heavy', { group, formats: ['png'], postLimit: { bytes: 90_000, unit: 'kB' } });
  const project = await client.project('Heavy post', [original], [placeId]);
  const { files, leftOut } = await client.deliver(project.id);
  expect(files).toEqual([]);
  expect(leftOut[0]?.reasons[0]).toMatch(/files of this post weigh .* bytes together; its place takes 87,300 bytes/);
});

test('a format can have a limit of its own; a single file keeps to the limit of its post', async () => {
  const original = await client.original(await noise(900, 900).png().toBuffer(), 'noise.png');
  const own = await placeWith('Own', { formatLimits: { jpeg: { bytes: 60_000, unit: 'kB' } } });
  const post = await placeWith('Post', { postLimit: { bytes: 50_000, unit: 'kB' } });
  const project = await client.project('Limits', [original], [own, post]);
  for (const frame of project.frames) {
    const change = { weighing: { ...plainSettings.weighing, belowFloor: true } };
    await client.ask('PATCH', `/frames/${frame.id}`, { version: 1, change });
  }
  const { files } = await client.deliver(project.id);
  const bytes = (id: string) => files.find(({ placeThen }) => placeThen?.id === id)?.bytes ?? Number.NaN;
  expect(bytes(own)).toBeLessThanOrEqual(60_000 * 0.97);
  expect(bytes(post)).toBeLessThanOrEqual(50_000 * 0.97);
  // As good as fits: not much less than that.
  expect(Math.min(bytes(own) / 60_000, bytes(post) / 50_000)).toBeGreaterThan(0.8);
});

test('of a range of ratios a frame has the one that serves its picture, until a hand chooses or moves it', async () => {
  const [wide, tall] = [
    await client.original(await chart(900, 600).png().toBuffer(), 'wide.png'),
    await client.original(await chart(600, 900).png().toBuffer(), 'tall.png'),
  ];
  const otherDimensions = { kind: 'ratios', least: 0.8, most: 1.91, leastSide: 100, mostSide: 900 };
  const placeId = await placeWith('Ratios', { otherDimensions, multipleOf: 2 });
  const project = await client.project('Any ratio', [wide, tall], [placeId]);
  const sides = async () =>
    (await client.deliver(project.id)).files.map(({ width, height }) => `${width} × ${height}`).sort();
  expect(await sides()).toEqual(['400 × 266', '400 × 500']);
  const [frame] = project.frames;
  const patch = async (change: object) => {
    const { frames } = await client.open(project.id);
    const { version } = frames.find(({ id }) => id === frame?.id) ?? {};
    return client.ask('PATCH', `/frames/${frame?.id}`, { version, change });
  };
  expect(await patch({ dimensions: { width: 400, height: 1000 } })).toMatchObject({
    status: 422,
    body: { message: expect.stringContaining('takes sides from 100 to 900 px') },
  });
  expect(await patch({ dimensions: { width: 400, height: 267 } })).toMatchObject({ status: 422 });
  expect((await patch({ dimensions: { width: 640, height: 480 } })).status).toBe(200);
  expect(await sides()).toContain('640 × 480');
  await patch({ dimensions: null });
  // A window that a hand moves stays at the dimensions at which that was.
  await patch({ window: { centreX: 400, centreY: 300, span: 500, turn: 0, mirror: false } });
  const { frames } = OpenProjectSchema.parse(await client.open(project.id));
  expect(frames.find(({ id }) => id === frame?.id)).toMatchObject({ composed: false, dimensions: { width: 400 } });
});
