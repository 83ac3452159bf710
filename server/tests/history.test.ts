import {
  BroughtBackSchema,
  FrameSettingsSchema,
  type OpenProject,
  OpenStepSchema,
  OriginalSettingsSchema,
  ProjectSettingsSchema,
  pairKey,
  StepSchema,
} from '@inkwell/core/model';
import { expect, test } from 'vitest';
import { z } from 'zod';
import { projectThen } from '../tasks/history/projectThen.ts';
import { difference, noise } from '../testing/pictures/pictures.ts';
import { startStudio } from '../testing/programs/studio.ts';

const { owner, comeAs, programOf, inside, door } = await startStudio();
const ida = await comeAs('editor', 'Ida');
const [program, ofOwner] = [await programOf(ida), await programOf(owner)];
const { db } = inside(door.firstWorkspace);
const places = ['sunpane/portrait-post', 'sunpane/wide-post', 'pipwire/header'];

const stepsOf = async (id: string) =>
  z.array(StepSchema).parse((await program.ask('GET', `/projects/${id}/history`)).body);
const lastStep = async (id: string) => z.int().parse((await stepsOf(id))[0]?.id);

/** All that people have set in a project, however its rows are called. */
function setIn({ name, originals, frames, ...project }: OpenProject) {
  const settingsOf = Object.fromEntries(
    frames.map((frame) => [pairKey(frame), { ...FrameSettingsSchema.parse(frame), carriedFrom: null }]),
  );
  const pictures = originals.map((one) => ({ id: one.id, ...OriginalSettingsSchema.parse(one) }));
  return { name, project: ProjectSettingsSchema.parse(project), pictures, settingsOf };
}

/** Numbers that look thrown, and are the same each time. */
function dice(seed: number): (sides: number) => number {
  let state = seed;
  return (sides) => {
    state = (state * 1_103_515_245 + 12_345) % 2_147_483_648;
    return Math.floor((state / 2_147_483_648) * sides);
  };
}

test('whatever two people did in turns, every step is found as it was, and any of them can be brought back', async () => {
  const seed = Number(process.env.INKWELL_SEED ?? 7);
  const roll = dice(seed);
  const pictures = await Promise.all(
    [0, 1, 2].map(async (index) =>
      program.original(
        await noise(400 + index, 300)
          .png()
          .toBuffer(),
        `${index}.png`,
      ),
    ),
  );
  const { id } = await program.project('Kites of two', pictures.slice(0, 2), places.slice(0, 2));
  const other = await program.project('Beside it', pictures.slice(0, 1), places.slice(0, 1));
  const doings = [
    async (who: typeof program, { frames }: OpenProject) => {
      const frame = frames[roll(frames.length)];
      if (!frame) return;
      const change = [
        { window: { ...frame.window, span: 100 + roll(100), centreX: 100 + roll(200) } },
        { format: roll(2) === 0 ? 'jpeg' : 'png' },
        { posting: { caption: `Up ${roll(9)}`, tags: null, altText: null } },
        { backing: { kind: 'colour', colour: '#20405f' } },
      ][roll(4)];
      await who.ask('PATCH', `/frames/${frame.id}`, { version: frame.version, change });
    },
    (who: typeof program, { frames }: OpenProject) =>
      who.ask('POST', `/projects/${id}/frames`, { remove: frames.slice(0, 1 + roll(2)).map((one) => one.id) }),
    (who: typeof program, { originals }: OpenProject) =>
      who.ask('POST', `/projects/${id}/frames`, {
        add: originals.map((one) => ({ originalId: one.id, placeId: places[roll(3)] })),
      }),
    (who: typeof program, { originals }: OpenProject) => {
      const isIn = (one: { id: string }) => originals.some((known) => known.id === one.id);
      const [add, remove] = [pictures.filter((one) => !isIn(one)), originals.slice(1, 2)];
      return who.ask('POST', `/projects/${id}/originals`, {
        add: add.map((one) => one.id),
        remove: remove.map((one) => one.id),
      });
    },
    (who: typeof program, { version }: OpenProject) =>
      who.ask('PATCH', `/projects/${id}/settings`, { version, change: { pattern: `{name}_${roll(99)}` } }),
    (who: typeof program) => who.ask('PATCH', `/projects/${id}`, { name: `Kites of ${roll(99)}` }),
    (who: typeof program, { originals }: OpenProject) => {
      const one = originals[0];
      const mark = {
        id: crypto.randomUUID(),
        kind: 'keep',
        name: 'Kite',
        left: roll(200),
        top: 20,
        width: 90,
        height: 60,
        priority: 'must',
      };
      return who.ask('PATCH', `/originals/${one?.id}/settings`, { version: one?.version, change: { marks: [mark] } });
    },
  ];
  const states: { step: number; set: ReturnType<typeof setIn> }[] = [];
  const noteState = async () => states.push({ step: await lastStep(id), set: setIn(await program.open(id)) });
  await noteState();
  for (let number = 0; number < 30; number += 1) {
    await doings[roll(doings.length)]?.(number % 2 === 0 ? program : ofOwner, await program.open(id));
    await noteState();
  }
  // Most of what was thrown did something.
  expect(new Set(states.map(({ step }) => step)).size).toBeGreaterThan(15);
  const differing = states.map(({ set }) => JSON.stringify(set));
  for (const { step, set } of states) {
    expect(setIn(await projectThen(db, id, { step, is: 'after' }))).toEqual(set);
  }
  for (const index of [3, 25, 0, 30, 12]) {
    const { step, set } = states[index] ?? { step: 0 };
    BroughtBackSchema.parse((await program.ask('POST', `/projects/${id}/history/${step}/bring-back`)).body);
    expect(setIn(await program.open(id))).toEqual(set);
  }
  expect(new Set(differing).size).toBeGreaterThan(15);
  expect((await program.open(other.id)).frames).toHaveLength(1);
});

test('a step says who did what, and shows what looks otherwise since', async () => {
  const original = await ofOwner.original(await noise(900, 900).png().toBuffer(), 'dune.png');
  const { id, frames } = await ofOwner.project('Dunes', [original], places.slice(0, 2));
  const [frame] = frames;
  if (!frame) throw new Error('There is a frame.');
  const window = { ...frame.window, span: frame.window.span / 3 };
  await program.ask('PATCH', `/frames/${frame.id}`, { version: frame.version, change: { window } });
  const steps = await stepsOf(id);
  expect(steps.map(({ who, did }) => [who, did[0]?.table, did[0]?.kind, did[0]?.count])).toEqual([
    ['Ida', 'frames', 'changed', 1],
    ['Runa Holm', 'frames', 'added', 2],
    ['Runa Holm', 'project_originals', 'added', 1],
    ['Runa Holm', 'projects', 'added', 1],
  ]);
  expect(steps[0]?.did[0]?.settings).toContain('window');
  expect(steps.map(({ at }) => at)).toEqual(
    steps
      .map(({ at }) => at)
      .toSorted()
      .toReversed(),
  );

  const path = `/projects/${id}/history/${steps[0]?.id}`;
  const opened = OpenStepSchema.parse((await program.ask('GET', path)).body);
  expect(opened.frames.map((one) => one.id)).toEqual([frame.id]);
  const [seen] = opened.frames;
  const pictureOf = (is: 'before' | 'after') =>
    program.bytes(`${path}/frames/${frame.id}/picture?is=${is}&width=300&plan=${seen?.[is]?.planHash}`);
  expect(await difference(await pictureOf('before'), await pictureOf('after'))).toBeGreaterThan(5);
  const now = OpenStepSchema.parse((await program.ask('GET', `${path}?frames=all`)).body);
  expect(now).toMatchObject({ count: 2, frames: [{}, {}] });

  // The page of before is asked for by its last step; what is not of this project is not there.
  const older = z
    .array(StepSchema)
    .parse((await program.ask('GET', `/projects/${id}/history?before=${steps[1]?.id}`)).body);
  expect(older.map((step) => step.id)).toEqual(steps.slice(2).map((step) => step.id));
  const { id: elsewhere } = await ofOwner.project('Elsewhere', [], []);
  for (const asked of [`/projects/${elsewhere}/history/${steps[0]?.id}`, `/projects/${id}/history/none`]) {
    expect((await program.ask('GET', asked)).status).toBe(404);
    expect((await program.ask('POST', `${asked}/bring-back`)).status).toBe(404);
  }
});

test('what is brought back without a picture that was deleted says so by what is there; others’ steps since are kept in the history', async () => {
  const [one, two] = await Promise.all(
    ['a.png', 'b.png'].map(async (name) => program.original(await noise(300, 300).png().toBuffer(), name)),
  );
  if (!one || !two) throw new Error('There are two.');
  const { id } = await program.project('Kept', [one, two], places.slice(0, 1));
  const whole = await lastStep(id);
  await program.ask('POST', `/projects/${id}/originals`, { add: [], remove: [one.id, two.id] });
  const empty = await lastStep(id);
  await program.ask('DELETE', `/originals/${two.id}`);
  expect((await program.ask('POST', `/projects/${id}/history/${whole}/bring-back`)).body).toEqual({
    frames: 1,
    pictures: 0,
  });
  expect((await program.open(id)).originals.map((known) => known.id)).toEqual([one.id]);
  await program.ask('POST', `/projects/${id}/history/${empty}/bring-back`);
  expect(await program.open(id)).toMatchObject({ originals: [], frames: [] });
  expect((await stepsOf(id)).length).toBeGreaterThanOrEqual(5);
});
