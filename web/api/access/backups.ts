import { BackupsSchema } from '@inkwell/core/model';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { ask, tell } from '../client.ts';
import { useWorkspace } from './workspaces.ts';

const backupsKey = ['backups'];
const oftenMs = 5000;

/** Whether whoever is here looks after backups: an owner of the first workspace does, for all. */
export function useIsKeeper(): boolean {
  const workspace = useWorkspace();
  return workspace?.role === 'owner' && workspace.isFirst;
}

/** Which backups there are, and when more are made. Asked for by nobody but who looks after them. */
export function useBackups() {
  const client = useQueryClient();
  const isKeeper = useIsKeeper();
  return {
    query: useQuery({
      queryKey: backupsKey,
      queryFn: () => ask(BackupsSchema, '/backups'),
      enabled: isKeeper,
      refetchInterval: oftenMs,
    }),
    make: useMutation({
      mutationFn: () => tell('/backups', { method: 'POST' }),
      onSuccess: () => client.invalidateQueries({ queryKey: backupsKey }),
    }),
  };
}
