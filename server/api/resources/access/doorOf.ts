import type { Door, Person } from '@inkwell/core/model';
import type { Request, Response } from 'express';
import type { DoorServices } from '../../../services.ts';
import { listWorkspaces, workspacesOf } from '../../../store/access/workspaces.ts';
import { namedWorkspace } from '../../door/access.ts';
import { sessionOf } from '../../door/sessions.ts';

/** What a page has to know of whoever is here. @param person null where nobody is signed in */
export async function doorOf(
  { whole, access }: DoorServices,
  person: Person | null,
  { request, response }: { request: Request; response: Response },
): Promise<Door> {
  const workspaces = access ? (person ? await workspacesOf(whole, person.id) : []) : await listWorkspaces(whole);
  const named = namedWorkspace(response);
  const within = named === null ? workspaces[0] : workspaces.find(({ id }) => id === named);
  return {
    hasAccounts: access !== null,
    person,
    workspaces,
    workspaceId: within?.id ?? null,
    pageToken: (access && person && sessionOf(request)?.pageToken) ?? null,
  };
}
