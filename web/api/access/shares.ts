import { AllSharesSchema, OwnSharesSchema, type Share } from '@inkwell/core/model';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { ask, tell } from '../client.ts';
import { useMay } from './workspaces.ts';

const ownKey = ['shares', 'own'];
const allKey = ['shares', 'all'];
/** Where it is looked at, and where it only warns. */
const oftenMs = 5000;
const seldomMs = 30_000;

/** What whoever is here, and the workspace, may use and use. @param isLookedAt whether that is what the screen is about */
export const useOwnShares = (isLookedAt = false) =>
  useQuery({
    queryKey: ownKey,
    queryFn: () => ask(OwnSharesSchema, '/shares'),
    refetchInterval: isLookedAt ? oftenMs : seldomMs,
  });

/** What everybody here may use, and all workspaces, for whoever sets that. */
export function useAllShares() {
  const client = useQueryClient();
  const isOwner = useMay('owner');
  return {
    query: useQuery({
      queryKey: allKey,
      queryFn: () => ask(AllSharesSchema, '/shares/all'),
      refetchInterval: oftenMs,
      enabled: isOwner,
    }),
    change: useMutation({
      mutationFn: ({ of, id, share }: { of: 'people' | 'workspaces'; id: string; share: Share }) =>
        tell(`/shares/${of}/${id}`, { method: 'PATCH', body: share }),
      onSuccess: () => client.invalidateQueries({ queryKey: ['shares'] }),
    }),
  };
}
