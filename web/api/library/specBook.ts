import {
  type OpenProject,
  type PlaceOfNetwork,
  placesById,
  type SpecSheet,
  SpecSheetSchema,
} from '@inkwell/core/model';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { z } from 'zod';
import { ask } from '../client.ts';

/** Somebody else may change a sheet: after so long the book is asked for again, where a screen shows it anew. */
const staleMs = 15_000;

/** All sheets. @param project has those on which it stays in an older version */
export function useSpecBook(project?: Pick<OpenProject, 'id' | 'pins'>) {
  const isPinned = project !== undefined && Object.keys(project.pins).length > 0;
  return useQuery({
    queryKey: ['spec-book', ...(isPinned ? [project.id, project.pins] : [])],
    queryFn: () => ask(z.array(SpecSheetSchema), `/spec-book${isPinned ? `?project=${project.id}` : ''}`),
    staleTime: staleMs,
  });
}

const none: SpecSheet[] = [];

/** The same by the ids of places. */
export function usePlaces(project?: Pick<OpenProject, 'id' | 'pins'>): Map<string, PlaceOfNetwork> {
  const { data = none } = useSpecBook(project);
  return useMemo(() => placesById(data), [data]);
}
