import {
  MadeReviewSchema,
  type NewAnswer,
  type NewReview,
  type OpenReview,
  OpenReviewSchema,
  ReviewSchema,
} from '@inkwell/core/model';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { z } from 'zod';
import { ask, askFile, tell } from '../client.ts';

/** The review links of a project, and what can be done with them. */
export function useReviews(projectId: string) {
  const client = useQueryClient();
  const queryKey = ['reviews', projectId];
  const onSuccess = () => client.invalidateQueries({ queryKey });
  return {
    query: useQuery({ queryKey, queryFn: () => ask(z.array(ReviewSchema), `/reviews?projectId=${projectId}`) }),
    make: useMutation({
      mutationFn: (body: NewReview) =>
        ask(MadeReviewSchema, '/reviews', { method: 'POST', body: { ...body, projectId } }),
      onSuccess,
    }),
    withdraw: useMutation({ mutationFn: (id: string) => tell(`/reviews/${id}`, { method: 'DELETE' }), onSuccess }),
  };
}

/** A link lets in by what it says. */
const bySecret = (secret: string) => ({ headers: { 'X-Inkwell-Review': secret } });
const openedKey = (secret: string) => ['opened review', secret];

/** What a review link opens, for whoever has it. */
export function useOpenReview(secret: string) {
  const client = useQueryClient();
  return {
    query: useQuery({
      queryKey: openedKey(secret),
      queryFn: () => ask(OpenReviewSchema, '/reviews/opened', bySecret(secret)),
    }),
    answer: useMutation({
      mutationFn: ({ id, ...body }: NewAnswer & { id: string }) =>
        tell(`/reviews/opened/frames/${id}`, { method: 'POST', body, ...bySecret(secret) }),
      onSuccess: (_, { id, answer, word = '', planHash }) => {
        const said = { frameId: id, answer, word, planHash, answeredAt: new Date().toISOString() };
        client.setQueryData<OpenReview>(
          openedKey(secret),
          (now) => now && { ...now, frames: now.frames.map((one) => (one.id === id ? { ...one, answer: said } : one)) },
        );
      },
      // What was changed meanwhile is shown as it is now.
      onError: () => client.invalidateQueries({ queryKey: openedKey(secret) }),
    }),
  };
}

/** A picture of a frame that a review link shows: an address of this page alone, as long as it is shown. */
export function useReviewPicture(secret: string, id: string, planHash: string, width: number) {
  const { data: picture, isError } = useQuery({
    queryKey: ['review picture', id, planHash, width],
    queryFn: () => askFile(`/reviews/opened/frames/${id}/picture?plan=${planHash}&width=${width}`, bySecret(secret)),
    staleTime: Number.POSITIVE_INFINITY,
    retry: 2,
  });
  const [url, setUrl] = useState<string | null>(null);
  useEffect(() => {
    if (!picture) return;
    const made = URL.createObjectURL(picture);
    setUrl(made);
    return () => URL.revokeObjectURL(made);
  }, [picture]);
  return { url, isError };
}
