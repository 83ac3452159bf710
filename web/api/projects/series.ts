import { type OpenProject, OpenProjectSchema, pairKey, RowFindingsSchema, type Series } from '@inkwell/core/model';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { z } from 'zod';
import { ask } from '../client.ts';
import { renameOriginal } from '../library/originals.ts';
import { saveProject, useChoosing } from './projects.ts';

/** What would be wrong with each row of a series; nothing is made. @param series null where there is none yet */
export function useRowFindings({ id, version }: OpenProject, series: Series | null) {
  return useQuery({
    queryKey: ['row-findings', id, version, series],
    queryFn: () => ask(z.array(RowFindingsSchema), `/projects/${id}/series/check`, { method: 'POST', body: series }),
    enabled: series !== null,
  });
}

/** Takes a series into a project, and takes it back. */
export function useTakeSeries(before: OpenProject) {
  const client = useQueryClient();
  const choosing = useChoosing(before.id);
  const heard = (project: OpenProject) => {
    client.setQueryData(['project', project.id], project);
    return Promise.all(
      ['projects', 'originals', 'measured', 'seen'].map((key) => client.invalidateQueries({ queryKey: [key] })),
    );
  };
  const take = useMutation({
    mutationFn: (series: Series) =>
      ask(OpenProjectSchema, `/projects/${before.id}/series`, {
        method: 'POST',
        body: { version: before.version, series },
      }),
    onSuccess: heard,
    // Changed elsewhere, it is made on what is there now the next time.
    onError: () => client.invalidateQueries({ queryKey: ['project', before.id] }),
  });
  const takeBack = async (after: OpenProject) => {
    const there = {
      originals: new Set(before.originals.map(({ id }) => id)),
      frames: new Set(before.frames.map(pairKey)),
    };
    await choosing.frames.mutateAsync({ remove: after.frames.filter((frame) => !there.frames.has(pairKey(frame))) });
    await choosing.originals.mutateAsync({
      remove: after.originals.flatMap(({ id }) => (there.originals.has(id) ? [] : [id])),
    });
    const names = new Map(after.originals.map(({ id, name }) => [id, name]));
    for (const { id, name } of before.originals) {
      if (names.has(id) && names.get(id) !== name) await renameOriginal(id, name);
    }
    const saved = await saveProject(before.id, after.version, { lettering: before.lettering });
    await heard('done' in saved ? saved.done : saved.elsewhere);
  };
  return { take, takeBack };
}
