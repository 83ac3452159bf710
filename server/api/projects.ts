import { largestWindow, placeDimensions, wholeOf } from '@inkwell/core/geometry';
import {
  FrameSettingsSchema,
  isAllMeasured,
  type Measured,
  NameSchema,
  ProjectSettingsSchema,
  plainSettings,
} from '@inkwell/core/model';
import { firstGrid, notTaken } from '@inkwell/core/splitting';
import { Router } from 'express';
import { z } from 'zod';
import { Refusal } from '../refusal.ts';
import type { Services } from '../services.ts';
import { knownDetails } from '../store/details.ts';
import { knownFigures } from '../store/figures.ts';
import { changeFrames, framesOfProject, type NewFrame } from '../store/frames.ts';
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
import { knownWeights } from '../store/weights.ts';
import { found, idOf } from './params.ts';

const ChangeFramesSchema = z.object({
  add: z
    .array(z.object({ originalId: z.uuid(), placeId: z.string(), settings: FrameSettingsSchema.optional() }))
    .max(2000)
    .default([]),
  remove: z.array(z.uuid()).max(2000).default([]),
});
const SettingsSchema = z.object({ version: z.int().positive(), change: ProjectSettingsSchema.partial() });
const ChangeOriginalsSchema = z.object({
  add: z.array(z.uuid()).max(500).default([]),
  remove: z.array(z.uuid()).max(500).default([]),
});

export function projectsRouter({ db, planner, queue }: Services): Router {
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
    const saved = await saveProjectSettings(db, id, version, change);
    const project = found(await openProject(db, id), 'This project');
    if (!saved)
      throw new Refusal('What holds for all files of this project was changed elsewhere meanwhile.', 409, {
        current: project,
      });
    response.json(project);
  });

  router.post('/:id/duplicate', async (request, response) => {
    const copy = found(await duplicateProject(db, idOf(request)), 'This project');
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
    await changeFrames(db, projectId, add, change.remove);
    response.json(await openProject(db, projectId));
  });

  // What every frame weighs at full size, and what is left of its marks where it is shown small. What is not known
  // yet is asked for and comes as null.
  router.get('/:id/measured', async (request, response) => {
    const all = await framesOfProject(db, idOf(request));
    const { measuringOf } = await planner.open();
    const wanted = all.flatMap((framed) => {
      const measuring = measuringOf(framed);
      return measuring ? [{ frameId: framed.frame.id, ...measuring }] : [];
    });
    const weights = await knownWeights(
      db,
      wanted.map((one) => one.planHash),
    );
    const details = await knownDetails(
      db,
      wanted.map((one) => one.detail.hash),
    );
    const figures = await knownFigures(
      db,
      wanted.map((one) => one.planHash),
    );
    const answer = wanted.map(
      ({ frameId, planHash, plan, detail }): Measured => ({
        frameId,
        planHash,
        weight: weights.get(planHash) ?? null,
        detail: detail.marks.length === 0 ? [] : (details.get(detail.hash) ?? null),
        // Of a plain frame there is nothing to measure.
        isFinished: plan.finish !== null,
        figures: figures.get(planHash) ?? null,
      }),
    );
    for (const [index, measured] of answer.entries()) {
      const one = wanted[index];
      if (one && !isAllMeasured(measured)) await queue.askMeasure(one.detail.hash, one.frameId);
    }
    response.json(answer);
  });

  return router;
}
