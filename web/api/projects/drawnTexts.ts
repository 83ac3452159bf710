import { DrawnTextsSchema, OpenProjectSchema, type Original, type Rewriting } from '@inkwell/core/model';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { ask } from '../client.ts';

/** The texts of a drawing that are still text; nothing is asked for other pictures. */
export function useDrawnTexts({ id, format }: Pick<Original, 'id' | 'format'>) {
  return useQuery({
    queryKey: ['drawn-texts', id],
    queryFn: () => ask(DrawnTextsSchema, `/originals/${id}/texts`),
    enabled: format === 'svg',
    staleTime: Number.POSITIVE_INFINITY,
  });
}

/** Replaces texts of a drawing in a project. Gives the id of the drawing that stands in its place then. */
export function useRewriting(projectId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async ({ originalId, rewriting }: { originalId: string; rewriting: Rewriting }) => {
      const projectKey = ['project', projectId];
      const at = (project: { originals: readonly { id: string }[] } | undefined) =>
        project?.originals.findIndex(({ id }) => id === originalId) ?? -1;
      const before = at(client.getQueryData(projectKey));
      const body = { originalId, rewriting };
      const project = await ask(OpenProjectSchema, `/projects/${projectId}/rewriting`, { method: 'POST', body });
      // An answer on its way may be older than this one.
      await client.cancelQueries({ queryKey: projectKey });
      client.setQueryData(projectKey, project);
      for (const key of ['projects', 'originals', 'measured']) void client.invalidateQueries({ queryKey: [key] });
      // It stands where the other one stood.
      return project.originals[before]?.id ?? originalId;
    },
  });
}
