import {
  ChangedFrameSchema,
  FrameChangeSchema,
  FrameSettingsSchema,
  ImportedProjectSchema,
  MeasuredSchema,
  NameSchema,
  OpenProjectSchema,
  ProjectSchema,
  ProjectSettingsSchema,
  RewritingSchema,
  RowFindingsSchema,
  SeenSchema,
  SeriesSchema,
} from '@inkwell/core/model';
import { fileNameWord } from '@inkwell/core/naming';
import { z } from 'zod';
import type { Services } from '../../../services.ts';
import { framesOfProject } from '../../../store/projects/frames.ts';
import {
  addProject,
  openProject,
  originalsOf,
  renameProject,
  setProjectDeleted,
} from '../../../store/projects/projects.ts';
import { exportProject } from '../../../tasks/carrying/exportProject.ts';
import { receiveProject } from '../../../tasks/carrying/importProject.ts';
import { seenOf } from '../../../tasks/library/lookingAt.ts';
import { rewriteOriginal } from '../../../tasks/library/rewriting.ts';
import { measuredOf } from '../../../tasks/plans/measuredFrames.ts';
import { changeFramesOf } from '../../../tasks/projects/changeFrame.ts';
import {
  beginNext,
  changeProjectSettings,
  chooseFrames,
  chooseOriginals,
  copyProject,
  takeProjectBack,
} from '../../../tasks/projects/changeProject.ts';
import { listedProjects } from '../../../tasks/projects/listedProjects.ts';
import { takeRows, tryRows } from '../../../tasks/projects/series.ts';
import { orNotFound } from '../../../userError.ts';
import { Resource } from '../../contracts/resource.ts';
import { uploadedFile } from '../../sending/upload.ts';

const NamedSchema = z.object({ name: NameSchema });
const ChangeFramesSchema = z.object({
  add: z
    .array(z.object({ originalId: z.uuid(), placeId: z.string(), settings: FrameSettingsSchema.optional() }))
    .max(10_000)
    .default([]),
  remove: z.array(z.uuid()).max(10_000).default([]),
});
const SettingsSchema = z.object({ version: z.int32().positive(), change: ProjectSettingsSchema.partial() });
const ChangeOriginalsSchema = z.object({
  add: z.array(z.uuid()).max(500).default([]),
  remove: z.array(z.uuid()).max(500).default([]),
});
const SaveFramesSchema = z.object({
  frames: z
    .array(z.object({ id: z.uuid(), version: z.int32().positive(), change: FrameChangeSchema }))
    .max(1000)
    .refine(
      (asked) => new Set(asked.map(({ id }) => id)).size === asked.length,
      'Every frame can only be changed once.',
    ),
});
/** So many frames are told of at once: somebody else's request does not wait behind thousands. */
const MeasuredOfSchema = z.object({ frameIds: z.array(z.uuid()).max(500) });
const TakeFileSchema = z.object({ sheets: z.enum(['here', 'file']).optional() });
const TakeSeriesSchema = z.object({ version: z.int32().positive(), series: SeriesSchema });
const RewriteSchema = z.object({ originalId: z.uuid(), rewriting: RewritingSchema });

/** Thousands of frames are given back at once, with all that was set of them, and words can differ on hundreds of pictures. */
const large = { most: '16mb' } as const;
const what = 'This project';

export function projects(services: Services): Resource {
  const { db, planner } = services;
  const routes = new Resource('/projects', 'Projects');
  const opened = async (id: string) => orNotFound(await openProject(db, id), what);

  routes.get('', { does: 'Lists all projects.', answers: z.array(ProjectSchema) }, () => listedProjects(services));

  routes.post(
    '',
    { does: 'Makes a project.', takes: NamedSchema, answers: OpenProjectSchema, status: 201 },
    async ({ body }) => opened(await addProject(db, body.name)),
  );

  routes.post(
    '/file',
    {
      does: 'Takes a project in from a file. Where sheets say something else here, it answers 409 until it is said whose hold.',
      query: TakeFileSchema,
      file: true,
      answers: ImportedProjectSchema,
      status: 201,
    },
    ({ query, request, leaving }) =>
      uploadedFile(
        request,
        (stream) => receiveProject(services, stream, query.sheets ?? null, leaving),
        'project file',
      ),
  );

  routes.get(
    '/:id/file',
    { does: 'The project as a file, with the bytes of its pictures.', sends: ['application/zip'] },
    async ({ id }, response) => {
      const { file, archive } = await exportProject(services, id);
      response.attachment(`${fileNameWord(file.name) || 'project'}.zip`);
      archive.on('error', (error) => response.destroy(error)).pipe(response);
    },
  );

  routes.get('/:id', { does: 'A project with its originals and frames.', answers: OpenProjectSchema }, ({ id }) =>
    opened(id),
  );

  routes.patch(
    '/:id',
    { does: 'Renames a project.', takes: NamedSchema, answers: OpenProjectSchema },
    async ({ id, body }) => {
      orNotFound(await renameProject(db, id, body.name), what);
      return opened(id);
    },
  );

  routes.patch(
    '/:id/settings',
    {
      does: 'Changes what holds for the whole project. Answers 409 with the project as it is, where that is not of the version named.',
      takes: SettingsSchema,
      ...large,
      answers: OpenProjectSchema,
    },
    ({ id, body }) => changeProjectSettings(services, id, body.version, body.change),
  );

  routes.post('/:id/duplicate', { does: 'Copies a project.', answers: OpenProjectSchema, status: 201 }, ({ id }) =>
    copyProject(services, id),
  );

  routes.post(
    '/:id/next',
    { does: 'Makes a project from one, with all but its pictures.', answers: OpenProjectSchema, status: 201 },
    ({ id }) => beginNext(services, id),
  );

  routes.delete('/:id', { does: 'Puts a project aside.' }, async ({ id }) => {
    orNotFound(await setProjectDeleted(db, id, true), what);
  });

  routes.post('/:id/restore', { does: 'Takes a project back that was put aside.' }, async ({ id }) => {
    await takeProjectBack(services, id);
  });

  routes.post(
    '/:id/originals',
    { does: 'Chooses originals for a project.', takes: ChangeOriginalsSchema, answers: OpenProjectSchema },
    ({ id, body }) => chooseOriginals(services, id, body.add, body.remove),
  );

  routes.post(
    '/:id/series/check',
    {
      does: 'What would be wrong with the rows of a series. Nothing is made.',
      takes: SeriesSchema,
      ...large,
      answers: z.array(RowFindingsSchema),
      changesNothing: true,
    },
    ({ id, body }) => tryRows(services, id, body),
  );

  routes.post(
    '/:id/series',
    {
      does: 'Takes the rows of a series: copies, names, frames and words.',
      takes: TakeSeriesSchema,
      ...large,
      answers: OpenProjectSchema,
    },
    ({ id, body }) => takeRows(services, id, body.version, body.series),
  );

  routes.post(
    '/:id/rewriting',
    {
      does: 'Puts a drawing that says something else in the place of one of its originals.',
      takes: RewriteSchema,
      answers: OpenProjectSchema,
    },
    ({ id, body }) => rewriteOriginal(services, id, body.originalId, body.rewriting),
  );

  routes.post(
    '/:id/frames',
    {
      does: 'Chooses frames for a project. A new frame is composed unless its settings are given; frames that are there stay as they are.',
      takes: ChangeFramesSchema,
      ...large,
      answers: OpenProjectSchema,
    },
    ({ id, body }) => chooseFrames(services, id, body.add, body.remove),
  );

  routes.patch(
    '/:id/frames',
    {
      does: 'Saves how many frames are set, each by itself.',
      takes: SaveFramesSchema,
      ...large,
      answers: z.array(ChangedFrameSchema),
    },
    ({ id, body }) => changeFramesOf(services, id, body.frames),
  );

  routes.get(
    '/:id/measured',
    {
      does: 'What every frame weighs at full size, and what is left of its marks where it is shown small. What is being measured comes as null, and what could not be measured with the reason.',
      answers: z.array(MeasuredSchema),
    },
    async ({ id }) => measuredOf(db, await planner.open(), await framesOfProject(db, id)),
  );

  routes.post(
    '/:id/measured',
    {
      does: 'What was measured of some frames, so that a project with thousands is told of piece by piece.',
      takes: MeasuredOfSchema,
      answers: z.array(MeasuredSchema),
      changesNothing: true,
    },
    async ({ id, body }) => measuredOf(db, await planner.open(), await framesOfProject(db, id, body.frameIds)),
  );

  routes.get(
    '/:id/seen',
    {
      does: 'What was seen in every original; of those that are still to be looked at, nothing.',
      answers: z.array(SeenSchema),
    },
    async ({ id }) => seenOf(services, orNotFound(await originalsOf(db, id), what)),
  );

  return routes;
}
