import { AskedSurvivalSchema, type LearnedUpload, LearnedUploadSchema } from '@inkwell/core/model';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { z } from 'zod';
import { ask, tell } from '../client.ts';

const pollMs = 900;
const learnedKey = ['learnedUploads'];

interface Asked {
  frameId: string;
  /** Null while the server does not have the frame as it is seen. */
  planHash: string | null;
}

/** What is known of how a frame is uploaded best; asked again while that is being found out. */
export function useSurvival({ frameId, planHash }: Asked) {
  return useQuery({
    queryKey: ['survival', frameId, planHash],
    queryFn: () => ask(AskedSurvivalSchema, `/frames/${frameId}/survival?plan=${planHash}`),
    enabled: planHash !== null,
    refetchInterval: ({ state }) => (state.data?.isWorking ? pollMs : false),
  });
}

/** Asks to find it out. */
export function useFindSurvival({ frameId, planHash }: Asked) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => tell(`/frames/${frameId}/survival`, { method: 'POST', body: { plan: planHash } }),
    onSettled: () => client.invalidateQueries({ queryKey: ['survival', frameId, planHash] }),
  });
}

/** The ways to upload that are used for places. */
export const useLearnedUploads = () =>
  useQuery({ queryKey: learnedKey, queryFn: () => ask(z.array(LearnedUploadSchema), '/learned-uploads') });

/** Uses what was found for a frame for all new frames of its place. */
export function useLearnUpload({ frameId, planHash }: Asked) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () =>
      ask(LearnedUploadSchema, '/learned-uploads', { method: 'POST', body: { frameId, plan: planHash } }),
    onSettled: () => client.invalidateQueries({ queryKey: learnedKey }),
  });
}

/** New frames of a place are uploaded as the place says again. */
export function useForgetUpload() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ placeId }: Pick<LearnedUpload, 'placeId'>) =>
      tell(`/learned-uploads/${placeId}`, { method: 'DELETE' }),
    onSettled: () => client.invalidateQueries({ queryKey: learnedKey }),
  });
}
