import type { Change, OpenProject, Original, Project } from '@inkwell/core/model';
import type { QueryClient } from '@tanstack/react-query';

type Rows = readonly { id: string; version: number }[];

/** Whether rows that are known here are older than what was told of them; what is known to be as it is needs no asking. */
export function areStale(
  known: Rows | undefined,
  { rows: told, total = null }: Pick<Change, 'rows' | 'total'>,
): boolean {
  if (!known) return false;
  if (told === null) return total === null || known.reduce((sum, { version }) => sum + version, 0) < total;
  const versions = new Map(known.map(({ id, version }) => [id, version]));
  return told.some(([id, version]) => {
    const here = versions.get(id);
    return version === null ? here !== undefined : here === undefined || here < version;
  });
}

/** What has to be asked for again after a change: the keys of what is known here and is not as it is any more. */
export function staleAfter(client: QueryClient, change: Change): string[][] {
  const { kind, projectId, rows } = change;
  if (kind === 'library') return [['spec-book'], ['place-sets'], ['finishes'], ['letter-styles']];
  if (kind === 'reviews') return [['reviews', projectId ?? '']];
  if (kind === 'finishes') return [['finishes']];
  const project = (id: string | null) => (id === null ? undefined : client.getQueryData<OpenProject>(['project', id]));
  if (kind === 'pictures')
    return [...(project(projectId) ? [['project', projectId ?? '']] : []), ['deliveries', projectId ?? '']];
  if (kind === 'frames') {
    const isStale = areStale(project(projectId)?.frames, change);
    return isStale && projectId !== null
      ? [['project', projectId], ['measured', projectId], ['projects']]
      : [['projects']];
  }
  if (kind === 'originals') {
    const open = client.getQueriesData<OpenProject>({ queryKey: ['project'] });
    const stale = open.filter(([, one]) => isAmong(one?.originals, rows) && areStale(one?.originals, change));
    const isListed = areStale(client.getQueryData<Original[]>(['originals']), change);
    return [...(isListed ? [['originals']] : []), ...stale.map(([key]) => key as string[])];
  }
  const told = (rows ?? []).map(([id]) => id);
  const open = told.filter((id) => {
    const one = project(id);
    return one && areStale([one], { rows: rows?.filter(([row]) => row === id) ?? null });
  });
  const isListed = areStale(client.getQueryData<Project[]>(['projects']), change);
  return [...(isListed ? [['projects']] : []), ...open.map((id) => ['project', id])];
}

const isAmong = (known: Rows | undefined, told: Change['rows']): boolean =>
  told === null || (known ?? []).some(({ id }) => told.some(([row]) => row === id));
