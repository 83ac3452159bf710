import { type ImportedProject, ImportedProjectSchema } from '@inkwell/core/model';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { z } from 'zod';
import { ApiError, api, sendFile } from '../client.ts';

/** Where a project is got as a file. */
export const projectFileUrl = (id: string): string => `${api}/projects/${id}/file`;

const ConflictsSchema = z.object({ conflicts: z.array(z.object({ name: z.string(), places: z.array(z.string()) })) });
/** A sheet that says something else here than in a project file, and the places that are otherwise. */
export type SheetConflict = z.infer<typeof ConflictsSchema>['conflicts'][number];

/** Whose sheets the frames of a project file follow. */
export type SheetsOf = 'here' | 'file';

/** What came of a project file: it was taken, or somebody has to choose first. */
export type TakenFile = ImportedProject | { conflicts: SheetConflict[] };

/** Takes a project in from a file. @throws ApiError where it cannot be taken */
export function useProjectFile() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async ({ file, sheets }: { file: File; sheets: SheetsOf | null }): Promise<TakenFile> => {
      try {
        return await sendFile(ImportedProjectSchema, `/projects/file${sheets ? `?sheets=${sheets}` : ''}`, file);
      } catch (error) {
        const asked =
          error instanceof ApiError && error.status === 409 ? ConflictsSchema.safeParse(error.details) : null;
        if (asked?.success) return asked.data;
        throw error;
      }
    },
    onSuccess: () => client.invalidateQueries(),
  });
}
