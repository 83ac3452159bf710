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
import { api, ask, askWith, tell, tellWith } from '../client.ts';

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

const bySecret = (secret: string) => ({ 'X-Inkwell-Review': secret });
const openedKey = (secret: string) => ['opened review', secret];

/** What a review link opens, for whoever has it. */
export function useOpenReview(secret: string) {
  const client = useQueryClient();
  return {
    query: useQuery({
      queryKey: openedKey(secret),
      queryFn: () => askWith(OpenReviewSchema, '/reviews/opened', bySecret(secret)),
    }),
    answer: useMutation({
      mutationFn: ({ id, ...body }: NewAnswer & { id: string }) =>
        tellWith(`/reviews/opened/frames/${id}`, bySecret(secret), body),
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
      const address = `${api}/reviews/opened/frames/${id}/picture?plan=${planHash}&width=${width}`;
      const response = await fetch(address, { headers: bySecret(secret) });
      if (!response.ok) throw new Error(`The picture was answered with ${response.status}.`);
      return URL.createObjectURL(await response.blob());
    },
    staleTime: Number.POSITIVE_INFINITY,
    retry: 2,
  });
