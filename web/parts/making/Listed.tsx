import type { UseQueryResult } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { FailureLine, Skeleton } from '../States.tsx';

/** Where a list stands: why it could not be shown, its shape while it comes, that there is nothing in it yet, or the list. */
export function Listed<One>(props: {
  query: UseQueryResult<One[]>;
  none: string;
  children: (all: One[]) => ReactNode;
}) {
  const { query, none, children } = props;
  const { data, error, refetch } = query;
  if (!data) return error ? <FailureLine error={error} again={() => void refetch()} /> : <Skeleton height={90} />;
  return data.length === 0 ? <p className="quiet">{none}</p> : children(data);
}
