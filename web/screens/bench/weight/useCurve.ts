import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { type EncodingSubject, type Trial, tryEncoding } from '../../../api/encodings.ts';
import { bisecting, type Series } from './series.ts';

/** A point of the curve. */
export interface CurvePoint {
  series: Series;
  quality: number;
  bytes: number;
  similarity: number;
}

const together = 2;

/**
 * The points of the curves of a frame, as they come in: the server measures them one by one. Afterwards every other quality
 * of the frame's own format is encoded as well, so that a hand that drags the quality is answered at once.
 */
export function useCurve(subject: EncodingSubject | null, all: readonly Series[]): CurvePoint[] {
  const client = useQueryClient();
  const [points, setPoints] = useState<CurvePoint[]>([]);
  const asked = subject && JSON.stringify([subject, all]);
  useEffect(() => {
    setPoints([]);
    if (!asked) return;
    const [of, lines] = JSON.parse(asked) as [EncodingSubject, Series[]];
    let gone = false;
    const measure = (series: Series, quality: number, similarity: boolean): Promise<Trial> => {
      const { format, colours, chroma } = series;
      const encoding = { format, colours, chroma, quality };
      return client.fetchQuery({
        queryKey: ['trial', of, encoding, similarity],
        queryFn: () => tryEncoding(of, encoding, similarity),
        staleTime: Number.POSITIVE_INFINITY,
      });
    };
    const own = lines[0];
    const rest = own && own.qualities.length > 1 ? bisecting(5, 95).filter((one) => !own.qualities.includes(one)) : [];
    const work = [
      ...lines.flatMap((series) => series.qualities.map((quality) => ({ series, quality, similarity: true }))),
      ...rest.map((quality) => ({ series: own as Series, quality, similarity: false })),
    ];
    const lane = async () => {
      for (let next = work.shift(); next && !gone; next = work.shift()) {
        const { series, quality, similarity } = next;
        const trial = await measure(series, quality, similarity).catch(() => null);
        // A frame that has changed meanwhile has other curves; they are asked for under its new plan.
        if (!trial) return;
        const { bytes } = trial;
        const seen = trial.similarity?.overall;
        if (!gone && seen !== undefined) {
          setPoints((before) => [...before, { series, quality: trial.quality ?? quality, bytes, similarity: seen }]);
        }
      }
    };
    for (let lanes = 0; lanes < together; lanes += 1) void lane();
    return () => {
      gone = true;
    };
  }, [client, asked]);
  return points;
}
