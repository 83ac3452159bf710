import {
  type Frame,
  type FrameSettings,
  type OpenProject,
  OpenProjectSchema,
  ProjectSchema,
  type ProjectSettings,
  pairKey,
} from '@inkwell/core/model';
import { useMutation, useMutationState, useQuery, useQueryClient } from '@tanstack/react-query';
import { z } from 'zod';
import { ask, type Saved, save, tell } from '../client.ts';

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
    next: useMutation({
      mutationFn: (id: string) => ask(OpenProjectSchema, `/projects/${id}/next`, { method: 'POST' }),
      onSuccess,
    }),
    remove: useMutation({ mutationFn: (id: string) => tell(`/projects/${id}`, { method: 'DELETE' }), onSuccess }),
    restore: useMutation({
      mutationFn: (id: string) => tell(`/projects/${id}/restore`, { method: 'POST' }),
      onSuccess,
    }),
  };
}

/** A picture at a place. */
type Pair = Pick<Frame, 'originalId' | 'placeId'>;
/** What is asked of the frames of a project: pairs to add, as they are given or composed, and pairs to take out. */
interface FramesChange {
  add?: (Pair & { settings?: FrameSettings })[];
  remove?: Pair[];
}
/** What is asked of a project's originals, by their ids. */
interface OriginalsChange {
  add?: string[];
  remove?: string[];
}

const choosingKey = (projectId: string, what: 'originals' | 'frames') => ['choosing', projectId, what];

/**
 * What is chosen for one project: its originals and the places of each. The answer replaces what the page knew.
 * Changes are sent one after the other, each told by what the one before left: a place that is ticked and unticked at
 * once is unticked. Each gives back the frames that it took out.
 */
export function useChoosing(projectId: string) {
  const client = useQueryClient();
  const projectKey = ['project', projectId];
  const scope = { id: `choosing ${projectId}` };
  const framesNow = () => client.getQueryData<OpenProject>(projectKey)?.frames ?? [];
  const send = async (what: 'originals' | 'frames', body: unknown) => {
    const project = await ask(OpenProjectSchema, `/projects/${projectId}/${what}`, { method: 'POST', body });
    // An answer on its way may be older than this one.
    await client.cancelQueries({ queryKey: projectKey });
    client.setQueryData(projectKey, project);
    void client.invalidateQueries({ queryKey: ['projects'] });
  };
  return {
    originals: useMutation({
      mutationKey: choosingKey(projectId, 'originals'),
      mutationFn: async ({ add = [], remove = [] }: OriginalsChange) => {
        const gone = framesNow().filter(({ originalId }) => remove.includes(originalId));
        await send('originals', { add, remove });
        return gone;
      },
      scope,
    }),
    frames: useMutation({
      mutationKey: choosingKey(projectId, 'frames'),
      mutationFn: async ({ add = [], remove = [] }: FramesChange) => {
        const keys = new Set(remove.map(pairKey));
        const gone = framesNow().filter((frame) => keys.has(pairKey(frame)));
        await send('frames', { add, remove: gone.map(({ id }) => id) });
        return gone;
      },
      scope,
    }),
  };
}

/** What was asked of a project's originals and frames and has not come back from the server yet, the newest last. */
export function useAsked(projectId: string): { originals: OriginalsChange[]; frames: FramesChange[] } {
  const originals = useMutationState({
    filters: { mutationKey: choosingKey(projectId, 'originals'), status: 'pending' },
    select: ({ state }) => state.variables as OriginalsChange,
  });
  const frames = useMutationState({
    filters: { mutationKey: choosingKey(projectId, 'frames'), status: 'pending' },
    select: ({ state }) => state.variables as FramesChange,
  });
  return { originals, frames };
}
