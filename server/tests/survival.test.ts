import {
  AskedSurvivalSchema,
  type Frame,
  FrameSchema,
  FrameSettingsSchema,
  LearnedUploadSchema,
  type OpenProject,
  OpenProjectSchema,
} from '@inkwell/core/model';
import { verified } from '@inkwell/core/posting';
import { isSetAs, scoreOf } from '@inkwell/core/surviving';
import { expect, test } from 'vitest';
import { z } from 'zod';
import { measureFile } from '../imaging/measuring/opening.ts';
import { shippedPlaces } from '../standins/shippedSheets.ts';
import { keepSheetFindings, listSheetFindings, setFindingState } from '../store/library/sheetFindings.ts';
import { chart } from '../testing/pictures/pictures.ts';
import { until } from '../testing/programs/client.ts';
import { startProgram } from '../testing/programs/program.ts';

const { client, services } = await startProgram();
const placeId = 'pipwire/profile-picture';

const picture = await client.original(await chart(900, 700).jpeg({ quality: 95 }).toBuffer(), 'chart.jpg');
const only = ({ frames }: OpenProject): Frame => {
  const [frame] = frames;
  if (!frame) throw new Error('This project has no frame.');
  return frame;
};
const change = async ({ id, version }: Frame, values: object) =>
  client.ask('PATCH', `/frames/${id}`, { version, change: values });
const learned = async () => z.array(LearnedUploadSchema).parse((await client.ask('GET', '/learned-uploads')).body);

test('the best upload of a frame is found, used, and learned for its place until that changes', async () => {
  const project = await client.project('Found', [picture], [placeId]);
  const frame = only(project);
  const [measured] = await client.measured(project.id);
  const path = `/frames/${frame.id}/survival`;
  const asked = async () =>
    AskedSurvivalSchema.parse((await client.ask('GET', `${path}?plan=${measured?.planHash}`)).body);
  expect(await asked()).toEqual({ survival: null, isWorking: false, failure: null });
  const asking = { frameId: frame.id, plan: measured?.planHash };
  expect((await client.ask('POST', '/learned-uploads', asking)).status).toBe(404);
  expect((await client.ask('POST', path, { plan: asking.plan })).status).toBe(202);
  const { survival } = await until(asked, ({ survival }) => survival !== null);
  if (!survival) throw new Error('Nothing was found.');
  const { asSet, best, tried } = survival;
  expect(asSet.left.map(({ shownWidth }) => shownWidth)).toEqual([null, 128, 44]);
  expect(asSet.bytes).toBe(measured?.weight?.bytes);
  expect(asSet.isRescaled).toBe(false);
  expect(scoreOf(best)).toBeGreaterThan(scoreOf(asSet) - 0.05);
  expect(tried).toBeGreaterThan(5);

  // Learned, it holds for new frames of the place, and is what was tried: to the byte.
  expect((await client.ask('POST', '/learned-uploads', asking)).status).toBe(201);
  const again = only(await client.project('Again', [picture], [placeId]));
  expect(isSetAs(best.choice, again)).toBe(true);
  const [remade] = await client.measured(again.projectId);
  expect(remade?.weight?.bytes).toBe(best.bytes);

  // Where the sheet says something else by now, it is not used any more.
  const found = { network: 'pipwire', place: null, said: '1600 px', measured: '300 px', dryRunId: null };
  await keepSheetFindings(services.db, [{ ...found, change: { field: 'long edge', longEdge: 300 } }]);
  const [finding] = await listSheetFindings(services.db);
  if (!finding) throw new Error('no finding');
  await setFindingState(services.db, finding.id, finding.version, 'taken over');
  expect(await learned()).toMatchObject([{ placeId, isOutdated: true, learnedFrom: 'chart' }]);
  expect(only(await client.project('Plain', [picture], [placeId]))).toMatchObject({
    uploadWidth: null,
    weighing: { aim: null },
  });
  expect(await asked()).toMatchObject({ survival: null });
  expect((await client.ask('DELETE', `/learned-uploads/${placeId}`)).status).toBe(204);
  expect(await learned()).toEqual([]);
});

test('a file in other dimensions is delivered, named and verified as such; what its network does not take is refused', async () => {
  const project = await client.project('Wider', [picture], [placeId, 'quillpost/header']);
  const [own, exact] = [placeId, 'quillpost/header'].map((id) => project.frames.find((one) => one.placeId === id));
  if (!own || !exact) throw new Error('no frames');
  const refused = async (frame: Frame, uploadWidth: number) => (await change(frame, { uploadWidth })).body;
  expect(await refused(own, 120)).toMatchObject({ message: expect.stringContaining('sides from 200 to 4096 px') });
  expect(await refused(exact, 900)).toMatchObject({ message: expect.stringContaining('only the dimensions') });
  const add = [
    { originalId: picture.id, placeId, settings: { ...FrameSettingsSchema.parse(own), uploadWidth: 20_000 } },
  ];
  expect((await client.ask('POST', `/projects/${project.id}/frames`, { add })).body).toMatchObject({
    message: expect.stringContaining('Choose another width.'),
  });
  const wider = FrameSchema.parse((await change(own, { uploadWidth: 700 })).body);
  expect(wider.uploadWidth).toBe(700);
  await client.measured(project.id);
  const { files, leftOut, id } = await client.deliver(project.id);
  expect(leftOut).toEqual([]);
  const line = files.find((file) => file.place === 'Profile picture');
  expect(line).toMatchObject({
    width: 700,
    height: 700,
    uploadWidth: 700,
    file: expect.stringContaining('_700x700.jpg'),
  });
  if (!line) throw new Error('no file');
  const opened = await measureFile(await client.bytes(`/deliveries/${id}/file?name=${encodeURIComponent(line.file)}`));
  const check = (uploadWidth: number | undefined) => {
    const { uploadWidth: _, ...said } = line;
    const manifest = {
      ...{ manifest: 2 as const, project: 'Wider', delivered: '2026-11-28T00:00:00.000Z', leftOut: [] },
      files: [{ ...said, ...(uploadWidth ? { uploadWidth } : {}) }],
    };
    return verified(manifest, [{ path: line.file, sha256: line.sha256, opened }], shippedPlaces());
  };
  expect(check(700)).toEqual([]);
  expect(check(undefined)[0]?.text).toContain('Profile picture wants 512 × 512 px');
  // What a copy of the project is delivered as is the same.
  const copy = OpenProjectSchema.parse((await client.ask('POST', `/projects/${project.id}/duplicate`)).body);
  expect(copy.frames.map(({ uploadWidth }) => uploadWidth).sort()).toEqual([700, null]);
});
