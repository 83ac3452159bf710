import { largestWindow, placeDimensions, wholeOf } from '@inkwell/core/geometry';
import { type Frame, FrameSettingsSchema, NameSchema, ProjectSettingsSchema, plainSettings } from '@inkwell/core/model';
import { firstGrid, notTaken } from '@inkwell/core/splitting';
import { Router } from 'express';
import { z } from 'zod';
import { Refusal } from '../refusal.ts';
import type { Services } from '../services.ts';
import { changeFrames, framesOfProject, type NewFrame } from '../store/frames.ts';
import { areThere } from '../store/originals.ts';
import {
  addProject,
  changeOriginals,
  duplicateProject,
  listProjects,
  openProject,
  renameProject,
  saveProjectSettings,
  setProjectDeleted,
} from '../store/projects.ts';
import { measuredOf, queueMeasuring } from '../tasks/measuredFrames.ts';
import { found, idOf, notFound } from './params.ts';

export const ChangeFramesSchema = z.object({
  add: z
    .array(z.object({ originalId: z.uuid(), placeId: z.string(), settings: FrameSettingsSchema.optional() }))
    .max(2000)
    .default([]),
  remove: z.array(z.uuid()).max(2000).default([]),
});
export const SettingsSchema = z.object({ version: z.int().positive(), change: ProjectSettingsSchema.partial() });
export const ChangeOriginalsSchema = z.object({
  add: z.array(z.uuid()).max(500).default([]),
  remove: z.array(z.uuid()).max(500).default([]),
});

export function projectsRouter({ db, planner }: Services): Router {
  const router = Router();

  router.get('/', async (_request, response) => {
    response.json(await listProjects(db));
  });

  router.post('/', async (request, response) => {
    const { name } = z.object({ name: NameSchema }).parse(request.body);
    const id = await addProject(db, name);
    response.status(201).json(await openProject(db, id));
  });

  router.get('/:id', async (request, response) => {
    response.json(found(await openProject(db, idOf(request)), 'This project'));
  });

  router.patch('/:id', async (request, response) => {
    const { name } = z.object({ name: NameSchema }).parse(request.body);
    found(await renameProject(db, idOf(request), name), 'This project');
    response.json(await openProject(db, idOf(request)));
  });

  router.patch('/:id/settings', async (request, response) => {
    const { version, change } = SettingsSchema.parse(request.body);
    const id = idOf(request);
    const saved = await db.transaction(async (tx) => {
      const isSaved = await saveProjectSettings(tx, id, version, change);
      if (isSaved) await queueMeasuring(tx, await planner.open(tx), await framesOfProject(tx, id));
      return isSaved;
    });
    const project = found(await openProject(db, id), 'This project');
    if (!saved)
      throw new Refusal('What holds for all files of this project was changed elsewhere meanwhile.', 409, {
        current: project,
      });
    response.json(project);
  });

  router.post('/:id/duplicate', async (request, response) => {
    const copy = await db.transaction(async (tx) => {
      const id = found(await duplicateProject(tx, idOf(request)), 'This project');
      await queueMeasuring(tx, await planner.open(tx), await framesOfProject(tx, id));
      return id;
    });
    response.status(201).json(await openProject(db, copy));
  });

  router.delete('/:id', async (request, response) => {
    found(await setProjectDeleted(db, idOf(request), true), 'This project');
    response.status(204).end();
  });

  router.post('/:id/restore', async (request, response) => {
    found(await setProjectDeleted(db, idOf(request), false), 'This project');
    response.status(204).end();
  });

  router.post('/:id/originals', async (request, response) => {
    const id = idOf(request);
    const { add, remove } = ChangeOriginalsSchema.parse(request.body);
    found(await openProject(db, id), 'This project');
    if (!(await areThere(db, add))) throw notFound('One of these originals');
    await changeOriginals(db, id, add, remove);
    response.json(await openProject(db, id));
  });

  // A new frame is composed unless its settings are given; frames that are there stay as they are.
  router.post('/:id/frames', async (request, response) => {
    const projectId = idOf(request);
    const change = ChangeFramesSchema.parse(request.body);
    const project = found(await openProject(db, projectId), 'This project');
    const { places } = await planner.open();
    const add = change.add.map(({ originalId, placeId, settings }): NewFrame => {
      const original = project.originals.find((one) => one.id === originalId);
      if (!original) throw new Refusal('An original has to be chosen for the project before it is given places.', 409);
      const place = places.get(placeId)?.place;
      if (!place) throw new Refusal(`There is no place ${placeId} in the spec book.`);
      const frame: NewFrame = {
        projectId,
        originalId,
        placeId,
        ...plainSettings,
        window: largestWindow(wholeOf(original), placeDimensions(place, original)),
        grid: firstGrid(place, original, original.marks),
        format: place.formats.includes('jpeg') ? 'jpeg' : 'png',
        ...settings,
      };
      const problem = notTaken(place, original, frame);
      if (problem) throw new Refusal(problem);
      return frame;
    });
    await db.transaction(async (tx) => {
      await changeFrames(tx, projectId, add, change.remove);
      const added = (await framesOfProject(tx, projectId)).filter(({ frame }) => isAmong(add, frame));
      await queueMeasuring(tx, await planner.open(tx), added);
    });
    response.json(await openProject(db, projectId));
  });

  // What every frame weighs at full size, and what is left of its marks where it is shown small. What is being measured comes
  // as null, and what could not be measured with the reason.
  router.get('/:id/measured', async (request, response) => {
    response.json(await measuredOf(db, await planner.open(), await framesOfProject(db, idOf(request))));
  });

  return router;
}

/** Whether a frame is one of those that were asked for. */
const isAmong = (asked: readonly NewFrame[], frame: Frame) =>
  asked.some(({ originalId, placeId }) => originalId === frame.originalId && placeId === frame.placeId);
