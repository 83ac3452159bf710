import {
  DetailKeptSchema,
  FinishFiguresSchema,
  type FrameSettings,
  type OpenProject,
  OpenProjectSchema,
  ProjectSchema,
  type ProjectSettings,
  WeightSchema,
} from '@inkwell/core/model';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { z } from 'zod';
import { ask, type Saved, save, tell } from './client.ts';

export function useProjects() {
  return useQuery({ queryKey: ['projects'], queryFn: () => ask(z.array(ProjectSchema), '/projects') });
}

export function useProject(id: string) {
  return useQuery({ queryKey: ['project', id], queryFn: () => ask(OpenProjectSchema, `/projects/${id}`) });
}

/** Saves what is set for a project, changed on top of `version`. @throws ApiError for everything but a conflict */
export const saveProject = (
  id: string,
  version: number,
  change: Partial<ProjectSettings>,
): Promise<Saved<OpenProject>> => save(OpenProjectSchema, `/projects/${id}/settings`, version, change);

export function useProjectActions() {
  const client = useQueryClient();
  const onSuccess = () =>
    Promise.all(['projects', 'project'].map((key) => client.invalidateQueries({ queryKey: [key] })));
  return {
    add: useMutation({
      mutationFn: (name: string) => ask(OpenProjectSchema, '/projects', { method: 'POST', body: { name } }),
      onSuccess,
    }),
    rename: useMutation({
      mutationFn: ({ id, name }: { id: string; name: string }) =>
        ask(OpenProjectSchema, `/projects/${id}`, { method: 'PATCH', body: { name } }),
      onSuccess,
    }),
    duplicate: useMutation({
      mutationFn: (id: string) => ask(OpenProjectSchema, `/projects/${id}/duplicate`, { method: 'POST' }),
      onSuccess,
    }),
    remove: useMutation({ mutationFn: (id: string) => tell(`/projects/${id}`, { method: 'DELETE' }), onSuccess }),
    restore: useMutation({
      mutationFn: (id: string) => tell(`/projects/${id}/restore`, { method: 'POST' }),
      onSuccess,
    }),
  };
}

/** What is chosen for one project: its originals and the places of each. The answer replaces what the page knew. */
export function useChoosing(projectId: string) {
  const client = useQueryClient();
  // One after the other, so that the last answer is the last word.
  const scope = { id: `choosing ${projectId}` };
  const send = (what: 'originals' | 'frames', body: unknown) =>
    ask(OpenProjectSchema, `/projects/${projectId}/${what}`, { method: 'POST', body });
  const onSuccess = (project: z.infer<typeof OpenProjectSchema>) => {
    client.setQueryData(['project', projectId], project);
    return client.invalidateQueries({ queryKey: ['projects'] });
  };
  return {
    originals: useMutation({
      mutationFn: (change: { add?: string[]; remove?: string[] }) => send('originals', change),
      onSuccess,
      scope,
    }),
    frames: useMutation({
      mutationFn: (change: {
        add?: { originalId: string; placeId: string; settings?: FrameSettings }[];
        remove?: string[];
      }) => send('frames', change),
      onSuccess,
      scope,
    }),
  };
}

const MeasuredSchema = z.object({
  frameId: z.uuid(),
  planHash: z.string(),
  /** Null while it is being measured. */
  weight: WeightSchema.nullable(),
  detail: z.array(DetailKeptSchema).nullable(),
  /** Only a finished frame has figures. */
  isFinished: z.boolean(),
  figures: FinishFiguresSchema.nullable(),
});
/** What was measured of a frame. */
export type Measured = z.infer<typeof MeasuredSchema>;

const measuringPollMs = 700;

/** What was measured of the frames of a project; asked again while something is still being measured. */
export function useMeasured(projectId: string) {
  return useQuery({
    queryKey: ['measured', projectId],
    queryFn: () => ask(z.array(MeasuredSchema), `/projects/${projectId}/measured`),
    refetchInterval: ({ state }) =>
      state.data?.some(
        ({ weight, detail, isFinished, figures }) =>
          weight === null || detail === null || (isFinished && figures === null),
      )
        ? measuringPollMs
        : false,
  });
}
