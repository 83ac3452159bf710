import {
  FrameChangeSchema,
  FrameSettingsSchema,
  NameSchema,
  ProjectSettingsSchema,
  RewritingSchema,
  SeriesSchema,
} from '@inkwell/core/model';
import { fileNameWord } from '@inkwell/core/naming';
import { Router } from 'express';
import { z } from 'zod';
import type { Services } from '../../services.ts';
import { framesOfProject } from '../../store/projects/frames.ts';
import {
  addProject,
  openProject,
  originalsOf,
  renameProject,
  setProjectDeleted,
} from '../../store/projects/projects.ts';
import { exportProject } from '../../tasks/carrying/exportProject.ts';
import { receiveProject } from '../../tasks/carrying/importProject.ts';
import { seenOf } from '../../tasks/library/lookingAt.ts';
import { rewriteOriginal } from '../../tasks/library/rewriting.ts';
import { measuredOf } from '../../tasks/plans/measuredFrames.ts';
import { changeFramesOf } from '../../tasks/projects/changeFrame.ts';
import {
  beginNext,
  changeProjectSettings,
  chooseFrames,
  chooseOriginals,
  copyProject,
  takeProjectBack,
} from '../../tasks/projects/changeProject.ts';
import { listedProjects } from '../../tasks/projects/listedProjects.ts';
import { takeRows, tryRows } from '../../tasks/projects/series.ts';
import { orNotFound } from '../../userError.ts';
import { leavingOf } from '../leaving.ts';
import { idOf } from '../params.ts';
import { uploadedFile } from '../upload.ts';

export const ChangeFramesSchema = z.object({
  add: z
    .array(z.object({ originalId: z.uuid(), placeId: z.string(), settings: FrameSettingsSchema.optional() }))
    .max(10_000)
    .default([]),
  remove: z.array(z.uuid()).max(10_000).default([]),
});
export const SettingsSchema = z.object({ version: z.int32().positive(), change: ProjectSettingsSchema.partial() });
export const ChangeOriginalsSchema = z.object({
  add: z.array(z.uuid()).max(500).default([]),
  remove: z.array(z.uuid()).max(500).default([]),
});

export const SaveFramesSchema = z.object({
  frames: z
    .array(z.object({ id: z.uuid(), version: z.int32().positive(), change: FrameChangeSchema }))
    .max(1000)
    .refine(
      (asked) => new Set(asked.map(({ id }) => id)).size === asked.length,
      'Every frame can only be changed once.',
    ),
});
/** So many frames are told of at once: somebody else's request does not wait behind thousands. */
export const MeasuredOfSchema = z.object({ frameIds: z.array(z.uuid()).max(500) });

export const TakeFileSchema = z.object({ sheets: z.enum(['here', 'file']).optional() });
export const TakeSeriesSchema = z.object({ version: z.int32().positive(), series: SeriesSchema });

export const RewriteSchema = z.object({ originalId: z.uuid(), rewriting: RewritingSchema });

export function projectsRouter(services: Services): Router {
  const { db, planner } = services;
  const router = Router();

  router.get('/', async (_request, response) => {
    response.json(await listedProjects(services));
  });

  router.post('/', async (request, response) => {
    const { name } = z.object({ name: NameSchema }).parse(request.body);
    const id = await addProject(db, name);
    response.status(201).json(await openProject(db, id));
  });

  // Takes a project in from a file; where sheets say something else here, it is asked first whose hold.
  router.post('/file', async (request, response) => {
    const { sheets = null } = TakeFileSchema.parse(request.query);
    const leaving = leavingOf(response);
    const taken = await uploadedFile(
      request,
      (stream) => receiveProject(services, stream, sheets, leaving),
      'project file',
    );
    response.status(201).json(taken);
  });

  // The project as a file, with the bytes of its pictures.
  router.get('/:id/file', async (request, response) => {
    const { file, archive } = await exportProject(services, idOf(request));
    response.attachment(`${fileNameWord(file.name) || 'project'}.zip`);
    archive.on('error', (error) => response.destroy(error)).pipe(response);
  });

  router.get('/:id', async (request, response) => {
    response.json(orNotFound(await openProject(db, idOf(request)), 'This project'));
  });

  router.patch('/:id', async (request, response) => {
    const { name } = z.object({ name: NameSchema }).parse(request.body);
    orNotFound(await renameProject(db, idOf(request), name), 'This project');
    response.json(await openProject(db, idOf(request)));
  });

  router.patch('/:id/settings', async (request, response) => {
    const { version, change } = SettingsSchema.parse(request.body);
    response.json(await changeProjectSettings(services, idOf(request), version, change));
  });

  router.post('/:id/duplicate', async (request, response) => {
    response.status(201).json(await copyProject(services, idOf(request)));
  });

  router.post('/:id/next', async (request, response) => {
    response.status(201).json(await beginNext(services, idOf(request)));
  });

  router.delete('/:id', async (request, response) => {
    orNotFound(await setProjectDeleted(db, idOf(request), true), 'This project');
    response.status(204).end();
  });

  router.post('/:id/restore', async (request, response) => {
    await takeProjectBack(services, idOf(request));
    response.status(204).end();
  });

  router.post('/:id/originals', async (request, response) => {
    const { add, remove } = ChangeOriginalsSchema.parse(request.body);
    response.json(await chooseOriginals(services, idOf(request), add, remove));
  });

  // What would be wrong with the rows of a series: nothing is made.
  router.post('/:id/series/check', async (request, response) => {
    response.json(await tryRows(services, idOf(request), SeriesSchema.parse(request.body)));
  });

  router.post('/:id/series', async (request, response) => {
    const { version, series } = TakeSeriesSchema.parse(request.body);
    response.json(await takeRows(services, idOf(request), version, series));
  });

  // Puts a drawing that says something else in the place of one of its originals.
  router.post('/:id/rewriting', async (request, response) => {
    const { originalId, rewriting } = RewriteSchema.parse(request.body);
    response.json(await rewriteOriginal(services, idOf(request), originalId, rewriting));
  });

  // A new frame is composed unless its settings are given; frames that are there stay as they are.
  router.post('/:id/frames', async (request, response) => {
    const { add, remove } = ChangeFramesSchema.parse(request.body);
    response.json(await chooseFrames(services, idOf(request), add, remove));
  });

  // Saves how many frames are set, each by itself.
  router.patch('/:id/frames', async (request, response) => {
    const { frames } = SaveFramesSchema.parse(request.body);
    response.json(await changeFramesOf(services, idOf(request), frames));
  });

  // What every frame weighs at full size, and what is left of its marks where it is shown small. What is being measured comes
  // as null, and what could not be measured with the reason.
  router.get('/:id/measured', async (request, response) => {
    response.json(await measuredOf(db, await planner.open(), await framesOfProject(db, idOf(request))));
  });

  // The same of some frames, so that a project with thousands is told of piece by piece.
  router.post('/:id/measured', async (request, response) => {
    const { frameIds } = MeasuredOfSchema.parse(request.body);
    response.json(await measuredOf(db, await planner.open(), await framesOfProject(db, idOf(request), frameIds)));
  });

  // What was seen in every original; of those that are still to be looked at, nothing.
  router.get('/:id/seen', async (request, response) => {
    const originals = orNotFound(await originalsOf(db, idOf(request)), 'This project');
    response.json(await seenOf(services, originals));
  });

  return router;
}
