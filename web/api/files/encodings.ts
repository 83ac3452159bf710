import {
  type Chroma,
  type Colours,
  type ImageFormat,
  type Trial,
  TrialSchema,
  type WeighedWay,
  WeighedWaySchema,
  type Weight,
} from '@inkwell/core/model';
import { type QueryClient, useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { z } from 'zod';
import { api, ask, tell } from '../client.ts';

/** One encoding of a frame's picture that somebody wants to see. */
export interface Encoding {
  format: ImageFormat;
  colours: Colours;
  chroma: Chroma | 'measured';
  /** Left aside where the format has none. */
  quality: number;
}

/** What an encoding is of: a frame as the server has it, and which of its files. */
export interface EncodingSubject {
  frameId: string;
  planHash: string;
  /** In reading order, from 0. */
  piece: number;
}

const query = ({ planHash, piece }: EncodingSubject, { format, colours, chroma, quality }: Encoding) =>
  new URLSearchParams({ plan: planHash, piece: String(piece), format, colours, chroma, quality: String(quality) });

/** The uncompressed picture that every encoding is compared with. */
export const uncompressedUrl = ({ frameId, planHash, piece }: EncodingSubject) =>
  `${api}/frames/${frameId}/uncompressed?plan=${planHash}&piece=${piece}`;

/** The very bytes of an encoding. */
export const encodedUrl = (subject: EncodingSubject, encoding: Encoding) =>
  `${api}/frames/${subject.frameId}/trial/file?${query(subject, encoding)}`;

/** What an encoding weighs and, where it is wanted, how similar it is. @throws ApiError */
export const tryEncoding = (subject: EncodingSubject, encoding: Encoding, similarity: boolean): Promise<Trial> =>
  ask(
    TrialSchema,
    `/frames/${subject.frameId}/trial?${query(subject, encoding)}&similarity=${similarity ? 'yes' : 'no'}`,
  );

/** Says of a query that somebody waits for it, so that what is only prepared gives way. */
const isWaitedFor = { isWaitedFor: true };
const waitedFor = (client: QueryClient) =>
  client.isFetching({ predicate: ({ meta }) => meta?.isWaitedFor === true }) > 0;

/** Comes back once no encoding is on its way that somebody waits for. */
export async function givenWay(client: QueryClient): Promise<void> {
  if (!waitedFor(client)) return;
  await new Promise<void>((resolve) => {
    const stop = client.getQueryCache().subscribe(() => {
      if (waitedFor(client)) return;
      stop();
      resolve();
    });
  });
}

/** One encoding as it was measured: its bytes at once, its similarity a moment later. */
export function useTrial(
  subject: EncodingSubject | null,
  encoding: Encoding | null,
): { data: Trial | null; error: unknown } {
  const asked = (similarity: boolean) => ({
    queryKey: ['trial', subject, encoding, similarity],
    queryFn: () => tryEncoding(subject as EncodingSubject, encoding as Encoding, similarity),
    enabled: subject !== null && encoding !== null,
    staleTime: Number.POSITIVE_INFINITY,
    meta: isWaitedFor,
  });
  const bytes = useQuery(asked(false));
  const whole = useQuery({ ...asked(true), enabled: bytes.data !== undefined });
  return { data: whole.data ?? bytes.data ?? null, error: bytes.error ?? whole.error };
}

export type MeasuredWay = WeighedWay & { weight: Weight };
export const isMeasured = (way: WeighedWay): way is MeasuredWay => way.weight !== null;

const pollMs = 900;

const isPending = ({ weight, failure }: WeighedWay) => weight === null && failure === null;

/**
 * Ways out of too heavy a file, or the formats that a frame's place takes: they are measured because somebody looks at them, and
 * asked again while some are.
 */
export function useWays(
  { frameId, planHash }: { frameId: string; planHash: string | null },
  about: 'ways' | 'formats',
  wanted: boolean,
) {
  const isAsked = wanted && planHash !== null;
  useEffect(() => {
    // Where this does not arrive, the answers say so.
    if (isAsked)
      tell(`/frames/${frameId}/ways`, { method: 'POST', body: { plan: planHash, about } }).catch(() => undefined);
  }, [isAsked, frameId, planHash, about]);
  return useQuery({
    queryKey: ['ways', frameId, planHash, about],
    queryFn: () => ask(z.array(WeighedWaySchema), `/frames/${frameId}/ways?plan=${planHash}&about=${about}`),
    enabled: isAsked,
    refetchInterval: ({ state }) => (state.data?.some(isPending) ? pollMs : false),
  });
}
