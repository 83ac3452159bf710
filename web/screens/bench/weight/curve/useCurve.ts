import type { Trial } from '@inkwell/core/model';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useState } from 'react';
import { type EncodingSubject, givenWay, tryEncoding } from '../../../../api/files/encodings.ts';
import { bisecting, type Series } from './series.ts';

/** A point of the curve. */
export interface CurvePoint {
  series: Series;
  quality: number;
  bytes: number;
  similarity: number;
}

export interface MeasuredCurve {
  points: CurvePoint[];
  /** Why no more points come; null while they do, and when all are there. */
  error: unknown;
  again: () => void;
}

const together = 2;

/**
 * The points of the curves of a frame, as they come in: the server measures them one by one. Afterwards every other quality
 * of the frame's own format is encoded as well, so that a hand that drags the quality is answered at once.
 */
export function useCurve(subject: EncodingSubject | null, all: readonly Series[]): MeasuredCurve {
  const client = useQueryClient();
  const [points, setPoints] = useState<CurvePoint[]>([]);
  const [error, setError] = useState<unknown>(null);
  const [round, setRound] = useState(0);
  const asked = subject && JSON.stringify([subject, all]);
  useEffect(() => {
    setPoints([]);
    setError(null);
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
        // What a hand asks for comes first.
        await givenWay(client);
        if (gone) return;
        const trial = await measure(series, quality, similarity);
        const seen = trial.similarity?.overall;
        if (gone || seen === undefined) continue;
        const point = { series, quality: trial.quality ?? quality, bytes: trial.bytes, similarity: seen };
        setPoints((before) => [...before, point]);
      }
    };
    for (let lanes = 0; lanes < together; lanes += 1) {
      lane().catch((reason: unknown) => {
        work.length = 0;
        // A frame that has changed meanwhile has other curves; they are asked for under its new plan.
        if (!gone) setError(reason);
      });
    }
    return () => {
      gone = true;
    };
  }, [client, asked, round]);
  const again = useCallback(() => setRound((before) => before + 1), []);
  return { points, error, again };
}
