import { type SheetFinding, SheetFindingSchema } from '@inkwell/core/model';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { z } from 'zod';
import { ask } from '../client.ts';

const key = ['sheetFindings'];

/** What dry runs have measured against the spec book. */
export const useSheetFindings = () =>
  useQuery({ queryKey: key, queryFn: () => ask(z.array(SheetFindingSchema), '/sheet-findings') });

/** Takes a measured number over, puts it aside, or takes that back. Done as soon as the finding is as it was asked for. */
export function useChangeFinding() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ id, version, state }: Pick<SheetFinding, 'id' | 'version' | 'state'>) =>
      ask(SheetFindingSchema, `/sheet-findings/${id}`, { method: 'PATCH', body: { version, change: { state } } }),
    onSuccess: async (finding) => {
      await client.cancelQueries({ queryKey: key });
      client.setQueryData<SheetFinding[]>(key, (all) => all?.map((one) => (one.id === finding.id ? finding : one)));
    },
    onSettled: () => {
      // Frames follow from the numbers of their places.
      for (const queryKey of [key, ['spec-book'], ['measured']]) void client.invalidateQueries({ queryKey });
    },
  });
}
