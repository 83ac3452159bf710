import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { acutanceOf, finishById, finishingRadius, finishPixels } from '@inkwell/core/finishing';
import {
  type Finish,
  FinishFiguresSchema,
  FinishSchema,
  keepNothing,
  nothingSaid,
  type Treatment,
} from '@inkwell/core/model';
import type { Raster } from '@inkwell/core/planes';
import { plainPlan, planFrame, planHash, scalePlan } from '@inkwell/core/planning';
import { histogramOf, luminancePlane } from '@inkwell/core/seeing';
import { byHand, samplePlace } from '@inkwell/core/testing';
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { fromPixels, type Pixels, toPixels } from '../imaging/stages/pixels.ts';
import { renderPixels } from '../imaging/stages/renderPixels.ts';
import type { Queryable } from '../store/database.ts';
import { addFinish, setFinishDeleted } from '../store/library/finishes.ts';
import { Planner } from '../tasks/plans/planner.ts';
import { chart, difference, noise } from '../testing/pictures/pictures.ts';
import { startProgram } from '../testing/programs/program.ts';
import { fileNamed, unzip } from '../testing/unzip.ts';

const { client, services } = await startProgram();
const crisp = finishById('crisp', []);
const { name, description, treatment } = crisp;

/** A soft picture with detail in every direction, as a camera makes it. */
const photo = () => noise(2400, 1800).blur(3).linear(3, -256);
const acutance = (pixels: Pixels) => acutanceOf(luminancePlane(pixels));

async function pictured(treatment: Treatment, values: Parameters<typeof samplePlace>[0] = {}) {
  const original = await client.original(await photo().png().toBuffer(), 'soft.png');
  const place = samplePlace({ width: 600, height: 400, ...values });
  const settings = byHand({ centreX: 1200, centreY: 900, span: 1500 }, { format: 'png' });
  const plan = planFrame({ original, place, settings, treatment, keeping: keepNothing });
  const copy = await services.copies.get(original);
  return { original, plan, pixels: await renderPixels(plan, copy), copy };
}

test('a finished frame is crisper than a plain one, keeps its dimensions, and its proof shows the same', async () => {
  const { plan, pixels, copy } = await pictured(treatment);
  const plain = await renderPixels(plainPlan(plan), copy);
  expect(pixels).toMatchObject({ width: 600, height: 400 });
  expect(acutance(pixels)).toBeGreaterThan(1.05 * acutance(plain));
  const proof = await renderPixels(scalePlan(plan, 0.5), copy);
  expect(await difference(fromPixels(pixels).resize(300, 200), fromPixels(proof))).toBeLessThan(2.5);
});

test('what a browser finishes of a part differs from the server’s file by a level at most', async () => {
  const original = await client.original(await photo().png().toBuffer(), 'live.png');
  const project = await client.project('Live', [original], ['pipwire/single-image']);
  const change = { finishId: 'crisp' };
  await client.ask('PATCH', `/projects/${project.id}/settings`, { version: 1, change });
  const [frame] = project.frames;
  if (!frame) throw new Error('no frame');
  const plan = (await services.planner.open()).planOf({
    frame,
    original,
    project: {
      id: '00000000-0000-4000-8000-000000000001',
      finishId: 'crisp',
      keeping: keepNothing,
      composing: 'seen',
      lettering: [],
      posting: nothingSaid,
      pins: {},
      version: 1,
    },
    seen: null,
  });
  if (!plan?.finish) throw new Error('not finished');
  const { scale, ...finish } = plan.finish;
  const copy = await services.copies.get(original);

  const hash = planHash(plainPlan(plan));
  const raster = async (query: string): Promise<Raster> =>
    toPixels(sharp(await client.bytes(`/frames/${frame.id}/pixels?plan=${hash}&${query}`)));
  const plain = await raster('stage=plain');
  expect(plain).toMatchObject(plan.output);
  const rect = { left: 200, top: 150, width: 320, height: 240 };
  const size = (length: number) => Math.round(length * finish.oversize);
  const ratio = { x: size(plain.width) / plain.width, y: size(plain.height) / plain.height };
  const margin = finishingRadius(finish, ratio, scale);
  const [left, top] = [Math.floor(rect.left * ratio.x) - margin, Math.floor(rect.top * ratio.y) - margin];
  const [width, height] = [size(rect.width) + 2 * margin + 1, size(rect.height) + 2 * margin + 1];
  const enlarged = await raster(
    `stage=enlarged&oversize=${finish.oversize}&left=${left}&top=${top}&width=${width}&height=${height}`,
  );
  const inPart = await toPixels(fromPixels(plain as Pixels).extract(rect));
  for (const [compensate, allowed] of [
    [{ kind: 'off' }, { most: 1, mean: 0.05 }],
    // The part is compensated by its own means, the file by those of the whole: that is the jump when one replaces the other.
    [{ kind: 'measured' }, { most: 2, mean: 0.5 }],
  ] as const) {
    const wish = { ...finish, compensate };
    const picture = { plain: inPart, enlarged: { raster: enlarged, left, top }, ratio, at: rect, scale };
    const part = finishPixels({ ...picture, histogram: histogramOf(plain) }, wish).raster;
    const whole = await renderPixels({ ...plan, finish: { ...wish, scale } }, copy);
    const there = await toPixels(fromPixels(whole).extract(rect));
    let [most, sum] = [0, 0];
    // Of the outermost pixels the surroundings are not all there.
    for (let y = 1; y < rect.height - 1; y += 1) {
      for (let x = 3; x < (rect.width - 1) * 3; x += 1) {
        const by = Math.abs((part.data[y * rect.width * 3 + x] ?? 0) - (there.data[y * rect.width * 3 + x] ?? 0));
        most = Math.max(most, by);
        sum += by;
      }
    }
    expect(most).toBeLessThanOrEqual(allowed.most);
    expect(sum / (rect.width * rect.height * 3)).toBeLessThan(allowed.mean);
  }
  expect(await client.ask('GET', `/frames/${frame.id}/pixels?plan=${hash}&stage=plain&left=5000`)).toMatchObject({
    status: 422,
  });

  const [measured] = await client.measured(project.id);
  const figures = FinishFiguresSchema.parse(measured?.figures);
  expect(figures.finished.acutance).toBeGreaterThan(figures.plain.acutance);
  expect(Math.abs(figures.finished.luminance - figures.plain.luminance)).toBeLessThan(0.1);
  expect(figures.halo).toBeLessThanOrEqual(finish.halo);
});

test('a border outside leaves the dimensions and makes the picture smaller; inside it covers; on pieces it goes round each', async () => {
  const border = {
    width: 6,
    colour: '#a8322a',
    side: 'outside',
    edges: { left: true, top: true, right: false, bottom: true },
    round: 'whole',
  } as const;
  const plain = finishById('plain', []).treatment;
  const at = async (pixels: Pixels, x: number, y: number) => [
    ...(await fromPixels(pixels).extract({ left: x, top: y, width: 1, height: 1 }).removeAlpha().raw().toBuffer()),
  ];
  const red = [0xa8, 0x32, 0x2a];
  const outside = await pictured({ ...plain, border });
  expect(outside.pixels).toMatchObject({ width: 600, height: 400 });
  for (const [x, y] of [
    [0, 200],
    [5, 200],
    [300, 0],
    [300, 399],
  ] as const)
    expect(await at(outside.pixels, x, y)).toEqual(red);
  expect(await at(outside.pixels, 599, 200)).not.toEqual(red);
  // What the border leaves shows what the window holds, to its edge.
  const inner = fromPixels(outside.pixels).extract({ left: 6, top: 6, width: 594, height: 388 });
  const rise = (1500 * 388) / 594;
  const cut = { left: 450, top: Math.round(900 - rise / 2), width: 1500, height: Math.round(rise) };
  expect(
    await difference(
      inner,
      sharp(await photo().png().toBuffer())
        .extract(cut)
        .resize(594, 388, { fit: 'fill' }),
    ),
  ).toBeLessThan(3);

  const inside = await pictured({ ...plain, border: { ...border, side: 'inside' } });
  const bare = await pictured(plain);
  expect(await at(inside.pixels, 2, 200)).toEqual(red);
  expect(await at(inside.pixels, 300, 200)).toEqual(await at(bare.pixels, 300, 200));
});

test('finishes are kept, changed on a version, written to files and read again, and stay while they are used', async () => {
  const made = FinishSchema.parse(
    (await client.ask('POST', '/finishes', { name: 'Dune light', description, treatment })).body,
  );
  const save = (version: number, change: Partial<Finish>) =>
    client.ask('PATCH', `/finishes/${made.id}`, { version, change });
  expect(await save(1, { treatment: { ...treatment, blend: 0.9 } })).toMatchObject({ body: { version: 2 } });
  expect(await save(1, { name: 'Late' })).toMatchObject({ status: 409, body: { current: { version: 2 } } });
  expect(await client.ask('PATCH', '/finishes/crisp', { version: 1, change: { name: 'Mine' } })).toMatchObject({
    status: 404,
  });

  // What is published is what the program answers and holds files to.
  const published = join(import.meta.dirname, '..', '..', 'docs', 'formats', 'finish.schema.json');
  expect((await client.ask('GET', '/finishes/schema')).body).toEqual(JSON.parse(await readFile(published, 'utf8')));
  const file = JSON.parse((await client.bytes(`/finishes/${made.id}/file`)).toString());
  expect(file).toMatchObject({ inkwellFinish: 1, name: 'Dune light', treatment: { blend: 0.9 } });
  const again = FinishSchema.parse((await client.ask('POST', '/finishes/import', file)).body);
  expect(again).toMatchObject({ name: 'Dune light', version: 1, treatment: file.treatment });
  expect(JSON.parse((await client.bytes('/finishes/crisp/file')).toString())).toMatchObject({ name });
  const wrong = await client.ask('POST', '/finishes/import', {
    ...file,
    treatment: { ...file.treatment, oversize: 9 },
  });
  expect(wrong).toMatchObject({
    status: 400,
    body: { message: expect.stringContaining('Oversize is a number from 1 to 2.5.') },
  });
  expect(await client.ask('POST', '/finishes/import', { hello: 'there' })).toMatchObject({ status: 400 });

  const original = await client.original(await chart(800, 600).png().toBuffer(), 'used.png');
  const project = await client.project('Used', [original], ['sunpane/square-post', 'pipwire/header']);
  const settings = { version: 1, change: { finishId: made.id } };
  expect(await client.ask('PATCH', `/projects/${project.id}/settings`, settings)).toMatchObject({
    body: { finishId: made.id, version: 2 },
  });
  expect(await client.ask('PATCH', `/projects/${project.id}/settings`, settings)).toMatchObject({ status: 409 });
  expect((await client.ask('GET', '/finishes')).body).toMatchObject({ uses: { [made.id]: 2 } });
  expect(await client.ask('DELETE', `/finishes/${made.id}`)).toMatchObject({ status: 409 });
  expect(await client.ask('DELETE', `/finishes/${again.id}`)).toMatchObject({ status: 204 });
});

test('what another process changes in the library holds at once, and what is taken back never did', async () => {
  const { db } = services;
  const here = new Planner(db, services.fonts);
  const names = async (tx?: Queryable) => (await here.open(tx)).finishes.map((one) => one.name);
  const before = await names();
  const settings = { description, treatment };
  const taken = db.transaction(async (tx) => {
    await addFinish(tx, { ...settings, name: 'Taken back' });
    expect(await names(tx)).toEqual([...before, 'Taken back']);
    throw new Error('taken back');
  });
  await expect(taken).rejects.toThrow('taken back');
  expect(await names()).toEqual(before);
  const added = await addFinish(db, { ...settings, name: 'From elsewhere' });
  expect(await names()).toEqual([...before, 'From elsewhere']);
  await setFinishDeleted(db, added.id, true);
  expect(await names()).toEqual(before);
});

test('a delivery says how each file was finished, and every panel has its border where it goes round pieces', async () => {
  const plain = finishById('plain', []).treatment;
  const edges = { left: true, top: true, right: true, bottom: true };
  const border = { width: 5, colour: '#1f6f66', side: 'inside', edges, round: 'pieces' } as const;
  const lined = FinishSchema.parse(
    (await client.ask('POST', '/finishes', { name: 'Lined', description, treatment: { ...plain, border } })).body,
  );
  const original = await client.original(await chart(2600, 1000).png().toBuffer(), 'panels.png');
  const places = ['sunpane/swipe-panels-portrait', 'sunpane/square-post', 'pipwire/header'];
  const project = await client.project('Finished', [original], places);
  const set = (placeId: string, change: object) => {
    const frame = project.frames.find((one) => one.placeId === placeId);
    return client.ask('PATCH', `/frames/${frame?.id}`, { version: 1, change });
  };
  await set('sunpane/swipe-panels-portrait', { finishId: lined.id, format: 'png' });
  await set('sunpane/square-post', { finishId: 'crisp', blend: 0.7 });
  const delivery = await client.deliver(project.id);
  expect(delivery).toMatchObject({ state: 'done', leftOut: [] });

  const of = (place: string) => delivery.files.filter((file) => file.place === place);
  expect(of('Header').map(({ finish }) => finish)).toEqual([undefined]);
  expect(of('Square post').map(({ finish }) => finish)).toEqual([{ name: 'Crisp', version: 1, blend: 0.7 }]);
  const panels = of('Swipe panels, portrait');
  expect(panels.length).toBeGreaterThan(1);
  const archive = await unzip(await client.bytes(`/deliveries/${delivery.id}/archive`));
  for (const { file, finish, width, height } of panels) {
    expect(finish).toMatchObject({ name: 'Lined', version: 1 });
    const { data, info } = await sharp(fileNamed(archive, file))
      .removeAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    const at = (x: number, y: number) => [...data.subarray((y * info.width + x) * 3, (y * info.width + x) * 3 + 3)];
    for (const [x, y] of [
      [0, height >> 1],
      [4, height >> 1],
      [width - 1, height >> 1],
      [width >> 1, 0],
      [width >> 1, height - 5],
    ] as const) {
      expect(at(x, y)).toEqual([0x1f, 0x6f, 0x66]);
    }
    expect(at(5, 5)).not.toEqual([0x1f, 0x6f, 0x66]);
  }
});
