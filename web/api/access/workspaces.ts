import { type Door, mayAs, type Role, type Workspace } from '@inkwell/core/model';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { z } from 'zod';
import { ask, pageBase, tell } from '../client.ts';
import { doorKey, useDoor } from './door.ts';
import { keepWorkspace, lastWorkspace } from './keptHere.ts';

/** Where the pages of a workspace begin. */
export const workspaceBase = ({ id }: Pick<Workspace, 'id'>): string => `/in/${id}`;

/** The workspace that this page is in; null as long as that is not known, and where whoever is here is not in it. */
export function useWorkspace(): Workspace | null {
  const { data: door } = useDoor();
  return door?.workspaces.find(({ id }) => id === door.workspaceId) ?? null;
}

/** Whether whoever is here may do what takes a role. */
export function useMay(needed: Role): boolean {
  const workspace = useWorkspace();
  return workspace !== null && mayAs(workspace.role, needed);
}

/**
 * Sees to it that the address of a page names its workspace where there are accounts, so that it leads others to the same when it is handed on.
 * Whoever comes without one is led to the workspace that they were in last.
 *
 * @returns whether this page is being left for that
 */
export function settleAddress({ hasAccounts, person, workspaces, workspaceId }: Door): boolean {
  if (!hasAccounts || !person) return false;
  if (pageBase !== '') {
    if (workspaceId !== null) keepWorkspace(workspaceId);
    return false;
  }
  const last = lastWorkspace();
  const to = workspaces.find(({ id }) => id === last) ?? workspaces[0];
  if (!to) return false;
  const { pathname, search, hash } = window.location;
  window.location.replace(`${workspaceBase(to)}${pathname}${search}${hash}`);
  return true;
}

/** What can be done with workspaces. */
export function useWorkspaces() {
  const client = useQueryClient();
  return {
    make: useMutation({
      mutationFn: (name: string) =>
        ask(z.object({ workspaceId: z.uuid() }), '/workspaces', { method: 'POST', body: { name } }),
      onSuccess: ({ workspaceId: id }) => window.location.assign(workspaceBase({ id })),
    }),
    rename: useMutation({
      mutationFn: (name: string) => tell('/workspaces', { method: 'PATCH', body: { name } }),
      onSuccess: () => client.invalidateQueries({ queryKey: doorKey }),
    }),
    join: useMutation({
      mutationFn: (secret: string) =>
        ask(z.object({ workspaceId: z.uuid() }), '/door/join', { method: 'POST', body: { secret } }),
      onSuccess: ({ workspaceId: id }) => window.location.assign(workspaceBase({ id })),
    }),
  };
}
