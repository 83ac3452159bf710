import { type PlaceOfNetwork, placesById, type SpecSheet, SpecSheetSchema } from '@inkwell/core/model';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { z } from 'zod';
import { ask } from '../client.ts';

/** All sheets. They change only with the program, so they are asked for once. */
export function useSpecBook() {
  return useQuery({
    queryKey: ['spec-book'],
    queryFn: () => ask(z.array(SpecSheetSchema), '/spec-book'),
    staleTime: Number.POSITIVE_INFINITY,
  });
}

const none: SpecSheet[] = [];

export function usePlaces(): Map<string, PlaceOfNetwork> {
  const { data = none } = useSpecBook();
  return useMemo(() => placesById(data), [data]);
}
