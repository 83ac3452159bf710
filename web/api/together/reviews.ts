import {
  MadeReviewSchema,
  type NewAnswer,
  type NewReview,
  type OpenReview,
  OpenReviewSchema,
  ReviewSchema,
} from '@inkwell/core/model';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
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

/** A picture of a frame that a review link shows, as an address of this page alone. */
export const useReviewPicture = (secret: string, id: string, planHash: string, width: number) =>
  useQuery({
    queryKey: ['review picture', id, planHash, width],
    queryFn: async () => {
      const address = `/reviews/opened/frames/${id}/picture?plan=${planHash}&width=${width}`;
      return URL.createObjectURL(await askFile(address, bySecret(secret)));
    },
    staleTime: Number.POSITIVE_INFINITY,
    retry: 2,
  });
